namespace Bocca.Core.Practice.Week;

/// <summary>A round of a day: one item, and the rest after it.</summary>
/// <param name="Item">What is done.</param>
/// <param name="RestSeconds">Seconds of rest after it, the instrument down; 0 for none.</param>
public sealed record WeekRound(WeekItem Item, double RestSeconds);

/// <summary>A day of a week.</summary>
/// <param name="Day">Which, from 0.</param>
/// <param name="Rounds">What is done, in order.</param>
public sealed record WeekDay(int Day, IReadOnlyList<WeekRound> Rounds)
{
    /// <summary>Seconds of the day, rests included.</summary>
    public double Seconds => Rounds.Sum(round => round.Item.Amount.Seconds + round.RestSeconds);

    /// <summary>Minutes of the day in whole ones, as page, sheet, calendar and message tell them.</summary>
    public int Minutes => WholeMinutes(Seconds);

    /// <summary>Whole minutes that so many seconds take: begun ones count.</summary>
    public static int WholeMinutes(double seconds) => (int)Math.Ceiling((seconds / 60) - 1e-6);

    /// <summary>Seconds that count as playing.</summary>
    public double PlayedSeconds => Rounds.Sum(round => round.Item.Amount.PlayedSeconds);
}

/// <summary>An item that found no day, and why.</summary>
public sealed record LeftOut(WeekItem Item, string Why);

/// <summary>A day to which an item was locked and on which it may not be, and why.</summary>
public sealed record RefusedDay(WeekItem Item, int Day, string Why);

/// <summary>A planned week.</summary>
/// <param name="Days">Its days.</param>
/// <param name="Left">What found no day.</param>
/// <param name="Worth">What the plan is worth, in points of urgency.</param>
/// <param name="Bound">More than that no plan is worth.</param>
/// <param name="Nodes">How many partial plans were looked at.</param>
public sealed record WeekPlan(IReadOnlyList<WeekDay> Days, IReadOnlyList<LeftOut> Left, double Worth, double Bound, int Nodes)
{
    /// <summary>What was locked to a day on which it may not be.</summary>
    public IReadOnlyList<RefusedDay> Refused { get; init; } = [];

    /// <summary>Whether no better plan exists.</summary>
    public bool Proven => Bound - Worth < 1e-9;
}
