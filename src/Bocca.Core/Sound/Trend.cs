using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>A straight line through points in time, that a few stray points do not move.</summary>
/// <param name="SlopePerSecond">Change a second.</param>
/// <param name="AtStart">Value at time 0.</param>
public readonly record struct Trend(double SlopePerSecond, double AtStart)
{
    private const int MostPoints = 300;

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
        var stride = (times.Count + MostPoints - 1) / MostPoints;
        var points = (times.Count + stride - 1) / stride;
        // One array of the right size: a long take has hundreds of tones, and each would leave several behind.
        var (slopes, pair) = (new double[points * (points - 1) / 2], 0);
        for (var i = 0; i < times.Count; i += stride)
        for (var j = i + stride; j < times.Count; j += stride)
            slopes[pair++] = (values[j] - values[i]) / (times[j] - times[i]);
        var slope = ArrayStatistics.MedianInplace(slopes);
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
