using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Mends a track where it slipped to a fraction of the pitch beside it. Where one note runs into the next, the old one's ring
/// and the new one together repeat at a period that neither has; and a tone whose every other period differs a little may be
/// read an octave low. Lips do neither for a moment only (limits ours, editable).
/// </summary>
public static class PitchSlips
{
    /// <summary>
    /// Two notes ring together no longer than this; what fits only one of them is less alike from period to period than one tone is.
    /// </summary>
    private const double RingSeconds = 0.12,
        OneToneClarity = 0.95;

    /// <summary>
    /// A tone read low for no longer than this may still repeat its true period: this share of its power is left, at most.
    /// </summary>
    private const double LowSeconds = 0.3,
        SameShare = 0.06;

    /// <summary>A run of one pitch moves less than this from frame to frame; a fraction of a pitch is met within this (cents).</summary>
    private const double RunCents = 50,
        FitCents = 40;

    /// <summary>What a slip is measured by is a tone of at least this length, no more frames than this away.</summary>
    private const double NeighbourSeconds = 0.04;

    private const int GapFrames = 3;

    private static readonly int[] Fractions = [2, 3, 4];

    /// <summary>The track without its slips: same frames, pitch mended where it had slipped.</summary>
    /// <param name="sound">The sound.</param>
    /// <param name="track">Its track.</param>
    public static PitchTrack Mended(MonoSound sound, PitchTrack track)
    {
        var frames = track.Frames.ToArray();
        var periods = new PeriodBreak(sound);
        var runs = VoicedRuns.Of(frames, RunCents);
        // From the end: what rings into a note is measured by that note, mended first.
        for (var i = runs.Count - 1; i >= 0; i--)
        {
            var (first, end) = runs[i];
            if ((end - first) * PitchTrack.HopSeconds > LowSeconds)
                continue;
            var after =
                i + 1 < runs.Count && runs[i + 1].First - end <= GapFrames
                    ? Pitch(frames, runs[i + 1].First, VoicedRuns.EndOf(frames, runs[i + 1].First, RunCents))
                    : null;
            var before = i > 0 && first - runs[i - 1].End <= GapFrames ? Pitch(frames, runs[i - 1].First, runs[i - 1].End) : null;
            var times = Slip(frames[first..end], before, after, periods);
            for (var at = first; at < end; at++)
                frames[at] = frames[at] with { FrequencyHz = times * frames[at].FrequencyHz };
        }

        return track with
        {
            Frames = frames,
        };
    }

    /// <summary>By how much a run is too low beside its neighbours; 1 where it is not.</summary>
    private static int Slip(PitchFrame[] run, double? before, double? after, PeriodBreak periods)
    {
        var hertz = run.Select(frame => frame.FrequencyHz).Median();
        var (ofBefore, ofAfter) = (Times(hertz, before), Times(hertz, after));
        var alike = run.Select(frame => frame.Clarity).Median() >= OneToneClarity;
        var ringing = run.Length * PitchTrack.HopSeconds <= RingSeconds && (!alike || (ofBefore > 0 && ofAfter > 0 && ofBefore != ofAfter));
        bool Is(int times, double? neighbour) =>
            times > 0 && (ringing || periods.ResidualShare(run[0].TimeSeconds, run[^1].TimeSeconds, neighbour!.Value) <= SameShare);
        return Is(ofAfter, after) ? ofAfter
            : Is(ofBefore, before) ? ofBefore
            : 1;
    }

    /// <summary>The whole number of times that a pitch goes into another; 0 where none does.</summary>
    private static int Times(double hertz, double? into) =>
        into is { } whole ? Fractions.FirstOrDefault(by => Math.Abs(1200 * Math.Log2(by * hertz / whole)) < FitCents) : 0;

    private static double? Pitch(PitchFrame[] frames, int first, int end) =>
        (end - first) * PitchTrack.HopSeconds < NeighbourSeconds ? null : frames[first..end].Select(frame => frame.FrequencyHz).Median();
}
