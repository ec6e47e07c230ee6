using System.Globalization;
using System.Text;
using Bocca.Core.Practice.Timetable;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>The lessons of every week, and the days without any.</summary>
[UploadLimit(TimetableCalendar.MostBytes, "A calendar has at most a megabyte: export the lessons alone.")]
public sealed class TimetableModel(Journal journal) : StagePage(journal)
{
    private const int MostSlots = 300,
        MostHolidays = 100;

    public IReadOnlyList<TimetableSlot> Slots { get; private set; } = [];

    public IReadOnlyList<TimetableHoliday> Holidays { get; private set; } = [];

    public IReadOnlyList<string> Classes { get; private set; } = [];

    /// <summary>Everybody, by name.</summary>
    public IReadOnlyList<(int Id, string Name)> Everybody { get; private set; } = [];

    public async Task OnGetAsync() => await LoadAsync();

    /// <summary>What somebody with a lesson is called.</summary>
    public string NameOf(SlotOwner who) =>
        who.Pupil is { } id ? Everybody.FirstOrDefault(each => each.Id == id).Name ?? "somebody" : who.ClassName;

    /// <summary>A pupil as the form sends one, beside names of classes.</summary>
    public static string Sent(int pupilId) => $"pupil {pupilId}";

    /// <summary>Adds a lesson of every week.</summary>
    public async Task<IActionResult> OnPostAddAsync(string? who, DayOfWeek day, string? start, int minutes, string? from, string? until)
    {
        await LoadAsync();
        return await RefusingAsync(async () =>
        {
            if (WhoOf(who ?? "") is not { } whose)
                throw new ArgumentException("Choose who has the lesson.");
            if (!TimeOnly.TryParseExact(start, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var at))
                throw new ArgumentException($"'{start}' is no time such as 16:20.");
            if (!Enum.IsDefined(day))
                throw new ArgumentException("Choose a day of the week.");
            var slot = new LessonSlot(whose, day, at, minutes, DayOr(from) ?? Clock.Today, DayOr(until)).Checked();
            if (Timetable().Clash(slot) is { } clash)
                throw new ArgumentException(
                    $"{NameOf(clash.Who)} has a lesson then, {clash.Start:HH:mm} to {clash.End:HH:mm}. One at a time."
                );
            var now = Clock.Now;
            Db.TimetableSlots.Add(Row(slot, now));
            await Db.SaveChangesAsync();
            return Added("The lesson stands in the timetable.", now);
        });
    }

    /// <summary>Adds days without lessons.</summary>
    public async Task<IActionResult> OnPostHolidayAsync(string? first, string? last, string? name)
    {
        await LoadAsync();
        return await RefusingAsync(async () =>
        {
            var from = DayOr(first) ?? throw new ArgumentException("Holidays have a first day.");
            var holiday = new Holiday(
                from,
                DayOr(last) ?? from,
                name?.Trim() is { Length: > 0 and <= 60 } said ? said : "Holidays"
            ).Checked();
            if (Holidays.Count >= MostHolidays)
                throw new ArgumentException($"{MostHolidays} holidays are the most: take old ones out.");
            var now = Clock.Now;
            Db.TimetableHolidays.Add(Row(holiday, now));
            await Db.SaveChangesAsync();
            return Added($"{holiday.Name}: no lessons then.", now);
        });
    }

