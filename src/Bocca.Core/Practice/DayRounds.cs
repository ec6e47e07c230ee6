namespace Bocca.Core.Practice;

/// <summary>How many rounds of a drill count today: those too close to the one before do not.</summary>
/// <param name="Counted">Rounds that count.</param>
/// <param name="Asked">Rounds asked for.</param>
/// <param name="NextFrom">From when another one counts; null for at once, or when all are done.</param>
public sealed record DayRounds(int Counted, int Asked, DateTime? NextFrom)
{
    /// <summary>Counts the rounds of a day.</summary>
    /// <param name="played">When they were played, in any order.</param>
    /// <param name="asked">How many are asked.</param>
    /// <param name="apartMinutes">Minutes between two that count.</param>
    /// <param name="now">Now.</param>
    public static DayRounds Of(IEnumerable<DateTime> played, int asked, double apartMinutes, DateTime now)
    {
        var counted = 0;
        DateTime? last = null;
        foreach (var at in played.Order())
        {
            if (last is { } before && (at - before).TotalMinutes < apartMinutes)
                continue;
            counted++;
            last = at;
        }

        var next = last?.AddMinutes(apartMinutes);
        return new DayRounds(counted, asked, counted >= asked || next is null || next <= now ? null : next);
    }
}
