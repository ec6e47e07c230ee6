using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Core.Tone;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Data;

/// <summary>What the record says of a pupil's own sound and own instrument.</summary>
public static class OwnSounds
{
    /// <summary>The drill that makes a pupil's own samples.</summary>
    public const string SamplesDrill = "three-samples";

    private const int TakesForOwnSound = 10;
    private const int TakesForMisses = 10;
    private const int TakesOfFirstTries = 60;

    /// <summary>The last take of the pupil's own samples on something; null where none passed.</summary>
    public static Task<Take?> SamplesAsync(this BoccaDb db, int pupilId, SoundStage on) =>
        db
            .Takes.AsNoTracking()
            .Where(take =>
                take.PupilId == pupilId && take.Kept && take.On == on && take.DrillId == SamplesDrill && take.Outcome == TakeOutcome.Passed
            )
            .OrderByDescending(take => take.RecordedAt)
            .ThenByDescending(take => take.Id)
            .FirstOrDefaultAsync();

    /// <summary>The pupil's own scale on something, and what is usual there.</summary>
    public static async Task<(OwnScale? Scale, OwnSound Own)> OwnSoundAsync(this BoccaDb db, int pupilId, SoundStage on)
    {
        if (await db.SamplesAsync(pupilId, on) is { } samples && OwnScale.From(samples.Measures) is { } scale)
            return (scale, new OwnSound(scale.Centred.HarmonicToNoiseDb, scale.Centred.CentroidOverPitch, scale.Centred.LevelDb));
        var passed = await db
            .Takes.AsNoTracking()
            .Where(take =>
                take.PupilId == pupilId && take.Kept && take.On == on && take.Outcome == TakeOutcome.Passed && take.DrillId != SamplesDrill
            )
            .OrderByDescending(take => take.RecordedAt)
            .Take(TakesForOwnSound)
            .ToListAsync();
        var own = OwnSound.From(passed.Select(take => take.Measures));
        return (null, on == SoundStage.Instrument && await db.OwnMediumAsync(pupilId) is { } medium ? own with { LevelDb = medium } : own);
    }

    /// <summary>The last kept measurement of the pupil's very instrument; null where there is none.</summary>
    public static Task<ToneTake?> TuningTakeAsync(this BoccaDb db, int pupilId)
    {
        var drills = ToneDrill.All.Where(drill => drill.Aim == ToneAim.Tuning).Select(drill => drill.Id).ToList();
        return db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == pupilId && take.Kept && drills.Contains(take.DrillId) && take.Outcome != TakeOutcome.CannotTell)
            .OrderByDescending(take => take.RecordedAt)
            .FirstOrDefaultAsync();
    }

    /// <summary>
    /// Level of the pupil's own medium loudness on the instrument, from the last kept take of it; null where there is none.
    /// </summary>
    private static async Task<double?> OwnMediumAsync(this BoccaDb db, int pupilId)
    {
        var drills = ToneDrill.All.Where(drill => drill.Aim == ToneAim.Levels).Select(drill => drill.Id).ToList();
        var take = await db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == pupilId && take.Kept && drills.Contains(take.DrillId) && take.Outcome == TakeOutcome.Passed)
            .OrderByDescending(take => take.RecordedAt)
            .FirstOrDefaultAsync();
        var levels = take?.Trace.Notes.Where(note => note.Label == "medium").Select(note => note.LevelDb).OfType<double>().ToList();
        return levels is { Count: > 0 } ? levels.Average() : null;
    }

    /// <summary>How first tries at single notes went, the oldest first: the first note of each kept take that was chosen for it.</summary>
    public static async Task<IReadOnlyList<FirstTry>> FirstTriesAsync(this BoccaDb db, int pupilId)
    {
        var takes = await db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == pupilId && take.Kept && take.Notes != "" && take.Outcome != TakeOutcome.CannotTell)
            .OrderByDescending(take => take.RecordedAt)
            .Take(TakesOfFirstTries)
            .Select(take => take.TraceJson)
            .ToListAsync();
        return
        [
            .. Enumerable
                .Reverse(takes)
                .Select(json => Stored.Read<RowTrace>(json).Notes[0])
                .Select(note => new FirstTry(note.Written, note.Outcome == NoteOutcome.Right)),
        ];
    }

    /// <summary>How the pupil's recent misses came about.</summary>
    public static async Task<RecentMisses> RecentMissesAsync(this BoccaDb db, int pupilId)
    {
        var takes = await db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == pupilId && take.Kept)
            .OrderByDescending(take => take.RecordedAt)
            .Take(TakesForMisses)
            .Select(take => take.TraceJson)
            .ToListAsync();
        var outcomes = takes.SelectMany(json => Stored.Read<RowTrace>(json).Notes).Select(note => note.Outcome).ToList();
        return new RecentMisses(
            outcomes.Count(outcome => outcome is NoteOutcome.PartialLow or NoteOutcome.PartialHigh),
            outcomes.Count(outcome => outcome is NoteOutcome.OtherSetting or NoteOutcome.SlideOff)
        );
    }
}
