namespace Bocca.Core.Practice.Timetable;

/// <summary>A lesson that comes back every week, on the room's wall clock.</summary>
/// <param name="Who">Whose it is.</param>
/// <param name="Day">The day of the week.</param>
/// <param name="Start">When it begins.</param>
/// <param name="Minutes">How long it lasts, minutes.</param>
/// <param name="From">The first day on which it may be.</param>
/// <param name="Until">The last; null for no end.</param>
public sealed record LessonSlot(SlotOwner Who, DayOfWeek Day, TimeOnly Start, int Minutes, DateOnly From, DateOnly? Until = null)
{
    /// <summary>A lesson lasts so many minutes at least and at most (ours).</summary>
    public const int FewestMinutes = 5,
        MostMinutes = 180;

    /// <summary>Days on which it is not, as it was put off.</summary>
    public IReadOnlyList<DateOnly> Except { get; init; } = [];

    /// <summary>When it ends.</summary>
    public TimeOnly End => Start.AddMinutes(Minutes);

    /// <summary>Checks that there can be such a lesson.</summary>
    /// <exception cref="ArgumentException">There cannot; the message says why.</exception>
    public LessonSlot Checked()
    {
        if (Minutes is < FewestMinutes or > MostMinutes)
            throw new ArgumentException($"A lesson lasts {FewestMinutes} to {MostMinutes} minutes.");
        if (Start.ToTimeSpan().Add(TimeSpan.FromMinutes(Minutes)) > TimeSpan.FromDays(1))
            throw new ArgumentException("A lesson ends on the day on which it begins: let it begin earlier, or make it shorter.");
        if (Until < From)
            throw new ArgumentException("The lesson would end before its first day.");
        if (!Holiday.IsOfOurTime(From) || (Until is { } last && !Holiday.IsOfOurTime(last)))
            throw new ArgumentException("A lesson is in the years 2000 to 2199.");
        return this;
    }

    /// <summary>Whether it is on a day, holidays apart.</summary>
    public bool IsOn(DateOnly day) => day.DayOfWeek == Day && day >= From && !(day > Until) && !Except.Contains(day);

    /// <summary>Whether two of them are at the same time on some day.</summary>
    public bool Meets(LessonSlot other) =>
        Day == other.Day
        && Start.ToTimeSpan() < other.Start.ToTimeSpan() + TimeSpan.FromMinutes(other.Minutes)
        && other.Start.ToTimeSpan() < Start.ToTimeSpan() + TimeSpan.FromMinutes(Minutes)
        && !(From > other.Until)
        && !(other.From > Until);
}

/// <summary>Days without lessons.</summary>
/// <param name="First">The first.</param>
/// <param name="Last">The last.</param>
/// <param name="Name">What they are called.</param>
public sealed record Holiday(DateOnly First, DateOnly Last, string Name)
{
    /// <summary>Checks that there can be such days.</summary>
    /// <exception cref="ArgumentException">There cannot; the message says why.</exception>
    public Holiday Checked() =>
        Last < First ? throw new ArgumentException("The holidays would end before they begin.")
        : !IsOfOurTime(First) || !IsOfOurTime(Last) ? throw new ArgumentException("Holidays are in the years 2000 to 2199.")
        : Last.DayNumber - First.DayNumber > 366 ? throw new ArgumentException("Holidays of more than a year are none.")
        : this;

    /// <summary>Whether a day is one that a timetable can hold.</summary>
    internal static bool IsOfOurTime(DateOnly day) => day.Year is >= 2000 and < 2200;
}