    /// <summary>Puts one lesson off: it is not on a day.</summary>
    public async Task<IActionResult> OnPostOffAsync(int id, string? day) =>
        await RefusingAsync(async () =>
        {
            if (await Db.TimetableSlots.FirstOrDefaultAsync(each => each.Id == id) is not { } slot)
                return NotFound();
            var on = DayOr(day) ?? throw new ArgumentException("On which day is it not?");
            if (slot.ExceptDays.Contains(on))
                slot.ExceptDays = [.. slot.ExceptDays.Where(each => each != on)];
            else if (!slot.Slot.IsOn(on))
                throw new ArgumentException($"There is no such lesson on {on:d MMMM}.");
            else
                slot.ExceptDays = [.. slot.ExceptDays.Where(each => each >= Clock.Today.AddDays(-30)), on];
            await Db.SaveChangesAsync();
            TempData["Told"] = slot.ExceptDays.Contains(on) ? $"Not on {on:d MMMM}." : $"On {on:d MMMM} after all.";
            TempData["UndoAt"] = $"/practice/timetable?handler=Off&id={id}&day={on:yyyy-MM-dd}";
            return Redirect("/practice/timetable");
        });

    /// <summary>Takes a lesson or holidays out, or brings them back.</summary>
    public async Task<IActionResult> OnPostDropAsync(int id, bool holiday, bool back)
    {
        DateTime? deleted = back ? null : Clock.Now;
        if (back && !holiday && await StandsAgainAsync(id))
            return Refuse("The same lesson is in the timetable again already. Nothing was changed.");
        var changed = holiday
            ? await Db
                .TimetableHolidays.IgnoreQueryFilters()
                .Where(each => each.Id == id)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, deleted))
            : await Db
                .TimetableSlots.IgnoreQueryFilters()
                .Where(each => each.Id == id)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, deleted));
        if (changed == 0)
            return NotFound();
        TempData["Told"] = back ? "It is back in the timetable." : "It is out of the timetable.";
        TempData["UndoAt"] = $"/practice/timetable?handler=Drop&id={id}&holiday={holiday}&back={!back}";
        return Redirect("/practice/timetable");
    }

    /// <summary>Whether a lesson that was taken out was added again since.</summary>
    private Task<bool> StandsAgainAsync(int id) =>
        Db
            .TimetableSlots.IgnoreQueryFilters()
            .Where(gone => gone.Id == id)
            .AnyAsync(gone =>
                Db.TimetableSlots.Any(slot =>
                    slot.Id != id
                    && slot.PupilId == gone.PupilId
                    && slot.ClassName == gone.ClassName
                    && slot.Day == gone.Day
                    && slot.Start == gone.Start
                    && slot.From == gone.From
                )
            );

    /// <summary>Takes back what was added at a moment.</summary>
    public async Task<IActionResult> OnPostUndoAsync(long at)
    {
        if (at < DateTime.MinValue.Ticks || at > DateTime.MaxValue.Ticks)
            return NotFound();
        var added = new DateTime(at, DateTimeKind.Utc);
        DateTime? now = Clock.Now;
        var taken = await Db
            .TimetableSlots.Where(each => each.AddedAt == added)
            .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, now));
        taken += await Db
            .TimetableHolidays.Where(each => each.AddedAt == added)
            .ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, now));
        if (taken == 0)
            return NotFound();
        TempData["Told"] = "The timetable is as it was before.";
        return Redirect("/practice/timetable");
    }

    /// <summary>The timetable as a calendar.</summary>
    public async Task<IActionResult> OnGetIcsAsync()
    {
        await LoadAsync();
        return File(
            Encoding.UTF8.GetBytes(TimetableCalendar.Write(Timetable(), NameOf, Clock)),
            "text/calendar; charset=utf-8",
            "timetable.ics"
        );
    }

    /// <summary>Reads a calendar: what fits is added, what does not is told.</summary>
    public async Task<IActionResult> OnPostIcsAsync(IFormFile? calendar)
    {
        await LoadAsync();
        return await RefusingAsync(async () =>
        {
            if (calendar is null)
                throw new ArgumentException("Choose a calendar file first.");
            using var reader = new StreamReader(calendar.OpenReadStream());
            var read = TimetableCalendar.Read(await reader.ReadToEndAsync(), WhoOf, Clock);
            var (now, left, table) = (Clock.Now, read.Left.ToList(), Timetable());
            var (lessons, holidays) = (0, 0);
            foreach (var slot in read.Slots)
            {
                if (table.Slots.Any(each => each.Who == slot.Who && each.Day == slot.Day && each.Start == slot.Start && each.Meets(slot)))
                    continue;
                if (table.Clash(slot) is { } clash)
                    left.Add($"{NameOf(slot.Who)}, {slot.Day} {slot.Start:HH:mm}: {NameOf(clash.Who)} has a lesson then.");
                else if (table.Slots.Count >= MostSlots)
                    left.Add($"{NameOf(slot.Who)}: {MostSlots} lessons are the most.");
                else
                {
                    Db.TimetableSlots.Add(Row(slot, now));
                    table = table with { Slots = [.. table.Slots, slot] };
                    lessons++;
                }
            }

            foreach (
                var holiday in read.Holidays.Where(each => !table.Holidays.Contains(each)).Take(Math.Max(0, MostHolidays - Holidays.Count))
            )
            {
                Db.TimetableHolidays.Add(Row(holiday, now));
                holidays++;
            }

            await Db.SaveChangesAsync();
            const int MostTold = 5;
            var more = left.Count > MostTold ? $" And {left.Count - MostTold} more." : "";
            return Added(
                $"{lessons} {(lessons == 1 ? "lesson" : "lessons")} and {holidays} holidays were read."
                    + (left.Count > 0 ? $" Not taken: {string.Join("; ", left.Take(MostTold))}.{more}" : ""),
                now
            );
        });
    }

    private LessonTimetable Timetable() => new([.. Slots.Select(slot => slot.Slot)], [.. Holidays.Select(each => each.Holiday)]);

    private RedirectResult Added(string told, DateTime at)
    {
        (TempData["Told"], TempData["UndoAt"]) = (told, $"/practice/timetable?handler=Undo&at={at.Ticks}");
        return Redirect("/practice/timetable");
    }

    /// <summary>Whose a name is: a pupil's, by the whole name or as the form sends it, or a class's; null for nobody's.</summary>
    private SlotOwner? WhoOf(string name) =>
        Everybody.FirstOrDefault(each => Sent(each.Id) == name || string.Equals(each.Name, name, StringComparison.OrdinalIgnoreCase))
            is { Id: > 0 } pupil
            ? SlotOwner.OfPupil(pupil.Id)
        : Classes.FirstOrDefault(each => string.Equals(each, name, StringComparison.OrdinalIgnoreCase)) is { } known
            ? SlotOwner.OfClass(known)
        : null;

    private static TimetableSlot Row(LessonSlot slot, DateTime at) =>
        new()
        {
            PupilId = slot.Who.Pupil,
            ClassName = slot.Who.ClassName,
            Day = slot.Day,
            Start = slot.Start,
            Minutes = slot.Minutes,
            From = slot.From,
            Until = slot.Until,
            ExceptDays = slot.Except,
            AddedAt = at,
        };

    private static TimetableHoliday Row(Holiday holiday, DateTime at) =>
        new()
        {
            First = holiday.First,
            Last = holiday.Last,
            Name = holiday.Name,
            AddedAt = at,
        };

    private static DateOnly? DayOr(string? text) =>
        string.IsNullOrEmpty(text) ? null
        : DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day
        : throw new ArgumentException($"'{text}' is no day such as 2026-12-03.");

    private async Task LoadAsync()
    {
        Everybody =
        [
            .. (await Db.Pupils.OrderBy(pupil => pupil.Name).Select(pupil => new { pupil.Id, pupil.Name }).ToListAsync()).Select(each =>
                (each.Id, each.Name)
            ),
        ];
        Classes = await Db.ClassNamesAsync();
        (Slots, Holidays) = await Db.TimetableRowsAsync();
        Slots = [.. Slots.OrderBy(slot => ((int)slot.Day + 6) % 7).ThenBy(slot => slot.Start)];
    }
}
