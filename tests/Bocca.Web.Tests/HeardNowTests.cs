using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Judging;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>What stands under Heard was just played, or says first when it was; a take that was stopped has not passed.</summary>
public sealed class HeardNowTests : IDisposable
{
    private readonly Room _room = new();
    private readonly HttpClient _client;
    private readonly Tab _tab;

    public HeardNowTests() => _tab = new Tab(_client = _room.CreateClient());

    public void Dispose()
    {
        _client.Dispose();
        _room.Dispose();
    }

    [Theory]
    [InlineData("/buzz/1", "drill=sound4-rest4&tempo=160&on=Mouthpiece")]
    [InlineData("/tone/1", "drill=held-counts&tempo=160")]
    [InlineData("/slurs/1", "drill=pair:0:2&tempo=100")]
    public async Task A_stop_that_is_opened_has_no_old_verdict_and_an_old_take_says_when_it_was(string stop, string asked)
    {
        await AddAsync();
        var told = await PlayAsync(stop, asked, null);
        Assert.Equal("Heard", told.QuerySelector(".what h2")!.TextContent.Trim());
        var id = told.QuerySelector("#stage")!.GetAttribute("data-take");
        var kept = (await _tab.SendAsync(told, "form[action*=Keep]", ("__RequestVerificationToken", await TokenAsync(stop)))).Page;
        Assert.StartsWith("Heard today, ", kept.QuerySelector(".what h2")!.TextContent.Trim(), StringComparison.Ordinal);

        foreach (var address in new[] { stop, $"{stop}?drill={asked.Split('&')[0].Split('=')[1]}" })
        {
            var opened = (await _tab.OpenAsync(address)).Page;
            Assert.Null(opened.QuerySelector("[data-summary]"));
            Assert.NotNull(opened.QuerySelector(".history table"));
        }

        await _room.InRecordAsync(db =>
            db.Entries.ExecuteUpdateAsync(set => set.SetProperty(entry => entry.At, new DateTime(2026, 3, 3, 12, 0, 0, DateTimeKind.Utc)))
        );
        var old = (await _tab.OpenAsync($"{stop}?take={id}")).Page;
        Assert.Matches("^Heard Tue 3 Mar", old.QuerySelector(".what h2")!.TextContent.Trim());
    }

    [Theory]
    [InlineData("/buzz/1", "drill=sound4-rest4&tempo=160&on=Mouthpiece", 5, "Stopped after 1 of 4.")]
    [InlineData("/tone/1", "drill=held-counts&tempo=160", 20, "Stopped after ")]
    [InlineData("/slurs/1", "drill=pair:0:2&tempo=100", 14, "Stopped after 1 of ")]
    [InlineData("/buzz/1", "drill=sound4-rest4&tempo=160&on=Mouthpiece", 29, null)]
    public async Task A_take_that_was_stopped_has_not_passed(string stop, string asked, double finished, string? says)
    {
        await AddAsync();
        var told = await PlayAsync(stop, asked, finished);
        var (outcome, summary) = await _room.InRecordAsync(async db =>
            await db.Entries.Select(entry => new { entry.Outcome, entry.Summary }).SingleAsync() is var one
                ? (one.Outcome, one.Summary)
                : default
        );
        if (says is null)
        {
            Assert.Equal(Outcome.Passed, outcome);
            return;
        }

        Assert.NotEqual(Outcome.Passed, outcome);
        Assert.StartsWith(says, summary, StringComparison.Ordinal);
        Assert.StartsWith(says, told.QuerySelector("[data-summary]")!.TextContent.Trim(), StringComparison.Ordinal);
        Assert.DoesNotContain("Go on", told.QuerySelector(".next")!.TextContent, StringComparison.Ordinal);
    }

    private async Task AddAsync()
    {
        await _room.AddAsync("Ada");
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, Core.Teaching.LearningStage.Second))
        );
    }

    private async Task<string> TokenAsync(string stop) =>
        (await _tab.OpenAsync(stop)).Page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content")!;

    /// <summary>A good take, as a page sends one that went to its end, or was stopped after so many beats.</summary>
    private async Task<IHtmlDocument> PlayAsync(string stop, string asked, double? finished)
    {
        var page = (await _tab.OpenAsync(stop)).Page;
        var wav = await _client.GetAsync($"{stop}?handler=Practice&{asked}&character=good&seed=3", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.OK, wav.StatusCode);
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(await wav.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)), "sound", "take.wav" },
            { new StringContent("File"), "source" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };
        foreach (var field in asked.Split('&'))
            body.Add(new StringContent(field.Split('=')[1]), field.Split('=')[0]);
        if (finished is { } beats)
            body.Add(new StringContent($"{beats}"), "finished");
        return (await Tab.ReadAsync(await _tab.PostAsync(page, $"{stop}?handler=Hear", body))).Page;
    }
}
