using Bocca.Core.Advice;
using Bocca.Core.Breath;
using Bocca.Core.Embouchure;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Data;

/// <summary>What today's record says about a pupil.</summary>
public static class Today
{
    /// <summary>When the teacher's day began.</summary>
    public static DateTime Start(TimeProvider time)
    {
        var now = time.GetLocalNow();
        return new DateTimeOffset(now.Date, now.Offset).UtcDateTime;
    }

    /// <summary>The teacher's date.</summary>
    public static DateOnly Date(TimeProvider time) => DateOnly.FromDateTime(time.GetLocalNow().Date);

    /// <summary>What was noticed today, as evidence.</summary>
    public static async Task<IReadOnlyList<Noticed>> NoticedTodayAsync(this BoccaDb db, int pupilId, TimeProvider time)
    {
        var start = Start(time);
        return await db
            .Noticed.AsNoTracking()
            .Where(entry => entry.PupilId == pupilId && entry.At >= start)
            .OrderBy(entry => entry.At)
            .ToListAsync();
    }

    /// <summary>Whether something noticed today says that the pupil is tense.</summary>
    public static async Task<bool> TenseTodayAsync(this BoccaDb db, int pupilId, TimeProvider time) =>
        Adviser.IsTense((await db.NoticedTodayAsync(pupilId, time)).Select(entry => new Evidence(entry.Signal, "")));

    /// <summary>
    /// What is known about a pupil beside a take: what was noticed and answered today, and the last placement while it still tells
    /// something.
    /// </summary>
    public static async Task<IReadOnlyList<Evidence>> KnownAsync(this BoccaDb db, int pupilId, TimeProvider time)
    {
        var evidence = (await db.NoticedTodayAsync(pupilId, time)).Select(InWords).ToList();
        var since = time.GetUtcNow().UtcDateTime - Adviser.StillTells;
        var placed = await db
            .Placements.AsNoTracking()
            .Where(entry => entry.PupilId == pupilId && entry.At >= since)
            .OrderByDescending(entry => entry.At)
            .FirstOrDefaultAsync();
        if (placed is { Signals.Length: > 0 })
            evidence.AddRange(
                placed.Signals.Split(' ').Select(signal => new Evidence(signal, $"Placement of {placed.At:d MMM}: {placed.Sentences}"))
            );
        return evidence;
    }

    private static Evidence InWords(Noticed entry) =>
        entry.Signal.Split('.') switch
        {
            ["seen", var id] => Evidence.Seen(Observation.Get(id)),
            [var answer, var id] => Evidence.Answered(Symptom.All.First(symptom => symptom.Ask?.Id == id).Ask!, answer == "yes"),
            _ => new Evidence(entry.Signal, ""),
        };

    /// <summary>What breath drills were done today; what was deleted counts too, for it was breathed.</summary>
    public static async Task<BreathDay> BreathDayAsync(this BoccaDb db, int pupilId, TimeProvider time)
    {
        var start = Start(time);
        var done = await db
            .Breaths.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(entry => entry.PupilId == pupilId && entry.At >= start)
            .ToListAsync();
        var kinds = BreathDrill.All.ToDictionary(drill => drill.Id, drill => drill.Kind);
        BreathKind? Kind(BreathEntry entry) => kinds.TryGetValue(entry.DrillId, out var kind) ? kind : null;
        var held = done.Where(entry => entry.HeldBreaths > 0).ToList();
        var dizzy = await db
            .Noticed.IgnoreQueryFilters()
            .AnyAsync(entry => entry.PupilId == pupilId && entry.At >= start && entry.Signal == "seen.dizzy" && entry.DeletedAt == null);
        return new BreathDay(
            done.Sum(entry => entry.DrilledSeconds),
            held.Sum(entry => entry.HeldBreaths),
            done.Count(entry => Kind(entry) == BreathKind.Exchange),
            done.Where(entry => Kind(entry) == BreathKind.Quick).Sum(entry => BreathDrill.Get(entry.DrillId).Rungs[0].Cycles),
            held.Count == 0 ? null : (time.GetUtcNow().UtcDateTime - held.Max(entry => entry.At)).TotalSeconds,
            dizzy
        );
    }
}
