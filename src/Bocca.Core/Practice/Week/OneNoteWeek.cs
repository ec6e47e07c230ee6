using Bocca.Core.Music;

namespace Bocca.Core.Practice.Week;

/// <summary>
/// A week with one note and no other, as a choice of the first days (common practice): the breath, the buzz and the hand stay, every other
/// note waits.
/// </summary>
public static class OneNoteWeek
{
    /// <summary>Counts on and off, how often, and the tempo (common practice).</summary>
    private const int On = 4,
        Times = 4;

    private const double Tempo = 60;

    /// <summary>The items of such a week, out of those of a usual one.</summary>
    /// <param name="items">The usual ones.</param>
    /// <param name="note">The only note, as it is written.</param>
    public static IReadOnlyList<WeekItem> Of(IEnumerable<WeekItem> items, Pitch note) =>
        [
            new WeekItem(
                $"note:{note}",
                $"{note} alone",
                WeekKind.New,
                Amount.Of(On, On, Times, Tempo),
                8,
                "Three of four begin at once and last four counts.",
                "One note this week; the others wait."
            ),
            .. items.Where(item => item.Id.Split(':')[0] is "buzz" or "breath"),
        ];
}
