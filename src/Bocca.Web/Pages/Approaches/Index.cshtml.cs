using Bocca.Core;
using Bocca.Core.Practice;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Approaches;

/// <summary>The points on which good teachers differ, for the room or for one pupil.</summary>
public sealed class IndexModel(Journal journal) : StagePage(journal)
{
    /// <summary>Whether this is one pupil's page; without a pupil in the address it is the room's.</summary>
    public bool OfPupil => PupilId is not null;

    /// <summary>The approach shown.</summary>
    public Approach Shown => OfPupil ? Approach : Room.Approach;

    /// <summary>What holds where a pupil settles nothing.</summary>
    public Approach Under => Pupil!.Preset is { } preset ? Approach.Of(preset) : Room.Approach;

    /// <summary>The points in the order of the path; those of a stop that is not there yet come last and wait for it.</summary>
    public IEnumerable<IGrouping<string, ApproachPoint>> Groups =>
        ApproachPoint.All.GroupBy(point => point.Stop).OrderBy(points => IndexOf(points.Key));

    /// <summary>Whether nothing depends on a stop's points yet.</summary>
    public bool Waits(string stop) => IndexOf(stop) == Stops.All.Count;

    private int IndexOf(string stop) => Stops.All.TakeWhile(known => known.Name != stop).Count();

    public IReadOnlyList<PlacedStep> Steps => LessonPath.Of(Shown, OfPupil ? Pupil!.Instrument.Family : "trumpet");

    /// <summary>What the form is shown from.</summary>
    public string Seen => OfPupil ? $"{Pupil!.Preset} {Pupil.Points}" : $"{Room.Approach}";

    protected override bool IsDoneToPupil => false;

    public void OnGet() { }

    /// <summary>
    /// Keeps what was chosen: the preset, and each point as <c>point.mp.share=a</c>; a pupil's empty choice follows the room.
    /// </summary>
    public async Task<IActionResult> OnPostAsync(string? preset)
    {
        if (!Request.HasFormContentType)
            return Refuse("The choices did not arrive. Send them once more.");
        var chosen = Request
            .Form.Where(field => field.Key.StartsWith("point.", StringComparison.Ordinal) && field.Value.ToString() != "")
            .ToDictionary(field => field.Key["point.".Length..], field => field.Value.ToString());
        if (ChangedSince("The approach", Seen, Since) is { } clash)
            return clash;
        try
        {
            if (OfPupil)
                await KeepForPupilAsync(preset, chosen);
            else
                await KeepForRoomAsync(preset, chosen);
        }
        catch (ArgumentException problem)
        {
            return Refuse(OneLine.Of(problem));
        }

        TempData["Told"] = OfPupil
            ? $"{Pupil!.Name} is taught so from now on. Earlier records keep the approach they were made under."
            : "The room is taught so from now on. Earlier records keep the approach they were made under.";
        return Redirect(OfPupil ? $"/approach/{PupilId}" : "/approach");
    }

    /// <summary>What was chosen otherwise since the form was shown, as names of points.</summary>
    private string Since(string seen)
    {
        var (then, now) = (seen.Split(' '), Seen.Split(' '));
        var points = then.Except(now)
            .Concat(now.Except(then))
            .Select(word => word.Split('=') is [var id, _] ? ApproachPoint.All.FirstOrDefault(point => point.Id == id)?.Name : "the preset")
            .OfType<string>()
            .Distinct()
            .ToList();
        return points.Count == 0 ? "the preset" : string.Join("; ", points);
    }

    private async Task KeepForRoomAsync(string? preset, Dictionary<string, string> chosen)
    {
        var from = Approach.Of(PresetOf(preset));
        // A new preset brings its own points; choices made on the old one's page would hide it.
        var approach = from.Preset == Room.Preset ? from.With(chosen) : from;
        await Db.SavingAsync(async () =>
        {
            var stored = await Db.Rooms.SingleOrDefaultAsync();
            if (stored is null)
                Db.Rooms.Add(stored = new RoomSettings());
            stored.Preset = approach.Preset;
            stored.Points = Approach.Write(approach.Changed);
        });
    }

    private async Task KeepForPupilAsync(string? preset, Dictionary<string, string> chosen)
    {
        ApproachPreset? own = string.IsNullOrEmpty(preset) ? null : PresetOf(preset);
        foreach (var (point, option) in chosen)
            ApproachPoint.Get(point).Option(option);
        await Db.SavingAsync(async () =>
        {
            var stored = await Db.Pupils.FirstAsync(pupil => pupil.Id == PupilId);
            (stored.Preset, stored.Points, stored.Version) = (own, Approach.Write(chosen), Guid.NewGuid());
        });
    }

    private static ApproachPreset PresetOf(string? text) =>
        Enum.TryParse<ApproachPreset>(text, out var preset) && Enum.IsDefined(preset)
            ? preset
            : throw new ArgumentException($"'{text}' is not a preset.");
}
