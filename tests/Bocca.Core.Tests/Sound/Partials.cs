namespace Bocca.Core.Tests.Sound;

/// <summary>
/// Sines at the multiples of a phase, summed: of all of them only the first is computed, the others follow by turning it further, since
/// the tests sum some hundred million.
/// </summary>
internal sealed class Partials
{
    private readonly double[] _ofSine;
    private readonly double[] _ofCosine;

    /// <param name="count">How many.</param>
    /// <param name="size">The amplitude of the one with a number, from 1.</param>
    /// <param name="begins">The phase at which it begins, radians; all at 0 where there is none.</param>
    public Partials(int count, Func<int, double> size, Func<int, double>? begins = null)
    {
        _ofSine = new double[count];
        _ofCosine = new double[count];
        for (var k = 1; k <= count; k++)
        {
            var (sine, cosine) = Math.SinCos(begins?.Invoke(k) ?? 0);
            (_ofSine[k - 1], _ofCosine[k - 1]) = (size(k) * cosine, size(k) * sine);
        }
    }

    /// <summary>Partials that fall off as one over their number.</summary>
    public static Partials Falling(int count) => new(count, k => 1.0 / k);

    /// <summary>The sum at a phase of the first, radians, of all or of the lowest.</summary>
    public double At(double phase, int lowest = int.MaxValue)
    {
        var (sine, cosine) = Math.SinCos(phase);
        var (s, c) = (sine, cosine);
        var sum = 0.0;
        for (var k = 0; k < Math.Min(lowest, _ofSine.Length); k++)
        {
            sum += (_ofSine[k] * s) + (_ofCosine[k] * c);
            (s, c) = ((s * cosine) + (c * sine), (c * cosine) - (s * sine));
        }

        return sum;
    }
}
