using System.ComponentModel.DataAnnotations;
using System.Globalization;
using Bocca.Core.Practice.Timetable;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>A lesson of every week, of a pupil or of a class.</summary>
public sealed class TimetableSlot
{
    private const string DayForm = "yyyy-MM-dd";

    public int Id { get; set; }

    /// <summary>Whose; null for a class.</summary>
    public int? PupilId { get; set; }

    /// <summary>The class; empty for a pupil.</summary>
    [MaxLength(40)]
    public string ClassName { get; set; } = "";

    public DayOfWeek Day { get; set; }

    public TimeOnly Start { get; set; }

    public int Minutes { get; set; }

    public DateOnly From { get; set; }

    public DateOnly? Until { get; set; }

    /// <summary>Days on which it is not, each as <c>2026-12-03</c>, with spaces between.</summary>
    [MaxLength(2000)]
    public string Except { get; set; } = "";

    /// <summary>When it was added: what was added together is taken back together.</summary>
    public DateTime AddedAt { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>Whose it is.</summary>
    public SlotOwner Who => PupilId is { } id ? SlotOwner.OfPupil(id) : SlotOwner.OfClass(ClassName);

    public IReadOnlyList<DateOnly> ExceptDays
    {
        get =>
            [
                .. Except
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .Select(day => DateOnly.ParseExact(day, DayForm, CultureInfo.InvariantCulture)),
            ];
        set => Except = string.Join(' ', value.Distinct().Order().Select(day => day.ToString(DayForm, CultureInfo.InvariantCulture)));
    }

    public LessonSlot Slot => new(Who, Day, Start, Minutes, From, Until) { Except = ExceptDays };
}

/// <summary>Days without lessons.</summary>
public sealed class TimetableHoliday
{
    public int Id { get; set; }

    public DateOnly First { get; set; }

    public DateOnly Last { get; set; }

    [MaxLength(60)]
    public string Name { get; set; } = "";

    /// <inheritdoc cref="TimetableSlot.AddedAt"/>
    public DateTime AddedAt { get; set; }

    public DateTime? DeletedAt { get; set; }

    public Holiday Holiday => new(First, Last, Name);
}

/// <summary>The timetable in the record.</summary>
public static class TimetableRecord
{
    /// <summary>The lessons of pupils who are there, and the days without lessons.</summary>
    public static async Task<(IReadOnlyList<TimetableSlot> Slots, IReadOnlyList<TimetableHoliday> Holidays)> TimetableRowsAsync(
        this BoccaDb db
    ) =>
        (
            await db
                .TimetableSlots.AsNoTracking()
                .Where(slot => slot.PupilId == null || db.Pupils.Any(pupil => pupil.Id == slot.PupilId))
                .ToListAsync(),
            await db.TimetableHolidays.AsNoTracking().OrderBy(holiday => holiday.First).ToListAsync()
        );

    /// <summary>The timetable.</summary>
    public static async Task<LessonTimetable> TimetableAsync(this BoccaDb db)
    {
        var (slots, holidays) = await db.TimetableRowsAsync();
        return new LessonTimetable([.. slots.Select(slot => slot.Slot)], [.. holidays.Select(holiday => holiday.Holiday)]);
    }

    /// <summary>The day of a pupil's next lesson, or the class's where there is none alone; null where the timetable has none.</summary>
    public static async Task<DateOnly?> NextLessonAsync(this BoccaDb db, Pupil pupil, DateOnly after)
    {
        var timetable = await db.TimetableAsync();
        return timetable.NextAfter(after, SlotOwner.OfPupil(pupil.Id))
            ?? (pupil.ClassName == "" ? null : timetable.NextAfter(after, SlotOwner.OfClass(pupil.ClassName)));
    }
}
