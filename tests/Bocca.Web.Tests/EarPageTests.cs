using System.Net;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Counting;
using Bocca.Core.Ear;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Ear &amp; count stop: tapped, sung, played, said, clapped; what is kept, what comes back, what is never kept.</summary>
public sealed class EarPageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    private Tab Tab() => new(_room.CreateClient());

    private async Task<Pupil> AddAsync(LearningStage stage = LearningStage.Second, string instrument = "trombone", string points = "")
    {
        var pupil = await _room.AddAsync("Ada", instrument, instrument == "trombone" ? "bass" : "treble");
        await _room.InRecordAsync(db =>
            db.Pupils.Where(each => each.Id == pupil.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, stage).SetProperty(each => each.Points, points))
        );
        return pupil;
    }

    private static MultipartFormDataContent Form(params (string Name, string Value)[] fields)
    {
        var body = new MultipartFormDataContent();
        foreach (var (name, value) in fields)
            body.Add(new StringContent(value), name);
        return body;
    }

    /// <summary>The practice player's take of what is asked, sent as the page sends it.</summary>
    private async Task<IHtmlDocument> HearAsync(Tab tab, string place, string query, params (string Name, string Value)[] fields)
    {
        using var client = _room.CreateClient();
        var page = (await tab.OpenAsync(place)).Page;
        var wav = await client.GetByteArrayAsync($"{place}?handler=Practice&{query}", TestContext.Current.CancellationToken);
        (string Name, string Value)[] usual = [("source", "File"), ("tense", "false"), ("missing", "0"), ("firstCue", "0.5")];
        using var body = Form([.. usual.Where(field => fields.All(own => own.Name != field.Name)), .. fields]);
        body.Add(new ByteArrayContent(Padded(wav)), "sound", "take.wav");
        return (await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"{place}?handler=Hear", body))).Page;
    }

    /// <summary>The take as the page records it: half a second of room before its first beat.</summary>
    private static byte[] Padded(byte[] wav)
    {
        using var stream = new MemoryStream(wav);
        var sound = WavFile.Read(stream, "take.wav");
        var random = new Random(2);
        var before = Enumerable.Range(0, sound.SampleRate / 2).Select(_ => (float)(0.0005 * ((2 * random.NextDouble()) - 1)));
        using var padded = new MemoryStream();
        WavFile.Write(padded, new MonoSound([.. before, .. sound.Samples], sound.SampleRate));
        return padded.ToArray();
    }

    private static string Value(IHtmlDocument page, string name) =>
        ((IHtmlInputElement)page.QuerySelector($"#stage input[name={name}]")!).Value;

    [Fact]
    public async Task A_tap_alone_is_told_and_kept_at_once_and_a_miss_is_due_again_on_the_desk()
    {
        var pupil = await AddAsync(LearningStage.Lips);
        var tab = Tab();
        var page = (await tab.OpenAsync($"/ear/{pupil.Id}")).Page;
        Assert.Contains("Which is lower?", page.QuerySelector("h1")!.TextContent);
        Assert.Equal(2, page.QuerySelectorAll("[data-choice]").Length);
        var (level, seed) = (Value(page, "level"), Value(page, "seed"));
        async Task<IHtmlDocument> TapAsync(string tapped)
        {
            using var body = Form(("drill", "which-lower"), ("level", level), ("seed", seed), ("tapped", tapped));
            return (await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"/ear/{pupil.Id}?handler=Answer", body))).Page;
        }

        var told = new[] { await TapAsync("1"), await TapAsync("2") };
        Assert.Single(told, each => each.QuerySelector("[data-summary]")!.TextContent == "Ear right.");
        Assert.Equal(2, await _room.CountAsync(EarStop.Answers));
        await _room.InRecordAsync(db =>
            db.Recalls.ExecuteUpdateAsync(set => set.SetProperty(card => card.DueAt, DateTime.UtcNow.AddDays(-1)))
        );
        Assert.Contains("1 to hear again", (await tab.OpenAsync("/")).Page.QuerySelector("[data-due=ear-due]")!.TextContent);
        // What was missed is asked again: the very same.
        var again = (await tab.OpenAsync($"/ear/{pupil.Id}?drill=which-lower")).Page;
        Assert.Equal((level, seed), (Value(again, "level"), Value(again, "seed")));
        // No answer, too many, and a drill that is sung are refused in a sentence.
        foreach (var (tapped, drill) in new[] { ("", "which-lower"), ("1 2", "which-lower"), ("1", "copy-back"), ("1", "sing-line") })
        {
            using var body = Form(("drill", drill), ("level", "0"), ("seed", "1"), ("tapped", tapped));
            var refused = await tab.PostAsync(page, $"/ear/{pupil.Id}?handler=Answer", body);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        }
    }

    [Fact]
    public async Task Three_right_in_a_row_make_it_harder_and_a_miss_easier()
    {
        var pupil = await AddAsync(LearningStage.FirstNotes);
        var tab = Tab();
        async Task<int> AnswerAsync(bool right, string chosen = "")
        {
            var page = (await tab.OpenAsync($"/ear/{pupil.Id}?drill=steps-leaps{chosen}")).Page;
            var (level, seed) = (int.Parse(Value(page, "level")), int.Parse(Value(page, "seed")));
            async Task<string> TryAsync(string tapped)
            {
                using var body = Form(("drill", "steps-leaps"), ("level", $"{level}"), ("seed", $"{seed}"), ("tapped", tapped));
                return await (await tab.PostAsync(page, $"/ear/{pupil.Id}?handler=Answer", body)).Content.ReadAsStringAsync();
            }

            var instrument = Core.Instruments.Catalogue.Get("trombone");
            var question = EarWriter.Write(
                EarDrill.Get("steps-leaps"),
                level,
                seed,
                new EarPlayer(
                    instrument,
                    instrument.ReadingOf("bass"),
                    Core.Fingering.Class.LearnersRange.Of(instrument, LearningStage.FirstNotes, new RoomSettings().Approach)
                ),
                Core.Music.Tuning.Standard
            );
            Assert.Contains(right ? "Ear right" : "It was", await TryAsync(question.Answer[0] == "steps" == right ? "steps" : "leaps"));
            return seed;
        }

        async Task<string> LevelAsync() => Value((await tab.OpenAsync($"/ear/{pupil.Id}?drill=steps-leaps")).Page, "level");
        for (var i = 0; i < 3; i++)
            await AnswerAsync(right: true);
        Assert.Equal("1", await LevelAsync());
        // Chosen harder by hand it says nothing of where four in five come.
        for (var i = 0; i < 3; i++)
            await AnswerAsync(right: true, "&level=4");
        Assert.Equal("1", await LevelAsync());
        await AnswerAsync(right: false);
        Assert.Equal("0", await LevelAsync());
        // Nor does what was missed, asked once more.
        var missed = await AnswerAsync(right: false);
        for (var i = 0; i < 3; i++)
            await AnswerAsync(right: true, $"&level=0&seed={missed}");
        Assert.Equal("0", await LevelAsync());
        for (var i = 0; i < 3; i++)
            await AnswerAsync(right: true);
        Assert.Equal("1", await LevelAsync());
    }

    [Fact]
    public async Task A_new_question_is_none_that_waits_to_be_asked_again()
    {
        var pupil = await AddAsync(LearningStage.FirstNotes);
        var now = TimeProvider.System.GetUtcNow().UtcDateTime;
        RecallCard Waiting(int seed) =>
            new()
            {
                PupilId = pupil.Id,
                InstrumentId = EarStop.OfEar,
                Item = $"steps-leaps.0.{seed}",
                SeenAt = now,
                DueAt = now.AddDays(2),
            };
        await _room.InRecordAsync(db =>
        {
            db.Recalls.AddRange(Enumerable.Range(0, 100).Where(seed => seed != 41).Select(Waiting));
            return db.SaveChangesAsync();
        });
        var page = (await Tab().OpenAsync($"/ear/{pupil.Id}?drill=steps-leaps")).Page;
        Assert.Equal(("0", "41"), (Value(page, "level"), Value(page, "seed")));
    }

    [Fact]
    public async Task Sung_flat_and_played_right_stand_side_by_side_and_in_the_record()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        const string Asked = "drill=sing-intervals&tempo=80&level=2&seed=7";
        var heard = await HearAsync(
            tab,
            $"/ear/{pupil.Id}",
            $"{Asked}&character=flat",
            ("drill", "sing-intervals"),
            ("tempo", "80"),
            ("level", "2"),
            ("seed", "7")
        );
        Assert.StartsWith("Sung: first note 6", heard.QuerySelector("[data-summary]")!.TextContent);
        Assert.Contains("played right. Work on the ear", heard.QuerySelector("[data-summary]")!.TextContent);
        Assert.Matches(@"−[56]\d / [−+]?\d+ cents sung / played", heard.QuerySelector(".what dl")!.TextContent);
        // Position only after playing.
        Assert.Contains("1st", heard.QuerySelector("[data-settings]")!.TextContent);
        Assert.Null((await tab.OpenAsync($"/ear/{pupil.Id}?drill=sing-intervals")).Page.QuerySelector("[data-settings]"));
        var kept = (await tab.SendAsync(heard, "form[action*=Keep]")).Page;
        Assert.Contains("The answer is saved.", kept.Body!.TextContent);
        Assert.Contains("Ear: Sing, then play", (await tab.OpenAsync($"/record/{pupil.Id}")).Page.Body!.TextContent);
        var figures = await _room.InRecordAsync(db => db.Figures.Where(figure => figure.Name == EarFigures.Sung.Name).ToListAsync());
        Assert.InRange(Assert.Single(figures).Value, 55, 65);
        // A page of the same kind of answers, but of other drills, knows nothing of it.
        var id = (await _room.OnlyAsync(EarStop.Answers)).Entry.Id;
        using (var empty = new FormUrlEncodedContent([]))
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await tab.PostAsync(kept, $"/ear/tell/{pupil.Id}?handler=Accept&id={id}", empty)).StatusCode
            );
        Assert.Equal(HttpStatusCode.NotFound, (await tab.OpenAsync($"/ear/tell/{pupil.Id}?take={id}")).Response.StatusCode);
        // Once more is the same question, also where Start is pressed on the verdict.
        Assert.Equal(("2", "7"), (Value(kept, "level"), Value(kept, "seed")));
        var onward = (await tab.SendAsync(kept, "form[action*=Accept]")).Page;
        Assert.Equal(("2", "7"), (Value(onward, "level"), Value(onward, "seed")));
    }

    [Fact]
    public async Task By_the_pupils_tap_nothing_that_was_sung_is_kept()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var only = await HearAsync(
            tab,
            $"/ear/{pupil.Id}",
            "drill=sing-target&tempo=80&level=0&seed=7&character=right",
            ("drill", "sing-target"),
            ("tempo", "80"),
            ("level", "0"),
            ("seed", "7"),
            ("private", "true")
        );
        Assert.Contains("Sung right", only.QuerySelector("[data-summary]")!.TextContent);
        Assert.NotNull(only.QuerySelector("[data-private]"));
        Assert.Equal(0, await _room.CountAsync(EarStop.Answers));
        // What was played after it stands: its minutes count. Nothing of the voice is with it.
        await HearAsync(
            tab,
            $"/ear/{pupil.Id}",
            "drill=sing-intervals&tempo=80&level=2&seed=7&character=flat",
            ("drill", "sing-intervals"),
            ("tempo", "80"),
            ("level", "2"),
            ("seed", "7"),
            ("private", "true"),
            ("source", "Microphone")
        );
        var take = await _room.OnlyAsync(EarStop.Answers);
        Assert.Empty(take.Payload.Sung);
        Assert.Empty(take.Payload.Midi);
        Assert.DoesNotContain("ung", take.Entry.Summary, StringComparison.Ordinal);
        Assert.DoesNotContain(
            take.Payload.Verdict.Heard,
            number => $"{number.Name} {number.Meaning}".Contains("sung", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task What_hurts_ends_playing_and_not_clapping()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var page = (await tab.OpenAsync($"/ear/count/{pupil.Id}")).Page;
        using var hurts = new FormUrlEncodedContent([new("complaint", "lipsSore"), new("back", $"/ear/count/{pupil.Id}")]);
        Assert.Equal(HttpStatusCode.OK, (await tab.PostAsync(page, $"/health/{pupil.Id}?handler=Tell", hurts)).StatusCode);
        (string, string)[] asked = [("drill", "clapped"), ("tempo", "80"), ("cards", "q q h"), ("metre", "4/4"), ("gap", "0")];
        const string Query = "tempo=80&cards=q%20q%20h&metre=4/4&gap=0&seed=3&character=right";
        var clapped = await HearAsync(tab, $"/ear/count/{pupil.Id}", $"drill=clapped&{Query}", asked);
        Assert.StartsWith("Clapped right", clapped.QuerySelector("[data-summary]")!.TextContent);
        using var client = _room.CreateClient();
        var played = await client.GetAsync(
            $"/ear/count/{pupil.Id}?handler=Begin&drill=played&{Query}",
            TestContext.Current.CancellationToken
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, played.StatusCode);
    }

    [Fact]
    public async Task Where_nobody_is_asked_to_sing_no_page_does()
    {
        var pupil = await AddAsync(points: "sing=c");
        var page = (await Tab().OpenAsync($"/ear/{pupil.Id}?drill=sing-intervals")).Page;
        Assert.DoesNotContain("sing it", page.QuerySelector("[data-ask]")!.TextContent, StringComparison.OrdinalIgnoreCase);
        Assert.Null(page.QuerySelector("input[name=private]"));
        Assert.DoesNotContain(
            "sing-target",
            page.QuerySelectorAll("select[name=drill] option").Select(option => option.GetAttribute("value"))
        );
        Assert.Equal(HttpStatusCode.NotFound, (await Tab().OpenAsync($"/ear/{pupil.Id}?drill=sing-target")).Response.StatusCode);
    }

    [Fact]
    public async Task A_clap_left_out_is_told_and_its_value_comes_back_on_the_desk()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var card = Uri.EscapeDataString("q. e q q");
        (string, string)[] asked = [("drill", "said-clapped"), ("tempo", "80"), ("cards", "q. e q q"), ("metre", "4/4"), ("gap", "0")];
        var query = $"drill=said-clapped&tempo=80&cards={card}&metre=4/4&gap=0&seed=3";
        var heard = await HearAsync(tab, $"/ear/count/{pupil.Id}", $"{query}&character=clap-missing", asked);
        Assert.Equal("Clap missing on the & of 2; said right.", heard.QuerySelector("[data-summary]")!.TextContent);
        Assert.Single(heard.QuerySelectorAll("[data-track=hands] .missing"));
        Assert.Equal(4, heard.QuerySelectorAll("[data-track=said] .inside").Length);
        await tab.SendAsync(heard, "form[action*=Keep]");
        var cards = await _room.InRecordAsync(db => db.Recalls.Where(known => known.InstrumentId == EarStop.OfValues).ToListAsync());
        // The value of the card stands beside those of the stage, which stay.
        Assert.Equal(["e", "h", "hd", "q", "qd", "rh", "rq", "w"], cards.Select(known => known.Item).Order());
        await _room.InRecordAsync(db =>
            db.Recalls.Where(known => known.Item == "qd")
                .ExecuteUpdateAsync(set => set.SetProperty(known => known.DueAt, DateTime.UtcNow.AddDays(-1)))
        );
        Assert.Contains("1 value to count", (await tab.OpenAsync("/")).Page.QuerySelector("[data-due=values-due]")!.TextContent);
        // What is due stands in the next card, and the two lists tell the values apart.
        var next = (await tab.OpenAsync($"/ear/count/{pupil.Id}")).Page;
        Assert.Contains("q. e", next.QuerySelector("[data-card]")!.GetAttribute("data-card")!);
        Assert.Contains("due; said 100 %, clapped 50 %", next.QuerySelector("[data-values]")!.TextContent);
        // Twice not inside: slower.
        var again = await HearAsync(tab, $"/ear/count/{pupil.Id}", $"{query}&character=clap-missing", asked);
        Assert.EndsWith("at 72 a minute.", again.QuerySelector("[data-next]")!.TextContent);
        var onward = await tab.SendAsync(again, "form[action*=Accept]");
        Assert.Contains("own=q.%20e%20q%20q", onward.Response.RequestMessage!.RequestUri!.Query);
    }

    [Theory]
    [InlineData("q q q", "does not fill its bar")]
    [InlineData("q. e x q", "Value 3: 'x' is not a value I know")]
    [InlineData("q q q q; h h; w; w; w", "1 to 4 cards")]
    public async Task A_card_that_is_none_is_said_at_its_place(string own, string says)
    {
        var pupil = await AddAsync();
        var (response, page) = await Tab().OpenAsync($"/ear/count/{pupil.Id}?own={Uri.EscapeDataString(own)}");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Contains(says, page.QuerySelector("[data-card-trouble]")!.TextContent);
        // Nothing typed is lost.
        Assert.Equal(own, ((IHtmlInputElement)page.QuerySelector("input[name=own]")!).Value);
        Assert.Contains(
            "no metre",
            (await Tab().OpenAsync($"/ear/count/{pupil.Id}?metre=5")).Page.QuerySelector("[data-card-trouble]")!.TextContent
        );
    }

    [Fact]
    public async Task No_value_stands_in_a_card_before_the_teacher_has_introduced_it()
    {
        var pupil = await AddAsync(LearningStage.FirstNotes);
        var tab = Tab();
        var page = (await tab.OpenAsync($"/ear/count/{pupil.Id}?many=4&bars=2")).Page;
        Assert.All(
            page.QuerySelectorAll("[data-card]"),
            card => Assert.All(card.GetAttribute("data-card")!.Split(' '), token => Assert.Contains(token, new[] { "q", "h", "rq" }))
        );
        var added = (await tab.SendAsync(page, "form[action*='id=e&']")).Page;
        Assert.Contains("The eighths may stand in cards now.", added.Body!.TextContent);
        Assert.Contains(
            "e e",
            (await tab.OpenAsync($"/ear/count/{pupil.Id}?many=1")).Page.QuerySelector("[data-card]")!.GetAttribute("data-card")!
        );
        var taken = (await tab.SendAsync(added, "form[action*='id=e&']")).Page;
        Assert.Contains("stays out of cards", taken.Body!.TextContent);
        Assert.Equal(3, taken.QuerySelectorAll("[data-values] [aria-pressed=true]").Length);
    }

    /// <summary>After one note the bar is played on its own; without a bar, on do to so as this pupil reads it.</summary>
    [Fact]
    public async Task Cards_are_played_on_their_notes()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        const string Card = "q.:Bb2 e:C3 q:D3 q:Bb2";
        (string, string)[] asked = [("drill", "on-notes"), ("tempo", "80"), ("cards", Card), ("metre", "4/4"), ("gap", "0")];
        var query = string.Join('&', asked.Select(field => $"{field.Item1}={Uri.EscapeDataString(field.Item2)}"));
        var heard = await HearAsync(tab, $"/ear/count/{pupil.Id}", $"{query}&character=right", asked);
        Assert.StartsWith("Played right: every note came in its place.", heard.QuerySelector("[data-summary]")!.TextContent);
        Assert.Contains("4 of 4", heard.QuerySelector(".what dl")!.TextContent);
        Assert.Equal(Card, (await _room.OnlyAsync(EarStop.Cards)).Entry.Subject);
        var drawn = heard.QuerySelector("[data-rhythm]")!.GetAttribute("data-rhythm")!;
        Assert.Contains("<sign>F</sign>", drawn, StringComparison.Ordinal);
        Assert.Contains("<step>B</step>", drawn, StringComparison.Ordinal);
        var written = (await tab.OpenAsync($"/ear/count/{pupil.Id}?drill=on-notes")).Page;
        Assert.Matches(":[A-G]b?[0-9]", written.QuerySelector(".rhythm-card")!.GetAttribute("data-card"));
        // The same rhythm goes on from one note to several.
        var onward = (await tab.OpenAsync($"/ear/count/{pupil.Id}?drill=on-notes&own=q.+e+h")).Page;
        Assert.Matches(@"^q\.:\w+ e:\w+ h:\w+$", onward.QuerySelector(".rhythm-card")!.GetAttribute("data-card"));
        using var client = _room.CreateClient();
        var refused = await client.GetAsync(
            $"/ear/count/{pupil.Id}?handler=Begin&drill=on-notes&tempo=80&cards=q%20q%20h&metre=4/4&gap=0",
            TestContext.Current.CancellationToken
        );
        Assert.Contains(
            "no notes",
            await refused.Content.ReadAsStringAsync(TestContext.Current.CancellationToken),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Taps_are_judged_like_claps_and_a_stuck_key_is_not()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        (string, string)[] asked = [("drill", "tapped"), ("tempo", "80"), ("cards", "q q h"), ("metre", "4/4"), ("gap", "0")];
        const string Query = "drill=tapped&tempo=80&cards=q%20q%20h&metre=4/4&gap=0&seed=3&character=right";
        var good = await HearAsync(tab, $"/ear/count/{pupil.Id}", Query, [.. asked, ("taps", "0.51 1.26 2.02")]);
        Assert.StartsWith("Tapped right", good.QuerySelector("[data-summary]")!.TextContent);
        var stuck = await HearAsync(
            tab,
            $"/ear/count/{pupil.Id}",
            Query,
            [.. asked, ("taps", string.Join(' ', Enumerable.Range(0, 90).Select(i => $"{i * 0.03:0.00}")))]
        );
        Assert.Contains("stuck", stuck.QuerySelector("[data-summary]")!.TextContent);
    }

    [Fact]
    public async Task Two_sounds_are_told_apart_and_ones_own_is_named_before_it_is_told()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var place = $"/ear/tell/{pupil.Id}";
        using var client = _room.CreateClient();
        var page = (await tab.OpenAsync($"{place}?drill=sagging")).Page;
        var two = new List<byte[]>();
        foreach (var which in new[] { 1, 2 })
            two.Add(
                await client.GetByteArrayAsync(
                    $"{place}?handler=Sound&drill=sagging&seed=5&which={which}",
                    TestContext.Current.CancellationToken
                )
            );
        Assert.NotEqual(two[0], two[1]);
        var told = new List<string>();
        foreach (var which in new[] { "1", "2" })
        {
            using var body = Form(("drill", "sagging"), ("seed", "5"), ("tapped", which));
            told.Add(
                (await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"{place}?handler=Answer", body)))
                    .Page.QuerySelector("[data-summary]")!
                    .TextContent
            );
        }

        Assert.Single(told, each => each.StartsWith("Ear right", StringComparison.Ordinal));
        var own = await HearAsync(
            tab,
            place,
            "drill=sagging&character=fault&seed=3",
            ("drill", "sagging"),
            ("seed", "5"),
            ("tapped", "fault")
        );
        Assert.Equal("Yours is like the other", own.QuerySelector("[data-answer]")!.TextContent);
        Assert.StartsWith("Ear right", own.QuerySelector("[data-summary]")!.TextContent);
        var good = await HearAsync(
            tab,
            place,
            "drill=sagging&character=right&seed=3",
            ("drill", "sagging"),
            ("seed", "5"),
            ("tapped", "fault")
        );
        Assert.Equal("Yours is like the good one", good.QuerySelector("[data-answer]")!.TextContent);
        Assert.Equal(HttpStatusCode.OK, (await tab.OpenAsync($"/record/{pupil.Id}")).Response.StatusCode);
    }

    [Fact]
    public async Task The_delay_is_measured_from_clicks_and_from_taps_and_refused_in_a_sentence()
    {
        var pupil = await AddAsync();
        var tab = Tab();
        var page = (await tab.OpenAsync($"/ear/delay/{pupil.Id}")).Page;
        using var taps = Form(("clicks", "1 1.6 2.2 2.8 3.4 4"), ("taps", "0.97 1.57 2.17 2.77 3.37 3.97"), ("outMs", "20"));
        var told = JsonDocument.Parse(
            await (await tab.PostAsync(page, $"/ear/delay/{pupil.Id}?handler=Taps", taps)).Content.ReadAsStringAsync()
        );
        Assert.Equal(-50, told.RootElement.GetProperty("habitMs").GetDouble(), 3);
        foreach (var (clicks, sent) in new[] { ("", "1"), ("1 2 3", "x"), ("1 2 3", "1e400"), ("1 2 3 4 5 6 7 8", "9") })
        {
            using var bad = Form(("clicks", clicks), ("taps", sent));
            var refused = await tab.PostAsync(page, $"/ear/delay/{pupil.Id}?handler=Taps", bad);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        }
    }

    [Fact]
    public async Task A_class_sees_cards_and_no_score()
    {
        var page = (await Tab().OpenAsync("/ear/class?upto=9&metre=3/4&tempo=90")).Page;
        Assert.InRange(page.QuerySelectorAll("[data-class-card]").Length, 12, 30);
        Assert.Single(page.QuerySelectorAll("[data-class-card]:not([hidden])"));
        Assert.DoesNotContain("%", page.QuerySelector("#stage")!.TextContent, StringComparison.Ordinal);
        Assert.Contains("no metre", (await Tab().OpenAsync("/ear/class?metre=x")).Page.Body!.TextContent);
    }

    [Fact]
    public async Task Counts_are_called_as_the_approach_has_them()
    {
        var pupil = await AddAsync(points: "count.names=c");
        var page = (await Tab().OpenAsync($"/ear/count/{pupil.Id}?own={Uri.EscapeDataString("q e e h")}")).Page;
        Assert.Contains("<text>ti</text>", page.QuerySelector("[data-rhythm]")!.GetAttribute("data-rhythm")!);
        Assert.Equal(TimeNames.SolFa, new RoomSettings().Approach.With("count.names", "c").Of(Points.TimeNames));
        Assert.Equal(["ta", "ti", "ti", "ta-a"], Counts.Of(RhythmCard.Parse("q e e h", Core.Score.Metre.Common), TimeNames.SolFa));
    }
}
