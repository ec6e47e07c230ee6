using MathNet.Numerics.Statistics;

namespace Bocca.Core.Judging;

/// <summary>A figure at one moment.</summary>
/// <param name="At">When.</param>
/// <param name="Value">The middle over the repeats.</param>
/// <param name="Spread">Their standard deviation; 0 for one alone.</param>
/// <param name="Count">How many repeats.</param>
public readonly record struct FigurePoint(DateTime At, double Value, double Spread = 0, int Count = 1);

/// <summary>
/// A figure over weeks beside the pupil's own spread. It has changed only when the newest values lie further from the
/// earlier ones than repeats on one day lie from each other.
/// </summary>
/// <param name="Kind">Of what.</param>
/// <param name="Points">The values, oldest first.</param>
/// <param name="Spread">
/// The pupil's own spread: the standard deviation of repeats within an entry, pooled; where entries hold one value each, that of
/// neighbouring values (the median of their distances over 0.954, which is what it is for a normal distribution).
/// </param>
/// <param name="Earlier">Median of the values before.</param>
/// <param name="Now">Median of the newest.</param>
/// <param name="Changed">Whether that is a change.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record FigureHistory(
    FigureKind Kind,
    IReadOnlyList<FigurePoint> Points,
    double Spread,
    double Earlier,
    double Now,
    bool Changed,
    string Sentence
)
{
    /// <summary>The newest values that count as now, and the fewest earlier ones to compare with (ours, editable).</summary>
    private const int Newest = 3,
        FewestEarlier = 2;

    /// <summary>The median distance of two values of a normal distribution, in its standard deviations (computed).</summary>
    private const double MedianDistance = 0.954;

    /// <summary>Normal deviate that leaves 5 % on either side: what a share must change by beyond chance.</summary>
    private const double Deviate = 1.645;

    /// <summary>The history of a figure; null for fewer than two values. Shares come a day at a time, in per cent.</summary>
    /// <param name="kind">Of what.</param>
    /// <param name="points">Its values, oldest first.</param>
    public static FigureHistory? Of(FigureKind kind, IReadOnlyList<FigurePoint> points) =>
        kind.IsShare ? OfShares(kind, points) : OfValues(kind, points);

    private static FigureHistory? OfValues(FigureKind kind, IReadOnlyList<FigurePoint> points)
    {
        if (points.Count < 2)
            return null;
        var freedom = points.Sum(point => Math.Max(0, point.Count - 1));
        var spread =
            freedom > 0
                ? Math.Sqrt(points.Sum(point => point.Spread * point.Spread * Math.Max(0, point.Count - 1)) / freedom)
                : points.Skip(1).Zip(points, (one, before) => Math.Abs(one.Value - before.Value)).Median() / MedianDistance;
        var newest = Math.Min(Newest, Math.Max(1, points.Count - FewestEarlier));
        var now = points.TakeLast(newest).Select(point => point.Value).Median();
        var earlier = points.SkipLast(newest).Select(point => point.Value).Median();
        var enough = points.Count - newest >= FewestEarlier && (freedom > 0 || points.Count > newest + FewestEarlier);
        var changed = enough && Math.Abs(now - earlier) > spread;
        return new FigureHistory(kind, points, spread, earlier, now, changed, Words(kind, earlier, now, enough, changed));
    }

    /// <summary>The newest days against those before; the spread is that of a share of so many tries, at 90 %.</summary>
    private static FigureHistory? OfShares(FigureKind kind, IReadOnlyList<FigurePoint> points)
    {
        var days = points
            .GroupBy(point => point.At.Date)
            .Select(day => new FigurePoint(day.Min(point => point.At), 100 * Mean(day), 0, day.Sum(point => point.Count)))
            .ToList();
        if (days.Count < 2)
            return null;
        var newest = Math.Min(Newest, Math.Max(1, days.Count - FewestEarlier));
        var (before, after) = (days.SkipLast(newest).ToList(), days.TakeLast(newest).ToList());
        var (earlier, now, all) = (Mean(before), Mean(after), Mean(days) / 100);
        var spread =
            100 * Deviate * Math.Sqrt(all * (1 - all) * ((1.0 / before.Sum(day => day.Count)) + (1.0 / after.Sum(day => day.Count))));
        var enough = days.Count - newest >= FewestEarlier;
        var changed = enough && Math.Abs(now - earlier) > spread;
        return new FigureHistory(kind, days, spread, earlier, now, changed, Words(kind, earlier, now, enough, changed));
    }

    private static double Mean(IEnumerable<FigurePoint> points)
    {
        var (sum, count) = (0.0, 0);
        foreach (var point in points)
            (sum, count) = (sum + (point.Value * point.Count), count + point.Count);
        return sum / Math.Max(1, count);
    }

    private static string Words(FigureKind kind, double earlier, double now, bool enough, bool changed)
    {
        var unit = kind.Unit == "" ? "" : $" {kind.Unit}";
        if (!enough)
            return $"Now {Number(now, kind)}{unit}; too few takes to see a change.";
        var numbers = $"was {Number(earlier, kind)}, now {Number(now, kind)}{unit}";
        if (!changed)
            return $"No clear change: {numbers}.";
        var how = now < earlier ? kind.Less : kind.More;
        return $"{char.ToUpperInvariant(how[0])}{how[1..]}: {numbers}.";
    }

    /// <summary>Cents, milliseconds and per cent are whole; everything else has one place.</summary>
    private static string Number(double value, FigureKind kind) => kind.Unit is "cents" or "ms" or "%" ? $"{value:0}" : $"{value:0.#}";
}
