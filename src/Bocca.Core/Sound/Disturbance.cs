using System.Numerics.Tensors;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>What makes a recording unfit to be measured.</summary>
public enum DisturbanceKind
{
    /// <summary>Every sample is zero: muted.</summary>
    Muted,

    /// <summary>Too soft to say anything.</summary>
    Silence,

    /// <summary>Cut off at full scale.</summary>
    Clipped,

    /// <summary>The samples stop dead in mid-take: unplugged.</summary>
    Unplugged,

    /// <summary>Nothing over 4 kHz: a telephone-grade link, such as a wireless headset.</summary>
    Narrow,

    /// <summary>Mains hum and no tone beside it.</summary>
    Hum,

    /// <summary>Somebody is talking.</summary>
    Speech,

    /// <summary>Notes go on where rests were asked: music in the room.</summary>
    Music,
}

/// <summary>A recording that must not be judged, and what to do.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Why">What was heard, with its number.</param>
/// <param name="Remedy">What to do about it.</param>
public sealed record Disturbance(DisturbanceKind Kind, string Why, string Remedy)
{
    private const double MostClipped = 0.001;
    private const double SoftestPeakDb = -55;
    private const double DeadSeconds = 1;
    private const double ZeroRestSeconds = 0.1;
    private const double NarrowHz = 4000;
    private const double NarrowDb = -45;

    /// <summary>
    /// Hum is heard through at least this share of a recording and moves less than this (cents); or, with rumble over it, now and then,
    /// moving less than that, while the whole recording, rests and all, stays within so many dB.
    /// </summary>
    private const double MostlyHum = 0.85,
        SomeHum = 0.1,
        MostHumCents = 4,
        MostRumblingCents = 25,
        MostHumDb = 9;

    /// <summary>
    /// From here the colour changes as in speech (octaves in 50 ms). Measured: brass 0.02 to 0.27, read sentences 0.6 to 0.7.
    /// </summary>
    private const double SpeechColour = 0.45;

    /// <summary>The colour is that of the spectrum up to here; the lowest bins are rumble.</summary>
    private const double HighestColourHz = 5000;
    private const int FirstColourBin = 2;

    /// <summary>
    /// A syllable glides by at least so much and keeps to its line within so much (cents), and this share of them does. Measured: laughter
    /// by espeak-ng in four voices glides by 48 to 140 cents within 12; short notes of brass move by under 25.
    /// </summary>
    private const double LeastGlideCents = 40,
        MostOffGlideCents = 15,
        MostlyGlides = 0.6;

    /// <summary>Shorter pieces do not tell whether they glide, and fewer of them may by chance.</summary>
    private const int ShortestGlideFrames = 12,
        FewestGlides = 4;

    /// <summary>
    /// The first thing that makes a recording unfit; null if it can be measured. All limits ours, editable.
    /// </summary>
    /// <param name="sound">The recording.</param>
    /// <param name="track">Its pitch.</param>
    /// <param name="quiet">Where no sound was asked, seconds; what sounds there is not the pupil.</param>
    /// <param name="voiceAsked">Whether singing was asked, so that a voice is none.</param>
    /// <param name="joined">Whether notes were asked that run into each other.</param>
    public static Disturbance? Find(
        MonoSound sound,
        PitchTrack track,
        IReadOnlyList<(double From, double To)> quiet,
        bool voiceAsked,
        bool joined = false
    ) =>
        Muted(sound)
        ?? Clipped(sound)
        ?? Soft(sound)
        ?? Unplugged(sound)
        ?? Hum(track)
        ?? (voiceAsked ? null : Speech(sound, track, joined))
        ?? Music(track, quiet)
        ?? Narrow(sound);

    private static Disturbance? Muted(MonoSound sound) =>
        sound.Samples.Length > 0 && sound.Peak == 0
            ? new Disturbance(
                DisturbanceKind.Muted,
                "not one sample came through: silence, as from a muted microphone.",
                "Switch the microphone on, at its own switch and in the system's settings, and play it again."
            )
            : null;

    private static Disturbance? Clipped(MonoSound sound) =>
        sound.ClippedShare() is var share && share > MostClipped
            ? new Disturbance(
                DisturbanceKind.Clipped,
                $"{100 * share:0.0} % of the sound was cut off at full scale.",
                "Move the microphone further away or turn its level down, and play it again."
            )
            : null;

    private static Disturbance? Soft(MonoSound sound) =>
        20 * Math.Log10(Math.Max(sound.Peak, 1e-6)) is var peak && peak < SoftestPeakDb
            ? new Disturbance(
                DisturbanceKind.Silence,
                $"nothing louder than {peak:0} dB was heard: silence.",
                "Check that the right microphone is on, or go nearer to it, and play it again."
            )
            : null;

