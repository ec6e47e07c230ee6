using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Breath;
using Bocca.Core.Teaching;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>What hurts ends the day on every stop; what is kept of health needs a consent; minutes on and rest.</summary>
public sealed class HealthPageTests : IDisposable
{
    private static readonly DateTimeOffset Morning = new(2026, 11, 3, 9, 0, 0, TimeSpan.Zero);

    private readonly FakeTimeProvider _time = new(Morning);

    private readonly Room _room;

    private readonly HttpClient _client;

    private readonly Tab _tab;

    public HealthPageTests()
    {
        _room = new Room { Instead = services => services.AddSingleton<TimeProvider>(_time) };
        _client = _room.CreateClient();
        _tab = new Tab(_client);
    }

    public void Dispose() => _room.Dispose();

    private static readonly string[] Plans =
    [
        "/buzz/1?handler=Begin&drill=sound4-rest4&tempo=60&on=Mouthpiece",
        "/tone/1?handler=Begin&drill=held-counts&tempo=60",
        "/slurs/1?handler=Begin&drill={slur}&tempo=60",
        "/breath/1?handler=Plan&drill=even-stream&rung=0&tempo=60",
    ];

    [Fact]
    public async Task A_tap_ends_the_day_on_every_stop_and_tomorrow_is_half_as_long()
    {
        await _room.AddAsync("Ada");
        var plans = await PlansAsync();
        foreach (var plan in plans)
            Assert.Equal(HttpStatusCode.OK, (await GetAsync(plan)).Status);
        await TapAsync("/tone/1", "lipsSore");
        foreach (var plan in plans)
        {
            var (status, text) = await GetAsync(plan);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
            Assert.StartsWith("That is enough for today.", text);
        }

        foreach (var stop in (string[])["/buzz/1", "/tone/1", "/slurs/1", "/breath/1", "/notes/1", "/set-up/1"])
            Assert.Contains("That is enough for today.", (await _tab.OpenAsync(stop)).Page.QuerySelector("[data-health]")!.TextContent);
        // The fingers may go on in silence.
        Assert.Equal(HttpStatusCode.OK, (await GetAsync("/notes/1/hand?handler=Prompts&drill=called&seed=1")).Status);
        _time.Advance(TimeSpan.FromDays(1));
        foreach (var plan in plans)
            Assert.Equal(HttpStatusCode.OK, (await GetAsync(plan)).Status);
    }

