namespace Bocca.Core.Simulation;

/// <summary>Noise coloured like breath: white noise between about 300 Hz and 5 kHz.</summary>
/// <param name="random">Where it comes from.</param>
/// <param name="level">RMS level, full scale 1.</param>
internal sealed class BreathNoise(Random random, double level)
{
    private const double Low = 0.042;
    private const double High = 0.51;

    // Makes the RMS of the coloured noise what was asked for; measured over ten seconds of it.
    private const double Gain = 2.8;
    private double _slow;
    private double _fast;

    /// <summary>The next sample.</summary>
    public double Next()
    {
        var white = (2 * random.NextDouble()) - 1;
        _fast += High * (white - _fast);
        _slow += Low * (_fast - _slow);
        return level * Gain * (_fast - _slow);
    }
}
