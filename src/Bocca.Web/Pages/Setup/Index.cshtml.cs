using System.Text.Json;
using Bocca.Core.Buzz;
using Bocca.Core.Embouchure;
using Bocca.Core.Health;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>Where the marks of a placement were put.</summary>
public enum PlacementSource
{
    Camera,
    Photo,
    Drawing,
}

/// <summary>Marks as sent by the page. No picture is among them: it never leaves the browser.</summary>
public sealed record SentMarks(FrontMarks Front, SideMarks? Side, double RimMm, PlacementSource Source);

/// <summary>A placement as measured, before it is kept.</summary>
public sealed record MeasuredView(Placement Placement, PlacementVerdict Verdict, IReadOnlyList<(bool Inside, string Sentence)> Side);

/// <summary>The Set-up stop's placement: marks on a picture become a share, an offset and a tilt.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method);

    private const int PastPlacements = 24;

    /// <summary>The pupil's placements, the newest first.</summary>
    public IReadOnlyList<Entry> Past { get; private set; } = [];

    /// <summary>The newest of them as it was marked; null for none.</summary>
    public PlacementPayload? Last { get; private set; }

    /// <summary>Each of them with the takes kept until the next one, the newest first.</summary>
    public IReadOnlyList<PlacedTakes> Placed { get; private set; } = [];

    public PlacementOutcome? Outcome => Placed.Count == 0 ? null : PlacementOutcome.Of(Placed);

    public double RimMm { get; private set; }

    public PlacementSpan? Span { get; private set; }

    /// <summary>The newest marks as the page's script reads them; null for none.</summary>
    public string? Marks => Last is null ? null : JsonSerializer.Serialize(Last.Marks, JsonSerializerOptions.Web);

    public async Task OnGetAsync()
    {
        if (Pupil is null)
            return;
        Past = await PastAsync();
        Last = (await Journal.ShowAsync(SetupStop.Placements, Journal.Of(Pupil.Id, SetupStop.Placements)))?.Payload;
        RimMm = Last?.RimMm ?? Mouthpiece.Of(Pupil.Instrument.Family).RimMm;
        Span = PlacementSpan.Of(Pupil.Instrument.Family, Approach, [.. Past.Select(entry => SetupStop.Above.Of(entry) ?? 0)]);
        Placed = await PlacedAsync();
    }

    /// <summary>The drawn face: where careful marks lie on it.</summary>
    public IActionResult OnGetFace(double share, double offset, double tilt, double rim) =>
        Pupil is null ? NotFound() : new JsonResult(new DrawnFace(share, offset, tilt, rim).Bounded().Marks());

    /// <summary>Measures marks without keeping them.</summary>
    public Task<IActionResult> OnPostMeasureAsync([FromBody] SentMarks sent) =>
        WithMarksAsync(
            sent,
            earlier =>
            {
                var placement = Placement.Measure(sent.Front, sent.RimMm);
                var verdict = PlacementJudge.Judge(placement, Pupil!.Instrument.Family, sent.RimMm, Approach, earlier);
                var side = FromTheSide(sent);
                return Task.FromResult<IActionResult>(Partial("_Measured", new MeasuredView(placement, verdict, side)));
            }
        );

    /// <summary>What the picture from the side says; empty without one.</summary>
    private IReadOnlyList<(bool Inside, string Sentence)> FromTheSide(SentMarks sent) =>
        sent.Side is null ? [] : SideView.Measure(sent.Side).Judge(Approach, Pupil!.Instrument.Family);

    /// <summary>Keeps a placement: the marks and what they came to.</summary>
    public Task<IActionResult> OnPostKeepAsync([FromBody] SentMarks sent) =>
        WithMarksAsync(
            sent,
            async earlier =>
            {
                if (Health.Refusal(HealthActivity.Playing, Clock.Now) is { } ended)
                    return Refuse(ended);
                var source = Enum.Parse<EntrySource>(sent.Source.ToString());
                var (entry, payload) = SetupStop.Placement(Pupil!, source, sent.Front, sent.RimMm, Approach, earlier, Clock.Now);
                if (FromTheSide(sent) is { Count: > 0 } side)
                    entry.Summary = $"{entry.Summary} {string.Join(' ', side.Select(line => line.Sentence))}";
                await Journal.WriteAsync(SetupStop.Placements, entry, payload, Approach.ToString());
                Tell($"The placement is saved: {100 * SetupStop.Above.Of(entry):0} % above.", "Delete", entry.Id);
                return new OkResult();
            }
        );

    private Task<List<Entry>> PastAsync() =>
        Journal.Of(Pupil!.Id, SetupStop.Placements).Include(entry => entry.Approach).Take(PastPlacements).ToListAsync();

    private async Task<IActionResult> WithMarksAsync(SentMarks? sent, Func<IReadOnlyList<double>, Task<IActionResult>> act)
    {
        if (Pupil is null)
            return NotFound();
        if (sent?.Front?.RingEdge is null || !ModelState.IsValid || !Enum.IsDefined(sent.Source))
            return Refuse("The marks did not arrive whole. Put them once more.");
        return await RefusingAsync(async () =>
            await act([.. Enumerable.Reverse(await PastAsync()).Select(entry => SetupStop.Above.Of(entry) ?? 0)])
        );
    }

    private async Task<IReadOnlyList<PlacedTakes>> PlacedAsync()
    {
        if (Past.Count == 0)
            return [];
        var since = Past[^1].At;
        var takes = await Journal
            .FiguresOf(Pupil!.Id, BuzzFigures.Steadiness)
            .Where(figure => figure.At >= since)
            .Select(figure => new { figure.At, figure.Value })
            .ToListAsync();
        return
        [
            .. Past.Select(
                (entry, i) =>
                    new PlacedTakes(
                        SetupStop.Above.Of(entry) ?? 0,
                        [.. takes.Where(take => take.At >= entry.At && (i == 0 || take.At < Past[i - 1].At)).Select(take => take.Value)]
                    )
            ),
        ];
    }
}
