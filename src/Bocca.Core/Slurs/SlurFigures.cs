using Bocca.Core.Judging;

namespace Bocca.Core.Slurs;

/// <summary>What a take of a slur says of the figures that are followed over weeks.</summary>
public static class SlurFigures
{
    /// <summary>How many of the changes came clean, 0 to 1.</summary>
    public static FigureKind Clean { get; } = new("clean changes", "%", "fewer clean", "more clean", IsShare: true);

    /// <summary>The same of one pair of partials; the item is its setting and the two partials, such as <c>1-3 3 4</c>.</summary>
    public static FigureKind Change { get; } = new("change of partial", "%", "fewer clean", "more clean", IsShare: true);

    /// <summary>The figures of a take.</summary>
    /// <param name="changes">The changes in it.</param>
    public static IEnumerable<Figure> Of(IReadOnlyList<SlurMap.Change> changes)
    {
        static double Share(IEnumerable<SlurMap.Change> of) => of.Average(change => change.Clean ? 1.0 : 0);
        if (changes.Count == 0)
            yield break;
        yield return new Figure(Clean, Share(changes), Count: changes.Count);
        foreach (var pair in changes.GroupBy(change => $"{change.Setting} {change.Low} {change.High}"))
            yield return new Figure(Change, Share(pair), Count: pair.Count(), Item: pair.Key);
    }

    /// <summary>The changes that a figure of one pair of partials stands for.</summary>
    /// <param name="item">Which pair, as the figure names it.</param>
    /// <param name="share">How many were clean, 0 to 1.</param>
    /// <param name="count">Of how many.</param>
    /// <param name="at">When.</param>
    public static IEnumerable<SlurMap.Change> Changes(string item, double share, int count, DateTime at)
    {
        var parts = item.Split(' ');
        var clean = (int)Math.Round(share * count);
        return Enumerable
            .Range(0, count)
            .Select(i => new SlurMap.Change(parts[0], int.Parse(parts[1]), int.Parse(parts[2]), i < clean, at));
    }
}