    private static Disturbance? Unplugged(MonoSound sound)
    {
        var last = Array.FindLastIndex(sound.Samples, sample => sample != 0);
        var dead = (double)(sound.Samples.Length - 1 - last) / sound.SampleRate;
        return dead >= DeadSeconds && !RestsInZeros(sound, last)
            ? new Disturbance(
                DisturbanceKind.Unplugged,
                $"the sound stops dead after {(double)(last + 1) / sound.SampleRate:0.0} s, {dead:0.0} s before the end.",
                "Check the microphone's plug, and play it again."
            )
            : null;
    }

    /// <summary>Whether a sound also rests in exact zeros before its end: then it was made so, for no room is that silent.</summary>
    private static bool RestsInZeros(MonoSound sound, int end)
    {
        var run = 0;
        for (var i = 0; i < end; i++)
        {
            run = sound.Samples[i] == 0 ? run + 1 : 0;
            if (run >= ZeroRestSeconds * sound.SampleRate)
                return true;
        }

        return false;
    }

    /// <summary>Hum is a multiple of 50 or 60 Hz that never moves; rumble under it may hide it here and there.</summary>
    private static Disturbance? Hum(PitchTrack track)
    {
        var voiced = track.Frames.Where(frame => frame.Voiced).ToList();
        if (voiced.Count < SomeHum * track.Frames.Count || voiced.Count < 50)
            return null;
        var hertz = voiced.Select(frame => frame.FrequencyHz).Median();
        var mains = new[] { 50.0, 60, 100, 120 }.MinBy(candidate => Math.Abs(Math.Log2(hertz / candidate)));
        var cents = voiced.Select(frame => 1200 * Math.Log2(frame.FrequencyHz / mains)).ToList();
        var levels = track.Frames.Select(frame => frame.LevelDb).ToList();
        var isLevel = levels.Percentile(95) - levels.Percentile(5) < MostHumDb && cents.InterquartileRange() < MostRumblingCents;
        var isExact = voiced.Count >= MostlyHum * track.Frames.Count && cents.InterquartileRange() < MostHumCents;
        return Math.Abs(cents.Median()) < 15 && (isLevel || isExact)
            ? new Disturbance(
                DisturbanceKind.Hum,
                $"a hum of {mains:0} Hz from end to end, and no tone over it.",
                "Use another power supply or run on battery, move away from lamps and chargers, and play it again."
            )
            : null;
    }

    /// <summary>Music goes on through the rests, at more than one pitch.</summary>
    private static Disturbance? Music(PitchTrack track, IReadOnlyList<(double From, double To)> quiet)
    {
        var rests = track.Frames.Where(frame => quiet.Any(span => frame.TimeSeconds > span.From && frame.TimeSeconds < span.To)).ToList();
        var sounding = rests.Where(frame => frame.Voiced).ToList();
        if (rests.Count < 50 || sounding.Count < 0.6 * rests.Count)
            return null;
        var loud = track.Frames.Select(frame => frame.LevelDb).Percentile(90);
        var pitches = sounding.Select(frame => 12 * Math.Log2(frame.FrequencyHz)).ToList();
        return sounding.Select(frame => frame.LevelDb).Median() > loud - 15 && pitches.Percentile(90) - pitches.Percentile(10) > 1.5
            ? new Disturbance(
                DisturbanceKind.Music,
                $"notes sound through {100.0 * sounding.Count / rests.Count:0} % of the rests: music or somebody else playing.",
                "Switch the music off or find a quiet corner, and play it again."
            )
            : null;
    }

    /// <summary>
    /// Speech comes in voiced pieces whose colour changes from sound to sound, and in short ones that slide. A brass tone keeps its colour,
    /// whatever its pitch does; where notes run into each other they may slide too.
    /// </summary>
    private static Disturbance? Speech(MonoSound sound, PitchTrack track, bool joined)
    {
        var runs = Runs(track.Frames);
        if (runs.Count < 6)
            return null;
        var isShort = runs.Count(run => run.Count < 45) >= 0.7 * runs.Count;
        var slides = isShort && (AllGlide(runs) || (!joined && runs.Select(Slide).Median() > 70));
        return slides || ColourChange(sound, runs) > SpeechColour
            ? new Disturbance(
                DisturbanceKind.Speech,
                $"{runs.Count} short sounds that slide or change their colour all the time, as of somebody talking.",
                "Wait until nobody talks, and play it again."
            )
            : null;
    }

