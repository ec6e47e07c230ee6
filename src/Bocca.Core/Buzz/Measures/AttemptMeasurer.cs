using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Measures;

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
    /// <param name="asked">What was asked; null if nobody said.</param>
    /// <param name="askedSeconds">For how long.</param>
    public AttemptMeasures Measure(Attempt attempt, int number, double? cueSeconds, Cue? asked, double? askedSeconds)
    {
        var level = asked is not { IsLevel: false };
        List<double> breaks =
        [
            .. attempt
                .Tones.SkipLast(1)
                .Select(tone => tone.EndSeconds)
                .Concat(level ? attempt.Tones.SelectMany(Leaps) : [])
                .Select(at => Math.Round(at - attempt.StartSeconds, 2))
                .Order(),
        ];
        var measures = new AttemptMeasures
        {
            Number = number,
            Asked = asked,
            AskedSeconds = askedSeconds,
            Spoke = true,
            StartSeconds = attempt.StartSeconds,
            EndSeconds = attempt.EndSeconds,
            SoundingSeconds = attempt.Tones.Sum(tone => tone.Seconds),
            OnsetDelayMs = cueSeconds is { } cue ? 1000 * (attempt.StartSeconds - cue) : null,
            AirBeforeToneMs = 1000 * (attempt.StartSeconds - AirStart(attempt.Tones[0])),
            Breaks = breaks.Count,
            BreakSeconds = breaks,
        };
        var held = Held(attempt);
        if (held.Count < ShortestHeldFrames)
            return AddShort(measures, attempt);
        var sound = AddSound(measures, attempt, held);
        return level ? AddStraight(sound, attempt, held) : sound;
    }

    /// <summary>Measures a cue that no tone followed: whether there was air at least.</summary>
    public AttemptMeasures Missing(int number, double fromSeconds, double toSeconds, Cue? asked)
    {
        var loud = track.Frames.Count(frame =>
            frame.TimeSeconds >= fromSeconds && frame.TimeSeconds < toSeconds && frame.LevelDb >= _roomDb + 6
        );
        return new AttemptMeasures
        {
            Number = number,
            Asked = asked,
            Spoke = false,
            AirOnly = loud * PitchTrack.HopSeconds >= 0.3,
        };
    }

    /// <summary>What a tone too short for a held part still says: how high, how loud, how soon it was there.</summary>
    private AttemptMeasures AddShort(AttemptMeasures measures, Attempt attempt)
    {
        var voiced = attempt.Tones.SelectMany(Frames).Where(frame => frame.Voiced).ToList();
        var level = voiced.Select(frame => frame.LevelDb).Median();
        return measures with
        {
            MedianHz = voiced.Select(frame => frame.FrequencyHz).Median(),
            LevelDb = level,
            RiseMs = Rise(attempt.Tones[0], level),
        };
    }

    /// <summary>What the held part says of its sound, whatever its pitch does.</summary>
    private AttemptMeasures AddSound(AttemptMeasures measures, Attempt attempt, List<PitchFrame> held)
    {
        var median = held.Select(frame => frame.FrequencyHz).Median();
        var level = held.Select(frame => frame.LevelDb).Median();
        var clarity = Math.Clamp(held.Select(frame => frame.Clarity).Median(), 0.001, 0.99999);
        var centroid = Spectrum.CentroidHz(sound, held[0].TimeSeconds, held[^1].TimeSeconds);
        return measures with
        {
            MedianHz = median,
            LevelDb = level,
            HarmonicToNoiseDb = 10 * Math.Log10(clarity / (1 - clarity)),
            CentroidOverPitch = centroid > 0 ? centroid / median : null,
        };
    }

    /// <summary>What the held part says of one height that was to be kept.</summary>
    private AttemptMeasures AddStraight(AttemptMeasures measures, Attempt attempt, List<PitchFrame> held)
    {
        var (median, level) = (measures.MedianHz!.Value, measures.LevelDb!.Value);
        var times = held.ConvertAll(frame => frame.TimeSeconds);
        var cents = held.ConvertAll(frame => Tuning.Cents(median, frame.FrequencyHz));
        var levels = held.ConvertAll(frame => frame.LevelDb);
        var trend = Trend.Of(times, cents);
        var straight = Trend.Detrended(times, cents);
        var swing = Swing.Strongest(times, straight);
        return measures with
        {
            SteadinessCents = straight.StandardDeviation(),
            DriftCentsPerSecond = trend.SlopePerSecond,
            DriftDbPerSecond = Trend.Of(times, levels).SlopePerSecond,
            WobbleHz = swing.Hz,
            WobbleCents = swing.HalfRange,
            WobbleDb = Swing.Strongest(times, Trend.Detrended(times, levels)).HalfRange,
            RiseMs = Rise(attempt.Tones[0], level),
            EndCents = cents.Skip(3 * cents.Count / 4).Median() - cents.Take(cents.Count / 4).Median(),
            ScoopCents = Scoop(attempt.Tones[0], median, trend, times),
            Ending = EndingOf(attempt.Tones[^1], level, median),
        };
    }

    private List<PitchFrame> Held(Attempt attempt)
    {
        var from = attempt.StartSeconds + EdgeSeconds;
        var to = attempt.EndSeconds - EdgeSeconds;
        return [.. attempt.Tones.SelectMany(Frames).Where(frame => frame.Voiced && frame.TimeSeconds >= from && frame.TimeSeconds <= to)];
    }

    private IEnumerable<PitchFrame> Frames(ToneRun tone) =>
        Enumerable.Range(tone.First, tone.End - tone.First).Select(i => track.Frames[i]);

    /// <summary>
    /// Where the noise before a tone begins: back from the tone while it stays 6 dB over the room, dips of 30 ms
    /// forgiven, and not into another tone, which is no air.
    /// </summary>
    private double AirStart(ToneRun tone)
    {
        const int ToneFrames = 5;
        var (start, voiced) = (tone.First, 0);
        for (var i = tone.First - 1; i >= 0 && start - i <= 4; i--)
        {
            voiced = track.Frames[i].Voiced ? voiced + 1 : 0;
            if (voiced == ToneFrames)
                return (i + ToneFrames) * PitchTrack.HopSeconds;
            if (track.Frames[i].LevelDb >= _roomDb + 6)
                start = i;
        }

        return start * PitchTrack.HopSeconds;
    }

    /// <summary>When a tone leaps: the median of 50 ms before against 50 ms after, so that one stray frame is none.</summary>
    private IEnumerable<double> Leaps(ToneRun tone)
    {
        const int Side = 5;
        for (var i = tone.First + Side; i + Side < tone.End; i++)
        {
            var (before, after) = (MiddleHz(i - Side, Side), MiddleHz(i, Side));
            if (Math.Abs(Tuning.Cents(before, after)) < LeapCents)
                continue;
            yield return track.Frames[i].TimeSeconds;
            i += 2 * Side;
        }
    }

    private double MiddleHz(int first, int count)
    {
        Span<double> hertz = stackalloc double[count];
        for (var i = 0; i < count; i++)
            hertz[i] = track.Frames[first + i].FrequencyHz;
        hertz.Sort();
        return hertz[count / 2];
    }

    /// <summary>
    /// Milliseconds from the first time the level is within 20 dB of the held level to the first time it is nearly there.
    /// </summary>
    private double? Rise(ToneRun tone, double heldDb)
    {
        var first = Math.Max(1, tone.First - 10);
        double? low = null;
        for (var i = first; i < tone.End; i++)
        {
            low ??= Reached(i, heldDb - 20, first);
            if (low is { } from && Reached(i, heldDb - 0.915, first) is { } to)
                return 1000 * Math.Max(0, to - from);
        }

        return null;
    }

    /// <summary>
    /// The moment up to a frame at which the level rises to a height, looked for from a first frame on; null if it is not there yet.
    /// </summary>
    private double? Reached(int frame, double db, int first) =>
        frame == first && track.Frames[frame].LevelDb >= db ? track.Frames[frame].TimeSeconds : Crossing(frame, db);

    /// <summary>The moment between two frames at which the level rises through a height; null if it does not there.</summary>
    private double? Crossing(int frame, double db)
    {
        double before = track.Frames[frame - 1].LevelDb,
            here = track.Frames[frame].LevelDb;
        return before < db && here >= db ? track.Frames[frame].TimeSeconds - (PitchTrack.HopSeconds * (here - db) / (here - before)) : null;
    }

    /// <summary>The start against where the tone's own line would have begun, so that a drift is no scoop.</summary>
    private double? Scoop(ToneRun tone, double medianHz, Trend trend, List<double> times)
    {
        const double Middle = 0.055;
        var early = Frames(tone).Where(frame => frame.Voiced && frame.TimeSeconds - tone.StartSeconds is >= 0.03 and <= 0.08).ToList();
        if (early.Count == 0)
            return null;
        var line = trend.SlopePerSecond * (tone.StartSeconds + Middle - times.Median());
        return Tuning.Cents(medianHz, early.Select(frame => frame.FrequencyHz).Median()) - line;
    }

    private Ending EndingOf(ToneRun tone, double heldDb, double medianHz)
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
