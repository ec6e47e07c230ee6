using Bocca.Core.Breath;
using Bocca.Core.Judging;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A page about slurs: who slurs on what, and the tries so far.</summary>
public abstract class SlursPage(Journal journal) : TakePage<SlurPayload>(journal)
{
    /// <summary>Beats a minute where nobody said otherwise (ours, editable).</summary>
    protected const double UsualTempo = 72;

    private const int TakesThatCount = 200;

    /// <summary>Who slurs; null while nobody is chosen.</summary>
    public SlurPlayer? Player { get; private set; }

    /// <summary>The same as notes are judged for.</summary>
    protected PlayerSituation Situation { get; private set; } = null!;

    protected override EntryKind<SlurPayload> Kind => SlursStop.Takes;

    public override Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next) =>
        base.OnPageHandlerExecutionAsync(
            context,
            async () =>
            {
                if (Pupil is not null)
                    await LoadAsync();
                return await next();
            }
        );

    protected override Verdict VerdictOf(SlurPayload payload) => payload.Verdict;

    protected override SlurPayload WithVerdict(SlurPayload payload, Verdict verdict) => payload with { Verdict = verdict };

    protected override Task<IActionResult> OnStageAsync(Shown<SlurPayload> take) => Task.FromResult<IActionResult>(NotFound());

    protected override Microsoft.AspNetCore.Mvc.IActionResult Onward(Shown<SlurPayload> take, NextStep next) =>
        RedirectToPage(
            "/Slurs/Index",
            new
            {
                pupilId = Pupil!.Id,
                drill = next.DrillId,
                tempo = take.Entry.Tempo,
            }
        );

    /// <summary>What one breath carries; null while nobody is chosen.</summary>
    public NoteBreath? Breath { get; private set; }

    protected static double TempoOr(double? tempo) =>
        Math.Clamp(tempo ?? UsualTempo, CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest);

    /// <summary>Takes on the present instrument, the newest first.</summary>
    protected IQueryable<Entry> Slurred() => Takes().Where(take => take.InstrumentId == Pupil!.InstrumentId);

    /// <summary>The tries that count for what comes next, with the changes in each; no payload is read for them.</summary>
    protected async Task<IReadOnlyList<(SlurTry Try, IReadOnlyList<SlurMap.Change> Changes)>> TriesAsync()
    {
        var kept = Slurred().Where(take => take.Kept && take.Outcome != Outcome.CannotTell).Take(TakesThatCount);
        var takes = await kept.Select(take => new
            {
                take.Id,
                take.DrillId,
                take.ResultText,
                take.Outcome,
                take.At,
            })
            .ToListAsync();
        var figures = await Db
            .Figures.Where(figure => kept.Select(take => take.Id).Contains(figure.EntryId) && figure.Name == SlurFigures.Change.Name)
            .Select(figure => new
            {
                figure.EntryId,
                figure.Item,
                figure.Value,
                figure.Count,
            })
            .ToListAsync();
        var changes = figures.ToLookup(figure => figure.EntryId);
        return
        [
            .. takes.Select(take =>
            {
                var own = changes[take.Id]
                    .SelectMany(figure => SlurFigures.Changes(figure.Item, figure.Value, figure.Count, take.At))
                    .ToList();
                return (
                    new SlurTry(
                        take.DrillId!,
                        [.. own.Select(change => (change.Low, change.High))],
                        EntryResult.Parse(take.ResultText)[SlursStop.Points] ?? 0,
                        take.Outcome == Outcome.Passed,
                        take.At
                    ),
                    (IReadOnlyList<SlurMap.Change>)own
                );
            }),
        ];
    }

    /// <summary>Minutes that a day's slurs may take (common practice).</summary>
    private const double Minutes = 5;

    /// <summary>The slurs of the day.</summary>
    protected async Task<SlurDay> DayAsync(double tempo, bool tired = false) =>
        SlurDay.Of(Player!, [.. (await TriesAsync()).Select(take => take.Try)], Clock.Now, tempo, Minutes, tired);

    /// <summary>Who slurs what was asked under: on the instrument, at the stage and under the approach of then.</summary>
    protected SlurPlayer PlayerOf(AskedSlur asked, Approach approach) =>
        SlurPlayer.Of(asked.Player.Instrument, asked.Player.Reading, asked.Pupil, approach) with
        {
            Hand = Player!.Hand,
            Met = Player.Met,
            BreathSeconds = Player.BreathSeconds,
        };

    private async Task LoadAsync()
    {
        var played = await Journal.PlayedAsync(Pupil!, Approach, Room.Conditions.Tuning);
        var breath = Breath = await Journal.NoteBreathAsync(Pupil!);
        Player = SlurPlayer.Of(played.Instrument, Pupil!.Reading, Pupil.Stage, Approach) with
        {
            Hand = played.Hand,
            Met = SlurPlayer.TakesOnlyMet(Pupil.Stage, Approach) ? await Journal.MetAsync(Pupil) : null,
            BreathSeconds = breath.Seconds,
        };
        Situation = played.Situation(Pupil.Reading, Room.Tuning);
    }
}
