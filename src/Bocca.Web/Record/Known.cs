using Bocca.Core.Breath;
using Bocca.Core.Ear;
using Bocca.Core.Embouchure;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Setup;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>What today's record says about a pupil.</summary>
public static class Known
{
    /// <summary>What was seen and answered today, the oldest first.</summary>
    public static async Task<IReadOnlyList<Entry>> SeenTodayAsync(this Journal journal, int pupilId)
    {
        var start = journal.Clock.DayStart;
        var seen = await journal.Of(pupilId, SetupStop.Seen).Where(entry => entry.At >= start).ToListAsync();
        return [.. Enumerable.Reverse(seen)];
    }

    /// <summary>Whether something seen today says that the pupil is tense.</summary>
    public static async Task<bool> TenseTodayAsync(this Journal journal, int pupilId) =>
        Adviser.IsTense((await journal.SeenTodayAsync(pupilId)).Select(SetupStop.Words));

    /// <summary>
    /// What is known about a pupil beside a take: what was seen and answered today, and the last placement while it still tells
    /// something.
    /// </summary>
    public static async Task<IReadOnlyList<Evidence>> KnownAsync(this Journal journal, int pupilId)
    {
        var evidence = (await journal.SeenTodayAsync(pupilId)).Select(SetupStop.Words).ToList();
        var since = journal.Clock.Now - Adviser.StillTells;
        var placed = await journal.Of(pupilId, SetupStop.Placements).Where(entry => entry.At >= since).FirstOrDefaultAsync();
        if (placed is { Subject.Length: > 0 })
            evidence.AddRange(
                placed
                    .Subject.Split(' ')
                    .Select(signal => new Evidence(signal, $"Placement of {journal.Clock.Day(placed.At)}: {placed.Summary}"))
            );
        return evidence;
    }

    /// <summary>A pupil's voice as it slid last; a child's usual one where it did not yet.</summary>
    public static async Task<VoiceRange> VoiceAsync(this Journal journal, int pupilId)
    {
        string[] names = [EarFigures.VoiceLowest.Name, EarFigures.VoiceHighest.Name];
        var ends = await journal
            .Db.Figures.AsNoTracking()
            .Where(figure => figure.PupilId == pupilId && names.Contains(figure.Name))
            .OrderByDescending(figure => figure.At)
            .Take(names.Length)
            .Select(figure => new { figure.Name, figure.Value })
            .ToListAsync();
        return ends.Find(end => end.Name == names[0]) is { } low && ends.Find(end => end.Name == names[1]) is { } high
            ? new VoiceRange(low.Value, high.Value)
            : VoiceRange.Usual;
    }

    /// <summary>The breath that planning reckons with, from the even streams of the last weeks; null where there is none.</summary>
    public static async Task<UsableBreath?> UsableBreathAsync(this Journal journal, int pupilId)
    {
        var since = journal.Clock.Now - UsableBreath.Fresh;
        var even = await journal
            .Of(pupilId, BreathStop.Drills)
            .Where(drill => drill.At >= since && drill.Outcome == Outcome.Passed)
            .ToListAsync();
        return UsableBreath.From(even.Select(BreathStop.Pass), journal.Clock.Now);
    }

    /// <summary>What one breath carries on the pupil's instrument, from the notes held on it in the last weeks.</summary>
    public static async Task<NoteBreath> NoteBreathAsync(this Journal journal, Pupil pupil)
    {
        var since = journal.Clock.Now - UsableBreath.Fresh;
        var longest = await journal
            .FiguresOf(pupil.Id, ToneFigures.LongestNote)
            .Where(figure => figure.InstrumentId == pupil.InstrumentId && figure.At >= since)
            .Select(figure => new { figure.Item, figure.Value })
            .ToListAsync();
        var medium = await journal.OwnMediumAsync(pupil.Id);
        return NoteBreath.Of(
            pupil.Instrument.Family,
            longest.Select(figure => ToneFigures.HeldOf(figure.Item, figure.Value, medium)),
            await journal.UsableBreathAsync(pupil.Id)
        );
    }

    /// <summary>What came of the pupil's earlier cues, the newest first.</summary>
    public static async Task<CueHistory> CuesAsync(this Journal journal, int pupilId, DateTime since = default)
    {
        const int Looked = 200;
        var tries = await journal
            .FiguresOf(pupilId, CueHistory.Helped)
            .Where(figure => figure.At >= since)
            .OrderByDescending(figure => figure.At)
            .Take(Looked)
            .Select(figure => new { figure.Item, figure.Value })
            .ToListAsync();
        return new CueHistory([.. tries.Select(each => new CueTry(each.Item, each.Value > 0))]);
    }

