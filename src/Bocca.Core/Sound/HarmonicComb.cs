namespace Bocca.Core.Sound;

/// <summary>
/// Says whether a tone was read an octave low: every even multiple of its true period is a period too, and in noise one of them may look
/// as good. Only the true fundamental has partials at its odd multiples; noise has as much between them.
/// </summary>
/// <remarks>Not safe for use from two threads at once.</remarks>
/// <param name="sound">The sound.</param>
public sealed class HarmonicComb(MonoSound sound)
{
    /// <summary>Positions looked at, odd and even together, and how high they reach.</summary>
    private const int MostPositions = 16;
    private const double HighestHz = 5000;

    /// <summary>A spectrum tells neighbours apart that lie so many of its bins from each other (Hann: two to the first zero).</summary>
    private const double Apart = 4;

    private const int LongestWindow = 8192,
        ShortestWindow = 1024;

    private readonly Dictionary<int, PowerSpectrum> _spectra = [];

    /// <summary>
    /// How much of a tone's power lies at the odd multiples of the pitch read, noise taken off on both sides: next to nothing (or less, by
    /// chance) where the pitch was read an octave low.
    /// </summary>
    /// <param name="frames">The frames of one tone, without a gap or a jump.</param>
    /// <returns>The share, 1 at most; null where the tone is too short to tell.</returns>
    public double? OddShare(ReadOnlySpan<PitchFrame> frames)
    {
        var lowest = double.PositiveInfinity;
        foreach (var frame in frames)
            lowest = Math.Min(lowest, frame.FrequencyHz);
        var seconds = frames.Length * PitchTrack.HopSeconds;
        var length = Window(lowest);
        if (length > seconds * sound.SampleRate || length > LongestWindow)
            return null;
        var spectrum = _spectra.TryGetValue(length, out var known) ? known : _spectra[length] = new PowerSpectrum(length);
        double odd = 0,
            even = 0;
        var steps = Math.Max(1, (int)Math.Round(2 * ((seconds * sound.SampleRate / length) - 1)) + 1);
        for (var step = 0; step < steps; step++)
        {
            var middle =
                (length / 2.0 / sound.SampleRate) + ((seconds - ((double)length / sound.SampleRate)) * step / Math.Max(1, steps - 1));
            var hertz = frames[Math.Min(frames.Length - 1, (int)(middle / PitchTrack.HopSeconds))].FrequencyHz;
            var start = frames[0].TimeSeconds - (PitchTrack.HopSeconds / 2) + middle;
            var power = spectrum.Of(sound.Samples, (int)(start * sound.SampleRate) - (length / 2));
            Add(power, hertz * length / sound.SampleRate, ref odd, ref even);
        }

        return odd + even <= 0 ? null : odd / (odd + even);
    }

    /// <summary>The window whose spectrum tells an odd multiple from the noise halfway to the next.</summary>
    private int Window(double hertz)
    {
        var least = Apart * sound.SampleRate / (hertz / 2);
        var length = ShortestWindow;
        while (length < least)
            length *= 2;
        return length;
    }

    private void Add(ReadOnlySpan<double> power, double bins, ref double odd, ref double even)
    {
        var most = Math.Min(MostPositions, (int)(HighestHz / sound.SampleRate * 2 * (power.Length - 1) / bins));
        for (var position = 1; position <= most; position++)
        {
            var noise = (At(power, (position - 0.5) * bins) + At(power, (position + 0.5) * bins)) / 2;
            var tone = At(power, position * bins) - noise;
            if (position % 2 == 1)
                odd += tone;
            else
                even += tone;
        }
    }

    /// <summary>The power within a bin of a place.</summary>
    private static double At(ReadOnlySpan<double> power, double bin)
    {
        var middle = (int)Math.Round(bin);
        var sum = 0.0;
        for (var at = Math.Max(0, middle - 1); at <= middle + 1 && at < power.Length; at++)
            sum += power[at];
        return sum;
    }
}
