using Bocca.Core.Music;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>Measures one try of a take (definitions: METHODS).</summary>
internal sealed class AttemptMeasurer(MonoSound sound, PitchTrack track)
{
    private const double EdgeSeconds = 0.15;
    private const double LeapCents = 150;
    private const int ShortestHeldFrames = 10;
    private readonly double _roomDb = AttemptFinder.RoomDb(track);

    /// <summary>Measures a try that spoke.</summary>
    /// <param name="attempt">The try.</param>
    /// <param name="number">Its place in the take, from 1.</param>
    /// <param name="cueSeconds">When it was due; null if nobody said.</param>
    public AttemptMeasures Measure(Attempt attempt, int number, double? cueSeconds)
    {
        var measures = new AttemptMeasures
        {
            Number = number,
            Spoke = true,
            StartSeconds = attempt.StartSeconds,
            EndSeconds = attempt.EndSeconds,
            SoundingSeconds = attempt.Tones.Sum(tone => tone.Seconds),
            OnsetDelayMs = cueSeconds is { } cue ? 1000 * (attempt.StartSeconds - cue) : null,
            AirBeforeToneMs = 1000 * (attempt.StartSeconds - AirStart(attempt.Tones[0])),
            Breaks = attempt.Tones.Count - 1 + attempt.Tones.Sum(Leaps),
        };
        var held = Held(attempt);
        return held.Count < ShortestHeldFrames ? measures : AddHeld(measures, attempt, held);
    }

    /// <summary>Measures a cue that no tone followed: whether there was air at least.</summary>
    public AttemptMeasures Missing(int number, double fromSeconds, double toSeconds)
    {
        var loud = track.Frames.Count(frame => frame.TimeSeconds >= fromSeconds && frame.TimeSeconds < toSeconds && frame.LevelDb >= _roomDb + 6);
        return new AttemptMeasures { Number = number, Spoke = false, AirOnly = loud * PitchTrack.HopSeconds >= 0.3 };
    }

    private AttemptMeasures AddHeld(AttemptMeasures measures, Attempt attempt, List<PitchFrame> held)
    {
        var median = held.Select(frame => frame.FrequencyHz).Median();
        var level = held.Select(frame => frame.LevelDb).Median();
        var times = held.ConvertAll(frame => frame.TimeSeconds);
        var cents = held.ConvertAll(frame => Tuning.Cents(median, frame.FrequencyHz));
        var levels = held.ConvertAll(frame => frame.LevelDb);
        var straight = Trend.Detrended(times, cents);
        var swing = Swing.Strongest(times, straight);
        var clarity = Math.Clamp(held.Select(frame => frame.Clarity).Median(), 0.001, 0.99999);
        var centroid = Spectrum.CentroidHz(sound, times[0], times[^1]);
        return measures with
        {
            MedianHz = median,
            LevelDb = level,
            SteadinessCents = straight.StandardDeviation(),
            DriftCentsPerSecond = Trend.Of(times, cents).SlopePerSecond,
            DriftDbPerSecond = Trend.Of(times, levels).SlopePerSecond,
            WobbleHz = swing.Hz,
            WobbleCents = swing.HalfRange,
            WobbleDb = Swing.Strongest(times, Trend.Detrended(times, levels)).HalfRange,
            RiseMs = Rise(attempt.Tones[0], level),
            EndCents = cents.Skip(3 * cents.Count / 4).Median() - cents.Take(cents.Count / 4).Median(),
            ScoopCents = Scoop(attempt.Tones[0], median),
            Ending = EndingOf(attempt.Tones[^1], level, median),
            HarmonicToNoiseDb = 10 * Math.Log10(clarity / (1 - clarity)),
            CentroidOverPitch = centroid > 0 ? centroid / median : null,
        };
    }

    private List<PitchFrame> Held(Attempt attempt)
    {
        var from = attempt.StartSeconds + EdgeSeconds;
        var to = attempt.EndSeconds - EdgeSeconds;
        return [.. attempt.Tones.SelectMany(Frames).Where(frame => frame.Voiced && frame.TimeSeconds >= from && frame.TimeSeconds <= to)];
    }

