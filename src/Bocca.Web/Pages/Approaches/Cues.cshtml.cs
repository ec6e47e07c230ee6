using Bocca.Core.Judging;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Approaches;

/// <summary>A rung as it was typed.</summary>
public sealed record SentRung(string? Id, string? Cue, Pull Pull, string? Drill, double Place);

/// <summary>The ladders of cues: reordered, reworded, added to.</summary>
public sealed class CuesModel(Journal journal) : OwnPage(journal)
{
    [BindProperty(SupportsGet = true, Name = "symptom")]
    public string? SymptomId { get; set; }

    /// <summary>The symptom whose ladder is open; null for the list.</summary>
    public Symptom? Symptom { get; private set; }

    /// <summary>Its rungs as they hold, or as they were typed.</summary>
    public IReadOnlyList<OwnRung> Rungs { get; private set; } = [];

    /// <summary>What came of each rung with this pupil.</summary>
    public CueHistory Tried { get; private set; } = CueHistory.Empty;

    /// <summary>The symptoms that may be changed, and those that are said as they are.</summary>
    public IEnumerable<Symptom> Listed => InForce.Symptoms().All.OrderBy(symptom => symptom.Order).ThenBy(symptom => symptom.Name);

    /// <summary>The drills that a cue may lead to.</summary>
    public IEnumerable<(string Id, string Name)> Drills =>
        SymptomTable
            .Shipped.All.SelectMany(symptom => symptom.Fixes)
            .Select(fix => fix.Drill)
            .OfType<string>()
            .Distinct()
            .Select(drill => (drill, NameOf(drill)))
            .OrderBy(drill => drill.Item2);

    public async Task<IActionResult> OnGetAsync()
    {
        await LoadAsync();
        return SymptomId is not null && Symptom is null ? NotFound() : Page();
    }

    /// <summary>Sets a ladder as it was typed; one that is what holds anyway is taken out.</summary>
    public Task<IActionResult> OnPostAsync([FromForm] List<SentRung>? rungs) =>
        SetAsync(
            () =>
            {
                var symptom = SymptomTable.Shipped.Get(SymptomId ?? "");
                if (rungs is not { Count: > 0 } || !ModelState.IsValid)
                    throw new ArgumentException("The cues did not arrive whole. Send them once more.");
                Rungs =
                [
                    .. rungs
                        .OrderBy(rung => rung.Place)
                        .Select(
                            (rung, at) =>
                                new OwnRung(
                                    rung.Id is { Length: > 0 } id ? id : NewId(rungs, at),
                                    rung.Cue ?? "",
                                    rung.Pull,
                                    Led(rung.Drill)
                                )
                        ),
                ];
                var ladder = OwnLadder.Checked(symptom, Rungs);
                var holds = OwnLadder.Of(Under.Symptoms().Get(symptom.Id));
                return new Dictionary<string, string?>
                {
                    [StoredOwn.OfLadder(symptom.Id)] = ladder.SequenceEqual(holds) ? null : StoredOwn.WriteLadder(ladder),
                };
            },
            LoadAsync
        );

    /// <summary>Takes the own ladder of a symptom out.</summary>
    public Task<IActionResult> OnPostResetAsync() =>
        SetAsync(
            () => new Dictionary<string, string?> { [StoredOwn.OfLadder(SymptomTable.Shipped.Get(SymptomId ?? "").Id)] = null },
            LoadAsync
        );

    public string NameOf(string drill) =>
        drill.Split(':') is [var place, .. var id] && Stops.At(place) is { } stop
            ? id is [var which]
                ? $"{stop.Name}: {stop.DrillName(which) ?? which}"
                : stop.Name
            : drill;

    private string? Led(string? drill) =>
        string.IsNullOrEmpty(drill) ? null
        : Drills.Any(known => known.Id == drill) ? drill
        : throw new ArgumentException($"'{drill}' is no drill that a cue leads to.");

    /// <summary>A name for a new rung that no other has had here.</summary>
    private string NewId(List<SentRung> rungs, int at)
    {
        var used = rungs.Select(rung => rung.Id).ToHashSet();
        return Enumerable
            .Range(1 + at, OwnLadder.MostRungs + rungs.Count)
            .Select(number => $"own-{number}")
            .First(id => !used.Contains(id));
    }

    private async Task LoadAsync()
    {
        Symptom = SymptomId is null ? null : InForce.Symptoms().Find(SymptomId);
        if (Symptom is null)
            return;
        if (Rungs.Count == 0)
            Rungs = OwnLadder.Of(Symptom);
        if (OfPupil)
            Tried = await Journal.CuesAsync(Pupil!.Id);
    }
}
