using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Tone;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>What the record says of a pupil's own sound.</summary>
public static class OwnSounds
{
    /// <summary>The drill that makes a pupil's own samples.</summary>
    public const string SamplesDrill = "three-samples";

    private const int TakesForOwnSound = 10;
    private const int NotesForMisses = 10;
    private const int TakesOfFirstTries = 60;

    /// <summary>The last take of the pupil's own samples on something; null where none passed.</summary>
    public static Task<Shown<BuzzPayload>?> SamplesAsync(this Journal journal, int pupilId, SoundStage on) =>
        Journal.ShowAsync(
            BuzzStop.Takes,
            journal
                .Of(pupilId, BuzzStop.Takes)
                .Where(take => take.Kept && take.Stage == on && take.DrillId == SamplesDrill && take.Outcome == Outcome.Passed)
        );

    /// <summary>The pupil's own scale on something, and what is usual there.</summary>
    public static async Task<(OwnScale? Scale, OwnSound Own)> OwnSoundAsync(this Journal journal, int pupilId, SoundStage on)
    {
        if (await journal.SamplesAsync(pupilId, on) is { } samples && OwnScale.From(samples.Payload.Measures) is { } scale)
            return (scale, new OwnSound(scale.Centred.HarmonicToNoiseDb, scale.Centred.CentroidOverPitch, scale.Centred.LevelDb));
        var passed = await journal
            .Of(pupilId, BuzzStop.Takes)
            .Where(take => take.Kept && take.Stage == on && take.Outcome == Outcome.Passed && take.DrillId != SamplesDrill)
            .Take(TakesForOwnSound)
            .Include(take => take.Payload)
            .ToListAsync();
        var own = OwnSound.From(passed.Select(take => BuzzStop.Takes.Read(take).Measures));
        return (
            null,
            on == SoundStage.Instrument && await journal.OwnMediumAsync(pupilId) is { } medium ? own with { LevelDb = medium } : own
        );
    }

    /// <summary>
    /// Level of the pupil's own medium loudness on the instrument, from the last kept take of it; null where there is none.
    /// </summary>
    public static async Task<double?> OwnMediumAsync(this Journal journal, int pupilId) =>
        await journal
            .FiguresOf(pupilId, ToneFigures.Medium)
            .Where(figure => journal.Db.Entries.Any(take => take.Id == figure.EntryId && take.Outcome == Outcome.Passed))
            .Select(figure => (double?)figure.Value)
            .FirstOrDefaultAsync();

    /// <summary>How first tries at single notes went, the oldest first: the first note of each kept take that was chosen for it.</summary>
    public static async Task<IReadOnlyList<FirstTry>> FirstTriesAsync(this Journal journal, int pupilId)
    {
        var tries = await journal
            .FiguresOf(pupilId, ToneFigures.FirstTry)
            .Take(TakesOfFirstTries)
            .Select(figure => new { figure.Item, figure.Value })
            .ToListAsync();
        return [.. Enumerable.Reverse(tries).Select(one => new FirstTry(one.Item, one.Value > 0.5))];
    }

    /// <summary>The notes that have come on the pupil's instrument, by setting and partial.</summary>
    public static async Task<IReadOnlySet<(Setting Setting, int Partial)>> MetAsync(this Journal journal, Pupil pupil)
    {
        var items = await journal
            .FiguresOf(pupil.Id, ToneFigures.Note)
            .Where(figure => figure.InstrumentId == pupil.InstrumentId && figure.Value > 0)
            .Select(figure => figure.Item)
            .Distinct()
            .ToListAsync();
        return items
            .Select(item => item.Split(' '))
            .Where(parts => parts.Length == 3 && Setting.TryParse(parts[1], pupil.Instrument.Slide is not null, out _))
            .Select(parts =>
                (Setting.TryParse(parts[1], pupil.Instrument.Slide is not null, out var setting) ? setting : default, int.Parse(parts[2]))
            )
            .ToHashSet();
    }

    /// <summary>How the pupil's recent misses came about.</summary>
    public static async Task<RecentMisses> RecentMissesAsync(this Journal journal, int pupilId)
    {
        var takes = journal.Of(pupilId, ToneStop.Takes).Where(take => take.Kept).Take(NotesForMisses).Select(take => take.Id);
        string[] names = [ToneFigures.MissedPartial.Name, ToneFigures.MissedSetting.Name];
        var misses = await journal
            .Db.Figures.Where(figure => takes.Contains(figure.EntryId) && names.Contains(figure.Name))
            .Select(figure => new { figure.Name, figure.Value })
            .ToListAsync();
        double Of(string name) => misses.Where(miss => miss.Name == name).Sum(miss => miss.Value);
        return new RecentMisses((int)Of(names[0]), (int)Of(names[1]));
    }
}
