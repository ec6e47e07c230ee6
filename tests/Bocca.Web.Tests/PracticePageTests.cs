using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>The Practice stop: what happened since last time, the lesson, the week that is handed over.</summary>
public sealed class PracticePageTests : IDisposable
{
    private readonly FakeTimeProvider _time = new(new DateTimeOffset(2026, 11, 5, 15, 0, 0, TimeSpan.Zero));

    private readonly Room _room;

    private readonly HttpClient _client;

    private readonly Tab _tab;

    public PracticePageTests()
    {
        _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };
        _client = _room.CreateClient();
        _tab = new Tab(_client);
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task What_was_agreed_on_is_heard_first_and_why_goes_by_whether_it_was_tried_or_came()
    {
        await AddAsync();
        Assert.Equal("One long note", (await BeforeAsync()).QuerySelector("[data-first]")!.TextContent);
        await StepAsync(new NextStep(new Place("buzz"), "sound4-rest4", "Let the air go first.", "Because."));
        Assert.Contains("Not tried since last time", (await BeforeAsync()).QuerySelector("[data-why]")!.TextContent);
        await ChangeStepAsync(step => step.Asked = 2);
        var tried = await BeforeAsync();
        Assert.Contains("Tried twice: hear where it goes wrong.", tried.QuerySelector("[data-why]")!.TextContent);
        Assert.Equal("/buzz/1?drill=sound4-rest4", tried.QuerySelector("[data-hear-first]")!.GetAttribute("href"));
        await ChangeStepAsync(step => (step.Outcome, step.DoneAt) = (Outcome.Passed, _time.GetUtcNow().UtcDateTime));
        Assert.Contains("It came since last time", (await BeforeAsync()).QuerySelector("[data-why]")!.TextContent);
    }

