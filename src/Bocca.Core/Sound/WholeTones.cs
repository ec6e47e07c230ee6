using MathNet.Numerics;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// What only the whole tone can say about its pitch in noise, and no single frame: whether it was read an octave low, and which of its
/// frames noise has led astray. A clear tone is left as it was read (limits ours, editable).
/// </summary>
public static class WholeTones
{
    /// <summary>A tone less clear than this is in noise: about 10 dB.</summary>
    private const double ClearFrom = 0.9;

    /// <summary>
    /// Read an octave low, the odd multiples hold at most this share of the tone's power; more of a moment of one, where noise weighs
    /// more.
    /// </summary>
    private const double MostOddShare = 0.06,
        MostOddShareOfDip = 0.3;

    /// <summary>Noise makes a tone fall an octave no longer than this at a time (seconds), and meet it within so much (cents).</summary>
    private const double DipSeconds = 0.12,
        OctaveCents = 80;

    /// <summary>A moment of noise that repeats by chance is shorter than this (seconds) and less clear than this.</summary>
    private const double HissSeconds = 0.15,
        HissClarity = 0.75;

    /// <summary>From frame to frame one tone moves less than this (cents).</summary>
    private const double RunCents = 300;

    /// <summary>A frame further than this (cents) from the line of those around it was led astray by noise.</summary>
    private const double AstrayCents = 25;

    /// <summary>A held tone swings no further to either side than this (cents), what noise adds taken in.</summary>
    private const double MostOfAHeldTone = 40;

    /// <summary>
    /// Frames that a line is drawn through: of a held tone (more where fewer periods speak for it: under this pitch, hertz), of one that
    /// bends, and at least.
    /// </summary>
    private const int HeldFrames = 41,
        BentFrames = 17,
        FewestFrames = 9;

    /// <summary>Points that a line is drawn through, about: more make it no better.</summary>
    private const int MostPoints = 20;

    private const double LowHz = 100;

    /// <summary>The track with its tones settled: same frames.</summary>
    /// <param name="sound">The sound.</param>
    /// <param name="track">Its track, frame by frame.</param>
    public static PitchTrack Settled(MonoSound sound, PitchTrack track)
    {
        var runs = VoicedRuns.Of(track.Frames, RunCents).Where(run => IsInNoise(track.Frames, run)).ToList();
        if (runs.Count == 0)
            return track;
        var frames = track.Frames.ToArray();
        var comb = new HarmonicComb(sound);
        foreach (var run in runs)
        {
            var share = comb.OddShare(frames.AsSpan(run.First, run.End - run.First));
            if (share < MostOddShare || ((share ?? 0) < MostOddShareOfDip && IsDip(frames, run)))
                for (var at = run.First; at < run.End; at++)
                    frames[at] = frames[at] with { FrequencyHz = 2 * frames[at].FrequencyHz };
        }

        Hush(frames);
        foreach (var (first, end) in VoicedRuns.Of(frames, RunCents).Where(run => IsInNoise(frames, run)))
            Straighten(frames.AsSpan(first, end - first));
        return track with { Frames = frames };
    }

    /// <summary>A hiss repeats by chance for a moment: what is short, unclear and by itself is no tone.</summary>
    private static void Hush(PitchFrame[] frames)
    {
        foreach (var run in VoicedRuns.Of(frames))
            if ((run.End - run.First) * PitchTrack.HopSeconds < HissSeconds && Clarity(frames, run) < HissClarity)
                for (var at = run.First; at < run.End; at++)
                    frames[at] = frames[at] with { Voiced = false };
    }

    /// <summary>Whether a tone falls an octave for a moment too short to be looked into, and goes on as it was or as it came.</summary>
    private static bool IsDip(PitchFrame[] frames, (int First, int End) run) =>
        (run.End - run.First) * PitchTrack.HopSeconds <= DipSeconds
        && (IsOctaveAbove(frames, run.First, run.First - 1) || IsOctaveAbove(frames, run.End - 1, run.End));

    private static bool IsOctaveAbove(PitchFrame[] frames, int low, int beside) =>
        beside >= 0
        && beside < frames.Length
        && frames[beside].Voiced
        && Math.Abs((1200 * Math.Log2(frames[beside].FrequencyHz / frames[low].FrequencyHz)) - 1200) < OctaveCents;

    private static bool IsInNoise(IReadOnlyList<PitchFrame> frames, (int First, int End) run) => Clarity(frames, run) < ClearFrom;

    private static double Clarity(IReadOnlyList<PitchFrame> frames, (int First, int End) run) =>
        Enumerable.Range(run.First, run.End - run.First).Select(at => frames[at].Clarity).Median();

    /// <summary>Puts frames that noise led astray on the line of those around them.</summary>
    private static void Straighten(Span<PitchFrame> run)
    {
        var cents = new double[run.Length];
        for (var at = 0; at < run.Length; at++)
            cents[at] = 1200 * Math.Log2(run[at].FrequencyHz);
        double[] times = [.. Enumerable.Range(0, run.Length).Select(at => at * PitchTrack.HopSeconds)];
        // A wobble is no noise: it is followed round its bends.
        var bends = Swing.Strongest(times, Trend.Detrended(times, cents)).HalfRange > MostOfAHeldTone;
        var window = Math.Min(run.Length, bends ? BentFrames : (int)(HeldFrames * Math.Max(1, LowHz / run[run.Length / 2].FrequencyHz)));
        if (window < FewestFrames)
            return;
        // Neighbours share most of what they were read from: not every frame is needed.
        double[] places =
        [
            .. Enumerable.Range(0, window).Where(place => place % Math.Max(1, window / MostPoints) == 0).Select(place => (double)place),
        ];
        for (var at = 0; at < run.Length; at++)
        {
            var from = Math.Clamp(at - (window / 2), 0, run.Length - window);
            var around = Array.ConvertAll(places, place => cents[from + (int)place]);
            var line = bends ? Polynomial.Fit(places, around, 2).Evaluate(at - from) : Trend.Of(places, around).At(at - from);
            if (run[at].Clarity < ClearFrom && Math.Abs(cents[at] - line) > AstrayCents)
                run[at] = run[at] with { FrequencyHz = Math.Pow(2, line / 1200) };
        }
    }
}
