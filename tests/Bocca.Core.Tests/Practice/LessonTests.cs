using Bocca.Core.Practice;
using Bocca.Core.Practice.Class;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Practice.Timetable;

namespace Bocca.Core.Tests.Practice;

/// <summary>The lesson's minutes, what is proposed in it, the timetable, the class.</summary>
public sealed class LessonTests
{
    private static readonly AgendaPart[] Parts =
    [
        new(LessonPart.Close, "close", "", null),
        new(LessonPart.WarmUp, "long notes", "", "tone:long-notes"),
        new(LessonPart.New, "a new note", "", "tone:new-note"),
        new(LessonPart.Fault, "air first", "", "buzz:sound4-rest4"),
        new(LessonPart.Piece, "a tune", "", null),
    ];

    private static readonly DateTime Begun = new(2026, 11, 5, 16, 20, 0, DateTimeKind.Utc);

    [Fact]
    public void Thirty_minutes_are_laid_out_as_teachers_do()
    {
        // Common practice for the order; the shares are ours.
        Assert.Equal([5, 8, 7, 8, 2], Agenda.Of(30, Parts).Select(part => part.Minutes));
        Assert.Equal(LessonPart.WarmUp, Agenda.Of(30, Parts)[0].Part);
    }

    [Fact]
    public void Minutes_of_every_length_and_any_parts_add_up()
    {
        for (var minutes = LessonSlot.FewestMinutes; minutes <= LessonSlot.MostMinutes; minutes++)
        for (var some = 1; some < 1 << Parts.Length; some++)
        {
            var parts = Parts.Where((_, at) => (some & (1 << at)) != 0).ToList();
            var agenda = Agenda.Of(minutes, parts);
            Assert.Equal(minutes, agenda.Sum(part => part.Minutes));
            Assert.All(agenda, part => Assert.True(part.Minutes >= 1));
        }
    }

    [Theory]
    [InlineData(0)]
    [InlineData(4)]
    [InlineData(181)]
    public void A_lesson_of_no_length_is_none(int minutes) =>
        Assert.Contains("5 to 180 minutes", Assert.Throws<ArgumentException>(() => Agenda.Of(minutes, Parts)).Message);

    [Fact]
    public void Playing_and_talking_are_told_apart_by_part_and_a_part_come_back_to_counts_again()
    {
        PartBegun[] begun = [new(0, Begun), new(1, Begun.AddMinutes(5)), new(0, Begun.AddMinutes(15))];
        SoundedInLesson[] sounded =
        [
            new(Begun.AddMinutes(4), 60),
            new(Begun.AddMinutes(5), 30),
            new(Begun.AddMinutes(7), 120),
            new(Begun.AddMinutes(16), 30),
        ];
        var times = LessonTimes.Of(begun, sounded, Begun.AddMinutes(20));
        Assert.Equal([(0, 10.0, 2.0), (1, 10.0, 2.0)], times.Select(time => (time.Part, time.Minutes, time.PlayedMinutes)));
        Assert.All(times, time => Assert.Equal(8, time.TalkedMinutes, 1e-9));
    }

    [Theory]
    [InlineData("0.5 1 1", 5, LessonMood.Fine, ThirdProposal.On)]
    [InlineData("0.25 0.5 0.75", 5, LessonMood.Fine, ThirdProposal.Again)]
    [InlineData("0.25 0.5 0.75", -1, LessonMood.Fine, ThirdProposal.On)]
    [InlineData("0.5 0.5 0.5", 5, LessonMood.Fine, ThirdProposal.StepBack)]
    [InlineData("0.5 0.5 0.5", -1, LessonMood.Fine, ThirdProposal.On)]
    [InlineData("0.25 0.5 0.75", 5, LessonMood.Tense, ThirdProposal.StepBack)]
    [InlineData("0.25 0.5 0.75", 5, LessonMood.Tired, ThirdProposal.StepBack)]
    [InlineData("1 1 1", 5, LessonMood.Tired, ThirdProposal.On)]
    public void The_third_time_through_is_judged_by_clean_runs_time_and_mood(
        string shares,
        double left,
        LessonMood mood,
        ThirdProposal proposal
    )
    {
        var times = shares.Split(' ').Select(share => new TimeThrough(double.Parse(share), share == "1")).ToList();
        Assert.Equal(proposal, ThirdTime.Of(times, left, mood)!.What);
        Assert.Null(ThirdTime.Of([.. times.Take(2)], left, mood));
    }

    [Fact]
    public void The_timetable_knows_the_day_its_holidays_and_what_was_put_off()
    {
        var thursday = new DateOnly(2026, 12, 3);
        LessonSlot slot = new(SlotOwner.OfPupil(1), DayOfWeek.Thursday, new TimeOnly(16, 20), 30, new DateOnly(2026, 9, 1))
        {
            Except = [thursday.AddDays(7)],
        };
        LessonSlot later = slot with { Who = SlotOwner.OfPupil(2), Start = new TimeOnly(17, 0), Except = [] };
        var table = new LessonTimetable([later, slot], [new Holiday(new DateOnly(2026, 12, 14), new DateOnly(2027, 1, 3), "Winter")]);
        Assert.Equal([1, 2], table.On(thursday).Select(each => each.Who.Pupil));
        Assert.Empty(table.On(thursday.AddDays(1)));
        Assert.Equal("Winter", table.HolidayOn(thursday.AddDays(14))!.Name);
        Assert.Equal(new DateOnly(2027, 1, 7), table.NextAfter(thursday, SlotOwner.OfPupil(1)));
        Assert.Equal(thursday.AddDays(7), table.NextAfter(thursday, SlotOwner.OfPupil(2)));
        Assert.Null(table.NextAfter(thursday, SlotOwner.OfPupil(3)));
    }

