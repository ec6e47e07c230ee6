using AngleSharp.Html.Dom;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>What a teacher is told before a lesson and what goes home after it come from the same record, and agree.</summary>
public sealed class AfterLessonTests : IDisposable
{
    private readonly FakeTimeProvider _time = new(new DateTimeOffset(2026, 11, 5, 15, 0, 0, TimeSpan.Zero));
    private readonly Room _room;
    private readonly Tab _tab;

    public AfterLessonTests()
    {
        _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };
        _tab = new Tab(_room.CreateClient());
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task Praise_and_task_are_the_lessons_that_ended_and_without_one_the_page_says_so()
    {
        await _room.AddAsync("Ada");
        await LessonAsync("Four long notes, all steady.", "Let the air go first.");
        var today = await PageAsync("/practice/1/message");
        Assert.Contains("four long notes, all steady", Body(today));
        Assert.Contains("let the air go first", Body(today));
        Assert.Null(today.QuerySelector("[data-no-lesson]"));

        // A week on, with a good take at home and an old week on record, nothing of that lesson is told once more.
        _time.Advance(TimeSpan.FromDays(8));
        await ToneAsync("G4", 0);
        var later = await PageAsync("/practice/1/message");
        Assert.NotNull(later.QuerySelector("[data-no-lesson]"));
        Assert.DoesNotContain("steady", Body(later));
        Assert.DoesNotContain("went well", Body(later));
        Assert.DoesNotContain("air go first", Body(later));
    }

    [Fact]
    public async Task Week_sheet_and_message_tell_the_same_minutes()
    {
        await _room.AddAsync("Ada");
        await LessonAsync("Good.", "");
        var week = await PageAsync("/practice/1/week?m=20&m=0&m=11&m=0&m=5&m=0&m=0");
        var told = week.QuerySelectorAll("[data-day]")
            .Select(day => day.QuerySelector("h2 small")!.TextContent.Split(',')[0].Trim())
            .ToList();
        await _tab.SendAsync(week, "form[method=post][action*='week?m']");
        var sheet = (await PageAsync("/practice/1/sheet")).QuerySelectorAll("thead .day small").Select(day => day.TextContent.Trim());
        Assert.Equal(told, sheet);
        var minutes = told.Where(day => day != "free").Select(day => int.Parse(day.Split(' ')[0])).ToList();
        Assert.Contains(
            $"{minutes.Min()} to {minutes.Max()} minutes on {minutes.Count} days",
            Body(await PageAsync("/practice/1/message"))
        );
    }

    /// <summary>A slide 3.6 cm short of 4th: the Desk tells it, the lesson begins with it, the week has its drill.</summary>
    [Fact]
    public async Task What_the_desk_says_went_wrong_is_heard_first_and_the_week_has_a_drill_for_it()
    {
        await _room.AddAsync("Ines", "trombone", "bass");
        await FirstNotesAsync();
        await ToneAsync("D3", 3.6);
        Assert.Contains("too far in", (await PageAsync("/")).QuerySelector(".heard-line")!.TextContent);
        var before = await PageAsync("/practice/1");
        Assert.Contains("too far in", before.QuerySelector("[data-first]")!.TextContent);
        Assert.Contains("/tone/1?drill=slide-stations", before.QuerySelector("[data-hear-first]")!.GetAttribute("href"));
        Assert.NotNull((await PageAsync("/practice/1/week")).QuerySelector("[data-round='tone:slide-stations']"));

        // An open step is agreed on later: it comes first again.
        _time.Advance(TimeSpan.FromHours(1));
        await StepAsync("buzz", "sound4-rest4", "Let the air go first.");
        Assert.Contains("air go first", (await PageAsync("/practice/1")).QuerySelector("[data-first]")!.TextContent);
    }

