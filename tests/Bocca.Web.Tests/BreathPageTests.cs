using System.Net;
using System.Text.Json;
using Bocca.Core.Breath;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Record;

namespace Bocca.Web.Tests;

public sealed class BreathPageTests : IDisposable
{
    private readonly Room _room = new();
    private readonly Tab _tab;

    public BreathPageTests() => _tab = new Tab(_room.CreateClient());

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task A_plan_comes_in_seconds_and_one_beyond_the_limits_as_a_sentence()
    {
        await AddAsync(14);
        var (_, plan) = await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=1&tempo=80");
        var phases = JsonDocument
            .Parse(plan)
            .RootElement.GetProperty("phases")
            .EnumerateArray()
            .Select(phase =>
                (phase.GetProperty("kind").GetString(), phase.GetProperty("start").GetDouble(), phase.GetProperty("seconds").GetDouble())
            );
        Assert.Equal([("in", 0.0, 3.0), ("out", 3.0, 6.0)], phases);
        var (status, refusal) = await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=5&tempo=60");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Contains("20 s", refusal);
        Assert.Contains("beats a minute", (await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=0&tempo=5000")).Text);
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=99&tempo=80")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync("/breath/1?handler=Plan&drill=in-hold-out&rung=0&tempo=80")).Status);
    }

    [Fact]
    public async Task A_breath_that_is_heard_is_judged_and_kept_once_however_often_it_is_sent()
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        var drill = BreathDrill.Get("even-stream");
        var plan = BreathPlan.Make(drill, drill.Rungs[1], 80, new BreathingPupil(14, BreathHealth.None, false), BreathDay.Fresh).Plan!;
        var wav = new MemoryStream();
        WavFile.Write(wav, SimulatedBreath.Play(plan, [Fault.Parse("gusty=0.6")], 4));
        var key = Guid.NewGuid();
        for (var time = 0; time < 2; time++)
        {
            var response = await KeepAsync(
                page,
                wav.ToArray(),
                ("drill", "even-stream"),
                ("rung", "1"),
                ("tempo", "80"),
                ("key", $"{key}"),
                ("first", "0")
            );
            Assert.Equal(HttpStatusCode.OK, response.StatusCode);
            Assert.Contains("still counts as even", await response.Content.ReadAsStringAsync());
        }

        var (entry, payload) = await _room.OnlyAsync(BreathStop.Drills);
        Assert.False(BreathStop.Pass(entry).Even);
        Assert.True(BreathStop.Pass(entry).Measured);
        Assert.Equal(6, payload.AskedSeconds);
        Assert.InRange(payload.HeardSeconds!.Value, 5.5, 6.2);
        Assert.Equal("MouthpieceFirst", entry.Approach!.Text);
    }

    [Fact]
    public async Task Two_even_passes_open_the_next_rung_and_tell_a_usable_breath()
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        async Task<string> TapAsync() =>
            await (
                await KeepAsync(
                    page,
                    null,
                    ("drill", "even-stream"),
                    ("rung", "0"),
                    ("tempo", "80"),
                    ("key", $"{Guid.NewGuid()}"),
                    ("even", "true")
                )
            ).Content.ReadAsStringAsync();
        Assert.Contains("two open the next one", await TapAsync());
        Assert.Contains("Next one up: in 4, out 8", await TapAsync());
        var (_, again) = await _tab.OpenAsync("/breath/1");
        Assert.Contains("in 4, out 8", again.QuerySelector("#breath-title")!.TextContent);
        Assert.Contains("2.4 s", again.QuerySelector("[data-outcome]")!.TextContent);
        Assert.Contains("a first guess", again.QuerySelector("[data-outcome]")!.TextContent);
    }

    [Fact]
    public async Task A_flag_takes_drills_away_and_shows_the_caution_and_dizziness_ends_the_day()
    {
        await AddAsync(14, BreathHealth.Breathing, points: "breath.hold=c breath.push=b");
        var (_, page) = await _tab.OpenAsync("/breath/1");
        Assert.Contains("Follow your own doctor's advice", page.QuerySelector("[data-caution]")!.TextContent);
        var offered = page.QuerySelectorAll("[name=drill] option").Select(option => option.GetAttribute("value")).ToList();
        Assert.DoesNotContain("in-hold-out", offered);
        Assert.DoesNotContain("equal-exchange", offered);
        Assert.Contains("paced-breath", offered);
        Assert.Contains(
            "Holding the breath is not for this pupil",
            (await GetAsync("/breath/1?handler=Plan&drill=in-hold-out&rung=0&tempo=80")).Text
        );
        await _tab.SendAsync(page, "form[action*=Tell]", ("complaint", "dizzy"));
        Assert.Contains("No more breath drills today", (await GetAsync("/breath/1?handler=Plan&drill=paced-breath&rung=0&tempo=80")).Text);
        var refused = (await _tab.OpenAsync("/breath/1")).Page;
        Assert.Contains("Tell an adult", refused.QuerySelector("[data-refusal]")!.TextContent);
        Assert.NotNull(refused.QuerySelector("[data-go][data-shut='yes']"));
    }

