namespace Bocca.Core.Sound;

/// <summary>A regular swing to and fro.</summary>
/// <param name="Hz">How often a second.</param>
/// <param name="HalfRange">How far to either side, in the unit of the values.</param>
public readonly record struct Swing(double Hz, double HalfRange)
{
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
        for (var hz = slowestHz; hz <= fastestHz + 1e-9; hz += 0.1)
        {
            double cosine = 0,
                sine = 0;
            for (var i = 0; i < times.Count; i++)
            {
                cosine += values[i] * Math.Cos(2 * Math.PI * hz * times[i]);
                sine += values[i] * Math.Sin(2 * Math.PI * hz * times[i]);
            }

            var half = 2 * Math.Sqrt((cosine * cosine) + (sine * sine)) / times.Count;
            if (half > strongest.HalfRange)
                strongest = new Swing(hz, half);
        }

        return strongest;
    }
}
