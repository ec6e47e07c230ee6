using System.Net;
using System.Text;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Judging;
using Bocca.Core.Practice.Lesson;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>The timetable, the lesson's run, paper, the term and the class.</summary>
public sealed class LessonPageTests : IDisposable
{
    // A Thursday.
    private readonly FakeTimeProvider _time = new(new DateTimeOffset(2026, 11, 5, 15, 0, 0, TimeSpan.Zero));

    private readonly Room _room;

    private readonly HttpClient _client;

    private readonly Tab _tab;

    public LessonPageTests()
    {
        _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };
        _client = _room.CreateClient();
        _tab = new Tab(_client);
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task A_lesson_runs_by_its_parts_every_stop_knows_it_and_its_minutes_add_up()
    {
        await _room.AddAsync("Ada");
        await SendAsync("/practice/1", "form[action*=Begin]", ("minutes", "30"));
        var page = await PageAsync("/practice/1/lesson");
        var minutes = page.QuerySelectorAll(".agenda li b").Select(part => int.Parse(part.TextContent)).ToList();
        Assert.Equal(30, minutes.Sum());
        Assert.Equal("0", page.QuerySelector("[data-lesson-strip] b")!.TextContent);
        _time.Advance(TimeSpan.FromMinutes(6));
        await TakeAsync(Outcome.Passed, 4, seconds: 60);
        await SendAsync("/practice/1/lesson", "[data-lesson-strip] form");
        _time.Advance(TimeSpan.FromMinutes(10));
        // Another stop shows the lesson and its part.
        Assert.Contains("16 of 30 min", Spaced((await PageAsync("/notes/1")).QuerySelector("[data-lesson-strip]")!.TextContent));
        await SendAsync("/practice/1/lesson", "form[action*='Mood'][action*=Tense]");
        await SendAsync(
            "/practice/1/lesson",
            "form[action*=End]",
            ("good", "Four of four inside the gate."),
            ("task", "Let the air go first."),
            ("stowed", "true")
        );
        var over = await PageAsync("/practice/1/lesson");
        Assert.Contains("Four of four inside the gate.", over.QuerySelector("[data-good]")!.TextContent);
        Assert.Equal(
            ["6 min, 1 of it playing", "10 min, none of it playing"],
            over.QuerySelectorAll("[data-time]").Select(time => time.TextContent)
        );
        var lesson = await _room.OnlyAsync(PracticeStop.Lessons);
        Assert.Equal(LessonMood.Tense, lesson.Payload.Mood);
        Assert.Contains("1 minute sounded, 15 did not", lesson.Entry.Summary);
        Assert.Contains("mouthpiece stowed", lesson.Entry.Summary);
        Assert.Null((await PageAsync("/notes/1")).QuerySelector("[data-lesson-strip]"));
        // The message begins with what was said at its end.
        Assert.Contains("four of four inside the gate", (await PageAsync("/practice/1/message")).QuerySelector("#body")!.TextContent);
    }

