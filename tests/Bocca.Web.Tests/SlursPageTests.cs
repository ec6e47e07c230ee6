using System.Net;
using System.Xml.Linq;
using AngleSharp.Html.Dom;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Slurs stop: a day of slurs, heard, kept, mapped, and for a class.</summary>
public sealed class SlursPageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    private Tab Tab() => new(_room.CreateClient());

    private async Task<Pupil> AddAsync(LearningStage stage = LearningStage.Second)
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(db =>
            db.Pupils.Where(each => each.Id == pupil.Id).ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, stage))
        );
        return pupil;
    }

    [Fact]
    public async Task A_day_has_its_slurs_with_reasons_and_as_files()
    {
        var pupil = await AddAsync();
        var page = (await Tab().OpenAsync($"/slurs/{pupil.Id}")).Page;
        Assert.InRange(page.QuerySelectorAll("[data-day] li").Length, 3, 5);
        Assert.Contains("semitones at its widest", page.QuerySelector("[data-difficulty]")!.TextContent);
        using var client = _room.CreateClient();
        var score = MusicXmlReader.Read(
            await client.GetByteArrayAsync($"/slurs/{pupil.Id}?handler=MusicXml", TestContext.Current.CancellationToken)
        );
        Assert.Equal(page.QuerySelectorAll("[data-day] li").Length, score.Parts[0].Measures.Count / 2);
        Assert.Equal(
            "MThd"u8.ToArray(),
            (await client.GetByteArrayAsync($"/slurs/{pupil.Id}?handler=Midi", TestContext.Current.CancellationToken))[..4]
        );
        Assert.Contains("Tired lips", (await Tab().OpenAsync($"/slurs/{pupil.Id}?tired=true")).Page.Body!.TextContent);
        Assert.Equal(HttpStatusCode.NotFound, (await Tab().OpenAsync($"/slurs/{pupil.Id}?drill=pair:9:3")).Response.StatusCode);
    }

    [Fact]
    public async Task In_the_first_weeks_nothing_is_slurred_that_has_not_come()
    {
        var pupil = await AddAsync(LearningStage.FirstNotes);
        var (_, empty) = await Tab().OpenAsync($"/slurs/{pupil.Id}");
        Assert.Contains("Slurs use notes you can already play", empty.QuerySelector("#stage")!.TextContent);
        Assert.NotNull(empty.QuerySelector($"a[href='/tone/{pupil.Id}?drill=open-pair']"));
        await _room.InRecordAsync(async db =>
        {
            var entry = new Entry
            {
                PupilId = pupil.Id,
                Kind = "notes",
                At = DateTime.UtcNow,
                InstrumentId = "trumpet-bb",
                Kept = true,
            };
            db.Entries.Add(entry);
            foreach (var item in (string[])["C4 0 2", "G4 0 3", "D4 1-3 3"])
                entry.Figures.Add(
                    new EntryFigure
                    {
                        PupilId = pupil.Id,
                        InstrumentId = "trumpet-bb",
                        Name = "note",
                        Item = item,
                        Value = 1,
                        At = entry.At,
                    }
                );
            return await db.SaveChangesAsync();
        });
        var (_, page) = await Tab().OpenAsync($"/slurs/{pupil.Id}");
        var offered = page.QuerySelectorAll("[data-day] a").Select(link => link.TextContent).ToList();
        Assert.NotEmpty(offered);
        Assert.All(offered, text => Assert.Matches("on 0: (C4|G4)( (C4|G4))+$", text.Trim()));
        Assert.Contains("not yet known", page.QuerySelector("[data-breath]")!.TextContent);
    }

    [Fact]
    public async Task A_slur_heard_is_kept_mapped_deleted_and_brought_back()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var good = await HearAsync(tab, pupil.Id, "good");
        Assert.Contains("Both changes clean", good.QuerySelector("[data-summary]")!.TextContent);
        var kept = (await tab.SendAsync(good, "form[action*=Keep]")).Page;
        Assert.Contains("2 of 2", kept.QuerySelector(".history")!.TextContent);
        // A map with nothing on it is not offered for printing.
        var untried = (await tab.OpenAsync($"/slurs/{(await _room.AddAsync("Bo")).Id}/map")).Page;
        Assert.Contains("Nothing tried yet", untried.QuerySelector("#stage")!.TextContent);
        Assert.Empty(untried.QuerySelectorAll("#stage [x-on\\:click=print]"));
        Assert.Contains("2 of 2", (await tab.OpenAsync($"/slurs/{pupil.Id}/map")).Page.QuerySelector("[data-map]")!.TextContent);
        var over = await HearAsync(tab, pupil.Id, "over");
        Assert.Contains("one note too high, E5 came", over.QuerySelector("[data-summary]")!.TextContent);
        var again = (await tab.SendAsync(over, "form[action*=Accept]")).Page;
        Assert.Contains("0 of 2", again.QuerySelector(".history")!.TextContent);
        Assert.Contains("2 of 4", (await tab.OpenAsync($"/slurs/{pupil.Id}/map")).Page.QuerySelector("[data-map]")!.TextContent);
        Assert.Equal(1, await _room.InRecordAsync(db => db.Entries.CountAsync(take => take.Kind == "slur" && take.Came == 0)));
        var open = await HearAsync(tab, pupil.Id, "tongues");
        Assert.Contains("the tongue began it", open.QuerySelector("[data-summary]")!.TextContent);
        var gone = (await tab.SendAsync(open, "form[action*=Delete]")).Page;
        Assert.DoesNotContain("the tongue began it", gone.QuerySelector(".history")!.TextContent);
        Assert.Contains("the tongue began it", (await tab.SendAsync(gone, "form[action*=Restore]")).Page.Body!.TextContent);
    }

    [Fact]
    public async Task The_desk_says_what_was_slurred_last_and_which_slurs_are_due_again()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        await tab.SendAsync(await HearAsync(tab, pupil.Id, "good"), "form[action*=Keep]");
        var desk = (await tab.OpenAsync("/")).Page;
        Assert.Contains("Both changes clean", desk.QuerySelector(".heard-line")!.TextContent);
        Assert.Null(desk.QuerySelector("[data-due=slurs-due]"));
        await _room.InRecordAsync(db =>
            db.Entries.ExecuteUpdateAsync(set =>
                set.SetProperty(take => take.At, DateTime.UtcNow.AddDays(-SlurDay.DueDays - 1))
                    .SetProperty(take => take.DueAt, DateTime.UtcNow.AddDays(-1))
            )
        );
        Assert.Contains("1 slur due again", (await tab.OpenAsync("/")).Page.QuerySelector("[data-due=slurs-due]")!.TextContent);
    }

    [Theory]
    [InlineData("a", true)]
    [InlineData("b", false)]
    public async Task Slurs_by_ear_are_played_first_and_their_notes_folded(string source, bool byEar)
    {
        var pupil = await AddAsync();
        await _room.InRecordAsync(db =>
            db.Pupils.Where(each => each.Id == pupil.Id)
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(each => each.Preset, ApproachPreset.MouthpieceFirst)
                        .SetProperty(each => each.Points, $"slurs.source={source}")
                )
        );
        var page = (await Tab().OpenAsync($"/slurs/{pupil.Id}")).Page;
        Assert.Equal(byEar ? "yes" : "", page.QuerySelector("[data-model]")!.GetAttribute("data-first"));
        Assert.Equal(!byEar, page.QuerySelector("[data-written]")!.HasAttribute("open"));
        // The written path stands on the rungs from the start; by ear its notes have no names.
        Assert.True(page.QuerySelectorAll(".row-picture .wire").Length >= 2);
        Assert.True(page.QuerySelectorAll(".row-picture .rung-line.meant").Length >= 2);
        Assert.Equal(byEar, page.QuerySelectorAll(".row-picture .written").Length == 0);
        Assert.Empty(page.QuerySelectorAll(".row-picture .starts"));
        Assert.Equal(byEar, page.QuerySelector("[data-ask]")!.TextContent.Contains("Listen, sing it", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_teachers_own_slur_comes_from_a_score_and_is_played_like_any_other()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var page = (await tab.OpenAsync($"/slurs/{pupil.Id}/own")).Page;
        async Task<IHtmlDocument> ReadAsync(string name, byte[] file)
        {
            using var body = new MultipartFormDataContent { { new ByteArrayContent(file), "score", name } };
            return (await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"/slurs/{pupil.Id}/own", body))).Page;
        }

        using var client = _room.CreateClient();
        var read = await ReadAsync(
            "own.musicxml",
            await client.GetByteArrayAsync($"/slurs/{pupil.Id}?handler=MusicXml", TestContext.Current.CancellationToken)
        );
        var link = (IHtmlAnchorElement)read.QuerySelector("[data-own] a")!;
        Assert.Matches("(easy|right|hard), [0-9]+ %", read.QuerySelector("[data-own]")!.TextContent);
        var stage = (await tab.OpenAsync(link.PathName + link.Search)).Page;
        Assert.Contains("From a file", stage.QuerySelector("h1")!.TextContent);
        Assert.Contains("at its widest", stage.QuerySelector("[data-difficulty]")!.TextContent);
        Assert.Equal(HttpStatusCode.OK, (await tab.OpenAsync($"/slurs/{pupil.Id}/lips{link.Search}")).Response.StatusCode);
        // What no score should do ends in a sentence with the file's name, never in a fault.
        foreach (
            var (text, says) in new[]
            {
                ("<!DOCTYPE x [<!ENTITY a 'aaaa'><!ENTITY b '&a;&a;'>]><score-partwise>&b;</score-partwise>", "own.musicxml"),
                ("not a score", "not a MusicXML file"),
                (new string('<', 10), "not a MusicXML file"),
                ("PK\u0003\u0004", "own.musicxml"),
            }
        )
            Assert.Contains(
                says,
                (await ReadAsync("own.musicxml", System.Text.Encoding.UTF8.GetBytes(text))).QuerySelector("[data-trouble]")!.TextContent
            );
        Assert.Contains(
            "Choose a MusicXML file",
            (
                await Web.Tests.Tab.ReadAsync(
                    await tab.PostAsync(page, $"/slurs/{pupil.Id}/own", new MultipartFormDataContent { { new StringContent(""), "other" } })
                )
            )
                .Page.QuerySelector("[data-trouble]")!
                .TextContent
        );
    }

    [Fact]
    public async Task The_lips_are_tried_on_a_slur_and_say_what_broke_it()
    {
        var pupil = await AddAsync();
        // Without a choice it is a slur of today.
        var today = (await Tab().OpenAsync($"/slurs/{pupil.Id}")).Page.QuerySelector("[name=drill] option")!.GetAttribute("value");
        Assert.Equal(
            today,
            (await Tab().OpenAsync($"/slurs/{pupil.Id}/lips")).Page.QuerySelector("[name=drill] option[selected]")!.GetAttribute("value")
        );
        var page = (await Tab().OpenAsync($"/slurs/{pupil.Id}/lips?drill=pair:0:3")).Page;
        Assert.Equal(3, page.QuerySelectorAll(".handles input[type=range]").Length);
        async Task<IHtmlDocument> TryAsync(double reach) =>
            (await Tab().OpenAsync($"/slurs/{pupil.Id}/lips?handler=Try&drill=pair:0:3&tempo=72&reach={reach}&opening=50&air=50")).Page;
        var usual = await TryAsync(100);
        Assert.Equal("slurs", usual.QuerySelector("[data-tried]")!.GetAttribute("data-tried"));
        using var sound = new MemoryStream(Convert.FromBase64String(usual.QuerySelector("[data-tried]")!.GetAttribute("data-wav")!));
        Assert.InRange(WavFile.Read(sound, "tried").Seconds, 6, 9);
        var stays = await TryAsync(0);
        Assert.Contains("kept sounding", stays.QuerySelector("[data-spoke]")!.TextContent);
        Assert.Contains("0 % of the way", stays.QuerySelector("[data-why]")!.TextContent);
        Assert.Equal(HttpStatusCode.NotFound, (await Tab().OpenAsync($"/slurs/{pupil.Id}/lips?drill=pair:0:99")).Response.StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Tab().OpenAsync("/slurs/999/lips")).Response.StatusCode);
    }

    [Theory]
    [InlineData("drill=pair:0:3&tempo=9000&times=1", "beats a minute, not 9000")]
    [InlineData("drill=pair:0:99&tempo=80&times=1", "does not fit")]
    public async Task What_cannot_be_asked_is_refused_in_a_sentence(string query, string sentence)
    {
        var pupil = await AddAsync();
        using var client = _room.CreateClient();
        var response = await client.GetAsync($"/slurs/{pupil.Id}?handler=Begin&{query}", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_class_has_the_same_concert_notes_or_is_told_why_not()
    {
        var ada = await AddAsync();
        var ben = await _room.AddAsync("Ben", "euphonium-3v", "bass");
        var tab = Tab();
        var who = $"&who={ada.Id}&who={ben.Id}";
        var page = (await tab.OpenAsync($"/slurs/class?shape=pair&partial=3{who}")).Page;
        var rows = page.QuerySelectorAll(".class-table tbody tr").Select(row => row.TextContent).ToList();
        Assert.Contains(rows, row => row.Contains("Ada") && row.Contains("G4 C5 G4"));
        Assert.Contains(rows, row => row.Contains("Ben") && row.Contains("No one setting"));
        using var client = _room.CreateClient();
        var score = XDocument.Parse(
            await client.GetStringAsync($"/slurs/class?handler=MusicXml&shape=pair&partial=3{who}", TestContext.Current.CancellationToken)
        );
        Assert.Equal(2, score.Descendants("part").Count());
        Assert.Contains(
            "does not go from partial 6",
            (await tab.OpenAsync($"/slurs/class?shape=pair&partial=6{who}")).Page.QuerySelector("[role=alert]")!.TextContent
        );
    }

    private static async Task<IHtmlDocument> HearAsync(Tab tab, int pupilId, string character)
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var player = SlurPlayer.Of(trumpet, trumpet.Readings[0], LearningStage.Second, Approach.Of(ApproachPreset.MouthpieceFirst));
        var asked = new AskedSlur(
            SlurWriter.Find(player, "pair:0:3")!,
            90,
            1,
            new PlayerSituation(trumpet, trumpet.Readings[0], Tuning.Standard),
            LearningStage.Second
        );
        var take = SimulatedPlayer.PlayRow(trumpet, SlurCharacter.Get(character).Play(asked), 90, [], 3);
        using var wav = new MemoryStream();
        WavFile.Write(wav, take.Sound);
        var (_, page) = await tab.OpenAsync($"/slurs/{pupilId}?drill=pair:0:3");
        using var body = new MultipartFormDataContent
        {
            { new ByteArrayContent(wav.ToArray()), "sound", "take.wav" },
            { new StringContent("pair:0:3"), "drill" },
            { new StringContent("90"), "tempo" },
            { new StringContent("1"), "times" },
            { new StringContent("File"), "source" },
            { new StringContent("0"), "missing" },
            { new StringContent("false"), "tense" },
        };
        var response = await tab.PostAsync(page, $"/slurs/{pupilId}?handler=Hear", body);
        var heard = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        Assert.True(response.StatusCode == HttpStatusCode.OK, heard);
        var id = System.Text.RegularExpressions.Regex.Match(heard, "data-take=\"(\\d+)\"").Groups[1].Value;
        return (await tab.OpenAsync($"/slurs/{pupilId}?take={id}")).Page;
    }
}
