using System.Numerics;
using Bocca.Core.Health;

namespace Bocca.Core.Practice.Week;

/// <summary>
/// How long a day takes with any of a week's items, its rests included: laid out as it will be done, each set of items once. A set takes at
/// least as long as every part of it, so that one item may always be left out.
/// </summary>
/// <param name="items">The items; a set is a bit each.</param>
/// <param name="limits">How long is played at a time.</param>
internal sealed class DaySeconds(IReadOnlyList<WeekItem> items, PlayingLimits limits)
{
    private readonly double[] _known = new double[1 << items.Count];

    /// <summary>The items in the order of a day, each with its bit.</summary>
    private readonly (WeekItem Item, int Bit)[] _ordered =
    [
        .. WeekLayout.InOrder(items).Select(item => (item, 1 << items.Index().First(each => ReferenceEquals(each.Item, item)).Index)),
    ];

    /// <summary>Seconds of a set of items.</summary>
    public double Of(int set)
    {
        if (set == 0 || _known[set] > 0)
            return _known[set];
        var day = new List<WeekItem>(BitOperations.PopCount((uint)set));
        foreach (var (item, bit) in _ordered)
            if ((set & bit) != 0)
                day.Add(item);
        var seconds = WeekLayout.Seconds(day, limits);
        for (var left = set; left != 0; left &= left - 1)
            seconds = Math.Max(seconds, Of(set & ~(1 << BitOperations.TrailingZeroCount(left))));
        return _known[set] = seconds;
    }
}
