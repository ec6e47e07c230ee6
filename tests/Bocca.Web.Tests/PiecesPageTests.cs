using System.Net;
using System.Text;
using System.Text.Json;
using AngleSharp.Html.Dom;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Web.Live;
using Bocca.Web.Pages.Pieces;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests;

/// <summary>The Pieces stop: brought in, chosen, worked out, settled, typed, taken away.</summary>
public sealed class PiecesPageTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    private Tab Tab() => new(_room.CreateClient());

    private static byte[] Score(string name) => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "scores", $"{name}.musicxml"));

    private static async Task<(HttpResponseMessage Response, IHtmlDocument Page)> BringInAsync(Tab tab, int pupil, byte[] file, string name)
    {
        var page = (await tab.OpenAsync($"/pieces/{pupil}")).Page;
        using var body = new MultipartFormDataContent { { new ByteArrayContent(file), "score", name } };
        return await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"/pieces/{pupil}", body));
    }

    private static async Task<(HttpResponseMessage Response, IHtmlDocument Page)> WriteAsync(Tab tab, int pupil, string title, string text)
    {
        var page = (await tab.OpenAsync($"/pieces/{pupil}/write")).Page;
        return await tab.SendAsync(page, "form[method=post]", ("title", title), ("text", text));
    }

    private static async Task<(HttpResponseMessage Response, IHtmlDocument Page)> SettleAsync(
        Tab tab,
        IHtmlDocument page,
        string what,
        int at,
        string value
    )
    {
        using var body = new MultipartFormDataContent
        {
            { new StringContent(what), "what" },
            { new StringContent($"{at}"), "at" },
            { new StringContent(value), "value" },
        };
        var address = page.QuerySelector("[data-address]")!.GetAttribute("data-address")!;
        return await Web.Tests.Tab.ReadAsync(await tab.PostAsync(page, $"{address}?handler=Settle", body));
    }

    private static JsonElement Plan(IHtmlDocument page) => JsonDocument.Parse(page.QuerySelector("[data-plan]")!.TextContent).RootElement;

    /// <summary>A score of one line with so many notes, four in a bar.</summary>
    private static byte[] Long(int notes)
    {
        var text = new StringBuilder("<score-partwise version=\"4.0\"><part-list><score-part id=\"P1\"><part-name>Part</part-name>");
        text.Append("</score-part></part-list><part id=\"P1\">");
        for (var i = 0; i < notes; i++)
            text.Append(i % 4 == 0 ? $"<measure number=\"{1 + (i / 4)}\">" : "")
                .Append(
                    i == 0 ? "<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>" : ""
                )
                .Append($"<note><pitch><step>{"DEFG"[i % 4]}</step><octave>4</octave></pitch><duration>1</duration></note>")
                .Append(i % 4 == 3 ? "</measure>" : "");
        return Encoding.UTF8.GetBytes(text.Append("</part></score-partwise>").ToString());
    }

    [Fact]
    public async Task A_line_longer_than_a_page_can_show_is_refused_with_the_number()
    {
        var pupil = await _room.AddAsync("Ada");
        var (_, page) = await BringInAsync(Tab(), pupil.Id, Long(PiecePlans.MostNotes + 4), "long.musicxml");
        Assert.Contains("4004 notes, and a page shows 4000 at most", page.Body!.TextContent);
        Assert.Equal(0, await _room.InRecordAsync(db => db.Pieces.CountAsync()));
        var tab = Tab();
        var (_, offers) = await BringInAsync(tab, pupil.Id, Long(PiecePlans.MostNotes), "longest.musicxml");
        var (_, longest) = await tab.SendAsync(offers, "form.give");
        Assert.Equal(PiecePlans.MostNotes, Plan(longest).GetProperty("notes").GetArrayLength());
    }

    [Fact]
    public async Task A_piece_that_is_out_of_the_library_takes_no_other_version()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Low Tide", "4/4 q D4 E4 F4 E4");
        var (_, page) = await tab.OpenAsync($"/pieces/{pupil.Id}/write?piece=1");
        await _room.InRecordAsync(db => db.Pieces.ExecuteUpdateAsync(to => to.SetProperty(each => each.DeletedAt, DateTime.UtcNow)));
        var (answer, _) = await tab.SendAsync(page, "form[method=post]", ("text", "4/4 q D4 E4 F4 G4"));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    [Fact]
    public async Task What_many_look_at_is_worked_out_once_and_anew_when_anything_it_follows_from_changes()
    {
        var pupil = await _room.AddAsync("Ada");
        await BringInAsync(Tab(), pupil.Id, Long(40), "short.musicxml");
        var version = await _room.InRecordAsync(db => db.PieceVersions.AsNoTracking().SingleAsync());
        using var heavy = new HeavyWork();
        using var plans = new PiecePlans(heavy);
        var line = LineChoice.Of((await plans.SourceAsync(version)).Score)[0];
        var played = new PieceFor { InstrumentId = "trumpet-bb", Line = PieceFor.Stored(line) };
        var player = new PassagePlayer(pupil.Instrument);
        var breather = new PieceBreather(6);
        Task<PlannedLine> PlannedAsync() => plans.PlannedAsync(version, line, pupil.Reading, played, player, breather, StudyPupil.Unknown);

        static Setting Valves(string text) => Setting.TryParse(text, false, out var setting) ? setting : throw new FormatException(text);

        var first = await PlannedAsync();
        Assert.All(await Task.WhenAll(Enumerable.Range(0, 12).Select(_ => PlannedAsync())), again => Assert.Same(first, again));
        var keys = new List<string> { Key() };
        string Key() => PiecePlans.KeyOf(version.Hash, pupil.Reading.Id, played, player, breather, StudyPupil.Unknown);
        played.Tempo = 100;
        keys.Add(Key());
        played.Choices = PieceChoices.None.Breath(3, true).ToString();
        keys.Add(Key());
        player = player with { Hand = new Hand { Pins = new Dictionary<int, Setting> { [60] = Valves("1-3") } } };
        keys.Add(Key());
        player = player with { SlowChanges = new Dictionary<(Setting, Setting), double> { [(Valves("1"), Valves("0"))] = 0.2 } };
        keys.Add(Key());
        player = player with { Passport = new Passport(new Dictionary<int, double> { [2] = 7 }) };
        keys.Add(Key());
        breather = breather with { QuickestSeconds = 0.4 };
        keys.Add(Key());
        Assert.Equal(keys.Count, keys.Distinct().Count());
        Assert.NotSame(first, await PlannedAsync());
    }

    /// <summary>A note of a piece offers every setting that the Notes stop shows for the same pupil.</summary>
    [Theory]
    [InlineData("trumpet-bb", "treble", "E4 A4 D5 G#5")]
    [InlineData("horn-double", "treble", "C5 A4 F5")]
    [InlineData("trombone", "bass", "Bb3 D4 F4")]
    public async Task A_piece_offers_as_many_settings_for_a_note_as_notes_does(string instrument, string reading, string notes)
    {
        var pupil = await _room.AddAsync("Ada", instrument, reading);
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set =>
                set.SetProperty(each => each.Stage, Core.Teaching.LearningStage.Pieces).SetProperty(each => each.ArmCm, 45)
            )
        );
        var tab = Tab();
        var (_, page) = await WriteAsync(tab, pupil.Id, "Low Tide", $"4/4 q {notes}");
        var plan = Plan(page);
        foreach (var note in plan.GetProperty("notes").EnumerateArray())
        {
            var written = Uri.EscapeDataString(note.GetProperty("written").GetString()!);
            var ways = plan.GetProperty("ways").GetProperty($"{note.GetProperty("pitch").GetInt32()}");
            var shown = (await tab.OpenAsync($"/notes/{pupil.Id}?note={written}")).Page;
            var table = shown.QuerySelectorAll("table.bench tbody a").Select(way => way.TextContent.Trim()).Distinct().ToList();
            var here = ways.EnumerateArray().Select(way => way.GetProperty("setting").GetString()!).ToList();
            if (table.Count > 0)
                Assert.Equal(table, here);
            else
                Assert.Single(here);
        }
    }

    private static string Drawn(IHtmlDocument page) =>
        JsonSerializer.Deserialize<string>(page.QuerySelector("script[data-score]")!.TextContent)!;

    private static string Settings(IHtmlDocument page) =>
        string.Join(' ', Plan(page).GetProperty("notes").EnumerateArray().Select(note => note.GetProperty("setting").GetString()));

    /// <summary>A phrase goes to the ear in its own rhythm; a pupil who is not asked to sing a line yet is not sent there.</summary>
    [Fact]
    public async Task A_phrase_is_sung_before_it_is_played()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await WriteAsync(tab, pupil.Id, "Two", "4/4 q. C4 e D4 q E4 q F4 | h G4 h r |")).Page;
        JsonElement Line(IHtmlDocument of) => Plan(of).GetProperty("phrases")[0].GetProperty("line");
        Assert.Equal(JsonValueKind.Null, Line(page).ValueKind);
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set => set.SetProperty(each => each.Stage, Core.Teaching.LearningStage.Second))
        );
        page = (await tab.OpenAsync(page.QuerySelector("[data-address]")!.GetAttribute("data-address")!)).Page;
        var line = Line(page).GetString()!;
        Assert.Equal("C4:1.5 D4:0.5 E4:1 F4:1 G4:2", line);
        var sing = page.QuerySelector("[data-sing]")!.GetAttribute("href") ?? page.QuerySelector("[data-sing]")!.GetAttribute("data-sing")!;
        var sung = (await tab.OpenAsync($"{sing}&line={Uri.EscapeDataString(line)}&tempo=72")).Page;
        Assert.Equal(5, sung.QuerySelectorAll("[data-choices] button").Length);
        Assert.Contains(
            "24 notes",
            (await tab.OpenAsync($"{sing}&line={string.Join('+', Enumerable.Repeat("C4", 25))}")).Page.Body!.TextContent
        );
        Assert.Contains("every note", (await tab.OpenAsync($"{sing}&line=C4:1+D4")).Page.Body!.TextContent);
    }

    [Fact]
    public async Task A_file_is_brought_in_recognised_again_and_kept_in_versions()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var empty = (await tab.OpenAsync($"/pieces/{pupil.Id}")).Page;
        Assert.Contains("bring in a MusicXML file", empty.QuerySelector(".nothing")!.TextContent);
        var file = Score("transposing-with-words-for-numbers-of-measures");
        var opened = await BringInAsync(tab, pupil.Id, file, "march.musicxml");
        // One line, written for such an instrument: it is worked out at once.
        Assert.Equal("0 1-3 1-2 1 0 1-3 1-2 1 0 1-3 1-2 1", Settings(opened.Page));
        Assert.Contains("play it through once", opened.Page.QuerySelector("[data-note-box]")!.TextContent);
        Assert.Contains(
            "was in the library already",
            (await BringInAsync(tab, pupil.Id, file, "again.musicxml")).Page.QuerySelector(".told")!.TextContent
        );
        var other = Encoding.UTF8.GetBytes(
            Encoding.UTF8.GetString(file).Replace("<step>C</step>", "<step>D</step>", StringComparison.Ordinal)
        );
        var newer = await BringInAsync(tab, pupil.Id, other, "march.musicxml");
        Assert.Contains("has a new version", newer.Page.QuerySelector(".told")!.TextContent);
        Assert.StartsWith("1-3 1-3 1-2 1", Settings(newer.Page));
        // Undone, the one before is in use again.
        await tab.SendAsync(newer.Page, ".told form");
        Assert.StartsWith("0 1-3 1-2 1", Settings((await tab.OpenAsync($"/pieces/{pupil.Id}/1")).Page));
        // What came can be had again, byte by byte.
        using var client = _room.CreateClient();
        Assert.Equal(file, await client.GetByteArrayAsync($"/pieces/{pupil.Id}/1?handler=Original", TestContext.Current.CancellationToken));
    }

    [Theory]
    [InlineData("", "nothing.musicxml", "empty")]
    [InlineData("<html/>", "page.xml", "outermost element is 'html'")]
    [InlineData("<score-partwise><part id='a'/></score-partwise>", "rests.xml", "rests alone")]
    [InlineData("PK\u0003\u0004", "broken.mxl", "damaged")]
    public async Task What_is_no_piece_is_refused_by_name_and_nothing_is_lost(string content, string name, string says)
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 w C4 |");
        var page = (await BringInAsync(tab, pupil.Id, Encoding.Latin1.GetBytes(content), name)).Page;
        Assert.StartsWith(name, page.QuerySelector("[data-trouble]")!.TextContent.Trim(), StringComparison.Ordinal);
        Assert.Contains(says, page.QuerySelector("[data-trouble]")!.TextContent);
        Assert.Contains("Ferry Bell", page.QuerySelector("[data-library]")!.TextContent);
    }

    [Fact]
    public async Task Whatever_a_file_calls_its_elements_nothing_of_it_becomes_part_of_the_page()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        const string Evil = "<SCRIPT></SCRIPT><b id=\"evil\"/><!-- <script> -->";
        var xml = Encoding.UTF8.GetString(Score("plain")).Replace("<measure", $"{Evil}<measure", StringComparison.Ordinal);
        xml = xml.Replace("Trumpet", "&lt;/script&gt;&lt;b id='evil'&gt;", StringComparison.Ordinal);
        await BringInAsync(tab, pupil.Id, Encoding.UTF8.GetBytes(xml), "<b id='evil'>.musicxml");
        foreach (
            var path in new[]
            {
                $"/pieces/{pupil.Id}/1",
                $"/pieces/{pupil.Id}/1?part=choose",
                $"/pieces/{pupil.Id}/1/sheet",
                $"/pieces/{pupil.Id}?edit=1",
            }
        )
        {
            var page = (await tab.OpenAsync(path)).Page;
            Assert.Null(page.QuerySelector("#evil"));
            Assert.NotNull(page.QuerySelector("#stage"));
            Assert.NotNull(page.QuerySelector("#keys"));
        }
    }

    [Fact]
    public async Task A_line_of_a_score_is_chosen_and_one_for_somebody_else_is_written_anew()
    {
        var pupil = await _room.AddAsync("Ada", "trombone", "bass");
        var tab = Tab();
        var (_, page) = await BringInAsync(tab, pupil.Id, Score("a-score-of-three-the-second-chosen-by-name"), "trio.musicxml");
        var offers = page.QuerySelectorAll("[data-offers] tbody tr");
        Assert.Equal(["Flute", "Horn in F"], offers.Select(offer => offer.QuerySelector("th")!.TextContent.Trim()));
        Assert.All(offers, offer => Assert.Contains("transposed from concert pitch", offer.TextContent));
        var chosen = (await tab.SendAsync(page, "[data-offers] tbody tr:nth-child(2) form")).Page;
        // G4 at concert pitch lies on a trombone: second position, shortened.
        Assert.Equal("2", Settings(chosen));
        Assert.Contains("transposed from concert pitch", chosen.QuerySelector("h1")!.TextContent);
        var drawn = MusicXmlReader.Read(Encoding.UTF8.GetBytes(Drawn(chosen)));
        Assert.Equal(Core.Music.Clef.Bass, Assert.Single(drawn.Parts).Clef);
        // Asked for again, the lines are shown once more; an octave that is none is refused.
        var again = (await tab.OpenAsync($"/pieces/{pupil.Id}/1?part=choose")).Page;
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await tab.SendAsync(again, "[data-offers] tbody tr form", ("octaves", "9"))).Response.StatusCode
        );
    }

    [Fact]
    public async Task A_note_is_pinned_a_breath_forbidden_a_phrase_moved_and_all_of_it_undone()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (
            await WriteAsync(
                tab,
                pupil.Id,
                "Lantern Parade",
                "4/4 =160 e D4 E4 D4 E4 D4 E4 D4 E4 | q C4 D4 E4 F4 | h G4 G4 | q F4 E4 D4 C4 | w C4 | q C4 D4 E4 F4 | w G4 |"
            )
        ).Page;
        Assert.StartsWith("1-3 3 1-3 3", Settings(page));
        Assert.Contains(
            "1-2",
            Plan(page).GetProperty("ways").GetProperty($"{Plan(page).GetProperty("notes")[1].GetProperty("pitch")}").ToString()
        );
        var pinned = (await SettleAsync(tab, page, "pin", 1, "1-2")).Page;
        Assert.StartsWith("1-3 1-2 1-3", Settings(pinned));
        Assert.True(Plan(pinned).GetProperty("notes")[1].GetProperty("pinned").GetBoolean());
        Assert.Equal("", pinned.QuerySelector("[data-undo]")!.GetAttribute("data-undo"));
        var chart = (await SettleAsync(tab, page, "chart", 0, "yes")).Page;
        Assert.StartsWith("1-3 1-2 1-3 1-2 1-3 1-2 1-3 1-2", Settings(chart));
        var breaths = Plan(chart).GetProperty("breaths").EnumerateArray().Select(breath => breath.GetProperty("after").GetInt32()).ToList();
        var without = (await SettleAsync(tab, page, "breath", breaths[0], "no")).Page;
        Assert.DoesNotContain(
            breaths[0],
            Plan(without).GetProperty("breaths").EnumerateArray().Select(breath => breath.GetProperty("after").GetInt32())
        );
        var phrased = (await SettleAsync(tab, page, "phrase", 11, "yes")).Page;
        Assert.Contains(11, Plan(phrased).GetProperty("phrases").EnumerateArray().Select(phrase => phrase.GetProperty("to").GetInt32()));
        var slower = (await SettleAsync(tab, page, "tempo", 0, "60")).Page;
        Assert.Equal(60, Plan(slower).GetProperty("tempo").GetDouble());
        // It stands when the page is opened again; undone, it is as it was before the last change but one.
        Assert.StartsWith("1-3 1-2 1-3", Settings((await tab.OpenAsync($"/pieces/{pupil.Id}/1")).Page));
        var undone = (await SettleAsync(tab, page, "all", 0, "")).Page;
        Assert.StartsWith("1-3", Settings(undone));
        Assert.Equal("", await _room.InRecordAsync(db => db.PiecesFor.Select(each => each.Choices).SingleAsync()));
    }

    [Theory]
    [InlineData("pin", 0, "2", "Bar 1, C4: 2 does not give this note; 0 do.")]
    [InlineData("pin", 0, "x", "'x' is no setting")]
    [InlineData("pin", 99, "0", "the notes go from 0 to 3")]
    [InlineData("breath", 3, "yes", "after the last it is free")]
    [InlineData("tempo", 0, "1000", "10 to 400 beats")]
    [InlineData("dance", 0, "yes", "'dance' is nothing that is settled")]
    [InlineData("breath", 1, "perhaps", "'perhaps' is neither yes nor no")]
    [InlineData("all", 0, "pin 1=1-2; sing 4", "'sing' settles nothing")]
    public async Task What_cannot_be_settled_is_said_and_not_kept(string what, int at, string value, string says)
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 q C4 D4 E4 F4 |")).Page;
        var (response, _) = await SettleAsync(tab, page, what, at, value);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Contains(says, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        Assert.Equal("", await _room.InRecordAsync(db => db.PiecesFor.Select(each => each.Choices).SingleAsync()));
    }

    [Fact]
    public async Task A_typed_piece_is_engraved_up_to_its_slip_kept_and_changed()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await tab.OpenAsync($"/pieces/{pupil.Id}/write")).Page;
        async Task<JsonElement> EngraveAsync(string text)
        {
            using var body = new MultipartFormDataContent { { new StringContent(text), "text" } };
            var answer = await tab.PostAsync(page, $"/pieces/{pupil.Id}/write?handler=Engrave", body);
            return JsonDocument.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).RootElement;
        }

        Assert.Contains("<score-partwise", (await EngraveAsync("4/4 q C4 D4")).GetProperty("xml").GetString());
        var slip = await EngraveAsync("4/4 q C4 D4 e9 F4");
        Assert.Equal((12, 2), (slip.GetProperty("at").GetInt32(), slip.GetProperty("length").GetInt32()));
        Assert.Contains("Notes have capital letters: E9", slip.GetProperty("slip").GetString());
        Assert.Contains("<score-partwise", slip.GetProperty("xml").GetString());
        var refused = await WriteAsync(tab, pupil.Id, "Low Tide", "4/4 q C4 |x");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.Response.StatusCode);
        var kept = (await WriteAsync(tab, pupil.Id, "Low Tide", "4/4 q C4 D4 E4 F4 |")).Page;
        Assert.Equal("0 1-3 1-2 1", Settings(kept));
        // Changed, it is another version of the same piece.
        var change = (await tab.OpenAsync($"/pieces/{pupil.Id}/write?piece=1")).Page;
        Assert.Contains("q C4 D4 E4 F4", change.QuerySelector("textarea")!.TextContent);
        var changed = (await tab.SendAsync(change, "form[method=post]", ("title", "Low Tide Round"), ("text", "4/4 q G4 F4 E4 D4 |"))).Page;
        Assert.Contains("Low Tide Round", changed.QuerySelector("h1")!.TextContent);
        Assert.Equal("0 1 1-2 1-3", Settings(changed));
        Assert.Equal((1, 2), await _room.InRecordAsync(async db => (await db.Pieces.CountAsync(), await db.PieceVersions.CountAsync())));
    }

    [Fact]
    public async Task A_scale_is_written_and_what_does_not_fit_is_said()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        var page = (await tab.OpenAsync($"/pieces/{pupil.Id}/scale")).Page;
        var written = (
            await tab.SendAsync(page, "form[method=post]", ("tonic", "Bb3"), ("pattern", "Major"), ("octaves", "1"), ("tempo", "72"))
        ).Page;
        Assert.Equal(
            "4/4 Bb: =72 q Bb3 C4 D4 Eb4 | F4 G4 A4 Bb4 | A4 G4 F4 Eb4 | D4 C4 h Bb3 |",
            written.QuerySelector("textarea")!.TextContent.Trim()
        );
        var high = (await tab.SendAsync(page, "form[method=post]", ("tonic", "C5"), ("pattern", "Major"), ("octaves", "3"))).Page;
        Assert.Contains("is not on the", high.QuerySelector("[data-trouble]")!.TextContent);
    }

    [Fact]
    public async Task Everything_can_be_taken_away_and_printed()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 =60 q C4 D4 E4 F4 | h G4 , G4 | w C4 |");
        using var client = _room.CreateClient();
        Task<byte[]> Get(string what) =>
            client.GetByteArrayAsync($"/pieces/{pupil.Id}/1?handler={what}", TestContext.Current.CancellationToken);
        var file = Encoding.UTF8.GetString(await Get("File&alone=true&packed=false"));
        Assert.Contains("<fingering placement=\"below\">1-3</fingering>", file);
        Assert.Single(MusicXmlReader.Read(await Get("File&alone=false&packed=true")).Parts);
        Assert.StartsWith("index,bar,beat", Encoding.UTF8.GetString(await Get("Csv")), StringComparison.Ordinal);
        Assert.Equal("MThd"u8.ToArray(), (await Get("Midi"))[..4]);
        Assert.Equal("[]", Encoding.UTF8.GetString(await Get("Others")));
        foreach (
            var (sheet, says) in new[]
            {
                ("study", "Phrase"),
                ("settings", "Fingered part"),
                ("breaths", "Breath part"),
                ("practice", "Practice plan"),
            }
        )
            Assert.Contains(
                says,
                (await tab.OpenAsync($"/pieces/{pupil.Id}/1/sheet?of={sheet}")).Page.QuerySelector("#stage")!.TextContent
            );
    }

    [Fact]
    public async Task A_piece_is_named_found_taken_out_and_brought_back()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 w C4 |");
        var edit = (await tab.OpenAsync($"/pieces/{pupil.Id}?edit=1")).Page;
        await tab.SendAsync(edit, "[data-name]", ("level", "2"), ("tags", "first tune"));
        Assert.Contains("Ada", (await tab.OpenAsync($"/pieces/{pupil.Id}?find=tune")).Page.QuerySelector("[data-library]")!.TextContent);
        Assert.Contains("Nothing in the library", (await tab.OpenAsync($"/pieces/{pupil.Id}?find=zebra")).Page.Body!.TextContent);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await tab.SendAsync(edit, "[data-name]", ("title", " "))).Response.StatusCode);
        var gone = (await tab.SendAsync((await tab.OpenAsync($"/pieces/{pupil.Id}")).Page, "form[action*=Drop]")).Page;
        Assert.Equal(HttpStatusCode.NotFound, (await tab.OpenAsync($"/pieces/{pupil.Id}/1")).Response.StatusCode);
        await tab.SendAsync(gone, ".told form");
        Assert.Equal(HttpStatusCode.OK, (await tab.OpenAsync($"/pieces/{pupil.Id}/1")).Response.StatusCode);
        // Without somebody who plays the library is there all the same.
        Assert.Contains("Ferry Bell", (await Tab().OpenAsync("/pieces")).Page.QuerySelector("[data-library]")!.TextContent);
    }

    [Fact]
    public async Task Looking_at_a_piece_makes_nobody_play_it()
    {
        var pupil = await _room.AddAsync("Ada");
        var other = await _room.AddAsync("Ben");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 q C4 D4 E4 F4 |");
        var page = (await tab.OpenAsync($"/pieces/{other.Id}/1")).Page;
        Assert.Equal("0 1-3 1-2 1", Settings(page));
        await tab.OpenAsync($"/pieces/{other.Id}/1/sheet");
        Assert.Equal(1, await _room.InRecordAsync(db => db.PiecesFor.CountAsync()));
        // What is settled is kept.
        await SettleAsync(tab, page, "breath", 1, "no");
        Assert.Equal(
            ["", "hold 1"],
            await _room.InRecordAsync(db => db.PiecesFor.OrderBy(each => each.PupilId).Select(each => each.Choices).ToListAsync())
        );
    }

    [Fact]
    public async Task Another_instrument_is_asked_anew()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = Tab();
        await WriteAsync(tab, pupil.Id, "Ferry Bell", "4/4 w C4 |");
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(set =>
                set.SetProperty(each => each.InstrumentId, "trombone").SetProperty(each => each.ReadingId, "bass")
            )
        );
        var page = (await tab.OpenAsync($"/pieces/{pupil.Id}/1")).Page;
        Assert.Contains("transposed from concert pitch", page.QuerySelector("[data-offers]")!.TextContent);
        Assert.Equal("1", Settings((await tab.SendAsync(page, "[data-offers] form")).Page));
    }
}