    [Fact]
    public async Task A_class_of_more_than_thirty_seats_the_same_at_the_page_and_on_the_wall()
    {
        // The last by name were added first.
        foreach (var number in Enumerable.Range(1, 32).Reverse())
            await _room.AddAsync($"P{number:00} Some");
        await _room.InRecordAsync(db => db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(pupil => pupil.ClassName, "Band")));
        var page = (await _tab.OpenAsync("/practice/class")).Page;
        var wall = (await _tab.OpenAsync("/practice/wall?class=Band")).Page;
        var seated = page.QuerySelectorAll(".seats .name strong").Select(name => name.TextContent).ToList();
        Assert.Equal(Enumerable.Range(1, 30).Select(number => $"P{number:00}"), seated);
        Assert.All(seated, name => Assert.Contains(name, wall.Body!.TextContent, StringComparison.Ordinal));
        Assert.DoesNotContain("P31", wall.Body!.TextContent, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_lesson_begins_holds_its_remarks_and_ends_and_the_next_page_counts_from_it()
    {
        await AddAsync();
        await _tab.SendAsync(await BeforeAsync(), "form[action*=Begin]");
        _time.Advance(TimeSpan.FromMinutes(10));
        var page = await LessonAsync();
        await _tab.SendAsync(page, "#stage form[action*=Remark]", ("words", "Sits on the edge now."));
        var (_, told) = await _tab.SendAsync(
            await LessonAsync(),
            "#stage form[action*=Remark]",
            ("words", "Mother asked about Saturdays."),
            ("alone", "true")
        );
        Assert.Contains("Sits on the edge now.", told.QuerySelector(".in-lesson")!.TextContent);
        Assert.DoesNotContain("Mother", told.QuerySelector(".in-lesson")!.TextContent);
        _time.Advance(TimeSpan.FromMinutes(20));
        await _tab.SendAsync(await LessonAsync(), "form[action*=End]");
        var lesson = await _room.InRecordAsync(db => db.Entries.SingleAsync(entry => entry.Kind == "lesson"));
        Assert.Equal(1800, lesson.ElapsedSeconds);
        _time.Advance(TimeSpan.FromDays(7));
        Assert.Contains("last lesson", (await BeforeAsync()).QuerySelector("h1")!.TextContent);
    }

    [Fact]
    public async Task A_lesson_that_nobody_ended_is_over_after_some_hours_and_not_at_midnight()
    {
        await AddAsync();
        _time.SetUtcNow(new DateTimeOffset(2026, 11, 5, 23, 45, 0, TimeSpan.Zero));
        await _tab.SendAsync(await BeforeAsync(), "form[action*=Begin]");
        _time.Advance(TimeSpan.FromMinutes(30));
        Assert.Contains("30", (await LessonAsync()).QuerySelector("[data-lesson-strip] b")!.TextContent);
        _time.Advance(TimeSpan.FromHours(3));
        Assert.NotNull((await BeforeAsync()).QuerySelector("form[action*=Begin]"));
    }

    [Fact]
    public async Task A_tired_week_has_fewer_minutes_and_is_handed_over_as_it_is_shown()
    {
        await AddAsync();
        var fresh = await WeekAsync("");
        await _tab.SendAsync(await BeforeAsync(), "form[action*=Report]", ("days", "4"), ("minutes", "35"), ("lips", "tired"));
        var tired = await WeekAsync("");
        Assert.Equal("1", ((IHtmlSelectElement)tired.QuerySelector("[name=tired]")!).Value);
        Assert.True(Rounds(tired) <= Rounds(fresh));
        var (_, kept) = await _tab.SendAsync(tired, "form[method=post][action*=week]");
        Assert.Contains("handed over today", kept.QuerySelector("h1")!.TextContent);
        var week = await _room.OnlyAsync(PracticeStop.Weeks);
        Assert.Equal(Rounds(tired), week.Payload.Days.Sum(day => day.Count));
        Assert.Contains("4 days, 35 minutes, lips tired", (await BeforeAsync()).QuerySelector("[data-since]")!.TextContent);
    }

    [Fact]
    public async Task The_table_has_every_round_and_its_seconds_add_up_to_no_more_than_the_minutes()
    {
        await AddAsync();
        var text = await _client.GetStringAsync(
            "/practice/1/week?handler=Csv&m=10&m=0&m=10&m=0&m=10&m=0&m=0",
            TestContext.Current.CancellationToken
        );
        var lines = text.Trim().Split('\n').Skip(1).Select(line => line.Trim().Split(',')).ToList();
        Assert.NotEmpty(lines);
        foreach (var day in lines.GroupBy(line => line[0]))
            Assert.InRange(day.Sum(line => double.Parse(line[^2]) + double.Parse(line[^1])), 1, 600);
        Assert.Equal(3, lines.Select(line => line[0]).Distinct().Count());
    }

    /// <summary>Read back by the library that others read calendars with.</summary>
    [Fact]
    public async Task The_calendar_is_read_back_with_a_day_for_every_day_of_rounds()
    {
        await AddAsync();
        var text = await _client.GetStringAsync("/practice/1/week?handler=Ics&from=2026-11-06", TestContext.Current.CancellationToken);
        var calendar = Ical.Net.Calendar.Load(text)!;
        Assert.Equal(6, calendar.Events.Count);
        Assert.All(calendar.Events, each => Assert.Contains("counts at", each.Description!));
        Assert.Equal(new DateOnly(2026, 11, 6), calendar.Events.Min(each => each.Start!.Date));
    }

    [Fact]
    public async Task The_message_is_drafted_changed_kept_and_read_back_from_the_mail_file()
    {
        await AddAsync();
        await StepAsync(new NextStep(new Place("buzz"), "sound4-rest4", "Let the air go first.", "Because."));
        await _tab.SendAsync((await _tab.OpenAsync("/practice/1")).Page, "form[action*=Begin]");
        await _tab.SendAsync((await _tab.OpenAsync("/practice/1/lesson")).Page, "form[action*=End]");
        await _tab.SendAsync(await WeekAsync(""), "form[method=post][action*=week]");
        var (_, page) = await _tab.OpenAsync("/practice/1/message?voice=Guardian&next=2026-11-12");
        var body = page.QuerySelector("#body")!.TextContent;
        Assert.StartsWith("Dear Ada,", body);
        Assert.Contains("Four on, four off", body);
        Assert.Contains("Next lesson: Thursday 12 November.", body);
        Assert.True(body.Split("\n\n").Length <= 5, body);
        (string, string)[] typed =
        [
            ("To", "ada@example.org"),
            ("Guardian", ""),
            ("Title", "After the lesson"),
            ("Body", "Dear Ada,\n\nten minutes a day."),
        ];
        // A child is never written to alone.
        var (refused, again) = await _tab.SendAsync(page, "form[action$='/message'].sheet", typed);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("a guardian is always copied", again.QuerySelector("[role=alert]")!.TextContent);
        Assert.Contains("ten minutes a day.", again.QuerySelector("#body")!.TextContent);
        // Nor by another spelling of the same box, nor by a subject that a mail program would read otherwise.
        foreach (var own in new[] { "ADA@example.org", "a.d.a@example.org", "ada+mum@example.org", "Mum <ada@example.org>" })
        {
            typed[1] = ("Guardian", own);
            Assert.Contains(
                "own address",
                (await _tab.SendAsync(page, "form[action$='/message'].sheet", typed)).Page.QuerySelector("[role=alert]")!.TextContent
            );
        }

        async Task<HttpResponseMessage> MailAsync()
        {
            using var sent = new FormUrlEncodedContent(typed.Select(field => KeyValuePair.Create(field.Item1, field.Item2)));
            return await _tab.PostAsync(page, "/practice/1/message?handler=Eml", sent);
        }

        (typed[0], typed[1]) = (("To", ""), ("Guardian", ""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await MailAsync()).StatusCode);
        (typed[0], typed[1], typed[2]) = (
            ("To", "ada@example.org"),
            ("Guardian", "mother@example.org"),
            ("Title", "=?utf-8?q?Send_money?=")
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await MailAsync()).StatusCode);
        typed[2] = ("Title", "After the lesson");
        using var form = new FormUrlEncodedContent(typed.Select(field => KeyValuePair.Create(field.Item1, field.Item2)));
        var mail = await _tab.PostAsync(page, "/practice/1/message?handler=Eml", form);
        Assert.Equal("message/rfc822", mail.Content.Headers.ContentType!.MediaType);
        var read = await MimeKit.MimeMessage.LoadAsync(
            await mail.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken),
            TestContext.Current.CancellationToken
        );
        Assert.DoesNotContain(read.Headers, header => header.Id == MimeKit.HeaderId.MessageId);
        Assert.Equal(("After the lesson", "ada@example.org", "mother@example.org"), (read.Subject, read.To.ToString(), read.Cc.ToString()));
        Assert.Equal("Dear Ada,\n\nten minutes a day.", read.TextBody!.Replace("\r\n", "\n").Trim());
        await _tab.SendAsync(page, "form[action$='/message'].sheet", typed);
        Assert.Equal("After the lesson", (await _room.OnlyAsync(PracticeStop.Messages)).Payload.Title);
    }

    [Fact]
    public async Task A_message_that_did_not_arrive_whole_is_refused_in_a_sentence()
    {
        await AddAsync();
        var (_, page) = await _tab.OpenAsync("/practice/1/message");
        using var broken = new StringContent(new string('x', 100));
        broken.Headers.ContentType = new System.Net.Http.Headers.MediaTypeHeaderValue("multipart/form-data");
        broken.Headers.ContentType.Parameters.Add(new System.Net.Http.Headers.NameValueHeaderValue("boundary", "a"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await _tab.PostAsync(page, "/practice/1/message", broken)).StatusCode);
    }

    [Theory]
    [InlineData("nobody", "is no mail address")]
    [InlineData("a@b\nBcc: c@d", "is no mail address")]
    public async Task What_is_no_address_is_said(string address, string sentence)
    {
        await AddAsync();
        var (_, page) = await _tab.OpenAsync("/practice/1/message");
        var (response, again) = await _tab.SendAsync(page, "form[action$='/message'].sheet", ("To", ""), ("Guardian", address));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, again.QuerySelector("[role=alert]")!.TextContent);
    }

    [Theory]
    [InlineData("m=0&m=0&m=0&m=0&m=0&m=0&m=0", "nought minutes")]
    [InlineData("exam=2026-11-04", "is over")]
    [InlineData("from=soon", "is no day")]
    [InlineData("tired=9", "Tiredness runs from 0 to 3")]
    [InlineData("m=5&m=5", "seven days")]
    [InlineData("lock=tone:new-note@9", "is no day of the week")]
    public async Task What_is_no_week_is_said_in_a_sentence(string query, string sentence)
    {
        await AddAsync();
        var page = await WeekAsync(query);
        Assert.Contains(sentence, page.QuerySelector("[role=alert]")!.TextContent);
    }

    [Theory]
    [InlineData("NaN")]
    [InlineData("ten")]
    public async Task Minutes_that_are_no_number_plan_no_week_and_hand_none_over(string minutes)
    {
        await AddAsync();
        var (response, page) = await _tab.OpenAsync($"/practice/1/week?m={minutes}&m=10&m=0&m=10&m=0&m=10&m=0");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains($"'{minutes}' is not a number", page.QuerySelector("[role=alert]")!.TextContent);
        using var form = new FormUrlEncodedContent([new("m", minutes)]);
        var handed = await _tab.PostAsync(await WeekAsync(""), "/practice/1/week", form);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, handed.StatusCode);
        Assert.Equal(0, await _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.Kind == PracticeStop.Weeks.Id)));
    }

    [Fact]
    public async Task A_list_whose_fields_come_empty_is_empty()
    {
        await AddAsync();
        Assert.Null((await WeekAsync("lock=&stand=&add=")).QuerySelector("[name=lock]"));
    }

    [Fact]
    public async Task What_is_locked_by_hand_stays_on_its_days()
    {
        await AddAsync();
        var page = await WeekAsync("lock=tone:tongue-four@1,4");
        var days = page.QuerySelectorAll(".week-days > li").Select((day, at) => (at, day)).ToList();
        Assert.Equal(
            [1, 4],
            days.Where(each => each.day.QuerySelector("[data-round='tone:tongue-four']") is not null).Select(each => each.at)
        );
    }

    [Fact]
    public async Task Where_something_hurts_the_week_is_shorter_and_the_page_says_what_is_needed_and_not_why()
    {
        await AddAsync();
        await _room.InRecordAsync(async db =>
        {
            var pupil = await db.Pupils.SingleAsync();
            (pupil.Health, pupil.ConsentBy) = (Core.Breath.BreathHealth.Heart, "her mother");
            (pupil.ConsentOn, pupil.ConsentUntil) = (new DateOnly(2026, 11, 1), new DateOnly(2027, 7, 31));
            return await db.SaveChangesAsync();
        });
        var care = (await BeforeAsync()).QuerySelector("[data-care]")!.TextContent;
        Assert.Contains("no holds", care);
        Assert.DoesNotContain("heart", care);
    }

    private static int Rounds(IHtmlDocument page) => page.QuerySelectorAll("[data-round]").Length;

    private Task<int> AddAsync() =>
        _room.InRecordAsync(db =>
        {
            db.Pupils.Add(
                new Pupil
                {
                    Name = "Ada Quill",
                    InstrumentId = "trumpet-bb",
                    ReadingId = "treble",
                    Started = new DateOnly(2026, 9, 1),
                    BornIn = 2014,
                    Stage = LearningStage.FirstNotes,
                }
            );
            return db.SaveChangesAsync();
        });

    private async Task StepAsync(NextStep step) =>
        await _room.WriteAsync(journal =>
            journal.WriteAsync(Steps.Kind, Steps.Entry(1, step, _time.GetUtcNow().UtcDateTime), new StepPayload("Because."), "")
        );

    private Task<int> ChangeStepAsync(Action<Entry> change) =>
        _room.InRecordAsync(async db =>
        {
            change(await db.Entries.SingleAsync(entry => entry.Kind == "step"));
            return await db.SaveChangesAsync();
        });

    private async Task<IHtmlDocument> LessonAsync() => (await _tab.OpenAsync("/practice/1/lesson")).Page;

    private async Task<IHtmlDocument> BeforeAsync()
    {
        var (response, page) = await _tab.OpenAsync("/practice/1");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return page;
    }

    private async Task<IHtmlDocument> WeekAsync(string query)
    {
        var (response, page) = await _tab.OpenAsync($"/practice/1/week?{query}");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return page;
    }
}
