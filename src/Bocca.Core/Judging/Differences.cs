using MathNet.Numerics.Distributions;

namespace Bocca.Core.Judging;

/// <summary>
/// What differs between tries made one way and tries made another, in words: only what lies beyond the spread of the repeats and is large
/// enough to be heard is told. Few repeats say little of their spread: the bound is Student's t (published: Student 1908), and no spread
/// under the least difference is believed. One try a side has no spread; then the least size alone decides.
/// </summary>
/// <typeparam name="T">What a try is.</typeparam>
/// <param name="usual">The tries that the others are held against.</param>
/// <param name="other">The others.</param>
internal sealed class Differences<T>(IReadOnlyList<T> usual, IReadOnlyList<T> other)
{
    /// <summary>How sure it has to be that two groups differ (ours, editable).</summary>
    private const double Sure = 0.95;

    private readonly List<string> _told = [];

    /// <summary>What was told so far.</summary>
    public IReadOnlyList<string> Told => _told;

    /// <summary>Compares the means of one measure.</summary>
    /// <param name="of">The measure; null where a try has none.</param>
    /// <param name="least">The least difference that is told, in <paramref name="unit"/>.</param>
    /// <param name="unit">Its unit.</param>
    /// <param name="more">What a greater value is called.</param>
    /// <param name="less">What a smaller one is called.</param>
    public Differences<T> In(Func<T, double?> of, double least, string unit, string more, string less)
    {
        var (a, b) = (usual.Select(of).OfType<double>().ToList(), other.Select(of).OfType<double>().ToList());
        if (a.Count == 0 || b.Count == 0)
            return this;
        var by = b.Average() - a.Average();
        if (Math.Abs(by) > Math.Max(least, Bound(a, b, least)))
            _told.Add($"{Math.Abs(by):0.#} {unit} {(by > 0 ? more : less)}");
        return this;
    }

    /// <summary>What two groups of the same spread may lie apart by chance.</summary>
    private static double Bound(List<double> a, List<double> b, double least)
    {
        var freedom = a.Count + b.Count - 2;
        if (freedom == 0)
            return 0;
        var spread = Math.Max(least, Math.Sqrt((Squares(a) + Squares(b)) / freedom));
        return StudentT.InvCDF(0, 1, freedom, (1 + Sure) / 2) * spread * Math.Sqrt((1.0 / a.Count) + (1.0 / b.Count));
    }

    private static double Squares(List<double> values)
    {
        var mean = values.Average();
        return values.Sum(value => (value - mean) * (value - mean));
    }
}
