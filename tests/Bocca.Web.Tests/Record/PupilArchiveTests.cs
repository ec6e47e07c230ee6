using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Bocca.Web.Record.Archive;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests.Record;

/// <summary>A pupil goes out as one file and comes in as another pupil with the same record; a file that is none brings nobody.</summary>
public sealed class PupilArchiveTests : IDisposable
{
    private const string Score = """
        <score-partwise version="4.0"><work><work-title>Up and down</work-title></work>
        <part-list><score-part id="P1"><part-name>Trumpet</part-name></score-part></part-list><part id="P1"><measure number="1">
        <attributes><divisions>1</divisions><time><beats>2</beats><beat-type>4</beat-type></time></attributes>
        <note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration><type>quarter</type></note>
        <note><pitch><step>D</step><octave>4</octave></pitch><duration>1</duration><type>quarter</type></note>
        </measure></part></score-partwise>
        """;

    private readonly Room _room = new();
    private readonly Tab _tab;

    public PupilArchiveTests() => _tab = new Tab(_room.CreateClient());

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task What_goes_out_comes_in_as_another_pupil_with_the_same_record()
    {
        var pupil = await FilledAsync();
        var file = await ArchiveAsync(pupil.Id, notes: true);
        var (answer, page) = await BringInAsync(file);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Contains("Ada is on the Desk, with 8 entries of the record.", page.QuerySelector(".told")!.TextContent);
        var came = await _room.InRecordAsync(db => db.Pupils.OrderBy(each => each.Id).LastAsync());
        Assert.NotEqual(pupil.Key, came.Key);
        Assert.Equal(Comparable(file), Comparable(await ArchiveAsync(came.Id, notes: true)));
        // The score was in the library already; figures and the step's reason follow the entries here.
        Assert.Equal(1, await _room.InRecordAsync(db => db.Pieces.CountAsync()));
        var figures = await _room.InRecordAsync(db => db.Figures.GroupBy(figure => figure.PupilId).Select(of => of.Count()).ToListAsync());
        Assert.Equal([figures[0], figures[0]], figures);
        var step = await _room.InRecordAsync(db =>
            db.Entries.Include(entry => entry.Payload).SingleAsync(entry => entry.PupilId == came.Id && entry.Kind == "step")
        );
        Assert.True(
            await _room.InRecordAsync(db =>
                db.Entries.AnyAsync(entry => entry.Id == Steps.Kind.Read(step).Because && entry.PupilId == came.Id)
            )
        );
    }

    [Fact]
    public async Task It_is_read_elsewhere_too_and_tells_what_is_in_it()
    {
        var pupil = await FilledAsync();
        using var zip = new ZipArchive(new MemoryStream(await ArchiveAsync(pupil.Id, notes: false)));
        Assert.Equal(
            ["README.txt", "figures.csv", "pieces/1.musicxml", "pupil.json", "record.csv"],
            zip.Entries.Select(each => each.FullName).Order()
        );
        var rows = Text(zip, "record.csv").Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.StartsWith("Id,At,Kind,What,", rows[0], StringComparison.Ordinal);
        // Seven stand in it: the remark for the teacher alone is asked for apart.
        Assert.Equal(1 + 7, rows.Length);
        Assert.DoesNotContain("cries at home", Text(zip, "pupil.json"), StringComparison.Ordinal);
        Assert.Contains("Remarks for the teacher alone are not in it.", Text(zip, "README.txt"), StringComparison.Ordinal);
        Assert.Contains("'=cmd", Text(zip, "record.csv"), StringComparison.Ordinal);
    }

