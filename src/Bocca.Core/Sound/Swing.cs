using System.Numerics;

namespace Bocca.Core.Sound;

/// <summary>A regular swing to and fro.</summary>
/// <param name="Hz">How often a second.</param>
/// <param name="HalfRange">How far to either side, in the unit of the values.</param>
public readonly record struct Swing(double Hz, double HalfRange)
{
    private const double StepHz = 0.1;

    /// <summary>
    /// The strongest swing between two rates, by fitting a sine at each tenth of a hertz to values without trend.
    /// Zero for less than one full swing of the slowest.
    /// </summary>
    /// <param name="times">Seconds.</param>
    /// <param name="values">One a time, their mean near zero.</param>
    /// <param name="slowestHz">Slowest rate looked for.</param>
    /// <param name="fastestHz">Fastest rate looked for.</param>
    public static Swing Strongest(IReadOnlyList<double> times, IReadOnlyList<double> values, double slowestHz = 2, double fastestHz = 8)
    {
        if (times.Count < 2 || times[^1] - times[0] < 1 / slowestHz)
            return default;
        var strongest = default(Swing);
        // Where a swing stands at each time, and how much further the next quicker one has come by then.
        var (turns, further) = (Turns(times, slowestHz), Turns(times, StepHz));
        for (var hz = slowestHz; hz <= fastestHz + 1e-9; hz += StepHz)
        {
            var sum = Complex.Zero;
            for (var i = 0; i < turns.Length; i++)
            {
                sum += values[i] * turns[i];
                turns[i] *= further[i];
            }

            var half = 2 * sum.Magnitude / times.Count;
            if (half > strongest.HalfRange)
                strongest = new Swing(hz, half);
        }

        return strongest;
    }

    private static Complex[] Turns(IReadOnlyList<double> times, double hz) =>
        [.. times.Select(time => Complex.FromPolarCoordinates(1, 2 * Math.PI * hz * time))];
}
