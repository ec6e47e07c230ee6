using System.Net;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Tone stop: notes heard against what was meant, kept, accepted, measured, refused.</summary>
public sealed class TonePageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task Every_drill_is_laid_out_beat_by_beat()
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        var page = (await Tab().OpenAsync($"/tone/{pupil.Id}")).Page;
        var offered = page.QuerySelectorAll("[name=drill] option").Select(option => option.GetAttribute("value")!).ToList();
        // Nobody who knows one note is asked for a tune.
        Assert.DoesNotContain("first-tunes", offered);
        Assert.True(offered.Count > 20);
        foreach (var drill in offered.Select(ToneDrill.Get))
        {
            var plan = JsonDocument
                .Parse(
                    await client.GetStringAsync(
                        $"/tone/{pupil.Id}?handler=Begin&drill={drill.Id}&tempo=90",
                        TestContext.Current.CancellationToken
                    )
                )
                .RootElement;
            Assert.Equal(plan.GetProperty("totalBeats").GetDouble(), plan.GetProperty("beats").GetArrayLength(), 1e-6);
        }
    }

    [Fact]
    public async Task A_miss_is_named_kept_deleted_and_brought_back()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = await HearAsync(tab, pupil.Id, "what-came", "D4", "one-low");
        Assert.Contains("one partial low", page.QuerySelector("[data-summary]")!.TextContent);
        Assert.Equal("1 partial low", page.QuerySelector(".row-picture .miss")!.TextContent);
        await tab.SendAsync(page, "form[action*=Keep]");
        var record = (await tab.OpenAsync($"/record/{pupil.Id}")).Page;
        Assert.Contains("0 of 2", record.Body!.TextContent);
        var gone = (await tab.SendAsync(record, "tr[data-kind=tone] form[action*=Delete]")).Page;
        Assert.Contains("will stand here", gone.Body!.TextContent);
        await tab.SendAsync(gone, "form[action*=Restore]");
        Assert.Contains("0 of 2", (await tab.OpenAsync($"/record/{pupil.Id}")).Page.Body!.TextContent);
    }

    [Theory]
    [InlineData("Lower", "You said: something lower. So it was.", 1)]
    [InlineData("Came", "You said: it came. It was: something lower.", 0)]
    public async Task Where_the_pupil_guesses_first_nothing_is_told_before_and_the_guess_is_a_figure(
        string said,
        string told,
        double figure
    )
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            (await db.Pupils.FindAsync([pupil.Id], TestContext.Current.CancellationToken))!.Points = "verdict.guess=b";
            return await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        });
        var tab = Tab();
        var asked = await HearAsync(tab, pupil.Id, "what-came", "D4", "one-low");
        Assert.Equal(
            ["It came", "Something lower", "Something higher"],
            asked.QuerySelectorAll("[data-said]").Select(each => each.TextContent)
        );
        Assert.Empty(asked.QuerySelectorAll("[data-summary], [data-verdict] .cue, [data-accept], .heard-thread, .miss"));
        Assert.DoesNotContain("one partial low", asked.QuerySelector("#heard")!.TextContent);

        var id = asked.QuerySelector("[data-guess]")!.GetAttribute("data-guess")!;
        MultipartFormDataContent Guess(string word) => new() { { new StringContent(id), "id" }, { new StringContent(word), "said" } };
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await tab.PostAsync(asked, $"/tone/{pupil.Id}?handler=Guess", Guess("Steady"))).StatusCode
        );
        var answer = await tab.PostAsync(asked, $"/tone/{pupil.Id}?handler=Guess", Guess(said));
        Assert.Contains(told, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var again = await tab.PostAsync(asked, $"/tone/{pupil.Id}?handler=Guess", Guess("Lower"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, again.StatusCode);

        var page = (await tab.OpenAsync($"/tone/{pupil.Id}?take={id}")).Page;
        Assert.Contains("one partial low", page.QuerySelector("[data-summary]")!.TextContent);
        await tab.SendAsync(page, "form[action*=Keep]");
        Assert.Equal(
            figure,
            (await _room.InRecordAsync(db => db.Figures.SingleAsync(each => each.Name == Core.Judging.Guess.Right.Name))).Value
        );
    }

    [Fact]
    public async Task Two_even_passes_in_a_row_raise_the_tempo()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var first = await HearAsync(tab, pupil.Id, "tongue-four", "", "good");
        Assert.Contains("Once more just as evenly", first.QuerySelector("[data-next]")!.TextContent);
        var second = await HearAsync(tab, pupil.Id, "tongue-four", "", "good");
        Assert.Contains("The same at 124", second.QuerySelector("[data-next]")!.TextContent);
        var next = (await tab.SendAsync(second, "form[action*=Accept]")).Page;
        Assert.Equal("124", next.QuerySelector("[name=tempo]")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_note_that_came_makes_way_and_one_that_did_not_stays()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var missed = await HearAsync(tab, pupil.Id, "what-came", "E4", "one-low");
        Assert.Equal("E4", (await tab.SendAsync(missed, "form[action*=Accept]")).Page.QuerySelector("[name=notes]")!.GetAttribute("value"));
        var came = await HearAsync(tab, pupil.Id, "what-came", "E4", "good");
        Assert.Contains("Take the next note", came.QuerySelector("[data-next]")!.TextContent);
        // The next of the way of first notes: C4 was never tried.
        Assert.Equal("C4", (await tab.SendAsync(came, "form[action*=Accept]")).Page.QuerySelector("[name=notes]")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_measured_instrument_is_reckoned_with_from_then_on()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            (await db.Pupils.SingleAsync(each => each.Id == pupil.Id)).Stage = LearningStage.Second;
            return await db.SaveChangesAsync();
        });
        var tab = Tab();
        var measured = await HearAsync(tab, pupil.Id, "open-tuning", "", "good", ["cents=30"]);
        Assert.Matches(@"\d+ cents sharp: main slide \d+ mm out", measured.QuerySelector(".aims")!.TextContent);
        await tab.SendAsync(measured, "form[action*=Keep]");
        var after = (await tab.OpenAsync($"/tone/{pupil.Id}?drill=what-came")).Page;
        Assert.Matches(@"\d+ cents sharp as a whole", after.QuerySelector("[data-passport]")!.TextContent);
        // A later take in which no open note came says nothing of the instrument.
        var astray = await HearAsync(tab, pupil.Id, "open-tuning", "", "good", ["partial=-1"]);
        await tab.SendAsync(astray, "form[action*=Keep]");
        Assert.Equal(2, await _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.DrillId == "open-tuning" && entry.Kept)));
        var still = (await tab.OpenAsync($"/tone/{pupil.Id}?drill=what-came")).Page;
        Assert.Matches(@"\d+ cents sharp as a whole", still.QuerySelector("[data-passport]")!.TextContent);
    }

    [Theory]
    [InlineData("what-came", "C2", "", "out of range")]
    [InlineData("what-came", "D4", "1", "does not give D4")]
    [InlineData("sneeze", "", "", "'sneeze' is not a tone drill")]
    public async Task What_cannot_be_played_is_refused_in_a_sentence(string drill, string notes, string settings, string sentence)
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        var response = await client.GetAsync(
            $"/tone/{pupil.Id}?handler=Begin&drill={drill}&tempo=80&notes={notes}&settings={settings}",
            TestContext.Current.CancellationToken
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task What_is_no_recording_is_refused_by_name()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/tone/{pupil.Id}");
        using var body = Body([1, 2, 3], "what-came", "D4");
        var response = await tab.PostAsync(page, $"/tone/{pupil.Id}?handler=Hear", body);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains("take.wav: not a WAV file", await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    private static async Task<IHtmlDocument> HearAsync(
        Tab tab,
        int pupilId,
        string drillId,
        string notes,
        string character,
        string[]? misses = null
    )
    {
        var player = new PlayerSituation(Catalogue.Get("trumpet-bb"), Catalogue.Get("trumpet-bb").Readings[0], Tuning.Standard);
        var asked = notes == "" ? null : MeantNote.Row(player.Instrument, player.Reading, notes);
        var plan = ToneDrill.Get(drillId).Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 120, asked);
        var how = RowCharacter.Get(character);
        how = how with { Misses = [.. how.Misses, .. (misses ?? []).Select(RowMiss.Parse)] };
        var take = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), 120, how.Faults, 3);
        using var wav = new MemoryStream();
        WavFile.Write(wav, take.Sound);
        var (_, page) = await tab.OpenAsync($"/tone/{pupilId}?drill={drillId}&notes={notes}");
        using var body = Body(wav.ToArray(), drillId, notes);
        var response = await tab.PostAsync(page, $"/tone/{pupilId}?handler=Hear", body);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        var heard = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        var id = System.Text.RegularExpressions.Regex.Match(heard, "data-take=\"(\\d+)\"").Groups[1].Value;
        return (await tab.OpenAsync($"/tone/{pupilId}?take={id}")).Page;
    }

    private static MultipartFormDataContent Body(byte[] wav, string drill, string notes) =>
        new()
        {
            { new ByteArrayContent(wav), "sound", "take.wav" },
            { new StringContent(drill), "drill" },
            { new StringContent("120"), "tempo" },
            { new StringContent(notes), "notes" },
            { new StringContent("File"), "source" },
            { new StringContent("0.5"), "firstCue" },
            { new StringContent("false"), "tense" },
            { new StringContent("0"), "missing" },
        };

    private Tab Tab() => new(_room.CreateClient());
}