    private IEnumerable<PitchFrame> Frames(Tone tone) => Enumerable.Range(tone.First, tone.End - tone.First).Select(i => track.Frames[i]);

    /// <summary>Where the noise before a tone begins: back from the tone while it stays 6 dB over the room, dips of 30 ms forgiven.</summary>
    private double AirStart(Tone tone)
    {
        var start = tone.First;
        for (var i = tone.First - 1; i >= 0 && start - i <= 4; i--)
            if (track.Frames[i].LevelDb >= _roomDb + 6)
                start = i;
        return start * PitchTrack.HopSeconds;
    }

    /// <summary>Leaps inside a tone: the median of 50 ms before against 50 ms after, so that one stray frame is none.</summary>
    private int Leaps(Tone tone)
    {
        const int Side = 5;
        var leaps = 0;
        for (var i = tone.First + Side; i + Side < tone.End; i++)
        {
            var before = Enumerable.Range(i - Side, Side).Select(at => track.Frames[at].FrequencyHz).Median();
            var after = Enumerable.Range(i, Side).Select(at => track.Frames[at].FrequencyHz).Median();
            if (Math.Abs(Tuning.Cents(before, after)) < LeapCents)
                continue;
            leaps++;
            i += 2 * Side;
        }

        return leaps;
    }

    private double? Rise(Tone tone, double heldDb)
    {
        double? low = null;
        for (var i = Math.Max(1, tone.First - 10); i < tone.End; i++)
        {
            low ??= Crossing(i, heldDb - 20);
            if (low is { } from && Crossing(i, heldDb - 0.915) is { } to)
                return 1000 * Math.Max(0, to - from);
            if (i == Math.Max(1, tone.First - 10) && track.Frames[i].LevelDb > heldDb - 20)
                low = track.Frames[i].TimeSeconds;
        }

        return null;
    }

    /// <summary>The moment between two frames at which the level rises through a height; null if it does not there.</summary>
    private double? Crossing(int frame, double db)
    {
        double before = track.Frames[frame - 1].LevelDb, here = track.Frames[frame].LevelDb;
        return before < db && here >= db
            ? track.Frames[frame].TimeSeconds - (PitchTrack.HopSeconds * (here - db) / (here - before))
            : null;
    }

    private double? Scoop(Tone tone, double medianHz)
    {
        var early = Frames(tone).Where(frame => frame.Voiced && frame.TimeSeconds - tone.StartSeconds is >= 0.03 and <= 0.08).ToList();
        return early.Count == 0 ? null : Tuning.Cents(medianHz, early.Select(frame => frame.FrequencyHz).Median());
    }

    private Ending EndingOf(Tone tone, double heldDb, double medianHz)
    {
        var lastLoud = tone.End - 1;
        while (lastLoud > tone.First && track.Frames[lastLoud].LevelDb < heldDb - 3)
            lastLoud--;
        var gone = lastLoud;
        while (gone < track.Frames.Count - 1 && track.Frames[gone].LevelDb > Math.Max(heldDb - 20, _roomDb + 3))
            gone++;
        // A level frame spans 20 ms either way, so a sudden stop still takes some 30 ms from -3 to -20 dB.
        var fallMs = 1000 * PitchTrack.HopSeconds * (gone - lastLoud);
        var quarter = Frames(tone).Skip(3 * (tone.End - tone.First) / 4).SkipLast(8).ToList();
        var endCents = quarter.Count == 0 ? 0 : Tuning.Cents(medianHz, quarter.TakeLast(5).Select(frame => frame.FrequencyHz).Median());
        if (quarter.Count > 1 && (quarter[0].LevelDb - quarter[^1].LevelDb > 6 || endCents < -30))
            return Ending.TrailingOff;
        return fallMs switch
        {
            <= 30 => Ending.Closed,
            >= 60 and <= 400 => Ending.Tapered,
            _ => Ending.Plain,
        };
    }
}