    [Theory]
    [InlineData("/buzz/1", "drill=sound4-rest4&tempo=60&on=Mouthpiece")]
    [InlineData("/tone/1", "drill=held-counts&tempo=60")]
    [InlineData("/slurs/1", "drill={slur}&tempo=60")]
    public async Task What_is_sent_all_the_same_is_refused(string stop, string asked)
    {
        await _room.AddAsync("Ada");
        var slur = (await PlansAsync())[2].Split("drill=")[1].Split('&')[0];
        await TapAsync(stop, "earJaw");
        var (_, page) = await _tab.OpenAsync(stop);
        foreach (var source in (string[])["Microphone", "File", "PracticePlayer"])
        {
            using var form = new MultipartFormDataContent
            {
                { new ByteArrayContent(new byte[2000]), "Sound", "a.wav" },
                { new StringContent(source), "Source" },
            };
            foreach (var field in asked.Split('&'))
                form.Add(new StringContent(Uri.UnescapeDataString(field.Split('=')[1].Replace("{slur}", slur))), field.Split('=')[0]);
            var answer = await _tab.PostAsync(page, $"{stop}?handler=Hear", form);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.StartsWith("Stop for today.", await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        }

        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await GetAsync("/notes/1/hand?handler=Prompts&drill=called&seed=1")).Status);
    }

    [Fact]
    public async Task Without_a_consent_a_tap_goes_with_its_day_and_with_one_it_stays()
    {
        await _room.AddAsync("Ada");
        await TapAsync("/buzz/1", "lipsSore");
        await TidyAfterAsync(TimeSpan.FromDays(2));
        Assert.Equal(0, await SeenAsync());
        await ConsentAsync(saysWhy: true);
        await TapAsync("/buzz/1", "lipsSore");
        Assert.Contains("lips are sore", (await _tab.OpenAsync("/record/1")).Page.QuerySelector("#stage")!.TextContent);
        await TidyAfterAsync(TimeSpan.FromDays(2));
        Assert.Equal(1, await SeenAsync());
        // Where the consent does not say why, the record says that something was told, and not what.
        await ConsentAsync(saysWhy: false);
        await TapAsync("/buzz/1", "headache");
        var record = (await _tab.OpenAsync("/record/1")).Page.QuerySelector("#stage")!.TextContent;
        Assert.Contains("Lips and health: told", record);
        Assert.DoesNotContain("headache", record);
    }

    [Fact]
    public async Task A_tap_can_be_taken_back()
    {
        await _room.AddAsync("Ada");
        await TapAsync("/buzz/1", "fever");
        var (_, page) = await _tab.OpenAsync("/health/1");
        await _tab.SendAsync(page, "form[action*='handler=Delete']");
        Assert.Null((await _tab.OpenAsync("/buzz/1")).Page.QuerySelector("[data-health]"));
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task A_reason_needs_a_consent_and_goes_when_it_ends_while_the_care_stays(bool isDeletedMeanwhile)
    {
        await _room.AddAsync("Ada");
        var (_, page) = await _tab.OpenAsync("/pupils/1");
        var refused = await SaveAsync(page, ("Form.Reasons", "Heart"));
        Assert.Contains("guardian's consent", refused.QuerySelector(".consent .trouble")!.TextContent);
        (string, string)[] consent =
        [
            ("Form.ConsentBy", "her mother"),
            ("Form.ConsentOn", "2026-11-01"),
            ("Form.ConsentUntil", "2026-11-20"),
            ("Form.Reasons", "Heart"),
        ];
        await SaveAsync(page, consent);
        var pupil = await PupilAsync();
        Assert.Equal(BreathHealth.Heart, pupil.Health);
        // The consent does not say that teachers see why: they see that there is something, and the care that it asks for.
        var shown = (await _tab.OpenAsync("/pupils/1")).Page;
        Assert.NotNull(shown.QuerySelector("[data-hidden-reasons]"));
        Assert.Empty(shown.QuerySelectorAll("[name='Form.Reasons'][checked]"));
        await SaveAsync(shown);
        Assert.Equal(BreathHealth.Heart, (await PupilAsync()).Health);
        if (isDeletedMeanwhile)
            await _room.InRecordAsync(db =>
                db.Pupils.ExecuteUpdateAsync(
                    to => to.SetProperty(each => each.DeletedAt, DateTime.UtcNow),
                    TestContext.Current.CancellationToken
                )
            );
        await TidyAfterAsync(TimeSpan.FromDays(30));
        Assert.Equal(BreathHealth.Unsaid, (await PupilAsync()).Health);
        Assert.Equal(
            BreathLimits.For(new BreathingPupil(14, BreathHealth.Heart, false)),
            BreathLimits.For(new BreathingPupil(14, BreathHealth.Unsaid, false))
        );
    }

    [Fact]
    public async Task Minutes_of_all_stops_add_up_and_then_the_instrument_goes_down()
    {
        await _room.AddAsync("Ada");
        await PlayedAsync("buzz", 120);
        await PlayedAsync("tone", 110);
        var plan = "/buzz/1?handler=Begin&drill=sound4-rest4&tempo=60&on=Mouthpiece";
        var (status, text) = await GetAsync(plan);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Contains("Instrument down: you have played 3 min 50 s.", text);
        Assert.Equal(HttpStatusCode.OK, (await GetAsync($"{plan}&source=PracticePlayer")).Status);
        _time.Advance(TimeSpan.FromSeconds(60));
        Assert.Equal(HttpStatusCode.OK, (await GetAsync(plan)).Status);
    }

    private Task<int> PlayedAsync(string kind, double seconds) =>
        _room.InRecordAsync(db =>
        {
            db.Entries.Add(
                new Entry
                {
                    PupilId = 1,
                    Kind = kind,
                    At = _time.GetUtcNow().UtcDateTime,
                    ElapsedSeconds = seconds,
                    PlayedSeconds = seconds,
                }
            );
            return db.SaveChangesAsync();
        });

    private async Task<string[]> PlansAsync()
    {
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(
                to => to.SetProperty(pupil => pupil.Stage, LearningStage.Second),
                TestContext.Current.CancellationToken
            )
        );
        var (_, slurs) = await _tab.OpenAsync("/slurs/1");
        var slur = slurs.QuerySelector("[name=drill] option")!.GetAttribute("value")!;
        return [.. Plans.Select(plan => plan.Replace("{slur}", Uri.EscapeDataString(slur)))];
    }

    private async Task TapAsync(string at, string complaint)
    {
        var (_, page) = await _tab.OpenAsync(at);
        using var form = new FormUrlEncodedContent([new("complaint", complaint), new("back", at)]);
        Assert.Equal(HttpStatusCode.OK, (await _tab.PostAsync(page, "/health/1?handler=Tell", form)).StatusCode);
    }

    private Task<int> SeenAsync() => _room.InRecordAsync(db => db.Entries.CountAsync(entry => entry.Kind == "seen"));

    private Task<Pupil> PupilAsync() => _room.InRecordAsync(db => db.Pupils.IgnoreQueryFilters().AsNoTracking().SingleAsync());

    private Task<int> ConsentAsync(bool saysWhy) =>
        _room.InRecordAsync(async db =>
        {
            var pupil = await db.Pupils.SingleAsync();
            (pupil.ConsentBy, pupil.ConsentSaysWhy) = ("her mother", saysWhy);
            (pupil.ConsentOn, pupil.ConsentUntil) = (new DateOnly(2026, 11, 1), new DateOnly(2027, 7, 31));
            return await db.SaveChangesAsync();
        });

    private async Task TidyAfterAsync(TimeSpan days)
    {
        _time.Advance(days);
        using var scope = _room.Services.CreateScope();
        await Tidy.ClearAsync(scope.ServiceProvider.GetRequiredService<BoccaDb>(), scope.ServiceProvider.GetRequiredService<RoomClock>());
    }

    private async Task<IHtmlDocument> SaveAsync(IHtmlDocument page, params (string Name, string Value)[] fields)
    {
        var (_, answer) = await _tab.SendAsync(page, "form.sheet", fields);
        return answer;
    }

    private async Task<(HttpStatusCode Status, string Text)> GetAsync(string address)
    {
        var response = await _client.GetAsync(address, TestContext.Current.CancellationToken);
        return (response.StatusCode, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }
}