    /// <summary>The last take kept, as the Desk tells it, where it did not come as meant; null where it did.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupil">Whose.</param>
    /// <param name="approach">The approach in force.</param>
    /// <param name="step">The open step; null for none.</param>
    public static async Task<LastSlip?> LastSlipAsync(this Journal journal, Pupil pupil, Approach approach, Entry? step)
    {
        var takes = journal.Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id).ToList();
        var last = await journal
            .Of(pupil.Id)
            .Include(take => take.Payload)
            .Where(take => take.Kept && takes.Contains(take.Kind))
            .FirstOrDefaultAsync();
        if (last?.Outcome is not (Outcome.Repeat or Outcome.StepBack))
            return null;
        var place = journal.Stops.OfKind(last.Kind).Place;
        var same = step?.Subject == place && step.DrillId == journal.Stops.Kind(last.Kind).StepDrill(last);
        var mends = journal.Stops.Kind(last.Kind).VerdictOf(last)?.Next.Mends;
        // A slur's name is an address of its own.
        var again = place == "slurs" ? place : $"{place}:{last.DrillId}";
        return new LastSlip(
            last.Summary,
            journal.Stops.Mending(mends, pupil, approach, journal.Clock.Today) is null ? again : mends!,
            step is null || (last.At > step.At && !same)
        );
    }

    /// <summary>Whether somebody has looked at the pupil's instrument today.</summary>
    public static Task<bool> LookedTodayAsync(this Journal journal, Pupil pupil)
    {
        var start = journal.Clock.DayStart;
        return journal.Of(pupil.Id, NotesStop.Looks).AnyAsync(look => look.At >= start && look.InstrumentId == pupil.InstrumentId);
    }

    /// <summary>
    /// Why a slide stays locked: nobody has seen yet that the pupil handles it safely. Null once the teacher has ticked that, and for
    /// valves.
    /// </summary>
    public static async Task<string?> WatchFirstAsync(this Journal journal, Pupil pupil) =>
        pupil.Instrument.Slide is null || await journal.Of(pupil.Id, SetupStop.Ticks).AnyAsync(tick => tick.DrillId == SetupCheck.SlideLock)
            ? null
            : "Watch me first: the slide stays locked until your teacher has seen how you hold it (Set-up, Body and hold).";

    /// <summary>The figures of a pupil that the stops follow, over weeks, each on what was played last.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupilId">Whose.</param>
    /// <param name="since">From when on.</param>
    public static async Task<IReadOnlyList<FigureHistory>> HistoriesAsync(this Journal journal, int pupilId, DateTime since = default)
    {
        const int Values = 60;
        var histories = new List<FigureHistory>();
        foreach (var kind in journal.Stops.All.SelectMany(stop => stop.Followed))
        {
            var figures = await journal.FiguresOf(pupilId, kind).Where(figure => figure.At >= since).Take(Values).ToListAsync();
            // What was played on something else is another matter than what was played last.
            var same = figures.Where(figure =>
                figure.Stage == figures[0].Stage && (figure.InstrumentId ?? figures[0].InstrumentId) == figures[0].InstrumentId
            );
            var points = same.Reverse()
                .Select(figure => new FigurePoint(journal.Clock.Local(figure.At), figure.Value, figure.Spread, figure.Count));
            if (FigureHistory.Of(kind, [.. points]) is { } history)
                histories.Add(history);
        }

        return histories;
    }

    /// <summary>What breath drills were done today; what was deleted counts too, for it was breathed.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupilId">Whose.</param>
    /// <param name="health">What today's complaints leave of it.</param>
    public static async Task<BreathDay> BreathDayAsync(this Journal journal, int pupilId, HealthDay health)
    {
        var start = journal.Clock.DayStart;
        var done = await journal
            .Db.Entries.IgnoreQueryFilters()
            .Where(entry => entry.PupilId == pupilId && entry.Kind == BreathStop.Drills.Id && entry.At >= start)
            .Select(entry => new
            {
                entry.DrillId,
                entry.ResultText,
                entry.ElapsedSeconds,
                entry.At,
            })
            .ToListAsync();
        return BreathDay.Of(
            done.ConvertAll(entry => new BreathDone(
                entry.DrillId!,
                (int)(EntryResult.Parse(entry.ResultText)[BreathStop.Rung] ?? 0),
                entry.ElapsedSeconds ?? 0,
                entry.At
            )),
            health.BreathLocked,
            journal.Clock.Now
        );
    }
}
