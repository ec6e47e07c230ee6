using Bocca.Core.Breath;
using Bocca.Core.Judging;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A pupil's slurs: who slurs on what, what one breath carries, and the tries so far.</summary>
public sealed class PupilSlurs
{
    /// <summary>Beats a minute where nobody said otherwise (ours, editable).</summary>
    public const double UsualTempo = 72;

    /// <summary>Minutes that a day's slurs may take (common practice).</summary>
    private const double Minutes = 5;

    private const int TakesThatCount = 200;

    private readonly Journal _journal;
    private readonly Pupil _pupil;

    private PupilSlurs(Journal journal, Pupil pupil, SlurPlayer player, PlayerSituation situation, NoteBreath breath)
    {
        (_journal, _pupil) = (journal, pupil);
        (Player, Situation, Breath) = (player, situation, breath);
    }

    /// <summary>Who slurs.</summary>
    public SlurPlayer Player { get; }

    /// <summary>The same as notes are judged for.</summary>
    public PlayerSituation Situation { get; }

    /// <summary>What one breath carries.</summary>
    public NoteBreath Breath { get; }

    /// <summary>Asks the record.</summary>
    public static async Task<PupilSlurs> LoadAsync(Journal journal, Pupil pupil, Approach approach, RoomSettings room)
    {
        var played = await journal.PlayedAsync(pupil, approach, room.Conditions.Tuning);
        var breath = await journal.NoteBreathAsync(pupil);
        var player = SlurPlayer.Of(played.Instrument, pupil.Reading, pupil.Stage, approach) with
        {
            Hand = played.Hand,
            Met = SlurPlayer.TakesOnlyMet(pupil.Stage, approach) ? await journal.MetAsync(pupil) : null,
            BreathSeconds = breath.Seconds,
        };
        return new PupilSlurs(journal, pupil, player, played.Situation(pupil.Reading, room.Tuning), breath);
    }

    /// <summary>A tempo that was asked for, as far as slurs go at it.</summary>
    public static double TempoOr(double? tempo) => Math.Clamp(tempo ?? UsualTempo, CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest);

    /// <summary>A slur by its id; null where the pupil has none such.</summary>
    public Slur? Find(string? id) => id is null ? null : SlurWriter.Find(Player, id);

    /// <summary>Who slurs what was asked under: on the instrument, at the stage and under the approach of then.</summary>
    public SlurPlayer PlayerOf(AskedSlur asked, Approach approach) =>
        SlurPlayer.Of(asked.Player.Instrument, asked.Player.Reading, asked.Pupil, approach) with
        {
            Hand = Player.Hand,
            Met = Player.Met,
            BreathSeconds = Player.BreathSeconds,
        };

    /// <summary>Takes on the present instrument, the newest first.</summary>
    public IQueryable<Entry> Takes() => _journal.Of(_pupil.Id, SlursStop.Takes).Where(take => take.InstrumentId == _pupil.InstrumentId);

    /// <summary>The slurs of the day.</summary>
    public async Task<SlurDay> DayAsync(double tempo, bool tired = false) =>
        SlurDay.Of(Player, [.. (await TriesAsync()).Select(take => take.Try)], _journal.Clock.Now, tempo, Minutes, tired);

    /// <summary>The tries that count for what comes next, with the changes in each; no payload is read for them.</summary>
    public async Task<IReadOnlyList<(SlurTry Try, IReadOnlyList<SlurMap.Change> Changes)>> TriesAsync()
    {
        var kept = Takes().Where(take => take.Kept && take.Outcome != Outcome.CannotTell).Take(TakesThatCount);
        var takes = await kept.Select(take => new
            {
                take.Id,
                take.DrillId,
                take.ResultText,
                take.Outcome,
                take.At,
            })
            .ToListAsync();
        var figures = await _journal
            .Db.Figures.Where(figure => kept.Select(take => take.Id).Contains(figure.EntryId) && figure.Name == SlurFigures.Change.Name)
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
}
