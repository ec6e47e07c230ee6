using Bocca.Core.Health;

namespace Bocca.Core.Practice.Week;

/// <summary>What a week is planned for.</summary>
/// <param name="Minutes">Minutes that are free on each day, the first day first; 0 for none.</param>
/// <param name="Items">What it may hold; at most <see cref="MostItems"/>.</param>
/// <param name="Limits">How long is played at a time.</param>
public sealed record WeekAsked(IReadOnlyList<double> Minutes, IReadOnlyList<WeekItem> Items, PlayingLimits Limits)
{
    /// <summary>Days of a week, and the most items of one (ours).</summary>
    public const int Days = 7,
        MostItems = 12;

    /// <summary>The most minutes of a day (common practice; ours, editable downward only).</summary>
    public const double MostMinutes = 60;

    /// <summary>How tired the lips are: 0 fresh to 3 very.</summary>
    public int Tired { get; init; }

    /// <summary>
    /// The day of an exam, from 0; <see cref="Days"/> for the day after the week, whose eve is still in it; null for none by then.
    /// </summary>
    public int? Exam { get; init; }

    /// <summary>Seconds a day on the lips alone, and of breath drills.</summary>
    public double LipSecondsADay { get; init; } = 300;

    /// <inheritdoc cref="LipSecondsADay"/>
    public double BreathSecondsADay { get; init; } = 240;

    /// <summary>Why no sound may be made at all, as an ailment bars it; null where it may.</summary>
    public string? Barred { get; init; }

    /// <summary>Fewer minutes when tired: each step takes a fifth (ours, editable).</summary>
    public double SecondsOf(int day) => Math.Min(Minutes[day], MostMinutes) * 60 * (1 - (0.2 * Math.Clamp(Tired, 0, 3)));

    /// <summary>Checks that a week can be asked so.</summary>
    /// <exception cref="ArgumentException">It cannot; the message says why.</exception>
    public void Check()
    {
        if (Minutes.Count != Days || Minutes.Any(minutes => !(minutes >= 0 && minutes <= 24 * 60)))
            throw new ArgumentException("A week has seven days, each of nought to so many minutes.");
        if (Minutes.All(minutes => minutes == 0))
            throw new ArgumentException("A week of nought minutes has no room for anything: give it a day and some minutes.");
        if (Items.Count > MostItems)
            throw new ArgumentException($"{MostItems} items are the most of a week; {Items.Count} are too many to do any of them well.");
        if (Items.DistinctBy(item => item.Id).Count() < Items.Count)
            throw new ArgumentException("The same item stands twice.");
        if (Exam is < 0 or > Days)
            throw new ArgumentException("The exam lies neither in this week nor on the day after it.");
        foreach (var item in Items)
            if (!(item.Amount.Seconds > 0) || !double.IsFinite(item.Amount.Seconds) || !(item.Urgency is >= 0 and <= 10))
                throw new ArgumentException($"'{item.Name}' has no amount that adds up: it cannot be assigned.");
    }
}
