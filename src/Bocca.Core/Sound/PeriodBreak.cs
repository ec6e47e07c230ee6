using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Where a running tone is first disturbed: the moment from which it no longer repeats its own period. A new start inside a
/// tone, by the tongue or by the lips, is heard there even while the old note still covers it.
/// </summary>
/// <remarks>
/// Each piece of 4 ms is held against the piece one period before: the period that fits best, within a third of a semitone,
/// which then follows a tone that drifts. What is left, as a share of the tone's power, is the disturbance. Computed; limits
/// ours, editable.
/// </remarks>
public sealed class PeriodBreak(MonoSound sound)
{
    private const double PieceSeconds = 0.004,
        StepSeconds = 0.001,
        PeriodRange = 0.02;

    /// <summary>Disturbed: so many times what was usual (the median) just before, and at least this share of the power.</summary>
    private const double Times = 5,
        LeastShare = 0.015;

    /// <summary>
    /// The foot of the disturbance: as many times what the last moments before it had, or this share of the power, at most so long before
    /// (seconds).
    /// </summary>
    private const double LastSeconds = 0.05,
        FootShare = 0.002,
        FootSeconds = 0.012;

    /// <summary>Undisturbed for so long is undisturbed (seconds).</summary>
    private const double CalmSeconds = 0.008;

    /// <summary>
    /// The first disturbed moment of a stretch, seconds; null if none is, or too little came before it to know what is usual.
    /// </summary>
    /// <param name="usualFrom">From where the tone was undisturbed, seconds.</param>
    /// <param name="from">Where the stretch begins, seconds.</param>
    /// <param name="to">Where it ends, seconds.</param>
    /// <param name="hertz">Pitch of the tone, hertz.</param>
    public double? First(double usualFrom, double from, double to, double hertz)
    {
        if (from - usualFrom < 2 / hertz || BestPeriod(usualFrom, from, hertz) is not { } period)
            return null;
        var limit = Math.Max(LeastShare, Times * Shares(usualFrom, from, period).DefaultIfEmpty(1).Median());
        var shares = Shares(from, to, period).ToList();
        if (shares.Count == 0 || shares.Max() <= limit)
            return null;
        // From the worst moment back to where the tone was still itself: an odd period long before it is none of its.
        var (first, calm) = (shares.IndexOf(shares.Max()), 0);
        for (var i = first; i >= 0 && calm < CalmSeconds / StepSeconds; i--)
        {
            calm = shares[i] > limit ? 0 : calm + 1;
            first = calm == 0 ? i : first;
        }

        // Like a note that begins out of silence: at the foot of what comes in, where that is close before.
        var left = (int)(FootSeconds / StepSeconds);
        var foot = Math.Max(FootShare, Times * shares.Take(Math.Max(1, first - left)).TakeLast((int)(LastSeconds / StepSeconds)).Median());
        for (; left > 0 && first > 0 && shares[first - 1] > foot; left--)
            first--;
        // A piece is disturbed as soon as its last part is.
        return from + (first * StepSeconds) + (PieceSeconds / 2);
    }

    /// <summary>
    /// What a stretch leaves when it is held against itself one period before, as a share of its power: 0 where it repeats, 1 and more
    /// where it does not.
    /// </summary>
    /// <param name="from">Where the stretch begins, seconds.</param>
    /// <param name="to">Where it ends, seconds.</param>
    /// <param name="hertz">The pitch whose period is tried, hertz; the best within a third of a semitone is taken.</param>
    public double ResidualShare(double from, double to, double hertz)
    {
        var (start, end) = (
            Math.Max((int)(from * sound.SampleRate), (int)Math.Ceiling(sound.SampleRate / hertz * (1 + PeriodRange))),
            Math.Min((int)(to * sound.SampleRate), sound.Samples.Length)
        );
        if (BestPeriod(from, to, hertz) is not { } period || end <= start)
            return 1;
        var power = 0.0;
        for (var i = start; i < end; i++)
            power += sound.Samples[i] * sound.Samples[i];
        return Residual(start, end, period) / (power + 1e-12);
    }

    /// <summary>The period, in samples, that leaves least of a stretch.</summary>
    private int? BestPeriod(double from, double to, double hertz)
    {
        var (shortest, longest) = (
            (int)(sound.SampleRate / hertz * (1 - PeriodRange)),
            (int)Math.Ceiling(sound.SampleRate / hertz * (1 + PeriodRange))
        );
        var end = Math.Min((int)(to * sound.SampleRate), sound.Samples.Length);
        var start = Math.Max((int)(from * sound.SampleRate), Math.Max(longest, end - (4 * longest)));
        if (end - start < longest)
            return null;
        return Enumerable.Range(shortest, longest - shortest + 1).MinBy(period => Residual(start, end, period));
    }

    private IEnumerable<double> Shares(double from, double to, int period)
    {
        for (var at = from; at <= to; at += StepSeconds)
        {
            var (start, end) = ((int)(at * sound.SampleRate), (int)((at + PieceSeconds) * sound.SampleRate));
            if (start - period - 1 < 0 || end > sound.Samples.Length)
                yield break;
            var power = 0.0;
            for (var i = start - period; i < start; i++)
                power += sound.Samples[i] * sound.Samples[i];
            var (shorter, same, longer) = (
                Residual(start, end, period - 1),
                Residual(start, end, period),
                Residual(start, end, period + 1)
            );
            var share = Lowest(shorter, same, longer) / (end - start) / ((power / period) + 1e-12);
            if (share < LeastShare)
                period +=
                    shorter < same ? -1
                    : longer < same ? 1
                    : 0;
            yield return share;
        }
    }

    /// <summary>The least of three neighbours, between samples where they bend upwards: a period is no whole number of them.</summary>
    private static double Lowest(double before, double middle, double after)
    {
        var bend = before - (2 * middle) + after;
        return middle > before || middle > after || bend <= 0
            ? Math.Min(middle, Math.Min(before, after))
            : Math.Max(0, middle - ((after - before) * (after - before) / (8 * bend)));
    }

    private double Residual(int start, int end, int period)
    {
        var (now, then, both) = (0.0, 0.0, 0.0);
        for (var i = start; i < end; i++)
        {
            now += sound.Samples[i] * sound.Samples[i];
            then += sound.Samples[i - period] * sound.Samples[i - period];
            both += sound.Samples[i] * sound.Samples[i - period];
        }

        // A swell or a fade is the same period at another size.
        var gain = Math.Clamp(both / (then + 1e-12), 0.5, 1.5);
        return now - (2 * gain * both) + (gain * gain * then);
    }
}
