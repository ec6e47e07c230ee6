using System.Net;
using AngleSharp.Html.Dom;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Notes;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

public sealed class PagesTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Theory]
    [InlineData("/", "Add the first pupil")]
    [InlineData("/buzz", "Add the first pupil")]
    [InlineData("/notes", "Add the first pupil")]
    [InlineData("/breath", "Add the first pupil")]
    [InlineData("/set-up", "Add the first pupil")]
    [InlineData("/approach", "mouthpiece first")]
    [InlineData("/tone", "Add the first pupil")]
    [InlineData("/slurs", "slurs will be written and heard")]
    [InlineData("/ear", "a pupil hears, sings, names, says and claps")]
    [InlineData("/ear/count", "says and claps rhythm cards")]
    [InlineData("/ear/tell", "two sounds at a time")]
    [InlineData("/ear/class", "All say and clap")]
    [InlineData("/pupils/new", "First lesson")]
    public async Task An_empty_room_says_what_will_be_here_and_offers_the_first_action(string address, string expected)
    {
        var (response, page) = await Tab().OpenAsync(address);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Contains(expected, page.Body!.TextContent);
        // Without JavaScript one sentence says what is missing.
        Assert.Contains("turn it on", Assert.Single(page.QuerySelectorAll("noscript")).TextContent);
    }

    [Fact]
    public async Task What_a_page_is_made_of_is_kept_for_good_and_what_an_open_page_still_asks_for_comes_as_it_is()
    {
        var tab = Tab();
        var (_, page) = await tab.OpenAsync("/");
        var addresses = page.QuerySelectorAll("link[rel=stylesheet], script[src]")
            .Select(part => part.GetAttribute("href") ?? part.GetAttribute("src")!)
            .ToList();
        Assert.True(addresses.Count >= 5);
        foreach (var address in addresses)
        {
            var kept = await _room.CreateClient().GetAsync(address);
            Assert.Equal(HttpStatusCode.OK, kept.StatusCode);
            Assert.Contains("immutable", kept.Headers.CacheControl!.ToString());
            var earlier = await _room.CreateClient().GetAsync("/at/0123456789abcdef" + address[address.IndexOf('/', "/at/".Length)..]);
            Assert.Equal(HttpStatusCode.OK, earlier.StatusCode);
            Assert.Equal("no-cache", earlier.Headers.CacheControl!.ToString());
        }
    }

    [Fact]
    public async Task A_large_room_comes_by_pages_and_everybody_is_on_one_of_them_once()
    {
        for (var i = 0; i < 70; i++)
            await _room.AddAsync($"Pupil {i % 50:00}");
        var (seen, address) = (new List<string>(), "/");
        while (address is not null)
        {
            var (_, page) = await Tab().OpenAsync(address);
            seen.AddRange(page.QuerySelectorAll(".bench tbody th a").Select(link => link.GetAttribute("href")!));
            address = page.QuerySelector("[data-onward]")?.GetAttribute("href");
        }

        Assert.Equal(70, seen.Count);
        Assert.Equal(70, seen.Distinct().Count());
        Assert.Contains("Nobody comes after", (await Tab().OpenAsync($"/?after={seen[^1].Split('/')[^1]}")).Page.Body!.TextContent);
    }

    [Fact]
    public async Task A_pupil_is_found_by_a_part_of_the_name_and_the_link_leads_to_the_present_stop()
    {
        for (var i = 0; i < 40; i++)
            await _room.AddAsync($"Pupil {i:00}");
        var sought = await _room.AddAsync("Zoë Amber <b>");
        var (_, all) = await Tab().OpenAsync("/pupils/find?place=tone");
        Assert.Equal(30, all.QuerySelectorAll("li").Length);
        Assert.Contains("11 more", all.Body!.TextContent);
        var (_, one) = await Tab().OpenAsync("/pupils/find?name=AMBER%20&place=tone");
        Assert.Equal($"/tone/{sought.Id}", one.QuerySelectorAll("li a").Single().GetAttribute("href"));
        Assert.Equal("Zoë Amber <b>", one.QuerySelector("li strong")!.TextContent);
        Assert.Equal(
            $"/buzz/{sought.Id}",
            (await Tab().OpenAsync("/pupils/find?name=zoË&place=desk")).Page.QuerySelector("li a")!.GetAttribute("href")
        );
        Assert.Contains("Nobody of that name", (await Tab().OpenAsync("/pupils/find?name=xyz")).Page.Body!.TextContent);
    }

    [Theory]
    [InlineData("/notes/class")]
    [InlineData("/slurs/class")]
    public async Task A_class_of_a_large_room_is_chosen_from_the_first_and_by_name(string address)
    {
        for (var i = 0; i < 40; i++)
            await _room.AddAsync($"Pupil {i:00}");
        var last = await _room.AddAsync("Zora Amber");
        var nobody = (await Tab().OpenAsync(address)).Page;
        Assert.Equal(
            (30, 0),
            (nobody.QuerySelectorAll(".who-plays input[name=who]").Length, nobody.QuerySelectorAll("input[checked]").Length)
        );
        var (_, page) = await Tab().OpenAsync($"{address}?who=1&more=zora");
        Assert.Equal(
            ["Pupil 00", "Zora Amber"],
            page.QuerySelectorAll(".class-table tbody th").Select(head => head.FirstChild!.TextContent.Trim())
        );
        Assert.Equal(31, page.QuerySelectorAll(".who-plays input[name=who]").Length);
        Assert.Contains($"&who={last.Id}", page.QuerySelector(".files a:last-child")!.GetAttribute("href"));
    }

    [Fact]
    public async Task Every_page_keeps_to_itself()
    {
        var pupil = await _room.AddAsync("Ada");
        foreach (
            var address in new[]
            {
                "/",
                $"/buzz/{pupil.Id}",
                $"/notes/{pupil.Id}",
                $"/record/{pupil.Id}",
                $"/pupils/{pupil.Id}",
                $"/breath/{pupil.Id}",
                $"/set-up/{pupil.Id}",
                $"/set-up/{pupil.Id}/checks",
                $"/set-up/{pupil.Id}/watch",
                "/approach",
                "/nowhere",
            }
        )
        {
            var (response, page) = await Tab().OpenAsync(address);
            var policy = response.Headers.GetValues("Content-Security-Policy").Single();
            Assert.Contains("default-src 'none'", policy);
            Assert.DoesNotContain("unsafe-inline", policy);
            Assert.Empty(
                page.QuerySelectorAll("[style], style, script:not([src]):not([type='application/xml']):not([type='application/json'])")
            );
            Assert.All(
                page.QuerySelectorAll("[src], link[href]"),
                element => Assert.StartsWith("/", element.GetAttribute("src") ?? element.GetAttribute("href"))
            );
        }
    }

    [Theory]
    [InlineData("/buzz/99", "no pupil 99 in this room")]
    [InlineData("/notes/99", "no pupil 99 in this room")]
    [InlineData("/record/99", "no pupil 99 in this room")]
    [InlineData("/pupils/99", "no pupil 99 in this room")]
    [InlineData("/buzz/1?take=99", "What you asked for is not in this room")]
    [InlineData("/buzz/1?drill=nonsense", "What you asked for is not in this room")]
    [InlineData("/breath/1?drill=in-hold-out", "What you asked for is not in this room")]
    [InlineData("/set-up/99/watch", "What you asked for is not in this room")]
    [InlineData("/nowhere", "There is no such page")]
    public async Task What_is_not_there_is_named_and_the_way_back_stands_beside_it(string address, string missing)
    {
        await _room.AddAsync("Ada");
        var (response, page) = await Tab().OpenAsync(address);
        Assert.Equal(HttpStatusCode.NotFound, response.StatusCode);
        Assert.Contains(missing, page.QuerySelector("#stage")!.TextContent);
        Assert.DoesNotContain("Nobody is here yet", page.Body!.TextContent);
        Assert.NotNull(page.QuerySelector("a[href='/']"));
    }

    [Fact]
    public async Task A_pupil_is_added_edited_deleted_and_brought_back()
    {
        var tab = Tab();
        var (_, sheet) = await tab.OpenAsync("/pupils/new");
        var (_, added) = await tab.SendAsync(
            sheet,
            "form.sheet",
            ("Form.Name", "Ada Quill"),
            ("Form.Instrument", "tuba-eb-3v"),
            ("Form.Reading", "treble-eb"),
            ("Form.Preset", "AirFirst"),
            ("Form.Stage", "Mouthpiece")
        );
        Assert.Contains("Ada Quill is on the Desk", added.Body!.TextContent);
        var id = await _room.InRecordAsync(db => db.Pupils.Select(pupil => pupil.Id).SingleAsync());
        var (_, edit) = await tab.OpenAsync($"/pupils/{id}");
        await tab.SendAsync(edit, "form.sheet", ("Form.Remark", "Left-handed."));
        Assert.Equal("Left-handed.", await _room.InRecordAsync(db => db.Pupils.Select(pupil => pupil.Remark).SingleAsync()));
        var (_, desk) = await tab.SendAsync(edit, ".danger form");
        Assert.Null(desk.QuerySelector(".bench"));
        var (_, back) = await tab.SendAsync(desk, ".told form");
        Assert.Contains("Ada Quill", back.QuerySelector(".bench")!.TextContent);
    }

    [Fact]
    public async Task A_second_pupil_of_one_name_is_asked_about_before_they_are_added()
    {
        await _room.AddAsync("Ada Quill");
        var tab = Tab();
        var (_, sheet) = await tab.OpenAsync("/pupils/new");
        (string, string)[] typed = [("Form.Name", "ada quill"), ("Form.Instrument", "tuba-eb-3v"), ("Form.Stage", "Mouthpiece")];
        var (_, asked) = await tab.SendAsync(sheet, "form.sheet", typed);
        Assert.Contains("Is this another pupil?", asked.QuerySelector("form.sheet")!.TextContent);
        Assert.Equal(1, await _room.InRecordAsync(db => db.Pupils.CountAsync()));
        await tab.SendAsync(asked, "form.sheet", [.. typed, ("Form.SameName", "true")]);
        Assert.Equal(2, await _room.InRecordAsync(db => db.Pupils.CountAsync()));
    }

    [Fact]
    public async Task A_new_pupil_is_asked_for_three_things_and_the_rest_is_folded()
    {
        var (_, sheet) = await Tab().OpenAsync("/pupils/new");
        var first = sheet.QuerySelectorAll("form.sheet [name^='Form.']:not(details *):not([type=hidden])");
        Assert.Equal(["Form.Name", "Form.Instrument", "Form.Stage"], first.Select(field => field.GetAttribute("name")));
        Assert.False(sheet.QuerySelector("[data-folded]")!.HasAttribute("open"));
    }

    [Fact]
    public async Task A_new_pupil_is_offered_the_stage_that_most_of_the_room_is_at()
    {
        async Task<string> OfferedAsync() =>
            ((IHtmlSelectElement)(await Tab().OpenAsync("/pupils/new")).Page.QuerySelector("[name='Form.Stage']")!).Value!;
        Assert.Equal("Lips", await OfferedAsync());
        foreach (var (name, stage) in new[] { ("Ada", LearningStage.Lips), ("Bo", LearningStage.Second), ("Cy", LearningStage.Second) })
        {
            var id = (await _room.AddAsync(name)).Id;
            await _room.InRecordAsync(db =>
                db.Pupils.Where(pupil => pupil.Id == id).ExecuteUpdateAsync(set => set.SetProperty(pupil => pupil.Stage, stage))
            );
        }

        Assert.Equal("Second", await OfferedAsync());
    }

    [Theory]
    [InlineData("Form.Name", "", "A pupil needs a name.")]
    [InlineData("Form.Instrument", "kazoo", "Choose an instrument.")]
    [InlineData("Form.Reading", "treble-eb", "does not read that")]
    [InlineData("Form.Started", "", "first lesson")]
    public async Task A_sheet_that_cannot_be_kept_says_why_and_loses_nothing(string field, string value, string sentence)
    {
        var tab = Tab();
        var (_, sheet) = await tab.OpenAsync("/pupils/new");
        var (_, again) = await tab.SendAsync(
            sheet,
            "form.sheet",
            ("Form.Name", "Ada"),
            ("Form.Instrument", "trumpet-bb"),
            ("Form.Remark", "Likes marches."),
            (field, value)
        );
        Assert.Contains(sentence, again.Body!.TextContent);
        Assert.Equal("Likes marches.", again.QuerySelector("textarea")!.TextContent.Trim());
        Assert.Equal(0, await _room.InRecordAsync(db => db.Pupils.CountAsync()));
    }

    [Theory]
    [InlineData("horn-f", "bass-old")]
    [InlineData("horn-f", "bass-new")]
    [InlineData("trombone", "tenor")]
    public async Task Every_reading_can_be_chosen_and_is_kept_and_saving_leads_back_to_the_same_pupil(string instrument, string reading)
    {
        var pupil = await _room.AddAsync("Ada", instrument, reading);
        var tab = Tab();
        var (_, sheet) = await tab.OpenAsync($"/pupils/{pupil.Id}");
        var (response, saved) = await tab.SendAsync(sheet, "form.sheet", ("Form.Remark", "Likes marches."));
        Assert.Equal($"/pupils/{pupil.Id}", response.RequestMessage!.RequestUri!.AbsolutePath);
        Assert.Equal("Likes marches.", saved.QuerySelector("textarea")!.TextContent.Trim());
        Assert.Equal(reading, await _room.InRecordAsync(db => db.Pupils.Select(kept => kept.ReadingId).SingleAsync()));
    }

    [Fact]
    public async Task Two_tabs_on_one_pupil_lose_nothing()
    {
        var pupil = await _room.AddAsync("Ada");
        var (first, second) = (Tab(), Tab());
        var (_, firstSheet) = await first.OpenAsync($"/pupils/{pupil.Id}");
        var (_, secondSheet) = await second.OpenAsync($"/pupils/{pupil.Id}");
        await first.SendAsync(firstSheet, "form.sheet", ("Form.Remark", "From the first tab."));
        var (response, clash) = await second.SendAsync(secondSheet, "form.sheet", ("Form.Remark", "From the second tab."));
        Assert.Equal(HttpStatusCode.Conflict, response.StatusCode);
        Assert.Contains("changed in another tab", clash.Body!.TextContent);
        Assert.Contains("From the first tab.", clash.QuerySelector(".clash")!.TextContent);
        Assert.Equal("From the second tab.", clash.QuerySelector("textarea")!.TextContent.Trim());
        await second.SendAsync(clash, "form.sheet");
        Assert.Equal("From the second tab.", await _room.InRecordAsync(db => db.Pupils.Select(kept => kept.Remark).SingleAsync()));
    }

    [Fact]
    public async Task A_take_is_heard_accepted_and_stands_in_the_record()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        var heard = await tab.HearAsync(page, pupil.Id, Wav("air-first=700@2,3"));
        Assert.Equal(HttpStatusCode.OK, heard.StatusCode);
        var words = await heard.Content.ReadAsStringAsync();
        Assert.Contains("Two of four began with air", words);
        Assert.Equal(4, words.Split("thread-number").Length - 1);
        var (_, view) = await tab.OpenAsync($"/buzz/{pupil.Id}?take=1");
        Assert.Equal("no", view.QuerySelector("#stage")!.GetAttribute("data-kept"));
        var (_, accepted) = await tab.SendAsync(view, "form[action*=Accept]");
        Assert.Contains("Lips together just before", accepted.QuerySelector("[data-ask]")!.TextContent);
        var (_, record) = await tab.OpenAsync($"/record/{pupil.Id}");
        Assert.Contains("Two of four began with air", record.QuerySelector(".bench")!.TextContent);
        var (_, desk) = await tab.OpenAsync("/");
        Assert.Contains("Lips together just before", desk.QuerySelector(".due")!.TextContent);
    }

    [Fact]
    public async Task A_deleted_take_can_be_brought_back()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        await tab.HearAsync(page, pupil.Id, Wav(""));
        var (_, view) = await tab.OpenAsync($"/buzz/{pupil.Id}?take=1");
        await tab.SendAsync(view, "form[action*=Keep]");
        var (_, record) = await tab.OpenAsync($"/record/{pupil.Id}");
        var (_, gone) = await tab.SendAsync(record, "form[action*=Delete]");
        Assert.Equal(0, await _room.CountAsync(BuzzStop.Takes));
        await tab.SendAsync(gone, ".told form");
        Assert.Equal(1, await _room.InRecordAsync(db => db.Entries.CountAsync(take => take.Kept && take.Kind == "buzz")));
    }

    public static TheoryData<byte[], string> BadRecordings =>
        new()
        {
            { [], "the file is empty" },
            { "no sound"u8.ToArray(), "not a WAV" },
            { Wav("")[..5000], "cut short" },
        };

    [Theory]
    [MemberData(nameof(BadRecordings))]
    public async Task A_recording_that_cannot_be_read_gets_one_sentence_that_names_it(byte[] wav, string sentence)
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        var refused = await tab.HearAsync(page, pupil.Id, wav, name: "tuesday.wav");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        var words = await refused.Content.ReadAsStringAsync();
        Assert.StartsWith("tuesday.wav", words);
        Assert.Contains(sentence, words);
        Assert.Equal(0, await _room.CountAsync(BuzzStop.Takes));
    }

    [Fact]
    public async Task A_silent_recording_is_heard_as_silence_and_an_unknown_drill_is_named()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/buzz/{pupil.Id}");
        var silent = await tab.HearAsync(page, pupil.Id, Bytes(new MonoSound(new float[44100], 44100)));
        Assert.Contains("Cannot tell", await silent.Content.ReadAsStringAsync());
        var unknown = await tab.HearAsync(page, pupil.Id, Wav(""), drill: "sneeze");
        Assert.Contains("'sneeze'", await unknown.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_form_without_its_token_is_refused()
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        var response = await client.PostAsync(
            $"/notes/{pupil.Id}?handler=Save",
            new FormUrlEncodedContent([new("note", "C4"), new("setting", "0")]),
            TestContext.Current.CancellationToken
        );
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Equal(0, await _room.CountAsync(NotesStop.Notes));
    }

    [Fact]
    public async Task The_practice_player_plays_what_was_asked()
    {
        var pupil = await _room.AddAsync("Ada", "trombone", "bass");
        using var client = _room.CreateClient();
        var wav = await client.GetByteArrayAsync(
            $"/buzz/{pupil.Id}?handler=Practice&drill=sound4-rest4&tempo=120&on=Mouthpiece&character=good&seed=4",
            TestContext.Current.CancellationToken
        );
        var sound = WavFile.Read(wav, "practice.wav");
        Assert.Equal(16, sound.Seconds, 0.01);
        Assert.Equal(4, AttemptFinder.Find(PitchTrack.Of(sound)).Count);
    }

    [Theory]
    [InlineData("trumpet-bb", "treble", "E4", "Valves 1 and 2", "3")]
    [InlineData("horn-f", "treble", "A4", "Valves 1 and 2", "3")]
    [InlineData("trombone", "bass", "F3", "Position 1", "6")]
    [InlineData("euphonium-4v-comp", "treble-bb", "C4", "Open, no valve", "1-4")]
    [InlineData("tuba-bb-3v", "bass", "G1", "Valves 1 and 2", "3")]
    public async Task A_note_shows_its_fingering_and_the_other_ways(
        string instrument,
        string reading,
        string note,
        string fingering,
        string alternate
    )
    {
        var pupil = await _room.AddAsync("Ada", instrument, reading);
        var (_, page) = await Tab().OpenAsync($"/notes/{pupil.Id}?note={note}");
        Assert.Equal(fingering, page.QuerySelector("[data-fingering]")!.TextContent);
        Assert.Contains(alternate, page.QuerySelectorAll(".bench tbody tr td:first-child").Select(cell => cell.TextContent));
        Assert.NotNull(page.QuerySelector(instrument == "trombone" ? "svg.slide" : ".valves"));
        Assert.Single(page.QuerySelectorAll("svg.rungs .wanted"));
    }

    [Fact]
    public async Task A_note_is_saved_and_the_save_undone()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var (_, page) = await tab.OpenAsync($"/notes/{pupil.Id}?note=D4");
        var (_, saved) = await tab.SendAsync(page, "form[action*=Save]");
        Assert.Contains("D4 is saved: valves 1 and 3.", saved.QuerySelector(".told")!.TextContent);
        Assert.Equal("1-3", (await _room.OnlyAsync(NotesStop.Notes)).Payload.Setting);
        await tab.SendAsync(saved, ".told form");
        Assert.Equal(0, await _room.CountAsync(NotesStop.Notes));
    }

    [Theory]
    [InlineData("D2", "D2 is out of range")]
    [InlineData("H4", "'H4' is not a note")]
    public async Task A_note_that_cannot_be_shown_is_named_and_stays_typed(string note, string sentence)
    {
        var pupil = await _room.AddAsync("Ada");
        var (response, page) = await Tab().OpenAsync($"/notes/{pupil.Id}?note={note}");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Contains(sentence, page.QuerySelector(".trouble")!.TextContent);
        Assert.NotNull(page.QuerySelector("svg.rungs"));
    }

    [Theory]
    [InlineData("E4", "1-2", "that plays E4, on partial 3")]
    [InlineData("E4", "3", "that plays E4 too")]
    [InlineData("E4", "1", "nearest is F4, partial 3; not E4")]
    public async Task Valves_pressed_say_what_they_give(string note, string setting, string sentence)
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        Assert.Contains(
            sentence,
            await client.GetStringAsync(
                $"/notes/{pupil.Id}?handler=Try&note={note}&setting={setting}",
                TestContext.Current.CancellationToken
            )
        );
    }

    private static byte[] Wav(string fault)
    {
        var plan = BuzzDrill.Get("sound4-rest4").Plan.At(120);
        return Bytes(
            SimulatedPlayer
                .Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, plan, fault == "" ? [] : [Fault.Parse(fault)], 3, Tuning.Standard)
                .Sound
        );
    }

    private static byte[] Bytes(MonoSound sound)
    {
        using var file = new MemoryStream();
        WavFile.Write(file, sound);
        return file.ToArray();
    }

    private Tab Tab() => new(_room.CreateClient());
}
