using System.Net;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests;

/// <summary>At every stop that takes sound, a take is heard, kept and shown as it was asked, whatever the record says by then.</summary>
public sealed class TakesAsAskedTests : IDisposable
{
    private readonly Room _room = new();
    private readonly Tab _tab;

    public TakesAsAskedTests() => _tab = new Tab(_room.CreateClient());

    public void Dispose() => _room.Dispose();

    [Theory]
    [InlineData("tone", "drill=what-came&tempo=80&notes=D4 E4", "valve")]
    [InlineData("slurs", "drill=day&tempo=80&times=2", "stays")]
    [InlineData("buzz", "drill=steady-line&tempo=80&on=Mouthpiece", "sinks")]
    [InlineData("ear", "drill=copy-back&tempo=80&level=1&seed=3", "right")]
    [InlineData("ear/count", "drill=said-clapped&tempo=72&cards=q q e e q&metre=4/4&gap=0", "right")]
    [InlineData("ear/tell", "drill=sagging&seed=1&tapped=right", "right")]
    public async Task A_take_is_what_it_was_asked_to_be(string stop, string query, string character)
    {
        var pupil = await AddAsync();
        query = await WrittenAsync(pupil, stop, query);
        using var client = _room.CreateClient();
        var cancelled = TestContext.Current.CancellationToken;
        var begun = JsonDocument.Parse(await client.GetStringAsync($"/{stop}/{pupil}?handler=Begin&{query}&source=File", cancelled));
        var request = begun.RootElement.GetProperty("request").GetString()!;
        AssertTaken(request, pupil);
        var sound = await client.GetByteArrayAsync($"/{stop}/{pupil}?handler=Practice&{query}&character={character}&seed=3", cancelled);
        var before = await HeardAsync(stop, pupil, query, sound, request);

        // Everything that a take is laid out from is another now.
        await MoveAsync("tuba-bb-4v");
        var practice = $"/{stop}/{pupil}?handler=Practice&{query}&character={character}&seed=3&request={request}";
        Assert.Equal(sound, await client.GetByteArrayAsync(practice, cancelled));
        var after = await HeardAsync(stop, pupil, query, sound, request);
        Assert.Equal(Stage(before), Stage(after));
        var (first, second) = (await EntryAsync(before), await EntryAsync(after));
        Assert.Equal(first.RequestId, second.RequestId);
        Assert.NotNull(first.RequestId);
        Assert.False(second.Rebuilt);
        Assert.Equal(
            (
                first.InstrumentId,
                first.Subject,
                first.Tempo,
                first.Outcome,
                first.Came,
                first.Asked,
                first.ResultText,
                first.Approach!.Text
            ),
            (
                second.InstrumentId,
                second.Subject,
                second.Tempo,
                second.Outcome,
                second.Came,
                second.Asked,
                second.ResultText,
                second.Approach!.Text
            )
        );

        await AssertToldAsync(client, pupil, first);

        await MoveAsync(first.InstrumentId ?? "trumpet-bb");
        var reopened = (await _tab.OpenAsync($"/{stop}/{pupil}?take={first.Id}")).Page;
        Assert.Equal(Stage(before), Stage(reopened));
    }

