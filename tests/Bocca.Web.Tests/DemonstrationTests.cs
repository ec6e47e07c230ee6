using System.Net;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The practice player is not the pupil: what it plays is shown and judged, and leaves no trace in the record.</summary>
public sealed class DemonstrationTests : IDisposable
{
    private readonly Room _room = new();
    private readonly HttpClient _client;
    private readonly Tab _tab;

    public DemonstrationTests() => _tab = new Tab(_client = _room.CreateClient());

    public void Dispose()
    {
        _client.Dispose();
        _room.Dispose();
    }

    [Theory]
    [InlineData("/buzz/1", "Hear", "drill=sound4-rest4&tempo=160&on=Mouthpiece", "character=good")]
    [InlineData("/tone/1", "Hear", "drill=what-came&tempo=120&notes=D4", "character=good")]
    [InlineData("/slurs/1", "Hear", "drill=pair:0:2&tempo=100", "character=good")]
    [InlineData("/ear/1", "Hear", "drill=sing-target&level=0&seed=1&tempo=80", "character=right")]
    [InlineData("/ear/count/1", "Hear", "drill=said-clapped&tempo=80&cards=q q q q&metre=4/4&gap=0", "character=right")]
    [InlineData("/ear/tell/1", "Hear", "drill=sagging&seed=1&tapped=right", "character=right")]
    [InlineData("/breath/1", "Keep", "drill=even-stream&rung=0&tempo=80&first=0&key=0f8fad5b-d9cb-469f-a165-70867728950e", "fault=")]
    public async Task What_it_plays_is_judged_and_never_written(string stop, string handler, string asked, string how)
    {
        await _room.AddAsync("Ada");
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, Core.Teaching.LearningStage.Second))
        );
        var page = (await _tab.OpenAsync(stop)).Page;
        var wav = await _client.GetAsync($"{stop}?handler=Practice&{asked}&{how}", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.OK, wav.StatusCode);
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(await wav.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)), "sound", "take.wav" },
            { new StringContent("PracticePlayer"), "source" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };
        foreach (var field in asked.Split('&'))
            body.Add(new StringContent(field.Split('=')[1]), field.Split('=')[0]);
        var (answer, told) = await Tab.ReadAsync(await _tab.PostAsync(page, $"{stop}?handler={handler}", body));

        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.NotEmpty(told.QuerySelector("[data-summary]")!.TextContent);
        Assert.Contains("Nobody played this", told.QuerySelector("[data-demonstration]")!.TextContent);
        Assert.Null(told.QuerySelector("[data-keep]"));
        Assert.Empty(told.QuerySelectorAll("form[action*=Accept]"));
        Assert.Equal(0, await _room.InRecordAsync(db => db.Entries.IgnoreQueryFilters().CountAsync()));
        Assert.Equal(0, await _room.InRecordAsync(db => db.Figures.CountAsync()));
        Assert.Contains("Nothing yet", (await _tab.OpenAsync("/")).Page.QuerySelector(".bench")!.TextContent);
    }

    [Fact]
    public async Task A_pupil_who_came_with_Bocca_is_marked_as_invented()
    {
        await _room.AddAsync("Ada");
        Assert.Null((await _tab.OpenAsync("/")).Page.QuerySelector("[data-invented]"));
        await _room.InRecordAsync(db => db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(pupil => pupil.Invented, true)));
        var desk = (await _tab.OpenAsync("/")).Page;
        Assert.NotNull(desk.QuerySelector("[data-invented]"));
        Assert.Contains("invented", desk.QuerySelector(".bench tbody th")!.TextContent);
        Assert.Contains("invented", (await _tab.OpenAsync("/buzz/1")).Page.QuerySelector(".who")!.TextContent);
    }
}
