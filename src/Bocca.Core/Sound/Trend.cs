using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>A straight line through points in time, that a few stray points do not move.</summary>
/// <param name="SlopePerSecond">Change a second.</param>
/// <param name="AtStart">Value at time 0.</param>
public readonly record struct Trend(double SlopePerSecond, double AtStart)
{
    /// <summary>
    /// The line whose slope is the median of the slopes between all pairs of points (published: Theil 1950; Sen 1968),
    /// thinned to at most 300 points. Flat for fewer than two points.
    /// </summary>
    /// <param name="times">Seconds, ascending.</param>
    /// <param name="values">One a time.</param>
    public static Trend Of(IReadOnlyList<double> times, IReadOnlyList<double> values)
    {
        if (times.Count < 2)
            return new Trend(0, times.Count == 1 ? values[0] : 0);
        var stride = Math.Max(1, times.Count / 300);
        var slopes = new List<double>();
        for (var i = 0; i < times.Count; i += stride)
        for (var j = i + stride; j < times.Count; j += stride)
            slopes.Add((values[j] - values[i]) / (times[j] - times[i]));
        var slope = slopes.Median();
        return new Trend(slope, times.Zip(values, (time, value) => value - (slope * time)).Median());
    }

    /// <summary>The line's value at a time in seconds.</summary>
    public double At(double seconds) => AtStart + (SlopePerSecond * seconds);

    /// <summary>What is left of the values when a straight line of least squares is taken away.</summary>
    public static double[] Detrended(IReadOnlyList<double> times, IReadOnlyList<double> values)
    {
        if (times.Count < 3)
            return [.. values.Select(value => value - values.Average())];
        var (intercept, slope) = MathNet.Numerics.Fit.Line([.. times], [.. values]);
        return [.. times.Zip(values, (time, value) => value - intercept - (slope * time))];
    }
}
