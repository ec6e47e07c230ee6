using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>What the teacher sets otherwise on the pages: bands, drills, limits, cues, and the log of it.</summary>
public sealed class OwnSettingsPageTests : IDisposable
{
    private readonly Room _room = new();

    private readonly HttpClient _client;

    private readonly Tab _tab;

    public OwnSettingsPageTests()
    {
        _client = _room.CreateClient();
        _tab = new Tab(_client);
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task An_edited_band_changes_the_verdict_and_an_old_take_keeps_the_one_it_had()
    {
        await _room.AddAsync("Ada");
        var strict = await HearAsync("wander=24");
        Assert.Contains("steady (aim 40)", strict.QuerySelector(".what")!.TextContent);
        await SetAsync("/approach/bands/1", ("bands.mouthpiece.steadyCents", "12"));
        var now = await HearAsync("wander=24");
        Assert.Contains("unsteady (aim 12)", now.QuerySelector(".what")!.TextContent);
        var old = strict.QuerySelector("#stage")!.GetAttribute("data-take");
        var (_, shown) = await _tab.OpenAsync($"/buzz/1?take={old}");
        Assert.Contains("steady (aim 40)", shown.QuerySelector(".what")!.TextContent);
        // The room, and everybody else in it, has the gate that ships.
        Assert.Equal("40", await ValueAsync("/approach/bands", "bands.mouthpiece.steadyCents"));
    }

    [Fact]
    public async Task How_many_tries_lie_inside_is_counted_for_a_pupil()
    {
        await _room.AddAsync("Ada");
        var (_, page) = await _tab.OpenAsync($"/buzz/1?take={(await HearAsync()).QuerySelector("#stage")!.GetAttribute("data-take")}");
        await _tab.SendAsync(page, "form[action*='handler=Keep']");
        var (_, bands) = await _tab.OpenAsync("/approach/bands/1");
        string Inside(string path) => bands.GetElementById(path)!.Closest("tr")!.QuerySelector("[data-inside]")!.TextContent;
        Assert.Equal("4 of 4", Inside("bands.mouthpiece.steadyCents"));
        Assert.Equal("", Inside("bands.lips.steadyCents"));
    }

    [Fact]
    public async Task A_drill_has_the_rooms_tempo_and_a_pupils_own_goes_over_it()
    {
        await _room.AddAsync("Ada");
        await _room.AddAsync("Bo");
        await SetAsync("/approach/drills", ("drills.buzz.sound4-rest4.tempo", "96"));
        await SetAsync("/approach/drills/1", ("drills.buzz.sound4-rest4.sets.0.times", "2"));
        var (_, ada) = await _tab.OpenAsync("/buzz/1");
        Assert.Equal("96", ada.QuerySelector("[name=drill] option[value=sound4-rest4]")!.GetAttribute("data-tempo"));
        Assert.Contains("\"totalBeats\":16", await _client.GetStringAsync(Plan(1), TestContext.Current.CancellationToken));
        Assert.Contains("\"totalBeats\":32", await _client.GetStringAsync(Plan(2), TestContext.Current.CancellationToken));
    }

    [Theory]
    [InlineData("/approach/limits", "breath.holdSeconds", "5", "must be 0 to 4 s")]
    [InlineData("/approach/bands", "bands.lips.steadyCents", "never", "is not a number")]
    [InlineData("/approach/drills", "drills.buzz.sound4-rest4.sets.0.restBeats", "1", "must be 4 to 32")]
    public async Task What_is_out_of_range_is_refused_and_stays_typed(string address, string path, string typed, string sentence)
    {
        var (_, page) = await _tab.OpenAsync(address);
        var (response, refused) = await _tab.SendAsync(page, FormOf(page, path), (path, typed));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, refused.QuerySelector("[role=alert]")!.TextContent);
        Assert.Equal(typed, ((IHtmlInputElement)refused.GetElementById(path)!).Value);
        Assert.Equal(0, await _room.InRecordAsync(db => db.SettingChanges.CountAsync()));
    }

    [Fact]
    public async Task A_cue_is_reworded_put_first_said_so_and_put_back_from_the_log()
    {
        await _room.AddAsync("Ada");
        const string Faults = "air-first=900";
        var before = (await HearAsync(Faults)).QuerySelector("[data-next]")!.TextContent.Trim();
        var (_, page) = await _tab.OpenAsync("/approach/cues/1?symptom=airFirst");
        var last = page.QuerySelectorAll("[name$='.Cue']").Length - 1;
        await _tab.SendAsync(
            page,
            "form[action*='symptom=airFirst']",
            ($"rungs[{last}].Cue", "Lips first, then the air."),
            ($"rungs[{last}].Place", "0")
        );
        Assert.Equal("Lips first, then the air.", (await HearAsync(Faults)).QuerySelector("[data-next]")!.TextContent.Trim());
        var (_, log) = await _tab.OpenAsync("/approach/changes/1");
        Assert.Contains("Lips first, then the air.", log.QuerySelector("table")!.TextContent);
        await _tab.SendAsync(log, "form[action*='handler=Back']");
        Assert.Equal(before, (await HearAsync(Faults)).QuerySelector("[data-next]")!.TextContent.Trim());
        Assert.Equal(2, await _room.InRecordAsync(db => db.SettingChanges.CountAsync()));
    }

    [Fact]
    public async Task A_cue_with_two_actions_is_refused_and_what_was_typed_stays()
    {
        var (_, page) = await _tab.OpenAsync("/approach/cues?symptom=oneLow");
        var (response, refused) = await _tab.SendAsync(page, "form[action*='symptom=oneLow']", ("rungs[0].Cue", "Sing it. Then blow."));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains("says two things", refused.QuerySelector("[role=alert]")!.TextContent);
        Assert.Equal("Sing it. Then blow.", ((IHtmlInputElement)refused.QuerySelector("[name='rungs[0].Cue']")!).Value);
        Assert.Null((await _tab.OpenAsync("/approach/cues")).Page.QuerySelector("a[href*=dizzy]"));
    }

    [Fact]
    public async Task First_notes_stand_in_the_log_too_and_go_back_from_it()
    {
        await _room.AddAsync("Ada");
        var (_, page) = await _tab.OpenAsync("/notes/1/first");
        await _tab.SendAsync(page, "form:has([name=notes])", ("notes", "G4 E4"));
        var (_, log) = await _tab.OpenAsync("/approach/changes/1");
        Assert.Contains("First notes, sounding", log.QuerySelector("table")!.TextContent);
        await _tab.SendAsync(log, "form[action*='handler=Back']");
        Assert.Equal(0, await _room.InRecordAsync(db => db.FirstNoteOrders.CountAsync()));
    }

    private static string Plan(int pupil) => $"/buzz/{pupil}?handler=Begin&drill=sound4-rest4&tempo=60&on=Mouthpiece&source=PracticePlayer";

    private static string FormOf(IHtmlDocument page, string path)
    {
        var form = page.GetElementById(path)!.Closest("form")!;
        form.Id = "changed";
        return "#changed";
    }

    private async Task SetAsync(string address, (string Path, string Value) field)
    {
        var (_, page) = await _tab.OpenAsync(address);
        var (response, _) = await _tab.SendAsync(page, FormOf(page, field.Path), field);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Equal(field.Value, await ValueAsync(address, field.Path));
    }

    private async Task<string> ValueAsync(string address, string path) =>
        ((IHtmlInputElement)(await _tab.OpenAsync(address)).Page.GetElementById(path)!).Value;

    private async Task<IHtmlDocument> HearAsync(string faults = "")
    {
        var plan = BuzzDrill.Get("sound4-rest4").Plan.At(120);
        var sound = SimulatedPlayer
            .Play(
                Catalogue.Get("trumpet-bb"),
                SoundStage.Mouthpiece,
                plan,
                [.. faults.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)],
                3,
                Tuning.Standard
            )
            .Sound;
        using var wav = new MemoryStream();
        WavFile.Write(wav, sound);
        var (_, page) = await _tab.OpenAsync("/buzz/1");
        return (await Tab.ReadAsync(await _tab.HearAsync(page, 1, wav.ToArray()))).Page;
    }
}