    [Theory]
    [InlineData("tone", "drill=what-came&tempo=40&notes=", "C4 D4 ", 100)]
    [InlineData(
        "ear/count",
        "drill=clapped&tempo=40&metre=16/4&gap=0&cards=",
        "w w w w w w w w w w w w w w w w w w w w w w w w w w w w w w w w;",
        4
    )]
    public async Task What_no_recording_holds_is_refused_before_anybody_plays_it(string stop, string query, string part, int times)
    {
        var pupil = await AddAsync();
        query += string.Concat(Enumerable.Repeat(part, times));
        using var client = _room.CreateClient();
        foreach (var handler in (string[])["Begin", "Practice"])
        {
            var address = $"/{stop}/{pupil}?handler={handler}&{query}&source=File&character={(stop == "tone" ? "good" : "right")}&seed=1";
            var answer = await client.GetAsync(address, TestContext.Current.CancellationToken);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains("at most 9.8 minutes", await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        }
    }

    [Fact]
    public async Task A_turn_in_a_longer_recording_is_the_take_alone_and_stands_at_the_moment_it_was_played()
    {
        const string Query = "drill=steady-line&tempo=80&on=Mouthpiece";
        var pupil = await AddAsync();
        using var client = _room.CreateClient();
        var cancelled = TestContext.Current.CancellationToken;
        var begun = JsonDocument.Parse(await client.GetStringAsync($"/buzz/{pupil}?handler=Begin&{Query}&source=File", cancelled));
        var request = begun.RootElement.GetProperty("request").GetString()!;
        var wav = await client.GetByteArrayAsync($"/buzz/{pupil}?handler=Practice&{Query}&character=sinks&seed=3", cancelled);
        var sound = WavFile.Read(new MemoryStream(wav), "take.wav");
        var alone = await HeardAsync("buzz", pupil, $"{Query}&firstCue=0", wav, request);

        var before = new float[3 * sound.SampleRate];
        var longer = new MemoryStream();
        WavFile.Write(longer, new MonoSound([.. before, .. sound.Samples, .. before], sound.SampleRate));
        var moment = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - 1;
        var turn = await HeardAsync(
            "buzz",
            pupil,
            $"{Query}&firstCue=0&from=3&until={3 + sound.Seconds:0.000}&playedAt={moment}",
            longer.ToArray(),
            request
        );
        Assert.Equal(Stage(alone), Stage(turn));
        Assert.Equal(moment, new DateTimeOffset((await EntryAsync(turn)).At).ToUnixTimeMilliseconds());
        // Nothing was played before Start was pressed, and a clock that is a day off says nothing.
        var early = await HeardAsync("buzz", pupil, $"{Query}&firstCue=0&playedAt={moment - 60_000}", wav, request);
        Assert.InRange(new DateTimeOffset((await EntryAsync(early)).At).ToUnixTimeMilliseconds(), moment - 59_999, moment);
        var off = await HeardAsync("buzz", pupil, $"{Query}&firstCue=0&playedAt={moment - 86_400_000}", wav, request);
        Assert.True(new DateTimeOffset((await EntryAsync(off)).At).ToUnixTimeMilliseconds() > moment);
    }

    /// <summary>A script reads what was asked, heard and judged, and of nobody else's.</summary>
    private async Task AssertToldAsync(HttpClient client, int pupil, Entry entry)
    {
        var cancelled = TestContext.Current.CancellationToken;
        var told = JsonDocument.Parse(await client.GetStringAsync($"/record/{pupil}/{entry.Id}?handler=Json", cancelled)).RootElement;
        var stored = await _room.InRecordAsync(db => db.Requests.SingleAsync(request => request.Id == entry.RequestId));
        var asked = told.GetProperty("request");
        Assert.Equal((stored.Kind, stored.Version), (asked.GetProperty("kind").GetString(), asked.GetProperty("version").GetInt32()));
        Assert.True(JsonElement.DeepEquals(JsonDocument.Parse(stored.Body).RootElement, asked.GetProperty("asked")));
        Assert.Equal(entry.Summary, told.GetProperty("verdict").GetProperty("summary").GetString());
        Assert.Equal(JsonValueKind.Object, told.GetProperty("heard").ValueKind);
        Assert.False(told.GetProperty("heard").TryGetProperty("verdict", out _));
        Assert.False(told.GetProperty("rebuilt").GetBoolean());
        if (entry.Outcome == Core.Judging.Outcome.Passed)
            Assert.NotEqual(0, told.GetProperty("figures").GetArrayLength());
        var other = await _room.AddAsync("Ben");
        foreach (var handler in (string[])["", "?handler=Json"])
            Assert.Equal(HttpStatusCode.NotFound, (await client.GetAsync($"/record/{other.Id}/{entry.Id}{handler}", cancelled)).StatusCode);
    }

    /// <summary>What is asked here is taken in another room, and is there what it is here.</summary>
    private void AssertTaken(string sealedText, int pupil)
    {
        var request = _room.Services.GetRequiredService<RequestSeal>().Open(sealedText, pupil, DateTime.UtcNow)!.Request;
        var kinds = _room.Services.GetRequiredService<Stops>().All.SelectMany(each => each.Requests);
        Assert.Equal(request.Body, kinds.Single(kind => kind.Id == request.Kind).Checked(request).Body);
    }

    private async Task<int> AddAsync()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set =>
                set.SetProperty(each => each.Stage, LearningStage.Second).SetProperty(each => each.Preset, ApproachPreset.MouthpieceFirst)
            )
        );
        return pupil.Id;
    }

    /// <summary>The query with the slur of the day in it.</summary>
    private async Task<string> WrittenAsync(int pupil, string stop, string query)
    {
        if (stop != "slurs")
            return query;
        var page = (await _tab.OpenAsync($"/slurs/{pupil}")).Page;
        var slur = ((IHtmlSelectElement)page.QuerySelector("select[name=drill]")!).Value!;
        return query.Replace("drill=day", $"drill={Uri.EscapeDataString(slur)}", StringComparison.Ordinal);
    }

    /// <summary>Stage, approach, instrument, tuning and the teacher's own numbers are others than they were.</summary>
    private async Task MoveAsync(string instrument)
    {
        var own = OwnSettings
            .None.With("bands.mouthpiece.steadyCents", "5")
            .With("slurs.second.passageMs", "20")
            .With("drills.buzz.steady-line.tempo", "66");
        await _room.InRecordAsync(async db =>
        {
            await db.Pupils.ExecuteUpdateAsync(set =>
                set.SetProperty(each => each.Stage, LearningStage.FirstNotes)
                    .SetProperty(each => each.Preset, ApproachPreset.AirFirst)
                    .SetProperty(each => each.InstrumentId, instrument)
                    .SetProperty(each => each.ReadingId, instrument == "trumpet-bb" ? "treble" : "bass")
            );
            var room = await db.Set<RoomSettings>().FirstOrDefaultAsync() ?? db.Add(new RoomSettings()).Entity;
            (room.A4Hz, room.Own) = (445, StoredOwn.Write(own));
            return await db.SaveChangesAsync();
        });
    }

    private async Task<IHtmlDocument> HeardAsync(string stop, int pupil, string query, byte[] sound, string request)
    {
        var page = (await _tab.OpenAsync($"/{stop}/{pupil}")).Page;
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(sound), "sound", "take.wav" },
            { new StringContent(request), "request" },
            { new StringContent("File"), "source" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };
        if (stop.StartsWith("ear", StringComparison.Ordinal))
            body.Add(new StringContent("0"), "firstCue");
        foreach (var (name, value) in query.Split('&').Select(pair => pair.Split('=')).Select(pair => (pair[0], pair[1])))
            body.Add(new StringContent(Uri.UnescapeDataString(value)), name);
        var (response, heard) = await Tab.ReadAsync(await _tab.PostAsync(page, $"/{stop}/{pupil}?handler=Hear", body));
        Assert.True(response.StatusCode == HttpStatusCode.OK, heard.Body!.TextContent);
        return heard;
    }

    /// <summary>What is drawn and written on the stage.</summary>
    private static string Stage(IHtmlDocument page)
    {
        var parts = page.QuerySelectorAll("#stage svg, #stage [data-score], [data-summary]").Select(part => part.OuterHtml).ToList();
        Assert.NotEmpty(parts);
        return string.Join('\n', parts);
    }

    private Task<Entry> EntryAsync(IHtmlDocument heard)
    {
        var id = long.Parse(heard.QuerySelector("[data-take]")!.GetAttribute("data-take")!);
        return _room.InRecordAsync(db => db.Entries.Include(entry => entry.Approach).SingleAsync(entry => entry.Id == id));
    }
}
