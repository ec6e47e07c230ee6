using Bocca.Core.Practice.Lesson;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Practice;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The invented room's timetable, paper and last lessons.</summary>
public static class DemoRoom
{
    /// <summary>The Thursday group sits so.</summary>
    private const string Group = "Thursday beginners";

    /// <summary>Who comes on the day of the week on which the room is opened first, and when; the others two days later.</summary>
    private static readonly (string Name, int DaysOn, int Hour, int Minute)[] Times =
    [
        ("Tomas Oduya", 0, 15, 50),
        ("Rafi Delacroix-Menon", 0, 16, 20),
        ("Wren Halloran", 0, 16, 50),
        ("Ines Calloway", 2, 16, 0),
        ("Kofi Lindqvist", 2, 16, 30),
        ("Bea Okonjo", 3, 16, 0),
        ("Sunniva Achterberg", 3, 16, 40),
    ];

    private static PaperItem[] Papers =>
        [
            new()
            {
                Book = "The blue folder",
                Page = 3,
                Number = "2",
                Words = "long notes that swell and fade",
                SymptomId = "wanders",
            },
            new()
            {
                Book = "The blue folder",
                Page = 11,
                Number = "7",
                Words = "air first, then the tongue",
                SymptomId = "airFirst",
            },
            new()
            {
                Book = "Seven Steps Down, by hand",
                Words = "down by semitones, each as full as the one before",
                From = LearningStage.Second,
                On = 28,
                Off = 4,
                Times = 3,
            },
        ];

    /// <summary>Adds what is not there yet.</summary>
    public static async Task AddAsync(BoccaDb db, RoomClock clock, CancellationToken stopping)
    {
        if (await db.TimetableSlots.IgnoreQueryFilters().AnyAsync(stopping))
            return;
        var (pupils, today, now) = (await db.Pupils.ToListAsync(stopping), clock.Today, clock.Now);
        foreach (var (name, daysOn, hour, minute) in Times)
            if (pupils.Find(pupil => pupil.Name == name) is { } pupil)
            {
                db.TimetableSlots.Add(Slot(today.AddDays(daysOn).DayOfWeek, hour, minute, 30, pupil.Started, now, pupil.Id));
                db.Entries.Add(LastLesson(pupil, clock, hour, minute, daysOn));
            }

        db.TimetableSlots.Add(Slot(DayOfWeek.Thursday, 17, 30, 45, today.AddDays(-60), now, null));
        db.TimetableHolidays.Add(
            new TimetableHoliday
            {
                First = new DateOnly(today.Year, 12, 21),
                Last = new DateOnly(today.Year + 1, 1, 3),
                Name = "Winter holidays",
                AddedAt = now,
            }
        );
        if (pupils.Find(pupil => pupil.Name == "Ines Calloway") is { } ines)
            db.Entries.Add(
                new Entry
                {
                    PupilId = ines.Id,
                    Kind = PracticeStop.Reports.Id,
                    InstrumentId = ines.InstrumentId,
                    At = now.AddDays(-5),
                    Kept = true,
                    Came = 6,
                    ElapsedSeconds = 60 * 95,
                    Subject = "tired",
                    Summary = "6 days, 95 minutes, lips tired.",
                }
            );
        foreach (var (seat, pupil) in pupils.Where(pupil => pupil.ClassName == Group).Index())
            pupil.Seat = seat + 1;
        db.PaperItems.AddRange(Papers);
        await db.SaveChangesAsync(stopping);
    }

    private static TimetableSlot Slot(DayOfWeek day, int hour, int minute, int minutes, DateOnly from, DateTime at, int? pupilId) =>
        new()
        {
            PupilId = pupilId,
            ClassName = pupilId is null ? Group : "",
            Day = day,
            Start = new TimeOnly(hour, minute),
            Minutes = minutes,
            From = from,
            AddedAt = at,
        };

    /// <summary>The lesson of a week before, without an agenda: it was held before the room had this record.</summary>
    private static Entry LastLesson(Pupil pupil, RoomClock clock, int hour, int minute, int daysOn)
    {
        var begun = clock.StartOf(clock.Today.AddDays(daysOn - 7)).AddMinutes((60 * hour) + minute);
        return new Entry
        {
            PupilId = pupil.Id,
            Kind = PracticeStop.Lessons.Id,
            InstrumentId = pupil.InstrumentId,
            At = begun,
            DoneAt = begun.AddMinutes(30),
            ElapsedSeconds = 1800,
            Kept = true,
            Summary = "11 minutes sounded, 19 did not.",
            Payload = PracticeStop.Lessons.Write(new LessonPayload(Agenda.UsualMinutes, [], [])),
        };
    }
}