    /// <summary>A reason goes out only under a consent that lets it be seen today; without, the care that it asks for.</summary>
    [Theory]
    [InlineData(true, 30, true)]
    [InlineData(false, 30, false)]
    [InlineData(true, -1, false)]
    public void Reasons_of_health_are_told_only_under_a_consent_that_shows_them(bool saysWhy, int daysLeft, bool told)
    {
        var today = new DateOnly(2026, 12, 2);
        var pupil = new Pupil
        {
            Name = "Ada",
            InstrumentId = "trumpet-bb",
            ReadingId = "treble",
            Health = BreathHealth.Breathing,
            Mouth = MouthNote.Braces,
            ConsentBy = "a guardian",
            ConsentOn = today.AddDays(-60),
            ConsentUntil = today.AddDays(daysLeft),
            ConsentFor = "asthma",
            ConsentSaysWhy = saysWhy,
        };
        var facts = PupilArchive.Facts(pupil, today);
        Assert.Equal(told, facts.Health is not null);
        Assert.Equal(!told, facts.EasyBreaths);
        if (told)
            Assert.Equal([BreathHealth.Breathing], facts.Health!.Reasons);
    }

    [Fact]
    public async Task A_complaint_stays_behind_where_no_consent_shows_it()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.WriteAsync(journal => journal.ComplainAsync(pupil, Complaint.All[0], ""));
        await _room.InRecordAsync(db => db.Entries.ExecuteUpdateAsync(to => to.SetProperty(entry => entry.Kept, true)));
        Assert.Empty(Whole(await ArchiveAsync(pupil.Id, notes: true))["entries"]!.AsArray());
        await _room.InRecordAsync(db =>
            db.Pupils.ExecuteUpdateAsync(to =>
                to.SetProperty(each => each.ConsentBy, "a guardian")
                    .SetProperty(each => each.ConsentOn, DateOnly.FromDateTime(DateTime.UtcNow.AddDays(-9)))
                    .SetProperty(each => each.ConsentUntil, DateOnly.FromDateTime(DateTime.UtcNow.AddDays(9)))
                    .SetProperty(each => each.ConsentSaysWhy, true)
            )
        );
        Assert.Single(Whole(await ArchiveAsync(pupil.Id, notes: true))["entries"]!.AsArray());
    }

    [Theory]
    [InlineData("form", "3", "newer Bocca")]
    [InlineData("form", "0", "which is none")]
    [InlineData("pupil.name", "null", "pupil.json cannot be read")]
    [InlineData("pupil.name", "\"\"", "A pupil needs a name.")]
    [InlineData("pupil.instrument", "\"kazoo\"", "There is no instrument 'kazoo' here.")]
    [InlineData("pupil.bornIn", "1066", "Nobody born in 1066")]
    [InlineData("pupil.own", "\"nothing of ours\"", "settings cannot be read")]
    [InlineData("pupil.stage", "2", "pupil.json cannot be read")]
    [InlineData("entries", "{}", "pupil.json cannot be read")]
    public async Task A_file_that_is_none_brings_nobody_and_says_why(string where, string value, string why)
    {
        var pupil = await _room.AddAsync("Ada");
        var (answer, page) = await BringInAsync(Changed(await ArchiveAsync(pupil.Id, notes: false), where, JsonNode.Parse(value)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains(why, page.QuerySelector("#import-trouble")!.TextContent);
        Assert.Equal(1, await _room.InRecordAsync(db => db.Pupils.CountAsync()));
    }

    /// <summary>Files of the first form had a number of every kind in one place.</summary>
    [Fact]
    public async Task A_file_of_the_first_form_comes_with_its_numbers()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.WriteAsync(journal =>
            journal.WriteAsync(
                BreathStop.Balloons,
                new Entry
                {
                    PupilId = pupil.Id,
                    Kind = BreathStop.Balloons.Id,
                    Result = EntryResult.Of(BreathStop.Litres, 2.5),
                    At = DateTime.UtcNow.AddHours(-2),
                },
                new BalloonPayload(53),
                ""
            )
        );
        var file = Changed(await ArchiveAsync(pupil.Id, notes: true), "form", JsonNode.Parse("1"));
        file = Changed(Changed(file, "entries.0.result", null), "entries.0.level", JsonNode.Parse("2.5"));
        await BringInAsync(file);
        var came = await _room.InRecordAsync(db => db.Entries.Where(entry => entry.PupilId != pupil.Id).SingleAsync());
        Assert.Equal(2.5, came.Result[BreathStop.Litres]);
    }

    /// <summary>An entry that its page could not read is left out, and told; the others come.</summary>
    [Theory]
    [InlineData("kind", "\"poem\"", "No stop knows entries of the kind 'poem'")]
    [InlineData("at", "\"9999-12-31T00:00:00Z\"", "9999-12-31")]
    [InlineData("body", "null", "came without its payload")]
    [InlineData("body.verdict", "null", "verdict")]
    [InlineData("body.measures", "null", "measures")]
    [InlineData("body.verdict.outcome", "7", "outcome")]
    [InlineData("bodyForm", "99", "newer Bocca")]
    [InlineData("tempo", "1e300", "A number is none")]
    [InlineData("source", "\"PracticePlayer\"", "played by the practice player")]
    [InlineData("result", "{\"code\":7}", "no result")]
    [InlineData("result", "{\"points\":1e999}", "result")]
    [InlineData("instrument", "\"kazoo\"", "There is no instrument 'kazoo' here")]
    public async Task An_entry_that_cannot_be_read_is_left_out_and_told(string part, string value, string why)
    {
        var pupil = await FilledAsync();
        var file = Changed(await ArchiveAsync(pupil.Id, notes: true), $"entries.0.{part}", JsonNode.Parse(value));
        var (_, page) = await BringInAsync(file);
        var told = page.QuerySelector(".told")!.TextContent;
        Assert.Contains("with 7 entries", told);
        Assert.Contains("Left out: ", told);
        Assert.Contains(why, told);
    }

    [Fact]
    public async Task A_file_that_swells_or_is_damaged_is_refused()
    {
        using var swelling = new MemoryStream();
        using (var zip = new ZipArchive(swelling, ZipArchiveMode.Create, leaveOpen: true))
        await using (var entry = await zip.CreateEntry("pupil.json", CompressionLevel.Fastest).OpenAsync(Stop))
            for (var i = 0; i <= PupilImport.MostUnpacked >> 20; i++)
                await entry.WriteAsync(new byte[1 << 20], Stop);
        foreach (
            var (file, why) in new[]
            {
                (swelling.ToArray(), "larger than 256 MB unpacked"),
                ([1, 2, 3], "no pupil's file, or it is damaged"),
                (Zip(("other.txt", [])), "holds no pupil.json"),
                (Zip(("pupil.json", Encoding.UTF8.GetBytes("{"))), "pupil.json cannot be read"),
            }
        )
        {
            var (answer, page) = await BringInAsync(file);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains(why, page.QuerySelector("#import-trouble")!.TextContent);
        }
    }

    /// <summary>A pupil with something of everything that goes with one.</summary>
    private async Task<Pupil> FilledAsync()
    {
        var pupil = await _room.AddAsync("Ada");
        await _room.InRecordAsync(async db =>
        {
            db.Pins.Add(
                new NotePin
                {
                    PupilId = pupil.Id,
                    InstrumentId = "trumpet-bb",
                    Midi = 64,
                    Setting = "1-2",
                    At = DateTime.UtcNow,
                }
            );
            db.FirstNoteOrders.Add(
                new FirstNoteOrder
                {
                    PupilId = pupil.Id,
                    InstrumentId = "trumpet-bb",
                    Notes = "F4 Bb3",
                }
            );
            db.SettingChanges.Add(
                new SettingChange
                {
                    PupilId = pupil.Id,
                    Path = "first.trumpet-bb",
                    After = "F4 Bb3",
                    At = DateTime.UtcNow,
                }
            );
            db.Recalls.Add(
                new RecallCard
                {
                    PupilId = pupil.Id,
                    InstrumentId = "trumpet-bb",
                    Item = "D4",
                    StabilityDays = 3,
                    Difficulty = 5,
                    SeenAt = DateTime.UtcNow,
                    DueAt = DateTime.UtcNow.AddDays(3),
                    Times = 2,
                }
            );
            return await db.SaveChangesAsync();
        });
        await _room.WriteAsync(async journal =>
        {
            for (var i = 5; i > 0; i--)
            {
                var (entry, payload) = BuzzTakes.Of(pupil, DateTime.UtcNow.AddDays(-i), i);
                entry.Kept = true;
                await journal.WriteAsync(BuzzStop.Takes, entry, payload, $"{ApproachPreset.AirFirst}");
                if (i == 1)
                    await journal.AcceptAsync(entry, new NextStep(TakeJudge.Place, "sound4-rest4", "Air first.", "It came late."), "");
            }

            foreach (var (subject, words) in new[] { ("", "=cmd lips"), (PracticeStop.Private, "cries at home") })
                await journal.WriteAsync(
                    PracticeStop.Remarks,
                    new Entry
                    {
                        PupilId = pupil.Id,
                        Kind = PracticeStop.Remarks.Id,
                        At = DateTime.UtcNow,
                        Subject = subject,
                        Summary = words,
                    },
                    ""
                );
        });
        var (_, page) = await _tab.OpenAsync($"/pieces/{pupil.Id}");
        using var score = new MultipartFormDataContent { { new ByteArrayContent(Encoding.UTF8.GetBytes(Score)), "score", "up.musicxml" } };
        await _tab.PostAsync(page, $"/pieces/{pupil.Id}", score);
        await _room.InRecordAsync(async db =>
        {
            db.PiecesFor.Add(
                new PieceFor
                {
                    PupilId = pupil.Id,
                    PieceId = 1,
                    InstrumentId = "trumpet-bb",
                    Line = "0/1/1",
                    Tempo = 72,
                }
            );
            return await db.SaveChangesAsync();
        });
        return await _room.InRecordAsync(db => db.Pupils.FirstAsync(each => each.Id == pupil.Id));
    }

    private async Task<byte[]> ArchiveAsync(int pupilId, bool notes) =>
        await _room.CreateClient().GetByteArrayAsync($"/pupils/archive/{pupilId}?notes={notes}", Stop);

    private async Task<(HttpResponseMessage Response, AngleSharp.Html.Dom.IHtmlDocument Page)> BringInAsync(byte[] file)
    {
        var (_, page) = await _tab.OpenAsync("/pupils/import");
        using var body = new MultipartFormDataContent { { new ByteArrayContent(file), "archive", "ada.zip" } };
        return await Tab.ReadAsync(await _tab.PostAsync(page, "/pupils/import", body));
    }

    private static string Text(ZipArchive zip, string name)
    {
        using var reader = new StreamReader(zip.GetEntry(name)!.Open());
        return reader.ReadToEnd();
    }

    private static JsonNode Whole(byte[] file)
    {
        using var zip = new ZipArchive(new MemoryStream(file));
        return JsonNode.Parse(Text(zip, "pupil.json"))!;
    }

    private static byte[] Zip(params (string Name, byte[] Content)[] files)
    {
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }

        return packed.ToArray();
    }

    /// <summary>The same file with one value of its <c>pupil.json</c> in another's place; null takes it out.</summary>
    private static byte[] Changed(byte[] file, string path, JsonNode? value)
    {
        var whole = Whole(file);
        var (parts, at) = (path.Split('.'), whole);
        foreach (var part in parts[..^1])
            at = int.TryParse(part, out var index) ? at[index]! : at[part]!;
        if (value is null)
            at.AsObject().Remove(parts[^1]);
        else
            at[parts[^1]] = value;
        return Zip(("pupil.json", Encoding.UTF8.GetBytes(whole.ToJsonString())));
    }

    /// <summary>What is the same of a pupil in every record: without numbers and moments of this one.</summary>
    private static string Comparable(byte[] file)
    {
        var whole = Whole(file);
        whole["made"] = null;
        foreach (var (entry, i) in whole["entries"]!.AsArray().Select((entry, i) => (entry!, i)))
        {
            entry["id"] = i;
            if (entry["kind"]!.GetValue<string>() == "step")
                entry["body"]!["because"] = null;
        }

        return whole.ToJsonString();
    }
}
