using Bocca.Core.Slurs;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>Which pairs of partials come, on which tubes, and where the wall is.</summary>
public sealed class MapModel(Journal journal) : StagePage(journal)
{
    public SlurMap? Map { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        var slurs = await PupilSlurs.LoadAsync(Journal, Pupil, Approach, Room);
        Map = SlurMap.Of(slurs.Player, [.. (await slurs.TriesAsync()).SelectMany(take => take.Changes)]);
        return Page();
    }

    /// <summary>The place of a pair on a tube; null where the tube has none inside the range.</summary>
    public SlurPlace? At(string setting, (int Low, int High) pair) =>
        Map!.Places.FirstOrDefault(place => place.Setting == setting && place.Low == pair.Low && place.High == pair.High);

    /// <summary>Where a pair is slurred.</summary>
    public string Address(SlurPlace place) => $"/slurs/{PupilId}?drill={Uri.EscapeDataString($"pair:{place.Setting}:{place.Low}")}";

    public static string KindOf(SlurPlace place) =>
        place.Tried == 0 ? "new"
        : place.IsSafe ? "safe"
        : place.IsWall ? "wall"
        : "open";
}
