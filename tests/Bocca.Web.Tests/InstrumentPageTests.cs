using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Judging;
using Bocca.Web.Pages.Notes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The instrument before the child: looked at, repaired, cared for; a slide stays locked until somebody has watched.</summary>
public sealed class InstrumentPageTests : IDisposable
{
    private readonly Room _room = new();

    private readonly HttpClient _client;

    private readonly Tab _tab;

    public InstrumentPageTests()
    {
        _client = _room.CreateClient();
        _tab = new Tab(_client);
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task With_every_valve_turned_the_instrument_is_looked_at_and_only_then_the_lips()
    {
        await _room.AddAsync("Ada");
        var heard = await PlayAsync("blocked");
        Assert.Equal(
            "Look at the instrument first: valves, slides, water, mouthpiece.",
            heard.QuerySelector("[data-next]")!.TextContent.Trim()
        );
        var (_, look) = await _tab.SendAsync(heard, "form[action*=Accept]");
        Assert.NotNull(look.QuerySelector("#look button[value=valveTurned]"));
        // A trumpet's valves have no strings, and no hand slide.
        Assert.Null(look.QuerySelector("#look button[value=stringBroken], #look button[value=slideBinds]"));
        await _tab.SendAsync(look, "#look form", ("found", NotesStop.AllWell));
        Assert.Equal(0, await _room.InRecordAsync(db => db.Entries.CountAsync(step => step.Kind == "step" && step.DoneAt == null)));
        var again = await PlayAsync("blocked");
        Assert.Contains("lips", again.QuerySelector("[data-next]")!.TextContent);
    }

    [Fact]
    public async Task What_waits_for_a_repair_stands_until_it_is_done_and_what_a_pupil_mends_does_not()
    {
        await _room.AddAsync("Ada");
        var page = (await _tab.OpenAsync("/notes/1/instrument")).Page;
        page = (await _tab.SendAsync(page, "#look form", ("found", "water"))).Page;
        Assert.Null(page.QuerySelector(".repairs li"));
        page = (await _tab.SendAsync(page, "#look form", ("found", "waterKey"))).Page;
        page = (await _tab.SendAsync(page, ".repairs form.another", ("missing", "valve oil"))).Page;
        Assert.Equal(2, page.QuerySelectorAll(".repairs li").Length);
        page = (await _tab.SendAsync(page, ".repairs li form")).Page;
        Assert.Single(page.QuerySelectorAll(".repairs li"));
        Assert.Equal("Undo", page.QuerySelector(".told button")!.TextContent);
    }

    [Fact]
    public async Task Oil_is_due_a_week_after_it_was_given_and_the_way_to_put_it_down_goes_by_the_stand()
    {
        await _room.AddAsync("Ada", "tuba-bb-3v", "bass");
        var page = (await _tab.OpenAsync("/notes/1/instrument")).Page;
        Assert.Contains("never on the bell", page.QuerySelector("#care")!.TextContent);
        page = (await _tab.SendAsync(page, "form[action*=Stand]", ("stand", "true"))).Page;
        Assert.Contains("On its stand.", page.QuerySelector("#care")!.TextContent);
        await _tab.SendAsync(page, "[data-care=oiled]", ("done", "oiled"));
        var due = await _room.InRecordAsync(db => db.Entries.SingleAsync(entry => entry.Kind == "oiled"));
        Assert.Equal(7, (due.DueAt!.Value - due.At).TotalDays, 1e-6);
        Assert.Equal(Outcome.Passed, due.Outcome);
    }

    [Theory]
    [InlineData("found=gold")]
    [InlineData("found=missing&missing=")]
    public async Task What_is_no_look_is_refused(string body)
    {
        await _room.AddAsync("Ada");
        var page = (await _tab.OpenAsync("/notes/1/instrument")).Page;
        var fields = body.Split('&').Select(part => KeyValuePair.Create(part.Split('=')[0], part.Split('=')[1]));
        using var form = new FormUrlEncodedContent(fields);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await _tab.PostAsync(page, "/notes/1/instrument?handler=Look", form)).StatusCode);
    }

    [Fact]
    public async Task A_slide_stays_locked_until_somebody_has_watched()
    {
        await _room.AddAsync("Ines", "trombone", "bass");
        const string Plan = "/tone/1?handler=Begin&drill=what-came&tempo=60";
        var refused = await _client.GetAsync(Plan, TestContext.Current.CancellationToken);
        Assert.StartsWith("Watch me first", await refused.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var page = (await _tab.OpenAsync("/set-up/1/checks")).Page;
        using var form = new FormUrlEncodedContent([new("check", "slide-lock")]);
        await _tab.PostAsync(page, "/set-up/1/checks?handler=Tick", form);
        Assert.Equal(HttpStatusCode.OK, (await _client.GetAsync(Plan, TestContext.Current.CancellationToken)).StatusCode);
    }

    private async Task<IHtmlDocument> PlayAsync(string character)
    {
        const string Asked = "drill=what-came&tempo=96&notes=D4";
        var wav = await _client.GetByteArrayAsync(
            $"/tone/1?handler=Practice&{Asked}&character={character}&seed=1",
            TestContext.Current.CancellationToken
        );
        var page = (await _tab.OpenAsync("/tone/1")).Page;
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(wav), "sound", "take.wav" },
            { new StringContent("what-came"), "drill" },
            { new StringContent("96"), "tempo" },
            { new StringContent("D4"), "notes" },
            { new StringContent("File"), "source" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };
        return (await Tab.ReadAsync(await _tab.PostAsync(page, "/tone/1?handler=Hear", body))).Page;
    }
}
