using Bocca.Core.Health;

namespace Bocca.Core.Practice.Week;

/// <summary>
/// Puts the items of a day in order: warm-up first, then the fault and the new while the lips are fresh, no two of a kind side by side
/// where that can be, what is liked towards the end, what goes above the ceiling late, short, and followed by rest (common practice).
/// </summary>
public static class WeekLayout
{
    /// <summary>Lays a day out, with the rests that its playing needs.</summary>
    /// <param name="day">Which day, from 0.</param>
    /// <param name="items">What is done on it.</param>
    /// <param name="limits">How long is played at a time.</param>
    public static WeekDay Of(int day, IReadOnlyList<WeekItem> items, PlayingLimits limits)
    {
        var rounds = new List<WeekRound>();
        var played = 0.0;
        foreach (
            var item in Varied([
                .. items.OrderBy(Place).ThenByDescending(item => item.Urgency).ThenBy(item => item.Id, StringComparer.Ordinal),
            ])
        )
        {
            if (item.Sounds && played > 0 && played + item.Amount.PlayedSeconds > limits.OnSeconds)
            {
                rounds[^1] = rounds[^1] with { RestSeconds = limits.OffSeconds };
                played = 0;
            }

            rounds.Add(new WeekRound(item, 0));
            played += item.Amount.PlayedSeconds;
        }

        return new WeekDay(day, rounds);
    }

    private static int Place(WeekItem item) =>
        item.HighSeconds > 0
            ? 8
            : item.Kind switch
            {
                WeekKind.WarmUp => 0,
                WeekKind.Fault => 1,
                WeekKind.New => 2,
                WeekKind.Gate => 3,
                WeekKind.Recall => 4,
                WeekKind.Stretch => 5,
                WeekKind.Paper => 6,
                _ => 7,
            };

    /// <summary>The same order, but that the next of another kind comes before a second of the same.</summary>
    private static List<WeekItem> Varied(List<WeekItem> items)
    {
        for (var i = 1; i + 1 < items.Count; i++)
        {
            if (Sort(items[i]) != Sort(items[i - 1]))
                continue;
            var other = items.FindIndex(i + 1, item => Sort(item) != Sort(items[i - 1]) && item.HighSeconds == 0);
            if (other < 0)
                continue;
            var moved = items[other];
            items.RemoveAt(other);
            items.Insert(i, moved);
        }

        return items;
    }

    /// <summary>What an item is done with: its stop, or its own name.</summary>
    private static string Sort(WeekItem item) => item.Id.Split(':')[0];
}