    [Fact]
    public async Task A_day_is_used_up_by_what_was_breathed_even_when_it_is_deleted()
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        for (var i = 0; i < 14; i++)
            await KeepAsync(
                page,
                null,
                ("drill", "even-stream"),
                ("rung", "5"),
                ("tempo", "80"),
                ("key", $"{Guid.NewGuid()}"),
                ("even", "true")
            );
        Assert.Contains("5 is the most", (await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=5&tempo=80")).Text);
        var (_, full) = await _tab.OpenAsync("/breath/1");
        var (_, gone) = await _tab.SendAsync(full, "form[action*=Delete]");
        Assert.Contains("still counts for today", gone.Body!.TextContent);
        Assert.Contains("5 is the most", (await GetAsync("/breath/1?handler=Plan&drill=even-stream&rung=5&tempo=80")).Text);
        await _tab.SendAsync(gone, "form[action*=Restore]");
        Assert.Equal(14, await _room.CountAsync(BreathStop.Drills));
    }

    [Fact]
    public async Task A_stopped_drill_counts_what_was_done()
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        var response = await KeepAsync(
            page,
            null,
            ("drill", "even-stream"),
            ("rung", "1"),
            ("tempo", "80"),
            ("key", $"{Guid.NewGuid()}"),
            ("stopped", "true"),
            ("seconds", "4")
        );
        Assert.Contains("Stopped after 4 s", await response.Content.ReadAsStringAsync());
        Assert.Equal(4, (await _room.OnlyAsync(BreathStop.Drills)).Entry.ElapsedSeconds);
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await KeepAsync(
                    page,
                    "noise"u8.ToArray(),
                    ("drill", "even-stream"),
                    ("rung", "1"),
                    ("tempo", "80"),
                    ("key", $"{Guid.NewGuid()}")
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await KeepAsync(page, null, ("drill", "even-stream"), ("rung", "1"), ("tempo", "80"))).StatusCode
        );
    }

    [Theory]
    [InlineData("400", "circumference", "no full breath")]
    [InlineData("many", "circumference", "'many' is not a length")]
    [InlineData("", "diameter", "'' is not a length")]
    public async Task A_balloon_that_cannot_be_is_refused_and_stays_typed(string cm, string across, string sentence)
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        var (_, refused) = await _tab.SendAsync(page, "form.balloon", ("cm", cm), ("across", across));
        Assert.Contains(sentence, refused.QuerySelector(".breath-history .trouble")!.TextContent);
        Assert.Equal(cm, refused.QuerySelector("#cm")!.GetAttribute("value") ?? "");
    }

    [Fact]
    public async Task A_fourth_balloon_in_a_week_waits()
    {
        await AddAsync(14);
        var (_, page) = await _tab.OpenAsync("/breath/1");
        for (var i = 0; i < 3; i++)
            page = (await _tab.SendAsync(page, "form.balloon", ("cm", "60"))).Page;
        Assert.Contains("3.6 l", page.QuerySelector("[data-balloon]")!.TextContent);
        var (_, fourth) = await _tab.SendAsync(page, "form.balloon", ("cm", "60"));
        Assert.Contains("in seven days", fourth.QuerySelector(".breath-history .trouble")!.TextContent);
    }

    private Task<int> AddAsync(int age, BreathHealth health = BreathHealth.None, string points = "") =>
        _room.InRecordAsync(async db =>
        {
            db.Pupils.Add(
                new Pupil
                {
                    Name = "Ada Quill",
                    InstrumentId = "trumpet-bb",
                    ReadingId = "treble",
                    Started = new DateOnly(2026, 9, 1),
                    BornIn = DateTime.Now.Year - age - 1,
                    Health = health,
                    Points = points,
                }
            );
            return await db.SaveChangesAsync();
        });

    private async Task<(HttpStatusCode Status, string Text)> GetAsync(string address)
    {
        var response = await _room.CreateClient().GetAsync(address);
        return (response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    private Task<HttpResponseMessage> KeepAsync(
        AngleSharp.Html.Dom.IHtmlDocument page,
        byte[]? sound,
        params (string Name, string Value)[] fields
    ) => _tab.PostAsync(page, "/breath/1?handler=Keep", Multipart(sound, fields));

    private static MultipartFormDataContent Multipart(byte[]? sound, (string Name, string Value)[] fields)
    {
        var body = new MultipartFormDataContent();
        foreach (var (name, value) in fields)
            body.Add(new StringContent(value), name);
        if (sound is not null)
            body.Add(new ByteArrayContent(sound), "sound", "breath.wav");
        return body;
    }
}