    /// <summary>In Berlin the clock goes forward on 28 March 2027, at one in the morning UTC (published: EU 2000/84/EC).</summary>
    [Fact]
    public async Task A_lesson_over_midnight_and_the_change_of_clocks_has_its_own_minutes()
    {
        await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            db.Rooms.Add(new RoomSettings { ZoneId = "Europe/Berlin" });
            return await db.SaveChangesAsync();
        });
        _time.SetUtcNow(new DateTimeOffset(2026, 11, 5, 22, 45, 0, TimeSpan.Zero));
        await SendAsync("/practice/1", "form[action*=Begin]");
        _time.Advance(TimeSpan.FromMinutes(30));
        Assert.Equal("30", (await PageAsync("/notes/1")).QuerySelector("[data-lesson-strip] b")!.TextContent);
        await SendAsync("/practice/1/lesson", "form[action*=End]", ("good", "It ran past midnight."));
        Assert.Contains("It ran past midnight.", (await PageAsync("/practice/1/lesson")).QuerySelector("[data-good]")!.TextContent);
        Assert.Contains("it ran past midnight.", (await PageAsync("/practice/1/message")).QuerySelector("#body")!.TextContent);
        _time.SetUtcNow(new DateTimeOffset(2027, 3, 28, 0, 45, 0, TimeSpan.Zero));
        await SendAsync("/practice/1", "form[action*=Begin]");
        _time.Advance(TimeSpan.FromMinutes(30));
        await SendAsync("/practice/1/lesson", "form[action*=End]");
        var lessons = await _room.InRecordAsync(db => db.Entries.Where(entry => entry.Kind == "lesson").ToListAsync());
        Assert.All(lessons, lesson => Assert.Equal(1800, lesson.ElapsedSeconds));
    }

    /// <summary>Breath drills go by age; whoever is four or seventy gets a week within the limits all the same.</summary>
    [Theory]
    [InlineData(2022)]
    [InlineData(1956)]
    public async Task A_pupil_of_four_or_of_seventy_has_a_week_within_the_limits(int born)
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
            await db.Pupils.Where(each => each.Id == pupil.Id).ExecuteUpdateAsync(to => to.SetProperty(each => each.BornIn, born))
        );
        await _tab.SendAsync(await PageAsync("/practice/1/week?m=20&m=0&m=20&m=0&m=20&m=0&m=0"), "form[method=post][action*='week?m']");
        var week = (await _room.OnlyAsync(PracticeStop.Weeks)).Payload;
        Assert.NotEmpty(week.Days[0]);
        Assert.All(week.Days, day => Assert.True(day.Sum(round => round.Item.Amount.Seconds + round.RestSeconds) <= 1200));
        Assert.All(week.Days, day => Assert.True(day.Sum(round => round.Item.BreathSeconds) <= 300));
    }

    [Fact]
    public async Task Where_everything_that_sounds_is_barred_the_week_says_so_and_keeps_what_is_silent()
    {
        await _room.AddAsync("Ada");
        using var numb = new FormUrlEncodedContent([new("complaint", "lipsNumb")]);
        await _tab.PostAsync(await PageAsync("/health/1"), "/health/1?handler=Tell", numb);
        var week = await PageAsync("/practice/1/week?from=2026-11-05");
        Assert.Empty(week.QuerySelectorAll("[data-round^='tone:'], [data-round^='buzz:'], [data-round='slurs']"));
        Assert.NotNull(week.QuerySelector("[data-left]"));
    }

    [Fact]
    public async Task The_third_time_through_is_proposed_from_the_lessons_own_takes()
    {
        await _room.AddAsync("Ada");
        await TakeAsync(Outcome.Passed, 4);
        _time.Advance(TimeSpan.FromMinutes(1));
        await SendAsync("/practice/1", "form[action*=Begin]", ("minutes", "30"));
        foreach (var came in new[] { 2, 2 })
        {
            _time.Advance(TimeSpan.FromSeconds(30));
            await TakeAsync(Outcome.Repeat, came);
            Assert.Null(await ThirdAsync());
        }

        _time.Advance(TimeSpan.FromSeconds(30));
        await TakeAsync(Outcome.Repeat, 2);
        Assert.Equal(ThirdProposal.StepBack, (await ThirdAsync())!.What);
        await TakeAsync(Outcome.Passed, 4);
        await TakeAsync(Outcome.Passed, 4);
        Assert.Equal(ThirdProposal.On, (await ThirdAsync())!.What);
    }

    [Fact]
    public async Task A_cue_is_given_with_one_tap_and_stands_in_the_lesson()
    {
        await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            var entry = Take(Outcome.Repeat, 2, 8);
            entry.Figures.Add(
                new EntryFigure
                {
                    Name = CueHistory.Helped.Name,
                    Item = "airFirst.sooner",
                    PupilId = 1,
                    At = entry.At,
                    Value = 0,
                }
            );
            db.Entries.Add(entry);
            return await db.SaveChangesAsync();
        });
        await SendAsync("/practice/1", "form[action*=Begin]");
        await SendAsync("/practice/1/lesson", "form[action*='airFirst.sooner']");
        Assert.Contains(
            "let the lips narrow a little sooner",
            (await PageAsync("/practice/1/lesson")).QuerySelector(".in-lesson")!.TextContent
        );
        var bad = await _tab.PostAsync(
            await PageAsync("/practice/1/lesson"),
            "/practice/1/lesson?handler=Cue&id=no.such",
            new StringContent("")
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, bad.StatusCode);
    }

    [Fact]
    public async Task The_timetable_puts_the_day_on_the_desk_and_refuses_two_at_once()
    {
        await _room.AddAsync("Ada");
        await _room.AddAsync("Ben");
        await AddLessonAsync("pupil 1", "Thursday", "16:20");
        var (clash, _) = await AddLessonAsync("pupil 2", "Thursday", "16:40");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, clash.StatusCode);
        Assert.Contains(
            "Ada has a lesson then, 16:20 to 16:50",
            await clash.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)
        );
        await AddLessonAsync("pupil 2", "Thursday", "16:50");
        Assert.Equal(["Ada", "Ben"], Today(await PageAsync("/")));
        Assert.Contains("Thursday 16:20", (await PageAsync("/practice/1")).QuerySelector("h1")!.TextContent);
        Assert.Contains("Thursday 12 November", (await PageAsync("/practice/1/message")).QuerySelector("#body")!.TextContent);
        // Put off, and back; then holidays.
        await SendAsync("/practice/timetable", "[data-slot='1'] form[action*=Off]", ("day", "2026-11-05"));
        Assert.Equal(["Ben"], Today(await PageAsync("/")));
        await SendAsync("/practice/timetable", "[data-slot='1'] form[action*=Off]", ("day", "2026-11-05"));
        await SendAsync(
            "/practice/timetable",
            "form[action*=Holiday]",
            ("name", "Half term"),
            ("first", "2026-11-02"),
            ("last", "2026-11-06")
        );
        var desk = await PageAsync("/");
        Assert.Empty(Today(desk));
        Assert.Contains("Half term", desk.QuerySelector("[data-holiday]")!.TextContent);
        // Undo takes back what was just done.
        await SendAsync("/practice/timetable", "[data-slot='1'] form[action*=Drop]");
        await SendAsync("/practice/timetable", "[data-holiday] form");
        Assert.Equal(["Ben"], Today(await PageAsync("/")));
    }

    [Theory]
    [InlineData("23:50", "30", "ends on the day on which it begins")]
    [InlineData("soon", "30", "is no time")]
    [InlineData("16:00", "900", "5 to 180 minutes")]
    public async Task What_is_no_lesson_is_said_in_a_sentence(string start, string minutes, string sentence)
    {
        await _room.AddAsync("Ada");
        var (response, _) = await _tab.SendAsync(
            await PageAsync("/practice/timetable"),
            "form[action*=Add]",
            ("who", "pupil 1"),
            ("start", start),
            ("minutes", minutes)
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task The_timetable_goes_out_as_a_calendar_and_comes_back_the_same()
    {
        await _room.AddAsync("Ada");
        await _room.AddAsync("Ben");
        await AddLessonAsync("pupil 1", "Thursday", "16:20");
        await AddLessonAsync("pupil 2", "Monday", "15:00");
        await SendAsync("/practice/timetable", "[data-slot='1'] form[action*=Off]", ("day", "2026-11-19"));
        await SendAsync(
            "/practice/timetable",
            "form[action*=Holiday]",
            ("name", "Winter"),
            ("first", "2026-12-21"),
            ("last", "2027-01-03")
        );
        var text = await _client.GetStringAsync("/practice/timetable?handler=Ics", TestContext.Current.CancellationToken);
        var before = await RowsAsync();
        await _room.InRecordAsync(async db =>
            await db.TimetableSlots.ExecuteDeleteAsync() + await db.TimetableHolidays.ExecuteDeleteAsync()
        );
        var told = await ReadAsync(text);
        Assert.Contains("2 lessons and 1 holidays were read", told);
        Assert.Equal(before, await RowsAsync());
        // Read once more it adds nothing.
        Assert.Contains("0 lessons and 0 holidays", await ReadAsync(text));
    }

    [Fact]
    public async Task A_calendar_from_elsewhere_is_taken_as_far_as_it_fits_and_the_rest_is_told()
    {
        await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            db.Rooms.Add(new RoomSettings { ZoneId = "Europe/Berlin" });
            return await db.SaveChangesAsync();
        });
        // Written in UTC: 15:20 in winter is 16:20 in Berlin. RFC 5545.
        var told = await ReadAsync(
            """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//else//EN
            BEGIN:VEVENT
            UID:1
            SUMMARY:ada
            DTSTART:20261105T152000Z
            DTEND:20261105T155000Z
            RRULE:FREQ=WEEKLY;BYDAY=TH,MO;UNTIL=20261231T000000Z
            END:VEVENT
            BEGIN:VEVENT
            UID:2
            SUMMARY:Nobody Here
            DTSTART:20261105T100000Z
            DTEND:20261105T103000Z
            END:VEVENT
            BEGIN:VEVENT
            UID:3
            SUMMARY:Ada
            DTSTART:20261106T100000Z
            DTEND:20261106T103000Z
            RRULE:FREQ=MONTHLY
            END:VEVENT
            BEGIN:VEVENT
            UID:4
            SUMMARY:Winter
            DTSTART;VALUE=DATE:20261221
            DTEND;VALUE=DATE:20270104
            END:VEVENT
            BEGIN:VEVENT
            UID:5
            SUMMARY:Ada
            DTSTART:20261106T224500Z
            DTEND:20261106T231500Z
            END:VEVENT
            END:VCALENDAR
            """
        );
        Assert.Contains("2 lessons and 1 holidays", told);
        Assert.Contains("Nobody Here: nobody here is called so", told);
        Assert.Contains("does not come every week", told);
        Assert.Contains("ends on the day on which it begins", told);
        var slots = await _room.InRecordAsync(db => db.TimetableSlots.AsNoTracking().OrderBy(slot => slot.Id).ToListAsync());
        Assert.Equal(
            [(DayOfWeek.Thursday, new TimeOnly(16, 20), 30), (DayOfWeek.Monday, new TimeOnly(16, 20), 30)],
            slots.Select(slot => (slot.Day, slot.Start, slot.Minutes))
        );
        var holiday = await _room.InRecordAsync(db => db.TimetableHolidays.SingleAsync());
        Assert.Equal((new DateOnly(2026, 12, 21), new DateOnly(2027, 1, 3)), (holiday.First, holiday.Last));
    }

    [Theory]
    [InlineData("")]
    [InlineData("this is no calendar")]
    [InlineData("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:never\nEND:VEVENT")]
    [InlineData("BEGIN:VCALENDAR\nVERSION:2.0\nEND:VCALENDAR")]
    public async Task A_file_that_is_no_calendar_is_said_and_nothing_is_lost(string text)
    {
        await _room.AddAsync("Ada");
        await AddLessonAsync("pupil 1", "Thursday", "16:20");
        var told = await ReadAsync(text);
        // A sentence alone: no page was made of it.
        Assert.Matches("^(That is not a calendar file|This file holds no calendar)", told);
        Assert.Single(await RowsAsync());
    }

    [Fact]
    public async Task Paper_is_found_by_a_letter_or_two_changed_taken_out_and_offered_where_it_fits()
    {
        await _room.AddAsync("Ada");
        (string, string)[] typed =
        [
            ("Book", "The red book"),
            ("Page", "12"),
            ("Number", "4b"),
            ("Words", "long and soft"),
            ("Symptom", "wanders"),
        ];
        await SendAsync("/practice/paper", "#stage form[action='/practice/paper'][method=post]", typed);
        Assert.Contains(
            "The red book, page 12, 4b",
            (await PageAsync("/practice/paper?find=so+re")).QuerySelector("[data-paper] th")!.TextContent
        );
        Assert.Null((await PageAsync("/practice/paper?find=xyz")).QuerySelector("[data-paper]"));
        await SendAsync("/practice/paper?edit=1", "#stage form[action='/practice/paper'][method=post]", ("Page", "13"));
        var week = await PageAsync("/practice/1/week?add=paper:1");
        Assert.Contains("The red book, page 13, 4b", week.QuerySelector("[data-round='paper:1']")!.TextContent);
        await SendAsync("/practice/paper", "[data-paper] form");
        Assert.Null((await PageAsync("/practice/paper")).QuerySelector("[data-paper]"));
        Assert.Contains(
            "nothing that this pupil",
            (await PageAsync("/practice/1/week?add=paper:1")).QuerySelector("[role=alert]")!.TextContent
        );
        var (response, _) = await _tab.SendAsync(
            await PageAsync("/practice/paper"),
            "#stage form[action='/practice/paper'][method=post]",
            ("Book", "B"),
            ("Tempo", "0")
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
    }

    [Fact]
    public async Task A_week_is_added_to_turned_into_one_note_and_handed_over_as_one_sheet()
    {
        await _room.AddAsync("Ada");
        var week = await PageAsync("/practice/1/week?add=buzz:mp-siren&liked=Low+Tide+Round");
        Assert.NotNull(week.QuerySelector("[data-round='buzz:mp-siren']"));
        Assert.Contains("Low Tide Round", week.QuerySelector("[data-round=liked]")!.TextContent);
        var out1 = await PageAsync("/practice/1/week?lock=buzz:long-buzz@");
        Assert.Null(out1.QuerySelector("[data-round='buzz:long-buzz']"));
        Assert.Contains("Taken out by hand", out1.QuerySelector("[data-left]")!.TextContent);
        var only = await PageAsync("/practice/1/week?only=C4");
        Assert.NotNull(only.QuerySelector("[data-round='note:C4']"));
        Assert.Empty(only.QuerySelectorAll("[data-round^='tone:'], [data-round='slurs']"));
        await _tab.SendAsync(only, "form[method=post][action*=week]:not([action*=Run])");
        var sheet = await PageAsync("/practice/1/sheet");
        Assert.Contains("C4", sheet.QuerySelector(".only-note")!.TextContent);
        Assert.Contains("<note", JsonSerializer.Deserialize<string>(sheet.QuerySelector("[data-score]")!.TextContent)!);
        Assert.Contains(
            "is none of the first notes",
            (await PageAsync("/practice/1/week?only=C7")).QuerySelector("[role=alert]")!.TextContent
        );
    }

    [Fact]
    public async Task Weeks_follow_by_themselves_once_the_last_is_over_and_missed_days_are_not_made_up_for()
    {
        await _room.AddAsync("Ada");
        await _tab.SendAsync(await PageAsync("/practice/1/week?m=10&m=0&m=10&m=0&m=10&m=0&m=0"), "form[method=post][action*='week?m']");
        await SendAsync("/practice/1/week", "form[action*=Run]");
        Assert.Equal(0, await FollowAsync());
        // The application's own clockwork does it, within the hour.
        _time.Advance(TimeSpan.FromDays(9));
        for (var wait = 0; wait < 600 && await _room.CountAsync(PracticeStop.Weeks) < 2; wait++)
            await Task.Delay(100, TestContext.Current.CancellationToken);
        Assert.Equal(0, await FollowAsync());
        Assert.Equal(2, await _room.CountAsync(PracticeStop.Weeks));
        var last = await _room.InRecordAsync(async db =>
            PracticeStop.Weeks.Read(
                await db
                    .Entries.Include(entry => entry.Payload)
                    .Where(entry => entry.Kind == "week")
                    .OrderByDescending(entry => entry.Id)
                    .FirstAsync()
            )
        );
        // From Friday 6 to Thursday 12 November; nine days on it is Saturday 14, the second day of the next turn.
        Assert.Equal((new DateOnly(2026, 11, 14), "0 10 0 10 0 0 10"), (last.First, string.Join(' ', last.Minutes)));
        Assert.All(last.Days, day => Assert.True(day.Sum(round => round.Item.Amount.Seconds + round.RestSeconds) <= 600));
    }

    [Fact]
    public async Task The_term_shows_what_changed_and_no_private_word()
    {
        await _room.AddAsync("Ada");
        await SendAsync("/practice/1", "form[action*=Begin]");
        await SendAsync("/practice/1/lesson", "#stage form[action*=Remark]", ("words", "Sits well now."));
        await SendAsync("/practice/1/lesson", "#stage form[action*=Remark]", ("words", "Mother is ill."), ("alone", "true"));
        await SendAsync("/practice/1/lesson", "form[action*=End]");
        var term = (await PageAsync("/practice/1/term")).QuerySelector("#stage")!.TextContent;
        Assert.Contains("1 lesson", term);
        Assert.Contains("Sits well now.", term);
        Assert.DoesNotContain("Mother", term);
    }

    [Fact]
    public async Task Round_the_room_goes_by_seats_one_tap_each_with_undo_and_the_wall_tells_no_mark()
    {
        foreach (var (name, seat) in new[] { ("Ada", 2), ("Ben", 1), ("Cleo", 3) })
            await InClassAsync(name, "Owls", seat);
        var page = await PageAsync("/practice/class?class=Owls");
        Assert.Equal(["Ben", "Ada", "Cleo"], page.QuerySelectorAll(".seats .name strong").Select(name => name.TextContent));
        Assert.Contains("Now: Ben. Then Ada.", page.QuerySelector(".turn-now")!.TextContent);
        page = (await _tab.SendAsync(page, "[data-seat='2'] form[action*='mark=NotYet']")).Page;
        Assert.Contains("Now: Ada. Then Cleo.", page.QuerySelector(".turn-now")!.TextContent);
        Assert.Contains("Ben: nothing more is known", page.QuerySelector("[data-remedy]")!.TextContent);
        var wall = await PageAsync("/practice/wall?class=Owls");
        Assert.Equal("Ada", wall.QuerySelector(".wall-turn")!.TextContent);
        foreach (var word in new[] { "not yet", "came", "partly", "Hurts", "cents" })
            Assert.DoesNotContain(word, wall.Body!.TextContent, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(["C4", "C4", "C4"], wall.QuerySelectorAll(".wall li b").Select(note => note.TextContent));
        page = (await _tab.SendAsync(page, ".told form")).Page;
        Assert.Contains("Now: Ben.", page.QuerySelector(".turn-now")!.TextContent);
    }

    [Fact]
    public async Task Turns_at_one_microphone_are_told_at_every_stop_and_go_on_to_the_next()
    {
        await InClassAsync("Ada", "Owls", 1);
        await InClassAsync("Ben", "Owls", 2);
        await _tab.SendAsync(await PageAsync("/practice/class?class=Owls"), "form[action*=Begin]");
        var tone = await PageAsync("/tone/1");
        Assert.Contains("Ada's turn", tone.QuerySelector("[data-round-strip]")!.TextContent);
        var (response, next) = await _tab.SendAsync(tone, "[data-round-strip] form[action*='mark=Came']");
        Assert.EndsWith("/tone/2", response.RequestMessage!.RequestUri!.AbsolutePath);
        Assert.Contains("Ben's turn", next.QuerySelector("[data-round-strip]")!.TextContent);
        var (_, over) = await _tab.SendAsync(next, "[data-round-strip] form[action*='mark=Absent']");
        Assert.Contains("Everybody has had a turn", over.QuerySelector(".turn-now")!.TextContent);
        // The sound of a class is not kept, and no take was made of it.
        Assert.Equal(2, await _room.InRecordAsync(db => db.Entries.CountAsync()));
    }

    [Fact]
    public async Task A_group_of_one_and_a_class_of_thirty_are_classes_and_a_new_pupil_is_in_none()
    {
        await InClassAsync("Ada", "Solo", 1);
        Assert.Contains("Now: Ada.", (await PageAsync("/practice/class?class=Solo")).QuerySelector(".turn-now")!.TextContent);
        for (var pupil = 0; pupil < 30; pupil++)
            await InClassAsync($"P{pupil:00}", "Band", null);
        Assert.Equal(30, (await PageAsync("/practice/class?class=Band")).QuerySelectorAll("[data-seat]").Length);
        var form = await PageAsync("/pupils/new");
        Assert.Equal("", ((IHtmlInputElement)form.QuerySelector("[name='Form.ClassName']")!).Value);
    }

    [Fact]
    public async Task Nobody_of_another_class_is_marked()
    {
        await InClassAsync("Ada", "Owls", 1);
        var other = await _room.AddAsync("Zed");
        var page = await PageAsync("/practice/class?class=Owls");
        var response = await _tab.PostAsync(
            page,
            $"/practice/class?handler=Mark&class=Owls&pupil={other.Id}&mark=Came",
            new StringContent("")
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
    }

    [Fact]
    public async Task The_desk_says_who_needs_a_look_and_why_and_ranks_nobody()
    {
        await _room.AddAsync("Ada");
        await _room.AddAsync("Ben");
        await SendAsync("/practice/2", "form[action*=Report]", ("days", "2"), ("minutes", "10"), ("lips", "sore"));
        await _room.InRecordAsync(async db =>
        {
            var step = Steps.Entry(1, new NextStep(new Place("buzz"), "sound4-rest4", "Let the air go first.", "Because."), Now);
            (step.Kept, step.Asked) = (true, 4);
            db.Entries.Add(step);
            return await db.SaveChangesAsync();
        });
        var looks = (await PageAsync("/")).QuerySelectorAll("[data-looks] li").Select(look => Spaced(look.TextContent)).ToList();
        Assert.Equal(["Ben Lips were sore last time.", "Ada Tried 4 times, not there yet: Let the air go first."], looks);
    }

    private DateTime Now => _time.GetUtcNow().UtcDateTime;

    private static string Spaced(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    private static IEnumerable<string> Today(IHtmlDocument desk) =>
        desk.QuerySelectorAll("[data-today] a").Select(each => each.TextContent);

    private async Task<IHtmlDocument> PageAsync(string path)
    {
        var (response, page) = await _tab.OpenAsync(path);
        Assert.True(response.IsSuccessStatusCode, $"{path}: {response.StatusCode}");
        return page;
    }

    private async Task<IHtmlDocument> SendAsync(string path, string form, params (string, string)[] fields)
    {
        var (response, page) = await _tab.SendAsync(await PageAsync(path), form, fields);
        Assert.True(response.IsSuccessStatusCode, $"{path} {form}: {response.StatusCode} {page.Body?.TextContent}");
        return page;
    }

    private async Task<(HttpResponseMessage, IHtmlDocument)> AddLessonAsync(string who, string day, string start) =>
        await _tab.SendAsync(await PageAsync("/practice/timetable"), "form[action*=Add]", ("who", who), ("day", day), ("start", start));

    private async Task<string> ReadAsync(string text)
    {
        using var form = new MultipartFormDataContent();
        using var file = new ByteArrayContent(Encoding.UTF8.GetBytes(text.ReplaceLineEndings("\r\n")));
        form.Add(file, "calendar", "timetable.ics");
        var response = await _tab.PostAsync(await PageAsync("/practice/timetable"), "/practice/timetable?handler=Ics", form);
        return await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
    }

    private Task<List<string>> RowsAsync() =>
        _room.InRecordAsync(async db =>
        {
            var (slots, holidays) = await db.TimetableRowsAsync();
            return slots
                .Select(slot => $"{slot.Who} {slot.Day} {slot.Start} {slot.Minutes} {First(slot):o} {slot.Until:o} {slot.Except}")
                .Order()
                .Concat(holidays.Select(each => $"{each.First:o} {each.Last:o} {each.Name}"))
                .ToList();
        });

    /// <summary>The day of its first lesson: from which day on it may be is not in a calendar.</summary>
    private static DateOnly First(TimetableSlot slot) =>
        Enumerable.Range(0, 7).Select(slot.From.AddDays).First(day => day.DayOfWeek == slot.Day);

    private async Task InClassAsync(string name, string className, int? seat)
    {
        var pupil = await _room.AddAsync(name);
        await _room.InRecordAsync(async db =>
            await db
                .Pupils.Where(each => each.Id == pupil.Id)
                .ExecuteUpdateAsync(to => to.SetProperty(each => each.ClassName, className).SetProperty(each => each.Seat, seat))
        );
    }

    private Entry Take(Outcome outcome, int came, double seconds) =>
        new()
        {
            PupilId = 1,
            Kind = "buzz",
            DrillId = "sound4-rest4",
            InstrumentId = "trumpet-bb",
            At = Now,
            Kept = true,
            Outcome = outcome,
            Came = came,
            Asked = 4,
            SoundedSeconds = seconds,
            Summary = "Four.",
        };

    private Task<int> TakeAsync(Outcome outcome, int came, double seconds = 8) =>
        _room.InRecordAsync(async db =>
        {
            db.Entries.Add(Take(outcome, came, seconds));
            return await db.SaveChangesAsync();
        });

    private async Task<ThirdTime?> ThirdAsync()
    {
        using var scope = _room.Services.CreateScope();
        var journal = scope.ServiceProvider.GetRequiredService<Journal>();
        return await journal.ThirdTimeAsync(1, (await journal.LessonAsync(1))!, "buzz", "sound4-rest4");
    }

    private async Task<int> FollowAsync()
    {
        using var scope = _room.Services.CreateScope();
        return await WeekFollows.FollowAsync(scope.ServiceProvider.GetRequiredService<Journal>());
    }
}
