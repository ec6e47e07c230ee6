using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;
using AngleSharp.Html.Dom;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Notes stop: one note, chart, tube, slide, class, hand and instrument, on a real record.</summary>
public sealed class NotesPageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    private Tab Tab() => new(_room.CreateClient());

    [Fact]
    public async Task A_pinned_choice_leads_the_note_and_the_chart_and_can_be_undone()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var other = (await tab.OpenAsync($"/notes/{pupil.Id}?note=E4&way=3")).Page;
        var pinned = (await tab.SendAsync(other, "form[action*=Pin]")).Page;
        Assert.Contains("Valve 3", pinned.QuerySelector("[data-fingering]")!.TextContent);
        Assert.NotNull(pinned.QuerySelector("[data-pinned]"));
        Assert.Contains("your choice", (await tab.OpenAsync($"/notes/{pupil.Id}/chart")).Page.Body!.TextContent);
        var back = (await tab.SendAsync(pinned, "form[action*=Unpin]")).Page;
        Assert.Contains("Valves 1 and 2", back.QuerySelector("[data-fingering]")!.TextContent);
        var again = (await tab.SendAsync(back, "form[action*='handler=Pin']")).Page;
        Assert.Contains("Valve 3", again.QuerySelector("[data-fingering]")!.TextContent);
    }

    [Fact]
    public async Task First_notes_stand_in_the_teachers_order_for_the_pupil_before_that_of_the_room()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        string Told(IHtmlDocument page) =>
            string.Join(' ', page.QuerySelectorAll("table.bench tbody td:first-child").Select(cell => cell.TextContent.Trim()));
        async Task<IHtmlDocument> KeepAsync(string notes, string room)
        {
            var page = (await tab.OpenAsync($"/notes/{pupil.Id}/first")).Page;
            return (await tab.SendAsync(page, "form[x-data]", ("notes", notes), ("room", room))).Page;
        }

        Assert.Equal("C4 D4 E4 F4 G4", Told((await tab.OpenAsync($"/notes/{pupil.Id}/first")).Page));
        Assert.Equal("G4 F4 A4", Told(await KeepAsync("G4 F4 A4", "true")));
        var own = await KeepAsync("D4 C4", "false");
        Assert.Equal("D4 C4", Told(own));
        Assert.Contains("first notes of Ada", own.Body!.TextContent, StringComparison.OrdinalIgnoreCase);
        // What is taught first is what Tone asks for.
        Assert.Contains(
            "D4",
            (await tab.OpenAsync($"/tone/{pupil.Id}?drill=what-came")).Page.QuerySelector("[name=notes]")!.GetAttribute("value")
        );
        Assert.Equal("G4 F4 A4", Told((await tab.SendAsync(own, ".told form")).Page));
        Assert.Contains("'H4' is not a note", (await KeepAsync("C4 H4", "false")).QuerySelector("[role=alert]")!.TextContent);
        Assert.Contains("out of range", (await KeepAsync("C4 C1", "false")).QuerySelector("[role=alert]")!.TextContent);
        Assert.Equal("C4 D4 E4 F4 G4", Told(await KeepAsync("", "true")));
    }

    [Fact]
    public async Task A_short_arm_is_asked_nothing_beyond_it()
    {
        var pupil = await AddTromboneAsync(45);
        var page = (await Tab().OpenAsync($"/notes/{pupil.Id}?note=C3")).Page;
        Assert.Contains("this arm reaches 37 cm", page.QuerySelector("[data-barred]")!.TextContent);
        Assert.Contains(
            "position 5 at most",
            (await Tab().OpenAsync($"/notes/{pupil.Id}/slide")).Page.QuerySelector("[data-reach]")!.TextContent
        );
    }

    [Fact]
    public async Task A_calibrated_slide_moves_every_position_and_can_be_undone()
    {
        var pupil = await AddTromboneAsync(null);
        var tab = Tab();
        var page = (await tab.OpenAsync($"/notes/{pupil.Id}/slide")).Page;
        var refused = (await tab.SendAsync(page, "form.calibrate", ("ApartCm", "60"))).Page;
        Assert.Contains("Measure again", refused.QuerySelector(".trouble")!.TextContent);
        Assert.Equal("60", refused.QuerySelector("[name=ApartCm]")!.GetAttribute("value"));
        var done = (await tab.SendAsync(refused, "form.calibrate", ("ApartCm", "28"))).Page;
        Assert.Contains("a tube of 2.96 m", done.QuerySelector("h1")!.TextContent);
        Assert.Contains("61.3 cm", done.Body!.TextContent);
        await tab.SendAsync(done, ".told form");
        Assert.Contains("a tube of 2.75 m", (await tab.OpenAsync($"/notes/{pupil.Id}/slide")).Page.QuerySelector("h1")!.TextContent);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await tab.OpenAsync($"/notes/{(await _room.AddAsync("Ben")).Id}/slide")).Response.StatusCode
        );
    }

    [Fact]
    public async Task What_is_measured_on_the_instrument_reaches_its_chart()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await tab.OpenAsync($"/notes/{pupil.Id}/instrument")).Page;
        Assert.Contains(
            "at most 60 cents",
            (await tab.SendAsync(page, "form.calibrate", ("valve", "400"))).Page.QuerySelector(".trouble")!.TextContent
        );
        await tab.SendAsync(page, "form.calibrate", ("third", "true"));
        // The third valve drawn for 2-3 (computed): 1-3 is 15.5 cents sharp, not 30.3.
        using var client = _room.CreateClient();
        var chart = await client.GetStringAsync($"/notes/{pupil.Id}/chart?handler=Csv", TestContext.Current.CancellationToken);
        Assert.Contains("G3,F3,1-3,2,15.5,", chart);
        // On another instrument it says nothing.
        await _room.InRecordAsync(db =>
            db.Pupils.Where(each => each.Id == pupil.Id).ExecuteUpdateAsync(set => set.SetProperty(each => each.InstrumentId, "cornet-bb"))
        );
        Assert.Contains(
            "G3,F3,1-3,2,30.3,",
            await client.GetStringAsync($"/notes/{pupil.Id}/chart?handler=Csv", TestContext.Current.CancellationToken)
        );
    }

    [Fact]
    public async Task The_room_says_where_it_lies()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await tab.OpenAsync($"/notes/{pupil.Id}/instrument")).Page;
        var refused = (await tab.SendAsync(page, "form[action*=Room]", ("zone", "Mars/Olympus"))).Page;
        Assert.Contains("not a time zone", refused.QuerySelector(".trouble")!.TextContent);
        await tab.SendAsync(page, "form[action*=Room]", ("zone", "Pacific/Auckland"));
        Assert.Equal("Pacific/Auckland", await _room.InRecordAsync(db => Task.FromResult(RoomClock.For(db, TimeProvider.System).Zone.Id)));
        var again = (await tab.OpenAsync($"/notes/{pupil.Id}/instrument")).Page;
        Assert.Equal("Pacific/Auckland", again.QuerySelector("select[name=zone] option[selected]")!.TextContent);
    }

    [Fact]
    public async Task The_room_says_how_far_the_main_slide_goes()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await tab.OpenAsync($"/notes/{pupil.Id}/instrument")).Page;
        var refused = (await tab.SendAsync(page, "form[action*=Room]", ("a4", "300"))).Page;
        Assert.Contains("415 to 466 Hz", refused.QuerySelector(".trouble")!.TextContent);
        await tab.SendAsync(page, "form[action*=Room]", ("a4", "440"), ("celsius", "28"));
        Assert.Contains(
            "23 cents sharp: main slide 10 mm out",
            (await tab.OpenAsync($"/notes/{pupil.Id}?note=C4")).Page.QuerySelector("[data-room]")!.TextContent
        );
    }

    [Fact]
    public async Task A_chart_is_a_file_in_three_formats()
    {
        var pupil = await _room.AddAsync("Ada", "tuba-eb-3v", "treble-eb");
        using var client = _room.CreateClient();
        var score = XDocument.Parse(
            await client.GetStringAsync($"/notes/{pupil.Id}/chart?handler=MusicXml&whole=true", TestContext.Current.CancellationToken)
        );
        var json = JsonDocument
            .Parse(await client.GetStringAsync($"/notes/{pupil.Id}/chart?handler=Json&whole=true", TestContext.Current.CancellationToken))
            .RootElement;
        var notes = json.GetProperty("notes").EnumerateArray().ToList();
        Assert.Equal(Catalogue.Get("tuba-eb-3v").Range.Highest.Midi - Catalogue.Get("tuba-eb-3v").Range.Lowest.Midi + 1, notes.Count);
        Assert.Equal(
            notes.Select(note => note.GetProperty("fingering").GetProperty("setting").GetString()),
            score.Descendants("lyric").Select(lyric => lyric.Element("text")!.Value)
        );
        // An octave and a major sixth down (common practice).
        Assert.Equal(
            ("-1", "-9", "-5"),
            (
                score.Descendants("octave-change").First().Value,
                score.Descendants("chromatic").First().Value,
                score.Descendants("diatonic").First().Value
            )
        );
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await client.GetAsync($"/notes/{pupil.Id}/chart?handler=Csv&from=C9&to=C1", TestContext.Current.CancellationToken)).StatusCode
        );
        var page = (await Tab().OpenAsync($"/notes/{pupil.Id}/chart?from=zz")).Page;
        Assert.Contains("'zz' is not a note", page.QuerySelector("[role=alert]")!.TextContent);
        Assert.Equal("zz", page.QuerySelector("[name=from]")!.GetAttribute("value"));
    }

    [Fact]
    public async Task A_class_gets_its_own_notes_and_a_score()
    {
        var ada = await _room.AddAsync("Ada");
        var ben = await _room.AddAsync("Ben", "horn-f");
        var cat = await _room.AddAsync("Cat", "trombone", "bass");
        var tab = Tab();
        var who = $"&who={ada.Id}&who={ben.Id}&who={cat.Id}";
        var page = (await tab.OpenAsync($"/notes/class?shape=LongNote&start=F{who}")).Page;
        var rows = page.QuerySelectorAll(".class-table tbody tr").Select(row => row.TextContent).ToList();
        Assert.Contains(rows, row => row.Contains("Ada") && row.Contains("G4"));
        Assert.Contains(rows, row => row.Contains("Ben") && row.Contains("C4"));
        Assert.Contains(rows, row => row.Contains("Cat") && row.Contains("F3"));
        Assert.Equal(1, (await tab.OpenAsync($"/notes/class?who={cat.Id}")).Page.QuerySelectorAll(".class-table tbody tr").Length);
        Assert.Contains(
            "'H' is not a concert note",
            (await tab.OpenAsync($"/notes/class?shape=Own&own=H{who}")).Page.QuerySelector("[role=alert]")!.TextContent
        );
        using var client = _room.CreateClient();
        var score = XDocument.Parse(
            await client.GetStringAsync($"/notes/class?handler=MusicXml&shape=Own&own=Bb+C+D{who}", TestContext.Current.CancellationToken)
        );
        Assert.Equal(3, score.Descendants("part").Count());
    }

    [Fact]
    public async Task The_marks_of_a_slide_are_measured_kept_and_taken_back()
    {
        var pupil = await _room.AddAsync("Cat", "trombone", "bass");
        var tab = Tab();
        string Marks(IHtmlDocument page) => page.QuerySelector(".landmarks")!.TextContent;
        var page = (await tab.OpenAsync($"/notes/{pupil.Id}/slide")).Page;
        Assert.Contains("2 to 3 cm", Marks(page));
        page = (await tab.SendAsync(page, "form[action*=Marks]", ("stayCm", "4.5"), ("endCm", "-1"))).Page;
        Assert.Contains("4.5 cm on the player's side", Marks(page));
        // What was measured before stays when the slide is calibrated after it.
        page = (await tab.SendAsync(page, "form.calibrate", ("ApartCm", "26.5"))).Page;
        Assert.Contains("4.5 cm on the player's side", Marks(page));
        var refused = (await tab.SendAsync(page, "form[action*=Marks]", ("stayCm", "40"))).Page;
        Assert.Contains("0 to 12 cm", refused.QuerySelector(".trouble")!.TextContent);
    }

    [Fact]
    public async Task A_new_pupil_joins_no_class_by_itself_and_a_class_is_kept_by_name()
    {
        var ada = await _room.AddAsync("Ada");
        var ben = await _room.AddAsync("Ben", "horn-f");
        var tab = Tab();
        var empty = (await tab.OpenAsync("/notes/class?shape=MajorScale&start=Bb")).Page;
        Assert.Empty(empty.QuerySelectorAll(".class-table tbody tr"));
        Assert.Contains("Tick who plays", empty.QuerySelector("#stage .nothing")!.TextContent);

        var chosen = (await tab.OpenAsync($"/notes/class?who={ada.Id}&who={ben.Id}")).Page;
        var kept = (await tab.SendAsync(chosen, "form[action*=KeepClass]", ("name", "Thursday"))).Page;
        Assert.Contains("Thursday is kept: 2 play in it", kept.QuerySelector(".told")!.TextContent);
        Assert.Equal(2, kept.QuerySelectorAll(".class-table tbody tr").Length);

        var late = await tab.SendAsync(chosen, "form[action*=KeepClass]", ("name", "Friday"), ("who", "77"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, late.Response.StatusCode);

        await _room.AddAsync("Cat", "trombone", "bass");
        Assert.Equal(2, (await tab.OpenAsync("/slurs/class")).Page.QuerySelectorAll(".class-table tbody tr").Length);
        var sheets = (await tab.OpenAsync("/notes/class?shape=MajorScale&start=Bb&sheets=true")).Page;
        Assert.Equal(["Ada", "Ben"], sheets.QuerySelectorAll(".own-sheet h2").Select(head => head.FirstChild!.TextContent.Trim()));
        // Concert B flat is C on a trumpet and F on a horn (common practice).
        Assert.Equal(
            ["0", "-1"],
            sheets
                .QuerySelectorAll("[data-score]")
                .Select(score =>
                    XDocument.Parse(JsonSerializer.Deserialize<string>(score.TextContent)!).Descendants("fifths").Single().Value
                )
        );
    }

    [Fact]
    public async Task Answers_are_judged_by_the_core_kept_and_scheduled()
    {
        var pupil = await _room.AddAsync("Ada");
        using var client = _room.CreateClient();
        var page = (await new Tab(client).OpenAsync($"/notes/{pupil.Id}/hand?drill=by-note")).Page;
        var asked = JsonDocument
            .Parse(
                await client.GetStringAsync(
                    $"/notes/{pupil.Id}/hand?handler=Prompts&drill=by-note&seed=4",
                    TestContext.Current.CancellationToken
                )
            )
            .RootElement.GetProperty("prompts")
            .EnumerateArray()
            .ToList();
        Assert.Equal(16, asked.Count);
        var answers = asked
            .Select(
                (prompt, i) =>
                    new
                    {
                        item = prompt.GetProperty("item").GetString(),
                        answer = prompt.GetProperty("answer").GetString(),
                        from = i == 0 ? "" : asked[i - 1].GetProperty("answer").GetString(),
                        given = i == 0 ? "2-4" : prompt.GetProperty("answer").GetString(),
                        seconds = 1.5,
                    }
            )
            .ToList();
        client.DefaultRequestHeaders.Add("X-Antiforgery", page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content"));
        var sent = await client.PostAsJsonAsync(
            $"/notes/{pupil.Id}/hand",
            new { drill = "by-note", answers },
            TestContext.Current.CancellationToken
        );
        Assert.Contains("15 of 16 right", await sent.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        var items = answers.Select(answer => answer.item).Distinct().ToList();
        var cards = await _room.InRecordAsync(db => db.Recalls.ToListAsync());
        Assert.Equal(items.Order(), cards.Select(card => card.Item).Order());
        // Missed, it is due sooner than what was known.
        Assert.True(cards.First(card => card.Item == items[0]).DueAt < cards.First(card => card.Item != items[0]).DueAt);
        // Whoever answers something else than was right says so in vain.
        var refused = await client.PostAsJsonAsync(
            $"/notes/{pupil.Id}/hand",
            new
            {
                drill = "by-note",
                answers = answers.Select(answer => new
                {
                    answer.item,
                    answer = "1-2-3",
                    answer.from,
                    given = "1-2-3",
                    answer.seconds,
                }),
            },
            TestContext.Current.CancellationToken
        );
        Assert.Contains("0 of 16 right", await refused.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        object[] nothings = [new { drill = "juggling", answers }, new { drill = "by-note", answers = new object?[] { null } }];
        foreach (var nothing in nothings)
            Assert.Equal(
                HttpStatusCode.UnprocessableEntity,
                (await client.PostAsJsonAsync($"/notes/{pupil.Id}/hand", nothing, TestContext.Current.CancellationToken)).StatusCode
            );
        // Due, they stand on the Desk.
        await _room.InRecordAsync(db =>
            db.Recalls.ExecuteUpdateAsync(set => set.SetProperty(card => card.DueAt, card => card.SeenAt.AddDays(-1)))
        );
        Assert.Contains("to recall", (await new Tab(client).OpenAsync("/")).Page.QuerySelector("[data-due=recall]")!.TextContent);
    }

    [Fact]
    public async Task A_drill_of_the_hand_can_be_deleted_and_brought_back()
    {
        var pupil = await _room.AddAsync("Ada");
        var outcome = HandOutcome.Of(
            HandDrill.Get("called"),
            [new HandMark("", "1-2", "0", "1-2", 2, true), new HandMark("", "2", "1-2", "1", 3, false)]
        );
        var drill = NotesStop.Hand(pupil, HandDrill.Get("called"), outcome, DateTime.UtcNow);
        await _room.WriteAsync(journal => journal.WriteAsync(NotesStop.Hands, drill, new HandPayload([], 2), ""));
        var tab = Tab();
        var gone = (await tab.SendAsync((await tab.OpenAsync($"/notes/{pupil.Id}/hand")).Page, ".history form")).Page;
        Assert.Contains("Drills done will stand here", gone.Body!.TextContent);
        Assert.Contains("1 of 2 right", (await tab.SendAsync(gone, "form[action*=Restore]")).Page.Body!.TextContent);
    }

    private async Task<Pupil> AddTromboneAsync(double? arm)
    {
        var pupil = await _room.AddAsync("Cat", "trombone", "bass");
        await _room.InRecordAsync(db =>
            db.Pupils.Where(each => each.Id == pupil.Id).ExecuteUpdateAsync(set => set.SetProperty(each => each.ArmCm, arm))
        );
        return pupil;
    }
}
