using Bocca.Core;
using Bocca.Core.Practice.Timetable;
using Bocca.Web.Record;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Bocca.Web.Pages.Practice;

/// <summary>What a calendar file holds of a timetable.</summary>
/// <param name="Slots">Its lessons.</param>
/// <param name="Holidays">Its days without.</param>
/// <param name="Left">What of it was not taken, and why, in sentences.</param>
public sealed record CalendarRead(IReadOnlyList<LessonSlot> Slots, IReadOnlyList<Holiday> Holidays, IReadOnlyList<string> Left);

/// <summary>The timetable as an iCalendar (RFC 5545): lessons recur every week at the room's wall clock; whole days are holidays.</summary>
public static class TimetableCalendar
{
    public const int MostBytes = 1_000_000;

    private const int MostEvents = 2000,
        MostName = 60;

    /// <summary>Writes a timetable.</summary>
    /// <param name="timetable">The timetable.</param>
    /// <param name="names">What whoever has a lesson is called.</param>
    /// <param name="clock">Where the room lies, and its day: what is over is not written.</param>
    public static string Write(LessonTimetable timetable, Func<SlotOwner, string> names, RoomClock clock)
    {
        var calendar = new Ical.Net.Calendar { ProductId = "-//Bocca//Timetable//EN" };
        calendar.AddTimeZone(clock.Zone);
        foreach (var (at, slot) in timetable.Slots.Index())
        {
            var first = slot.From;
            while (first.DayOfWeek != slot.Day || slot.Except.Contains(first) || timetable.HolidayOn(first) is not null)
                first = first.AddDays(1);
            if (first > slot.Until)
                continue;
            var start = new CalDateTime(first.ToDateTime(slot.Start), clock.Zone.Id);
            var lesson = new CalendarEvent
            {
                Uid = $"bocca-lesson-{at}-{slot.Day}-{slot.Start:HHmm}",
                Summary = names(slot.Who),
                Start = start,
                End = new CalDateTime(first.ToDateTime(slot.Start).AddMinutes(slot.Minutes), clock.Zone.Id),
            };
            if (slot.Until != slot.From)
            {
                var rule = new RecurrencePattern(FrequencyType.Weekly);
                if (slot.Until is { } until)
                    rule.Until = new CalDateTime(until.ToDateTime(new TimeOnly(23, 59)), clock.Zone.Id).ToTimeZone("UTC");
                lesson.RecurrenceRule = rule;
            }

            foreach (var day in slot.Except.Concat(OffDays(timetable, slot, first)).Distinct().Order())
                lesson.ExceptionDates.Add(new CalDateTime(day.ToDateTime(slot.Start), clock.Zone.Id));
            calendar.Events.Add(lesson);
        }

        foreach (var (at, holiday) in timetable.Holidays.Index())
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"bocca-holiday-{at}-{holiday.First:yyyyMMdd}",
                    Summary = holiday.Name,
                    Start = new CalDateTime(holiday.First),
                    End = new CalDateTime(holiday.Last.AddDays(1)),
                }
            );
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    /// <summary>Reads a timetable.</summary>
    /// <param name="text">The file.</param>
    /// <param name="who">Whose a lesson of a name is; null for nobody's.</param>
    /// <param name="clock">Where the room lies, and its day.</param>
    /// <exception cref="InvalidDataException">It is no calendar; the message says so.</exception>
    public static CalendarRead Read(string text, Func<string, SlotOwner?> who, RoomClock clock)
    {
        Ical.Net.Calendar? calendar;
        try
        {
            calendar = Ical.Net.Calendar.Load(text);
        }
        catch (Exception problem) when (problem is not OutOfMemoryException)
        {
            throw new InvalidDataException("That is not a calendar file. Choose one that ends with .ics.", problem);
        }

        if (calendar is null || calendar.Events.Count == 0)
            throw new InvalidDataException("This file holds no calendar with lessons. Choose one that ends with .ics.");
        if (calendar.Events.Count > MostEvents)
            throw new InvalidDataException($"This calendar has more than {MostEvents} entries: export the lessons alone.");
        var (slots, holidays, left) = (new List<LessonSlot>(), new List<Holiday>(), new List<string>());
        foreach (var each in calendar.Events)
        {
            try
            {
                if (each.Start is null)
                    throw new ArgumentException("It has no beginning.");
                if (!each.Start.HasTime)
                    holidays.Add(HolidayOf(each));
                else
                    slots.AddRange(SlotsOf(each, who, clock).Select(slot => slot.Checked()));
            }
            catch (Exception problem) when (problem is ArgumentException or InvalidOperationException or FormatException)
            {
                left.Add($"{Short(each.Summary)}: {OneLine.Of(problem)}");
            }
        }

        // What is off because of holidays needs no word of its own.
        bool InHolidays(DateOnly day) => holidays.Exists(holiday => day >= holiday.First && day <= holiday.Last);
        return new CalendarRead(
            slots.ConvertAll(slot => slot with { Except = [.. slot.Except.Where(day => !InHolidays(day))] }),
            holidays,
            left
        );
    }

    private static IEnumerable<DateOnly> OffDays(LessonTimetable timetable, LessonSlot slot, DateOnly first) =>
        timetable
            .Holidays.SelectMany(holiday =>
                Enumerable.Range(0, holiday.Last.DayNumber - holiday.First.DayNumber + 1).Select(day => holiday.First.AddDays(day))
            )
            .Where(day => day > first && slot.IsOn(day));

    private static Holiday HolidayOf(CalendarEvent each)
    {
        var first = DateOnly.FromDateTime(each.Start!.Value);
        var last = each.End is { } end ? DateOnly.FromDateTime(end.Value).AddDays(-1) : first;
        return new Holiday(first, last < first ? first : last, Short(each.Summary)).Checked();
    }

    private static IEnumerable<LessonSlot> SlotsOf(CalendarEvent each, Func<string, SlotOwner?> who, RoomClock clock)
    {
        var name = each.Summary?.Trim() ?? "";
        var whose = who(name) ?? throw new ArgumentException("nobody here is called so, and no class.");
        var start = clock.Local(each.Start!.AsUtc);
        var end = each.End is { } given ? clock.Local(given.AsUtc) : start;
        // The wall clock's minutes, so that a lesson across a change of clocks is as long as it says.
        var minutes = (int)Math.Round((end - start).TotalMinutes);
        var (first, except) = (DateOnly.FromDateTime(start), ExceptOf(each, clock));
        if (each.RecurrenceRule is not { } rule)
            return [new LessonSlot(whose, first.DayOfWeek, TimeOnly.FromDateTime(start), minutes, first, first)];
        if (rule.Frequency != FrequencyType.Weekly || rule.Interval > 1)
            throw new ArgumentException("it does not come every week.");
        var until =
            rule.Until is { } to ? DateOnly.FromDateTime(clock.Local(to.AsUtc))
            : rule.Count is { } count and > 0 ? first.AddDays(7 * (count - 1))
            : (DateOnly?)null;
        // A day of the week that the rule names is one of the calendar's own zone: moved as its beginning is.
        var moved = first.DayNumber - DateOnly.FromDateTime(each.Start.Value).DayNumber;
        var days =
            rule.ByDay.Count == 0
                ? [first.DayOfWeek]
                : rule.ByDay.Select(day => (DayOfWeek)(((int)day.DayOfWeek + moved + 7) % 7)).ToList();
        return days.Select(day => new LessonSlot(whose, day, TimeOnly.FromDateTime(start), minutes, first, until) { Except = except });
    }

    private static List<DateOnly> ExceptOf(CalendarEvent each, RoomClock clock) =>
        [.. each.ExceptionDates.GetAllDates().Select(day => day.HasTime ? clock.DayOf(day.AsUtc) : DateOnly.FromDateTime(day.Value))];

    private static string Short(string? name) =>
        name?.Trim() is { Length: > 0 } given ? given[..Math.Min(MostName, given.Length)] : "Without a name";
}
