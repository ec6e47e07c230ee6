using System.Net;
using System.Text;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Simulation;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Setup;

namespace Bocca.Web.Tests;

public sealed class SetupPageTests : IDisposable
{
    private readonly Room _room = new();
    private readonly Tab _tab;

    public SetupPageTests() => _tab = new Tab(_room.CreateClient());

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task A_placement_is_measured_kept_and_brought_back()
    {
        await _room.AddAsync("Ada Quill", "horn-f");
        var (_, page) = await _tab.OpenAsync("/set-up/1");
        var measured = await (await MarksAsync(page, "Measure", new DrawnFace(0.66, 2, 0, 25))).Content.ReadAsStringAsync();
        Assert.Contains("66 %", measured);
        Assert.Contains("2.0 mm", measured);
        Assert.Equal(0, await _room.CountAsync(SetupStop.Placements));
        Assert.Equal(HttpStatusCode.OK, (await MarksAsync(page, "Keep", new DrawnFace(0.66, 2, 0, 25))).StatusCode);
        var (_, kept) = await _tab.OpenAsync("/set-up/1");
        Assert.Contains("66 %", kept.QuerySelector(".placements")!.TextContent);
        Assert.Contains("under mouthpiece first", kept.QuerySelector(".placements")!.TextContent);
        var (_, gone) = await _tab.SendAsync(kept, "form[action*=Delete]");
        Assert.Null(gone.QuerySelector(".placements"));
        Assert.NotNull((await _tab.SendAsync(gone, "form[action*=Restore]")).Page.QuerySelector(".placements"));
    }

