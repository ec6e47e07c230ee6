using Bocca.Core.Embouchure;
using Bocca.Core.Simulation;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>Marks as sent by the page. No picture is among them: it never leaves the browser.</summary>
public sealed record SentMarks(FrontMarks Front, SideMarks? Side, double RimMm, PlacementSource Source);

/// <summary>A placement as measured, before it is kept.</summary>
public sealed record MeasuredView(Placement Placement, PlacementVerdict Verdict, IReadOnlyList<(bool Inside, string Sentence)> Side);

/// <summary>The Set-up stop's placement: marks on a picture become a share, an offset and a tilt.</summary>
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastPlacements = 24;

    /// <summary>The pupil's placements, the newest first.</summary>
    public IReadOnlyList<PlacementEntry> Past { get; private set; } = [];

    /// <summary>Each of them with the takes kept until the next one, the newest first.</summary>
    public IReadOnlyList<PlacedTakes> Placed { get; private set; } = [];

    public PlacementOutcome? Outcome => Placed.Count == 0 ? null : PlacementOutcome.Of(Placed);

    public double RimMm { get; private set; }

    public PlacementSpan? Span { get; private set; }

    public async Task OnGetAsync()
    {
        if (Pupil is null)
            return;
        Past = await PastAsync();
        RimMm = Past is [var newest, ..] ? newest.RimMm : Mouthpiece.Of(Pupil.Instrument.Family).RimMm;
        Span = PlacementSpan.Of(Pupil.Instrument.Family, Approach, [.. Past.Select(entry => entry.ShareAbove)]);
        Placed = await PlacedAsync();
    }

    /// <summary>The drawn face: where careful marks lie on it.</summary>
    public IActionResult OnGetFace(double share, double offset, double tilt, double rim) =>
        Pupil is null ? NotFound() : new JsonResult(new DrawnFace(share, offset, tilt, rim).Bounded().Marks());

    /// <summary>Measures marks without keeping them.</summary>
    public Task<IActionResult> OnPostMeasureAsync([FromBody] SentMarks sent) =>
        WithMarksAsync(
            sent,
            (placement, earlier) =>
            {
                var verdict = PlacementJudge.Judge(placement, Pupil!.Instrument.Family, sent.RimMm, Approach, earlier);
                return Task.FromResult<IActionResult>(
                    Partial(
                        "_Measured",
                        new MeasuredView(placement, verdict, sent.Side is null ? [] : SideView.Measure(sent.Side).Judge(Approach))
                    )
                );
            }
        );

    /// <summary>Keeps a placement: the marks and what they came to.</summary>
    public Task<IActionResult> OnPostKeepAsync([FromBody] SentMarks sent) =>
        WithMarksAsync(
            sent,
            async (_, earlier) =>
            {
                var entry = PlacementEntry.Of(Pupil!, sent.Source, sent.Front, sent.RimMm, Approach, earlier, time.GetUtcNow().UtcDateTime);
                if (sent.Side is not null)
                    entry.Sentences =
                        $"{entry.Sentences} {string.Join(' ', SideView.Measure(sent.Side).Judge(Approach).Select(line => line.Sentence))}";
                Db.Placements.Add(entry);
                await Db.SaveChangesAsync();
                TempData["Told"] = $"The placement stands in the record: {100 * entry.ShareAbove:0} % above.";
                TempData["UndoAt"] = $"/set-up/{PupilId}?handler=Delete&id={entry.Id}";
                return new OkResult();
            }
        );

    public async Task<IActionResult> OnPostDeleteAsync(int id) =>
        await MarkAsync<PlacementEntry>(id, time.GetUtcNow().UtcDateTime, "The placement is gone.", "Restore") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    public async Task<IActionResult> OnPostRestoreAsync(int id) =>
        await MarkAsync<PlacementEntry>(id, null, "The placement is back.", "Delete") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    private Task<List<PlacementEntry>> PastAsync() =>
        Db
            .Placements.AsNoTracking()
            .Where(entry => entry.PupilId == Pupil!.Id)
            .OrderByDescending(entry => entry.At)
            .Take(PastPlacements)
            .ToListAsync();

    private async Task<IActionResult> WithMarksAsync(SentMarks? sent, Func<Placement, IReadOnlyList<Placement>, Task<IActionResult>> act)
    {
        if (Pupil is null)
            return NotFound();
        if (sent?.Front?.RingEdge is null || !ModelState.IsValid)
            return Refuse("The marks did not arrive whole. Put them once more.");
        try
        {
            var placement = Placement.Measure(sent.Front, sent.RimMm);
            return await act(placement, [.. (await PastAsync()).AsEnumerable().Reverse().Select(entry => entry.Measures)]);
        }
        catch (ArgumentException problem)
        {
            return Refuse(problem.Message);
        }
    }

    private async Task<IReadOnlyList<PlacedTakes>> PlacedAsync()
    {
        if (Past.Count == 0)
            return [];
        var since = Past[^1].At;
        var takes = await Db
            .Takes.AsNoTracking()
            .Where(take => take.PupilId == Pupil!.Id && take.Kept && take.RecordedAt >= since && take.SteadinessCents != null)
            .Select(take => new { take.RecordedAt, take.SteadinessCents })
            .ToListAsync();
        return
        [
            .. Past.Select(
                (entry, i) =>
                    new PlacedTakes(
                        entry.ShareAbove,
                        [
                            .. takes
                                .Where(take => take.RecordedAt >= entry.At && (i == 0 || take.RecordedAt < Past[i - 1].At))
                                .Select(take => take.SteadinessCents!.Value),
                        ]
                    )
            ),
        ];
    }
}