    /// <summary>
    /// How much the spectrum's middle (mean log frequency by power, to 5 kHz) moves in 50 ms inside voiced pieces, octaves, on average.
    /// </summary>
    private static double ColourChange(MonoSound sound, List<List<PitchFrame>> runs)
    {
        const int Length = 1024,
            Apart = 5;
        var spectrum = new PowerSpectrum(Length);
        var end = (int)Math.Min((Length / 2) + 1, Math.Ceiling(HighestColourHz * Length / sound.SampleRate));
        double[] heights = [.. Enumerable.Range(0, end).Skip(FirstColourBin).Select(bin => Math.Log2(bin))];
        var changes = new List<double>();
        foreach (var run in runs)
        {
            var middles = run.Skip(4).SkipLast(4).Select(frame => Middle(sound, spectrum, heights, frame.TimeSeconds)).ToList();
            for (var i = Apart; i < middles.Count; i++)
                changes.Add(Math.Abs(middles[i] - middles[i - Apart]));
        }

        return changes.Count == 0 ? 0 : changes.Average();
    }

    /// <param name="sound">The recording.</param>
    /// <param name="spectrum">What its spectrum is taken with.</param>
    /// <param name="heights">The log frequency of each bin from the first that counts, octaves over that of bin 1.</param>
    /// <param name="seconds">When.</param>
    private static double Middle(MonoSound sound, PowerSpectrum spectrum, double[] heights, double seconds)
    {
        var power = spectrum
            .Of(sound.Samples, (int)(seconds * sound.SampleRate) - (spectrum.Length / 2))
            .Slice(FirstColourBin, heights.Length);
        return TensorPrimitives.Dot(heights, power) / (TensorPrimitives.Sum(power) + 1e-15);
    }

    /// <summary>How far a piece slides, cents, its start and its end left out: a tone's start may slide too.</summary>
    private static double Slide(List<PitchFrame> run)
    {
        var inner = run.Skip(6).SkipLast(4).Select(frame => frame.FrequencyHz).ToList();
        return inner.Count < 3 ? 0 : 1200 * Math.Log2(inner.Max() / inner.Min());
    }

    /// <summary>
    /// Whether short pieces all glide, evenly and the same way, as the syllables of laughter do: a slurred note stands, and then leaps.
    /// </summary>
    private static bool AllGlide(List<List<PitchFrame>> runs)
    {
        var glides = runs.Where(run => run.Count >= ShortestGlideFrames).Select(Glide).ToList();
        return glides.Count >= FewestGlides
            && Math.Max(glides.Count(cents => cents > LeastGlideCents), glides.Count(cents => cents < -LeastGlideCents))
                >= MostlyGlides * glides.Count;
    }

    /// <summary>Cents from a piece's start to its end along a line that its pitch keeps to; 0 where it keeps to none.</summary>
    private static double Glide(List<PitchFrame> run)
    {
        var inner = run.Skip(3).SkipLast(3).ToList();
        var (times, cents) = (
            inner.ConvertAll(frame => frame.TimeSeconds),
            inner.ConvertAll(frame => 1200 * Math.Log2(frame.FrequencyHz / inner[0].FrequencyHz))
        );
        return Trend.Detrended(times, cents).StandardDeviation() < MostOffGlideCents
            ? Trend.Of(times, cents).SlopePerSecond * (times[^1] - times[0])
            : 0;
    }

    private static List<List<PitchFrame>> Runs(IReadOnlyList<PitchFrame> frames)
    {
        var runs = new List<List<PitchFrame>>();
        var run = new List<PitchFrame>();
        foreach (var frame in frames.Append(default))
        {
            if (frame.Voiced)
            {
                run.Add(frame);
                continue;
            }

            if (run.Count >= 6)
                runs.Add(run);
            run = [];
        }

        return runs;
    }

    /// <summary>A link of 8000 samples a second carries nothing over 4 kHz, whatever the recording's own rate.</summary>
    private static Disturbance? Narrow(MonoSound sound)
    {
        const int Length = 4096;
        if (sound.SampleRate > 2 * NarrowHz * 1.3)
        {
            double below = 0,
                above = 0;
            var spectrum = new PowerSpectrum(Length);
            for (var start = 0; start + Length <= sound.Samples.Length; start += 4 * Length)
            {
                var power = spectrum.Of(sound.Samples, start);
                below += Mean(power, sound.SampleRate, 0.75 * NarrowHz, 0.92 * NarrowHz);
                above += Mean(power, sound.SampleRate, 1.08 * NarrowHz, 1.25 * NarrowHz);
            }

            if (below <= 0 || 10 * Math.Log10((above + 1e-20) / below) > NarrowDb)
                return null;
        }

        return new Disturbance(
            DisturbanceKind.Narrow,
            "nothing over 4 kHz came through, as from a wireless headset: breath and brightness cannot be told.",
            "Use the microphone of the computer or one with a cable, and play it again."
        );
    }

    private static double Mean(ReadOnlySpan<double> power, int rate, double fromHz, double toHz)
    {
        var length = 2 * (power.Length - 1);
        var (from, count) = ((int)(fromHz * length / rate), Math.Max(1, (int)((toHz - fromHz) * length / rate)));
        var sum = 0.0;
        foreach (var bin in power.Slice(from, count))
            sum += bin;
        return sum / count;
    }
}