    [Fact]
    public async Task A_second_lesson_at_once_is_asked_about()
    {
        await _room.AddAsync("Ada");
        await _room.AddAsync("Ben");
        await SendAsync("/practice/1", "form[action*=Begin]");
        var asked = await SendAsync("/practice/2", "form[action*=Begin]");
        Assert.Contains("Ada is still on, since 15:00", asked.QuerySelector("[data-beside]")!.TextContent);
        Assert.Equal(1, await OpenAsync());
        var begun = (await _tab.SendAsync(asked, "form[action*='other=end']")).Page;
        Assert.NotNull(begun.QuerySelector("[data-lesson-strip]"));
        Assert.Equal(1, await OpenAsync());
        Assert.Equal(1, await _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.PupilId == 1 && entry.DoneAt != null)));
    }

    /// <summary>A sheet for parents has no usual spans: they are the teacher's.</summary>
    [Fact]
    public async Task Nothing_that_goes_home_compares_with_a_usual_span()
    {
        await _room.AddAsync("Ada");
        _time.Advance(TimeSpan.FromDays(2));
        await _room.InRecordAsync(async db =>
        {
            var drill = Milestone.All.Single(each => each.Id == "two-notes").Drills[0].Split(':');
            db.Entries.Add(
                new Entry
                {
                    PupilId = 1,
                    Kind = "tone",
                    DrillId = drill[1],
                    InstrumentId = "trumpet-bb",
                    At = _time.GetUtcNow().UtcDateTime,
                    Kept = true,
                    Outcome = Outcome.Passed,
                    Summary = "All came.",
                }
            );
            return await db.SaveChangesAsync();
        });
        var term = (await PageAsync("/practice/1/term")).QuerySelector("#stage")!.TextContent;
        Assert.Contains(Milestone.All.Single(each => each.Id == "two-notes").Name, term, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("Usual", term, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("on day", term, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_eve_of_an_exam_on_the_day_after_the_week_has_nothing_new()
    {
        await _room.AddAsync("Ada");
        await FirstNotesAsync();
        // The week runs from 6 to 12 November; the exam is on the 13th.
        var free = string.Concat(Enumerable.Repeat("&m=30", 7));
        var without = await PageAsync($"/practice/1/week?from=2026-11-06{free}");
        var with = await PageAsync($"/practice/1/week?from=2026-11-06&exam=2026-11-13{free}");
        Assert.NotEqual(Rounds(without, 6), Rounds(with, 6));
        Assert.DoesNotContain(Rounds(with, 6), item => item == "tone:new-note");
        Assert.Contains(Rounds(without, 6), item => item == "tone:new-note");
    }

    private static IReadOnlyList<string> Rounds(IHtmlDocument week, int day) =>
        [.. week.QuerySelectorAll($"[data-day='{day}'] [data-round]").Select(round => round.GetAttribute("data-round")!)];

    private static string Body(IHtmlDocument message) => message.QuerySelector("#body")!.TextContent;

    private async Task<IHtmlDocument> PageAsync(string path)
    {
        var (response, page) = await _tab.OpenAsync(path);
        Assert.True(response.IsSuccessStatusCode, $"{path}: {response.StatusCode}");
        return page;
    }

    private async Task<IHtmlDocument> SendAsync(string path, string form, params (string, string)[] fields) =>
        (await _tab.SendAsync(await PageAsync(path), form, fields)).Page;

    private Task<int> FirstNotesAsync() =>
        _room.InRecordAsync(db => db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(pupil => pupil.Stage, LearningStage.FirstNotes)));

    private Task<int> OpenAsync() =>
        _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.Kind == "lesson" && entry.DoneAt == null));

    private async Task LessonAsync(string good, string task)
    {
        await SendAsync("/practice/1", "form[action*=Begin]");
        _time.Advance(TimeSpan.FromMinutes(30));
        await SendAsync("/practice/1/lesson", "form[action*=End]", ("good", good), ("task", task));
    }

    private Task StepAsync(string place, string drill, string cue) =>
        _room.WriteAsync(journal =>
        {
            var step = Steps.Entry(1, new NextStep(new Place(place), drill, cue, "Because."), _time.GetUtcNow().UtcDateTime);
            return journal.WriteAsync(Steps.Kind, step, new StepPayload("Because.", 0), "");
        });

    /// <summary>A kept take of one written note, heard from the practice player with its slide so many centimetres too far in.</summary>
    private async Task ToneAsync(string written, double slideIn)
    {
        var pupil = await _room.InRecordAsync(db => db.Pupils.FirstAsync());
        var player = new PlayerSituation(pupil.Instrument, pupil.Reading, Tuning.Standard);
        var drill = ToneDrill.Get("what-came");
        var plan = drill.Plan(player, new RoomSettings().Approach, 100, MeantNote.Row(player.Instrument, player.Reading, written));
        var asked = new AskedRow(plan, player, LearningStage.FirstNotes) { Drill = drill };
        var row = Core.Simulation.PlayedNote.Row(
            plan,
            player,
            Core.Simulation.RowCharacter.Get("good") with
            {
                Misses = slideIn > 0 ? [Core.Simulation.RowMiss.Parse($"slide-in={slideIn}")] : [],
            }
        );
        var sound = Core.Simulation.SimulatedPlayer.PlayRow(player.Instrument, row, plan.Tempo, [], 5).Sound;
        var take = RowTake.Hear(sound, asked, Core.Buzz.Measures.SoundingPupil.Unknown);
        var (entry, payload) = ToneStop.Take(pupil, take, (written, ""), EntrySource.Microphone, _time.GetUtcNow().UtcDateTime);
        entry.Kept = true;
        await _room.WriteAsync(journal => journal.WriteAsync(ToneStop.Takes, entry, payload, ""));
    }
}
