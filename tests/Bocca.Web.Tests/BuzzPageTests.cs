using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using AngleSharp.Html.Dom;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Setup;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Buzz stop beyond the plain take: counted drills, own scale, gate, history, the lips.</summary>
public sealed class BuzzPageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task Every_drill_is_laid_out_beat_by_beat_on_everything_it_is_for()
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        foreach (var drill in BuzzDrill.All)
        {
            foreach (var on in drill.On)
            {
                var plan = JsonDocument
                    .Parse(
                        await client.GetStringAsync(
                            $"/buzz/{pupil.Id}?handler=Begin&drill={drill.Id}&tempo=90&on={on}",
                            TestContext.Current.CancellationToken
                        )
                    )
                    .RootElement;
                Assert.Equal(drill.Plan.TotalBeats, plan.GetProperty("beats").GetArrayLength(), 1e-6);
                Assert.Equal(60.0 / 90, plan.GetProperty("beatSeconds").GetDouble(), 1e-9);
            }
        }
    }

    [Fact]
    public async Task A_pupil_who_was_never_heard_begins_with_two_tries_and_then_with_the_usual_drill()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        async Task<string?> ChosenAsync() =>
            (await tab.OpenAsync($"/buzz/{pupil.Id}")).Page.QuerySelector("[name=drill] option[selected]")!.GetAttribute("value");
        Assert.Equal(BuzzDrill.First.Id, await ChosenAsync());
        Assert.Equal(16, BuzzDrill.First.Plan.TotalSeconds);
        await HearAsync(tab, pupil.Id, "sound4-rest4", "");
        Assert.Equal(BuzzDrill.All[0].Id, await ChosenAsync());
    }

    [Theory]
    [InlineData("sneeze", "Mouthpiece", "'sneeze' is not a drill")]
    [InlineData("steady-line", "Lips", "is played on the mouthpiece or the instrument")]
    public async Task What_cannot_be_laid_out_is_refused_in_a_sentence(string drill, string on, string sentence)
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        var response = await client.GetAsync(
            $"/buzz/{pupil.Id}?handler=Begin&drill={drill}&tempo=60&on={on}",
            TestContext.Current.CancellationToken
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(sentence, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Theory]
    [InlineData("match.pitch=a", true)]
    [InlineData("match.pitch=c", false)]
    public async Task A_model_sounds_only_where_the_approach_holds_a_buzz_against_one(string point, bool sounds)
    {
        var pupil = await _room.AddAsync("Ada");
        await SettleAsync(pupil.Id, point, LearningStage.FirstNotes);
        using var client = _room.CreateClient();
        var plan = JsonDocument
            .Parse(
                await client.GetStringAsync(
                    $"/buzz/{pupil.Id}?handler=Begin&drill=sound4-rest4&tempo=60&on=Mouthpiece",
                    TestContext.Current.CancellationToken
                )
            )
            .RootElement;
        Assert.Equal(sounds ? 233.08 : 0, plan.GetProperty("startHertz").GetDouble(), 0.01);
    }

    [Fact]
    public async Task Takes_are_placed_on_the_pupils_own_scale_once_it_is_kept()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var before = await HearAsync(tab, pupil.Id, "sound4-rest4", "");
        Assert.Contains("no samples of your own yet", before.QuerySelector(".not-judged")!.TextContent);
        Assert.Null(before.QuerySelector(".own-scale"));
        var samples = await HearAsync(tab, pupil.Id, "three-samples", BuzzDrill.Get("three-samples").Played);
        await tab.SendAsync(samples, "form[action*=Keep]");
        var after = await HearAsync(tab, pupil.Id, "sound4-rest4", "airy=14");
        Assert.Contains("near your too-open sample", after.QuerySelector(".own-scale")!.GetAttribute("aria-label"));
        Assert.Contains("close to your too-open sample", after.QuerySelector("[data-summary]")!.TextContent);
    }

    [Fact]
    public async Task A_pupil_still_on_the_mouthpiece_stays_until_the_gate_opens()
    {
        var pupil = await _room.AddAsync("Ada");
        await SettleAsync(pupil.Id, "stage.mouthpiece=b advance=b", LearningStage.Mouthpiece);
        var heard = await HearAsync(Tab(), pupil.Id, "sound4-rest4", "");
        Assert.Contains("Needs 8 good tries out of 10 on 2 days", heard.QuerySelector(".next .reason")!.TextContent);
        await SettleAsync(pupil.Id, "stage.mouthpiece=c", LearningStage.Mouthpiece);
        Assert.Contains(
            "first written note",
            (await HearAsync(Tab(), pupil.Id, "sound4-rest4", "")).QuerySelector("[data-next]")!.TextContent
        );
    }

    [Fact]
    public async Task Kept_takes_become_a_history_and_what_was_seen_speaks_in_the_advice()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        foreach (var wander in new[] { "wander=30", "wander=20", "wander=10" })
            await tab.SendAsync(await HearAsync(tab, pupil.Id, "sound4-rest4", wander), "form[action*=Keep]");
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        Assert.Contains(page.QuerySelectorAll(".trend strong"), name => name.TextContent == "steadiness");
        var seen = new Entry
        {
            PupilId = pupil.Id,
            Kind = SetupStop.Seen.Id,
            Subject = "seen.lipsApart",
            At = DateTime.UtcNow,
        };
        await _room.WriteAsync(journal => journal.WriteAsync(SetupStop.Seen, seen, ""));
        Assert.Contains(
            "Seen:",
            (await HearAsync(tab, pupil.Id, "sound4-rest4", "air-first=900 late=300")).QuerySelector(".next")!.TextContent
        );
    }

    /// <summary>Three takes after a cue that show no gain, kept or not, bring the next rung; what helped comes first another day.</summary>
    [Fact]
    public async Task A_cue_that_the_teacher_gave_in_the_lesson_is_the_one_whose_help_is_counted()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, before) = await tab.OpenAsync($"/practice/{pupil.Id}");
        await tab.SendAsync(before, "form[action*=Begin]");
        await HearAsync(tab, pupil.Id, "sound4-rest4", "air-first=900");
        var (_, lesson) = await tab.OpenAsync($"/practice/{pupil.Id}/lesson");
        using var nothing = new StringContent("");
        await tab.PostAsync(lesson, $"/practice/{pupil.Id}/lesson?handler=Cue&id=airFirst.m", nothing);
        await HearAsync(tab, pupil.Id, "sound4-rest4", "");
        var figure = await _room.InRecordAsync(db => db.Figures.SingleAsync(each => each.Name == CueHistory.Helped.Name));
        Assert.Equal(("airFirst.m", 1), (figure.Item, figure.Value));
    }

    [Fact]
    public async Task The_next_cue_comes_when_three_tries_show_no_gain_and_what_helped_comes_first()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        async Task<string> CueAsync(string faults) =>
            (await HearAsync(tab, pupil.Id, "sound4-rest4", faults)).QuerySelector("[data-next]")!.TextContent.Trim();
        const string First = "air-first=900";
        var cues = new List<string>();
        for (var take = 0; take < 4; take++)
            cues.Add(await CueAsync(First));
        Assert.Equal(3, cues.Take(3).Count(cue => cue == "Lips together just before you blow."));
        Assert.Equal("Same easy air: let the lips narrow a little sooner.", cues[3]);
        await CueAsync("");
        Assert.Equal("Same easy air: let the lips narrow a little sooner.", await CueAsync(First));
        var history = CueHistory.Empty;
        await _room.WriteAsync(async journal => history = await journal.CuesAsync(pupil.Id));
        Assert.Equal(4, history.Tries.Count);
        Assert.Equal(new CueTry("airFirst.sooner", true), history.Tries[0]);
    }

    [Fact]
    public async Task What_did_not_arrive_is_said_on_the_take()
    {
        var pupil = await _room.AddAsync("Ada");
        Assert.Contains(
            "0.7 s of this recording did not arrive",
            (await HearAsync(Tab(), pupil.Id, "sound4-rest4", "", missing: 0.7)).QuerySelector(".caution")!.TextContent
        );
    }

    [Fact]
    public async Task The_lips_can_be_tried_on_every_tube()
    {
        var pupil = await _room.AddAsync("Ines", "trombone", "bass");
        using var client = _room.CreateClient();
        var (_, page) = await Tab().OpenAsync($"/buzz/{pupil.Id}/lips");
        var settings = page.QuerySelectorAll("[name=setting] option").Select(option => option.GetAttribute("value")).ToList();
        Assert.Equal(7, settings.Count);
        foreach (var setting in settings)
        {
            var tried = JsonDocument
                .Parse(
                    await client.GetStringAsync(
                        $"/buzz/{pupil.Id}/lips?handler=Try&tension=36&opening=50&air=50&on=Instrument&setting={setting}&seed=1",
                        TestContext.Current.CancellationToken
                    )
                )
                .RootElement;
            Assert.Equal(3, tried.GetProperty("partial").GetInt32());
            using var wav = new MemoryStream(tried.GetProperty("wav").GetBytesFromBase64());
            Assert.Equal(1.5, WavFile.Read(wav, "lips.wav").Seconds, 0.01);
        }

        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await client.GetAsync(
                    $"/buzz/{pupil.Id}/lips?handler=Try&tension=36&opening=50&air=50&on=Instrument&setting=9&seed=1",
                    TestContext.Current.CancellationToken
                )
            ).StatusCode
        );
    }

    private async Task SettleAsync(int pupilId, string points, LearningStage stage) =>
        await _room.InRecordAsync(async db =>
        {
            var pupil = await db.Pupils.SingleAsync(pupil => pupil.Id == pupilId);
            (pupil.Points, pupil.Stage) = (points, stage);
            return await db.SaveChangesAsync();
        });

    private static async Task<IHtmlDocument> HearAsync(Tab tab, int pupilId, string drillId, string faults, double missing = 0)
    {
        var drill = BuzzDrill.Get(drillId);
        var take = SimulatedPlayer.Play(
            Catalogue.Get("trumpet-bb"),
            SoundStage.Mouthpiece,
            drill.Plan.At(120),
            [.. faults.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)],
            3,
            Tuning.Standard
        );
        using var wav = new MemoryStream();
        WavFile.Write(wav, take.Sound);
        var (_, page) = await tab.OpenAsync($"/buzz/{pupilId}?drill={drillId}");
        var response = await tab.HearAsync(page, pupilId, wav.ToArray(), drillId, missing: missing);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        var id = Regex
            .Match(await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken), "data-take=\"(\\d+)\"")
            .Groups[1]
            .Value;
        return (await tab.OpenAsync($"/buzz/{pupilId}?take={id}")).Page;
    }

    private Tab Tab() => new(_room.CreateClient());
}
