using Bocca.Core.Breath;
using Bocca.Core.Practice;
using Bocca.Core.Slurs;
using Bocca.Core.Tone;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A page about slurs: who slurs on what, and the tries so far.</summary>
public abstract class SlursPage(BoccaDb db, TimeProvider time) : StagePage(db)
{
    /// <summary>Beats a minute where nobody said otherwise (ours, editable).</summary>
    protected const double UsualTempo = 72;

    private const int TakesThatCount = 200;

    /// <summary>Who slurs; null while nobody is chosen.</summary>
    public SlurPlayer? Player { get; private set; }

    protected TimeProvider Time { get; } = time;

    /// <summary>The same as notes are judged for.</summary>
    protected PlayerSituation Situation { get; private set; } = null!;

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

    protected static double TempoOr(double? tempo) =>
        Math.Clamp(tempo ?? UsualTempo, CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest);

    protected IQueryable<SlurTake> Takes() =>
        Db
            .Slurs.AsNoTracking()
            .Where(take => take.PupilId == Pupil!.Id && take.InstrumentId == Pupil.InstrumentId)
            .OrderByDescending(take => take.RecordedAt)
            .ThenByDescending(take => take.Id);

    /// <summary>The kept takes that count for what comes next.</summary>
    protected Task<List<SlurTake>> KeptAsync() =>
        Takes().Where(take => take.Kept && take.Outcome != Core.Buzz.TakeOutcome.CannotTell).Take(TakesThatCount).ToListAsync();

    private async Task LoadAsync()
    {
        var played = await Db.PlayedAsync(Pupil!, Approach, Room.Conditions.Tuning);
        var passes = await Db.Breaths.AsNoTracking().Where(entry => entry.PupilId == Pupil!.Id).ToListAsync();
        var breath = UsableBreath.From(passes.Select(entry => entry.Pass), Time.GetUtcNow().UtcDateTime);
        Player = SlurPlayer.Of(played.Instrument, Pupil!.Reading, Pupil.Stage, Approach) with
        {
            Hand = played.Hand,
            BreathSeconds = breath?.Seconds ?? SlurPlayer.UsualBreathSeconds,
        };
        Situation = new PlayerSituation(played.Instrument, Pupil.Reading)
        {
            Tuning = Room.Conditions.Tuning,
            Passport = played.Passport,
            Weights = played.Weights,
        };
    }
}
