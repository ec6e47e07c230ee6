namespace Bocca.Core.Practice.Timetable;

/// <summary>The lessons of every week, and the days without any.</summary>
/// <param name="Slots">The lessons.</param>
/// <param name="Holidays">The days without.</param>
public sealed record LessonTimetable(IReadOnlyList<LessonSlot> Slots, IReadOnlyList<Holiday> Holidays)
{
    /// <summary>How far ahead the next lesson is looked for, days.</summary>
    private const int Ahead = 400;

    /// <summary>The holidays that a day lies in; null for none.</summary>
    public Holiday? HolidayOn(DateOnly day) => Holidays.FirstOrDefault(holiday => day >= holiday.First && day <= holiday.Last);

    /// <summary>The lessons of a day, the earliest first.</summary>
    public IReadOnlyList<LessonSlot> On(DateOnly day) =>
        HolidayOn(day) is null ? [.. Slots.Where(slot => slot.IsOn(day)).OrderBy(slot => slot.Start).ThenBy(slot => slot.Who.Pupil)] : [];

    /// <summary>The day of somebody's next lesson after a day; null for none within a year.</summary>
    public DateOnly? NextAfter(DateOnly day, SlotOwner who)
    {
        var own = Slots.Where(slot => slot.Who == who).ToList();
        for (var ahead = 1; own.Count > 0 && ahead <= Ahead; ahead++)
            if (day.AddDays(ahead) is var next && HolidayOn(next) is null && own.Exists(slot => slot.IsOn(next)))
                return next;
        return null;
    }

    /// <summary>The lesson that another would be given at the same time as; null where there is none.</summary>
    public LessonSlot? Clash(LessonSlot slot) => Slots.FirstOrDefault(slot.Meets);
}
