using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Judging;

namespace Bocca.Core.Practice;

/// <summary>What a silent drill of the hand says of the figures that are followed over weeks.</summary>
public static class HandFigures
{
    /// <summary>How many settings the hand finds in twenty seconds.</summary>
    public static FigureKind Settings { get; } = new("settings in 20 s", "", "slower", "quicker");

    /// <summary>How long a change takes, seconds; the item is the two settings.</summary>
    public static FigureKind Change { get; } = new("change of the hand", "s", "quicker", "slower");

    /// <summary>How often a change was missed, 0 to 1; the item is the two settings.</summary>
    public static FigureKind Missed { get; } = new("missed change", "%", "surer", "less sure", IsShare: true);

    private const double SettingsSeconds = 20;

    /// <summary>The figures of a drill.</summary>
    /// <param name="marks">The answers.</param>
    /// <param name="medianSeconds">Median time of a right one; 0 where none was right.</param>
    public static IEnumerable<Figure> Of(IReadOnlyList<HandMark> marks, double medianSeconds)
    {
        if (medianSeconds > 0)
            yield return new Figure(Settings, SettingsSeconds / medianSeconds, Count: 1);
        foreach (var change in HandOutcome.Changes(marks))
        {
            var item = $"{change.From} {change.To}";
            if (change.Times > change.Missed)
                yield return new Figure(Change, change.Seconds, Count: change.Times - change.Missed, Item: item);
            yield return new Figure(Missed, (double)change.Missed / change.Times, Count: change.Times, Item: item);
        }
    }

    /// <summary>The changes that figures of several drills stand for, the weakest first.</summary>
    /// <param name="figures">Figures of changes and of misses.</param>
    public static IReadOnlyList<HandChange> Changes(IEnumerable<Figure> figures) =>
        [
            .. figures
                .GroupBy(figure => figure.Item)
                .Select(group =>
                {
                    var (from, to) = (group.Key.Split(' ')[0], group.Key.Split(' ')[1]);
                    var misses = group.Where(figure => figure.Kind == Missed).ToList();
                    return new HandChange(
                        from,
                        to,
                        HandOutcome.Median(
                            group.Where(figure => figure.Kind == Change).SelectMany(figure => Enumerable.Repeat(figure.Value, figure.Count))
                        ),
                        misses.Sum(figure => figure.Count),
                        misses.Sum(figure => (int)Math.Round(figure.Value * figure.Count))
                    );
                })
                .OrderByDescending(change => (double)change.Missed / Math.Max(1, change.Times))
                .ThenByDescending(change => change.Seconds),
        ];
}
