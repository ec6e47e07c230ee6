using System.Net;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>What a take was asked to be is what it is heard as, shown as and kept as, whatever happened in the record since.</summary>
public sealed class TakeRequestTests : IDisposable
{
    /// <summary>A drill whose phrases come one by one: the next is laid out once the one before was clean.</summary>
    private const string OneByOne = "drill=patterns&tempo=80";

    private readonly FakeTimeProvider _time = new(new DateTimeOffset(2026, 12, 2, 15, 0, 0, TimeSpan.Zero));
    private readonly Room _room;
    private readonly Tab _tab;

    public TakeRequestTests()
    {
        _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };
        _tab = new Tab(_room.CreateClient());
    }

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task A_phrase_that_was_passed_is_shown_as_it_was_played()
    {
        var pupil = await AddAsync();
        var begun = await BeginAsync(pupil, OneByOne);
        var heard = await HearAsync(pupil, begun, Played(begun));
        await KeepAsync(pupil, heard);
        var shown = (await _tab.OpenAsync($"/tone/{pupil}?take={heard}")).Page;
        Assert.Equal(Written(begun), Engraved(shown));
        // What would be asked now is another phrase.
        Assert.NotEqual(Written(begun), Written(await BeginAsync(pupil, OneByOne)));
    }

    [Fact]
    public async Task A_take_that_waited_is_judged_against_its_own_notes()
    {
        var pupil = await AddAsync();
        var (first, second) = (await BeginAsync(pupil, OneByOne), await BeginAsync(pupil, OneByOne));
        await KeepAsync(pupil, await HearAsync(pupil, second, Played(second)));
        var late = await EntryAsync(await HearAsync(pupil, first, Played(first)));
        Assert.Equal(Core.Judging.Outcome.Passed, late.Outcome);
        Assert.Equal(late.Asked, late.Came);
        Assert.False(late.Rebuilt);
    }

    [Fact]
    public async Task What_was_guessed_is_told_beside_the_phrase_that_was_played()
    {
        var pupil = await AddAsync();
        await _room.InRecordAsync(db => db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Points, "verdict.guess=b")));
        var (first, second) = (await BeginAsync(pupil, OneByOne), await BeginAsync(pupil, OneByOne));
        var waiting = await HearAsync(pupil, first, Played(first));
        await HearAsync(pupil, second, Played(second));
        var page = (await _tab.OpenAsync($"/tone/{pupil}?take={waiting}")).Page;
        using var said = new FormUrlEncodedContent([new("id", $"{waiting}"), new("said", "Came")]);
        var told = (await Tab.ReadAsync(await _tab.PostAsync(page, $"/tone/{pupil}?handler=Guess", said))).Page;
        Assert.NotNull(told.QuerySelector("[data-guessed]"));
        Assert.Equal(Written(first), Engraved(told));
    }

    [Fact]
    public async Task What_is_asked_the_same_stands_once()
    {
        var pupil = await AddAsync();
        for (var take = 0; take < 3; take++)
        {
            var begun = await BeginAsync(pupil, "drill=what-came&tempo=80&notes=D4");
            await HearAsync(pupil, begun, Played(begun));
        }

        Assert.Equal(1, await _room.InRecordAsync(db => db.Requests.CountAsync()));
        Assert.Equal(3, await _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.RequestId != null && !entry.Rebuilt)));
    }

    [Fact]
    public async Task A_take_without_its_request_is_heard_as_it_would_be_asked_now_and_marked()
    {
        var pupil = await AddAsync();
        var begun = await BeginAsync(pupil, "drill=what-came&tempo=80&notes=D4");
        var without = await EntryAsync(await HearAsync(pupil, begun with { Sealed = "" }, Played(begun)));
        Assert.True(without.Rebuilt);
        _time.Advance(TimeSpan.FromDays(RequestSeal.GoodForDays + 1));
        var late = await EntryAsync(await HearAsync(pupil, begun, Played(begun)));
        Assert.True(late.Rebuilt);
        Assert.Equal((without.Outcome, without.Came), (late.Outcome, late.Came));
    }

    [Fact]
    public async Task Only_the_rooms_own_request_of_the_same_pupil_is_taken()
    {
        var (pupil, other) = (await AddAsync(), await AddAsync("Ben"));
        var begun = await BeginAsync(pupil, "drill=what-came&tempo=80&notes=D4");
        var wav = Played(begun);
        foreach (var (whose, request) in new[] { (other, begun.Sealed), (pupil, begun.Sealed[..^4] + "AAAA"), (pupil, "C4") })
            Assert.Equal(HttpStatusCode.UnprocessableEntity, (await SendAsync(whose, begun with { Sealed = request }, wav)).StatusCode);
        Assert.Equal(0, await _room.InRecordAsync(db => db.Requests.CountAsync()));
    }

    [Fact]
    public async Task The_approach_and_the_instrument_are_those_of_the_start()
    {
        var pupil = await AddAsync();
        var begun = await BeginAsync(pupil, "drill=what-came&tempo=80&notes=D4");
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Preset, Core.Teaching.ApproachPreset.AirFirst))
        );
        var entry = await EntryAsync(await HearAsync(pupil, begun, Played(begun)));
        Assert.Equal("MouthpieceFirst", entry.Approach!.Text);
    }

    [Fact]
    public async Task A_request_goes_with_its_pupil_and_when_nothing_was_made_by_it_any_more()
    {
        var pupil = await AddAsync();
        var begun = await BeginAsync(pupil, "drill=what-came&tempo=80&notes=D4");
        await KeepAsync(pupil, await HearAsync(pupil, begun, Played(begun)));
        await HearAsync(pupil, await BeginAsync(pupil, "drill=what-came&tempo=80&notes=E4"), Played(begun));
        Assert.Equal(2, await _room.InRecordAsync(db => db.Requests.CountAsync()));

        // The one that nobody saved goes with its day, and its request with it.
        _time.Advance(TimeSpan.FromDays(2));
        await _room.WriteAsync(journal => Tidy.ClearAsync(journal.Db, journal.Clock));
        Assert.Equal(1, await _room.InRecordAsync(db => db.Requests.CountAsync()));

        // What a pupil takes along to another room comes with what was asked.
        var file = await (await _room.CreateClient().GetAsync($"/pupils/archive/{pupil}")).Content.ReadAsByteArrayAsync();
        using (var scope = _room.Services.CreateScope())
            await new Web.Record.Archive.PupilImport(
                scope.ServiceProvider.GetRequiredService<Journal>(),
                scope.ServiceProvider.GetRequiredService<Pages.Pieces.PiecePlans>()
            ).BringInAsync(file);
        var entries = await _room.InRecordAsync(db => db.Entries.Where(entry => entry.Kind == ToneStop.Takes.Id).ToListAsync());
        Assert.Equal(2, entries.Count);
        Assert.Single(entries.Select(entry => entry.RequestId).Distinct());
    }

    [Fact]
    public void A_request_comes_back_as_it_went_whatever_is_in_it()
    {
        var player = new PlayerSituation(Catalogue.Get("trombone"), Catalogue.Get("trombone").Readings[0], new Tuning(442))
        {
            Passport = new Passport(new Dictionary<int, double> { [2] = 12.5, [3] = -4 })
            {
                Slide = new Slide(2.71, 61),
                Marks = new SlideMarks(4.5, -1),
            },
        };
        var kind = new RequestKind<StoredInstrument>("instrument");
        var stored = kind.Write(StoredInstrument.Of(player));
        var read = kind.Read(stored).Read();
        Assert.Equal(stored.Body, kind.Write(StoredInstrument.Of(read)).Body);
        Assert.Equal(player.Passport.Slide!.TravelCm, read.Instrument.Slide!.TravelCm);
        foreach (var each in Catalogue.All)
            Assert.Equal(
                each.Readings.Select(reading => reading.Id),
                each.Readings.Select(reading => new StoredInstrument(each.Id, reading.Id, 440).Read().Reading.Id)
            );
    }

    [Theory]
    [InlineData("\"notes\":[", "\"notes\":[],\"was\":[")]
    [InlineData("\"tempo\":80", "\"tempo\":0")]
    [InlineData("\"partial\":", "\"partial\":9")]
    [InlineData("\"instrument\":\"trumpet-bb\"", "\"instrument\":\"comb\"")]
    [InlineData("\"drill\":\"what-came\"", "\"dril\":\"what-came\"")]
    public async Task What_comes_from_elsewhere_and_can_be_no_take_is_refused(string part, string with)
    {
        var begun = await BeginAsync(await AddAsync(), "drill=what-came&tempo=80&notes=D4");
        var asked = ToneRequest.Kind.Write(begun.Asked);
        Assert.Equal(asked.Body, ToneRequest.Kind.Checked(asked).Body);
        Assert.Contains(part, asked.Body);
        var other = TakeRequest.Of(asked.Kind, asked.Version, asked.Body.Replace(part, with));
        Assert.True(Xunit.Record.Exception(() => ToneRequest.Kind.Checked(other)) is ArgumentException or InvalidDataException);
    }

    private sealed record Begun(string Query, string Sealed, ToneRequest Asked);

    private async Task<int> AddAsync(string name = "Ada")
    {
        var pupil = await _room.AddAsync(name);
        // Five first notes learnt, so that patterns go over all of them.
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, Core.Teaching.LearningStage.Second))
        );
        return pupil.Id;
    }

    private async Task<Begun> BeginAsync(int pupil, string query)
    {
        using var client = _room.CreateClient();
        var answer = await client.GetStringAsync($"/tone/{pupil}?handler=Begin&{query}&source=File", TestContext.Current.CancellationToken);
        var request = JsonDocument.Parse(answer).RootElement.GetProperty("request").GetString()!;
        var issued = _room.Services.GetRequiredService<RequestSeal>().Open(request, pupil, _time.GetUtcNow().UtcDateTime)!;
        return new Begun(query, request, ToneRequest.Kind.Read(issued.Request));
    }

    /// <summary>The notes that were asked, played well.</summary>
    private static byte[] Played(Begun begun)
    {
        var player = begun.Asked.On.Read();
        var plan = begun.Asked.Row.Read(player.Instrument);
        var how = RowCharacter.Get("good");
        var take = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, how.Faults, 3);
        using var wav = new MemoryStream();
        WavFile.Write(wav, take.Sound);
        return wav.ToArray();
    }

    private async Task<HttpResponseMessage> SendAsync(int pupil, Begun begun, byte[] wav)
    {
        var page = (await _tab.OpenAsync($"/tone/{pupil}")).Page;
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(wav), "sound", "take.wav" },
            { new StringContent(begun.Sealed), "request" },
            { new StringContent("File"), "source" },
            { new StringContent("0.5"), "firstCue" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };
        foreach (var pair in begun.Query.Split('&').Select(pair => pair.Split('=')))
            body.Add(new StringContent(pair[1]), pair[0]);
        return await _tab.PostAsync(page, $"/tone/{pupil}?handler=Hear", body);
    }

    private async Task<long> HearAsync(int pupil, Begun begun, byte[] wav)
    {
        var response = await SendAsync(pupil, begun, wav);
        var heard = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        Assert.True(response.StatusCode == HttpStatusCode.OK, heard);
        return long.Parse(System.Text.RegularExpressions.Regex.Match(heard, "data-take=\"(\\d+)\"").Groups[1].Value);
    }

    private async Task KeepAsync(int pupil, long take)
    {
        var page = (await _tab.OpenAsync($"/tone/{pupil}?take={take}")).Page;
        await _tab.SendAsync(page, "form[action*=Keep]");
        Assert.True((await EntryAsync(take)).Kept);
    }

    private Task<Entry> EntryAsync(long take) =>
        _room.InRecordAsync(db => db.Entries.Include(entry => entry.Approach).SingleAsync(entry => entry.Id == take));

    private static List<string> Written(Begun begun) => [.. begun.Asked.Row.Notes.Select(note => note.Written).Distinct()];

    private static List<string> Engraved(IHtmlDocument page) =>
        [
            .. System
                .Xml.Linq.XDocument.Parse(JsonSerializer.Deserialize<string>(page.QuerySelector("[data-score]")!.TextContent)!)
                .Descendants("pitch")
                .Select(pitch => $"{pitch.Element("step")!.Value}{Alter(pitch.Element("alter")?.Value)}{pitch.Element("octave")!.Value}"),
        ];

    private static string Alter(string? value) =>
        value switch
        {
            "1" => "#",
            "-1" => "b",
            _ => "",
        };
}
