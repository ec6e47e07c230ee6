using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>What the spectrum of a stretch of sound says about its brightness.</summary>
public static class Spectrum
{
    private const int Length = 2048;
    private const double HighestHz = 6000;

    /// <summary>
    /// Spectral centroid in hertz up to 6 kHz: the mean frequency, weighted by power so that breath noise counts little, as the median
    /// over windows of
    /// 2048 samples. Zero for less than one window.
    /// </summary>
    public static double CentroidHz(MonoSound sound, double fromSeconds, double toSeconds)
    {
        var from = Math.Max(0, (int)(fromSeconds * sound.SampleRate));
        var to = Math.Min(sound.Samples.Length, (int)(toSeconds * sound.SampleRate));
        var spectrum = new PowerSpectrum(Length);
        var centroids = new List<double>();
        for (var start = from; start + Length <= to; start += Length)
            centroids.Add(Centroid(spectrum.Of(sound.Samples, start), (double)sound.SampleRate / Length));
        return centroids.Count == 0 ? 0 : centroids.Median();
    }

    private static double Centroid(ReadOnlySpan<double> power, double hertzABin)
    {
        double weighted = 0,
            sum = 1e-12;
        for (var bin = 1; bin < power.Length - 1 && bin * hertzABin <= HighestHz; bin++)
        {
            weighted += bin * hertzABin * power[bin];
            sum += power[bin];
        }

        return weighted / sum;
    }
}
