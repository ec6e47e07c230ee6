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
        foreach (var item in Varied(InOrder(items)))
        {
            if (RestsBefore(item, played, limits))
            {
                rounds[^1] = rounds[^1] with { RestSeconds = limits.OffSeconds };
                played = 0;
            }

            rounds.Add(new WeekRound(item, 0));
            played += item.Amount.PlayedSeconds;
        }

        return new WeekDay(day, rounds);
    }

    /// <summary>Seconds of a day, rests included, without laying it out for anybody.</summary>
    /// <param name="items">What is done on it, as <see cref="InOrder"/> has it; it is put in another order here.</param>
    /// <param name="limits">How long is played at a time.</param>
    internal static double Seconds(List<WeekItem> items, PlayingLimits limits)
    {
        var (seconds, played) = (0.0, 0.0);
        foreach (var item in Varied(items))
        {
            if (RestsBefore(item, played, limits))
                (seconds, played) = (seconds + limits.OffSeconds, 0);
            seconds += item.Amount.Seconds;
            played += item.Amount.PlayedSeconds;
        }

        return seconds;
    }

    /// <summary>Items in the order of a day, before it is varied.</summary>
    internal static List<WeekItem> InOrder(IEnumerable<WeekItem> items) =>
        [.. items.OrderBy(Place).ThenByDescending(item => item.Urgency).ThenBy(item => item.Id, StringComparer.Ordinal)];

    private static bool RestsBefore(WeekItem item, double played, PlayingLimits limits) =>
        item.Sounds && played > 0 && played + item.Amount.PlayedSeconds > limits.OnSeconds;

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
            if (!IsAlike(items[i], items[i - 1]))
                continue;
            var other = i + 1;
            while (other < items.Count && (IsAlike(items[other], items[i - 1]) || items[other].HighSeconds > 0))
                other++;
            if (other == items.Count)
                continue;
            var moved = items[other];
            items.RemoveAt(other);
            items.Insert(i, moved);
        }

        return items;
    }

    /// <summary>Whether two are done with the same: at one stop, or by one name.</summary>
    private static bool IsAlike(WeekItem one, WeekItem other) => Stop(one).SequenceEqual(Stop(other));

    private static ReadOnlySpan<char> Stop(WeekItem item) =>
        item.Id.IndexOf(':', StringComparison.Ordinal) is var colon and >= 0 ? item.Id.AsSpan(0, colon) : item.Id;
}