    [Fact]
    public async Task Marks_that_can_be_no_ring_get_a_sentence()
    {
        await _room.AddAsync("Ada Quill");
        var (_, page) = await _tab.OpenAsync("/set-up/1");
        var refused = await PostAsync(
            page,
            "Measure",
            """{"front":{"ringEdge":[{"x":1,"y":1},{"x":2,"y":2},{"x":3,"y":3}],"lipLeft":{"x":0,"y":0},"lipRight":{"x":9,"y":0}"""
                + """,  "middleTop":{"x":5,"y":0},"middleBottom":{"x":5,"y":9},"mirrored":true},"rimMm":27,"source":2}"""
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("one line", await refused.Content.ReadAsStringAsync());
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await PostAsync(page, "Keep", "{}")).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await PostAsync(page, "Keep", "no marks")).StatusCode);
    }

    [Fact]
    public async Task A_check_is_ticked_and_the_tick_taken_back()
    {
        await _room.AddAsync("Ada Quill", "trombone", "bass");
        var (_, page) = await _tab.OpenAsync("/set-up/1/checks");
        Assert.Contains("0 of 19", page.Body!.TextContent);
        var (_, ticked) = await _tab.SendAsync(page, "#seat form");
        Assert.Contains("1 of 19", ticked.Body!.TextContent);
        Assert.Contains("Look at: feet", ticked.Body.TextContent);
        Assert.Contains("0 of 19", (await _tab.SendAsync(ticked, "#seat form")).Page.Body!.TextContent);
    }

    [Fact]
    public async Task An_observation_leads_to_advice_and_a_teacher_may_overrule_it()
    {
        await _room.AddAsync("Ada Quill");
        var (_, page) = await _tab.OpenAsync("/set-up/1/watch");
        var advice = await NoticeAsync(page, "seen.squeeze");
        Assert.Contains("thin, pinched", advice);
        Assert.Contains("nothing that tightens is said", advice);
        Assert.Contains("Do the teeth close", advice);
        Assert.DoesNotContain("Do the teeth close before the tone starts?</p>", await NoticeAsync(page, "yes.teethFirst"));
        var (_, again) = await _tab.OpenAsync("/set-up/1/watch");
        Assert.Equal("true", again.QuerySelector("[data-signal='seen.squeeze']")!.GetAttribute("aria-pressed"));
        await _tab.SendAsync(again, "form.overrule", ("symptom", "rough"));
        var kept = await _room.OnlyAsync(SetupStop.Advice);
        Assert.Equal(("rough", "pinched"), (kept.Entry.Subject, kept.Payload.SuggestedId));
        Assert.Contains("overruled", (await _tab.OpenAsync("/set-up/1/watch")).Page.Body!.TextContent);
        Assert.DoesNotContain("thin, pinched", await NoticeAsync(page, "seen.squeeze"));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await _tab.PostAsync(page, "/set-up/1/watch?handler=Notice", new FormUrlEncodedContent([new("signal", "seen.ghosts")]))
            ).StatusCode
        );
    }

    [Fact]
    public async Task The_rooms_approach_holds_until_a_pupil_has_one_and_records_keep_theirs()
    {
        await _room.AddAsync("Ada Quill", "euphonium-4v-comp", "bass");
        var (_, notes) = await _tab.OpenAsync("/notes/1?note=C3");
        Assert.Equal("Valve 4", notes.QuerySelector("[data-fingering]")!.TextContent);
        await _tab.SendAsync(notes, "form[action*=Save]");

        var (_, room) = await _tab.OpenAsync("/approach");
        await _tab.SendAsync(room, "form.points", ("preset", "MouthpieceFirst"), ("point.valve4", "b"));
        Assert.Equal("Valves 1 and 3", (await _tab.OpenAsync("/notes/1?note=C3")).Page.QuerySelector("[data-fingering]")!.TextContent);
        Assert.Equal("MouthpieceFirst", (await _room.OnlyAsync(NotesStop.Notes)).Entry.Approach!.Text);

        var (_, own) = await _tab.OpenAsync("/approach/1");
        var (_, saved) = await _tab.SendAsync(own, "form.points", ("preset", ""), ("point.valve4", "a"), ("point.stage.lips", ""));
        Assert.Contains("Ada Quill is taught so", saved.Body!.TextContent);
        Assert.Equal("Valve 4", (await _tab.OpenAsync("/notes/1?note=C3")).Page.QuerySelector("[data-fingering]")!.TextContent);
        var (_, wrong) = await _tab.SendAsync(saved, "form.points", ("preset", "Nobody"));
        Assert.Contains("'Nobody' is not a preset", wrong.Body!.TextContent);
    }

    [Theory]
    [InlineData("Form.BornIn", "1850", "between 3 and 100")]
    [InlineData("Form.ArmCm", "300", "cannot be")]
    public async Task An_impossible_age_or_arm_is_named_and_stays_typed(string field, string value, string sentence)
    {
        await _room.AddAsync("Ada Quill");
        var (_, page) = await _tab.OpenAsync("/pupils/1");
        var (_, refused) = await _tab.SendAsync(page, "form.sheet", (field, value));
        Assert.Contains(sentence, refused.Body!.TextContent);
        Assert.Equal(value, ((IHtmlInputElement)refused.QuerySelector($"[name='{field}']")!).Value);
    }

    private Task<HttpResponseMessage> MarksAsync(IHtmlDocument page, string handler, DrawnFace face) =>
        PostAsync(
            page,
            handler,
            JsonSerializer.Serialize(
                new
                {
                    front = face.Marks(),
                    rimMm = face.RimMm,
                    source = PlacementSource.Drawing,
                },
                JsonSerializerOptions.Web
            )
        );

    private Task<HttpResponseMessage> PostAsync(IHtmlDocument page, string handler, string json) =>
        _tab.PostAsync(page, $"/set-up/1?handler={handler}", new StringContent(json, Encoding.UTF8, "application/json"));

    private async Task<string> NoticeAsync(IHtmlDocument page, string signal) =>
        await (
            await _tab.PostAsync(page, "/set-up/1/watch?handler=Notice", new FormUrlEncodedContent([new("signal", signal)]))
        ).Content.ReadAsStringAsync();
}