    [Theory]
    [InlineData("16:49", true)]
    [InlineData("16:50", false)]
    [InlineData("15:50", false)]
    [InlineData("15:51", true)]
    public void Two_lessons_at_once_are_seen_to_the_minute(string start, bool clash)
    {
        LessonSlot slot = new(
            SlotOwner.OfPupil(1),
            DayOfWeek.Thursday,
            new TimeOnly(16, 20),
            30,
            new DateOnly(2026, 9, 1),
            new DateOnly(2026, 12, 17)
        );
        LessonSlot other = new(SlotOwner.OfPupil(2), DayOfWeek.Thursday, TimeOnly.Parse(start), 30, new DateOnly(2026, 11, 1));
        var table = new LessonTimetable([slot], []);
        Assert.Equal(clash, table.Clash(other) is not null);
        // One that begins after the other has ended for good meets it never.
        Assert.Null(table.Clash(other with { From = new DateOnly(2026, 12, 18) }));
    }

    [Theory]
    [InlineData("23:45", 30, "ends on the day")]
    [InlineData("16:00", 4, "5 to 180")]
    [InlineData("16:00", 200, "5 to 180")]
    public void What_is_no_lesson_is_said(string start, int minutes, string sentence) =>
        Assert.Contains(
            sentence,
            Assert
                .Throws<ArgumentException>(() =>
                    new LessonSlot(
                        SlotOwner.OfClass("a"),
                        DayOfWeek.Monday,
                        TimeOnly.Parse(start),
                        minutes,
                        new DateOnly(2026, 9, 1)
                    ).Checked()
                )
                .Message
        );

    [Fact]
    public void A_timetable_is_of_our_time()
    {
        LessonSlot slot = new(SlotOwner.OfClass("a"), DayOfWeek.Monday, new TimeOnly(16, 0), 30, new DateOnly(9999, 12, 1));
        Assert.Throws<ArgumentException>(slot.Checked);
        Assert.Throws<ArgumentException>(() => new Holiday(DateOnly.MinValue, DateOnly.MinValue, "").Checked());
        Assert.Throws<ArgumentException>(() => new Holiday(new DateOnly(2026, 1, 1), new DateOnly(2027, 2, 1), "").Checked());
    }

    [Fact]
    public void A_lesson_until_midnight_is_one() =>
        Assert.Equal(
            new TimeOnly(0, 0),
            new LessonSlot(SlotOwner.OfClass("a"), DayOfWeek.Monday, new TimeOnly(23, 30), 30, new DateOnly(2026, 9, 1)).Checked().End
        );

    [Fact]
    public void A_class_falls_into_as_few_groups_as_it_shares_symptoms_and_nobody_twice()
    {
        var groups = RemedyGroups.Of([
            new ClassNeed("Wren", RoundMark.NotYet, ["late", "airFirst"]),
            new ClassNeed("Ada", RoundMark.Partly, ["airFirst"]),
            new ClassNeed("Kofi", RoundMark.Came, ["airFirst"]),
            new ClassNeed("Bea", RoundMark.NotYet, []),
            new ClassNeed("Ines", RoundMark.Absent, ["late"]),
            new ClassNeed("Rafi", null, ["late"]),
        ]);
        Assert.Equal(["airFirst", ""], groups.Select(group => group.Symptom));
        Assert.Equal(["Ada", "Wren"], groups[0].Names);
        Assert.Equal(["Bea"], groups[1].Names);
    }

    [Theory]
    [InlineData(null, 10, false, "day 10. There is time")]
    [InlineData(9, 60, false, "shown on day 9")]
    [InlineData(null, 60, true, "not on record on day 60")]
    public void Outside_the_usual_time_the_teacher_alone_is_told(int? reached, int day, bool teacherOnly, string words)
    {
        // Two open notes in two to three weeks (common practice).
        var standing = Milestone.All.Single(each => each.Id == "two-notes").Standing(reached, day);
        Assert.Equal(teacherOnly, standing.TeacherOnly);
        Assert.Contains(words, standing.Words);
    }

    [Theory]
    [InlineData("yesterday", "sore", 5, 30, LookReason.Hurt)]
    [InlineData(null, "sore", 5, 30, LookReason.Lips)]
    [InlineData(null, "fresh", 3, 30, LookReason.Stuck)]
    [InlineData(null, "", 2, 10, LookReason.Silent)]
    [InlineData(null, "", 2, 9, null)]
    public void Who_needs_a_look_is_told_the_most_pressing_reason(string? hurt, string lips, int tried, int silent, LookReason? reason) =>
        Assert.Equal(reason, LookFirst.Of(new LookFacts(hurt, lips, tried, "Let the air go first.", silent))?.Reason);
}
