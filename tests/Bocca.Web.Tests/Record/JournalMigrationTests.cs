using System.Text.Json.Nodes;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Breath;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Notes;
using Bocca.Web.Pages.Setup;
using Bocca.Web.Pages.Slurs;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests.Record;

/// <summary>A record that the version before the journal wrote (kept as a dump) is carried over row by row, payloads included.</summary>
public sealed class JournalMigrationTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-old").FullName;

    private string File_ => Path.Combine(_folder, "bocca.db");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    private SqliteConnection Open(string? file = null)
    {
        var connection = new SqliteConnection($"Data Source={file ?? File_};Pooling=False");
        connection.Open();
        return connection;
    }

    private static List<Dictionary<string, object?>> Rows(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var rows = new List<Dictionary<string, object?>>();
        while (reader.Read())
            rows.Add(
                Enumerable.Range(0, reader.FieldCount).ToDictionary(reader.GetName, i => reader.IsDBNull(i) ? null : reader.GetValue(i))
            );
        return rows;
    }

    private void WriteOld()
    {
        using var connection = Open();
        using var command = connection.CreateCommand();
        command.CommandText =
            File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Record", "before-the-journal.sql"))
            // What nobody saved is of today, or it would rightly be cleared away at once.
            + "UPDATE Takes SET RecordedAt = strftime('%Y-%m-%d %H:%M:%f', 'now') WHERE Kept = 0;";
        command.ExecuteNonQuery();
    }

    /// <summary>Every column of every old row stands in an entry, its payload or its approach.</summary>
    [Fact]
    public async Task Every_row_is_carried_over_with_all_it_had()
    {
        WriteOld();
        Dictionary<string, List<Dictionary<string, object?>>> old;
        using (var before = Open())
            old = Tables.ToDictionary(table => table.Table, table => Rows(before, $"SELECT * FROM {table.Table} ORDER BY Id"));
        await using var room = new Room { UseFolder = _folder };
        await room.AddAsync("Somebody new");

        using var now = Open();
        var entries = Rows(
            now,
            "SELECT e.*, a.Text AS ApproachText, p.Version, p.Body FROM Entries e LEFT JOIN Approaches a ON a.Id = e.ApproachId LEFT "
                + "JOIN Payloads p ON p.EntryId = e.Id ORDER BY e.Id"
        );
        Assert.Equal(old.Sum(table => table.Value.Count), entries.Count);
        foreach (var (table, kind, at) in Tables)
        {
            var carried = entries.Where(entry => (string)entry["Kind"]! == kind).ToList();
            Assert.Equal(old[table].Count, carried.Count);
            foreach (var (row, entry) in old[table].Zip(carried))
                Same(row, entry, at);
        }

        Assert.Empty(Rows(now, "SELECT name FROM sqlite_master WHERE type = 'table' AND name IN ('Takes', 'Tones', 'Slurs', 'Steps')"));
        Assert.Empty(Rows(now, "PRAGMA foreign_key_check"));
    }

    [Fact]
    public async Task What_was_carried_over_opens_on_its_pages_and_gives_its_figures()
    {
        WriteOld();
        using (var old = Open())
            Rows(old, "UPDATE Takes SET Source = 'Microphone'");
        await using var room = new Room { UseFolder = _folder };
        var stops = room.Services.GetRequiredService<Stops>();
        var entries = await room.InRecordAsync(db =>
            db.Entries.IgnoreQueryFilters().Include(entry => entry.Payload).Include(entry => entry.Figures).ToListAsync()
        );
        foreach (var entry in entries)
        {
            var expected = entry is { Kept: true, DeletedAt: null } ? stops.Kind(entry.Kind).FiguresOf(entry).Count() : 0;
            Assert.Equal(expected, entry.Figures.Count);
        }

        Assert.Contains(entries, entry => entry.Kind == BuzzStop.Takes.Id && entry.Figures.Count > 3);
        Assert.All(entries.Where(entry => entry.Kind == BuzzStop.Takes.Id), take => Assert.InRange(take.ElapsedSeconds!.Value, 20, 60));
        var tab = new Tab(room.CreateClient());
        foreach (var entry in entries.Where(entry => entry.DeletedAt is null && stops.Kind(entry.Kind).Opens is not null))
        {
            var (response, page) = await tab.OpenAsync(stops.Kind(entry.Kind).Opens!(entry));
            Assert.True(response.IsSuccessStatusCode, $"{entry.Kind} {entry.Id}: {response.StatusCode}");
            Assert.NotNull(page.QuerySelector("#stage"));
        }
    }

    [Fact]
    public async Task A_copy_is_made_beside_the_record_before_it_is_touched()
    {
        WriteOld();
        await using (var room = new Room { UseFolder = _folder })
            await room.AddAsync("Somebody new");
        using var copy = Open(Directory.GetFiles(_folder, "bocca.db.before-*").Single());
        Assert.Equal(3L, Rows(copy, "SELECT COUNT(*) AS N FROM Takes")[0]["N"]);
        Assert.Empty(Rows(copy, "SELECT name FROM sqlite_master WHERE name = 'Entries'"));
    }

    /// <summary>A process that dies in the middle leaves the transaction open, and with it the record as it was.</summary>
    [Fact]
    public async Task A_step_that_breaks_off_leaves_the_old_record_whole_and_goes_through_the_next_time()
    {
        WriteOld();
        // The copying of steps comes last; a payload that is no JSON breaks the one of takes before it.
        using (var broken = Open())
            Rows(broken, "UPDATE Takes SET VerdictJson = 'torn' WHERE Id = 2");
        await Assert.ThrowsAnyAsync<Exception>(async () =>
        {
            await using var room = new Room { UseFolder = _folder };
            await room.AddAsync("Somebody new");
        });
        using (var after = Open())
        {
            Assert.Equal(3L, Rows(after, "SELECT COUNT(*) AS N FROM Takes")[0]["N"]);
            Assert.Empty(Rows(after, "SELECT name FROM sqlite_master WHERE name = 'Entries'"));
            Rows(after, "UPDATE Takes SET VerdictJson = (SELECT VerdictJson FROM Takes WHERE Id = 7) WHERE Id = 2");
        }

        await using var again = new Room { UseFolder = _folder };
        Assert.Equal(
            3,
            await again.InRecordAsync(db => db.Entries.IgnoreQueryFilters().CountAsync(entry => entry.Kind == BuzzStop.Takes.Id))
        );
    }

    private static readonly (string Table, string Kind, string At)[] Tables =
    [
        ("Takes", BuzzStop.Takes.Id, "RecordedAt"),
        ("Tones", ToneStop.Takes.Id, "RecordedAt"),
        ("Slurs", SlursStop.Takes.Id, "RecordedAt"),
        ("Hands", NotesStop.Hands.Id, "At"),
        ("Breaths", BreathStop.Drills.Id, "At"),
        ("Balloons", BreathStop.Balloons.Id, "At"),
        ("Placements", SetupStop.Placements.Id, "At"),
        ("Noticed", SetupStop.Seen.Id, "At"),
        ("Ticks", SetupStop.Ticks.Id, "At"),
        ("Advice", SetupStop.Advice.Id, "At"),
        ("Notes", NotesStop.Notes.Id, "SavedAt"),
        ("Measured", NotesStop.Measured.Id, "At"),
        ("Steps", Steps.Kind.Id, "AcceptedAt"),
    ];

    /// <summary>
    /// Where an old column stands now, by its name; what is told in the body stands under the same name in small letters.
    /// </summary>
    private static readonly Dictionary<string, string> Columns = new()
    {
        ["SlurId"] = "DrillId",
        ["CheckId"] = "DrillId",
        ["ReadingId"] = "DrillId",
        ["Text"] = "Subject",
        ["Notes"] = "Subject",
        ["Signal"] = "Subject",
        ["Signals"] = "Subject",
        ["SymptomId"] = "Subject",
        ["Written"] = "Subject",
        ["Cue"] = "Summary",
        ["Sentences"] = "Summary",
        ["On"] = "Stage",
        ["Clean"] = "Came",
        ["Changes"] = "Asked",
        ["Right"] = "Came",
        ["DrilledSeconds"] = "ElapsedSeconds",
    };

    /// <summary>What stands in the result of an entry, by the column of before.</summary>
    private static readonly Dictionary<string, string> Results = new()
    {
        ["Difficulty"] = "points",
        ["Litres"] = "litres",
        ["ShareAbove"] = "above",
        ["Rung"] = "rung",
    };

    private static void Same(Dictionary<string, object?> row, Dictionary<string, object?> entry, string atColumn)
    {
        var body = entry["Body"] is string text ? JsonNode.Parse(text)! : null;
        foreach (var (name, value) in row)
        {
            if (name is "Id" or "TakeId" or "HeldBreaths" or "SteadinessCents")
                continue;
            // What the practice player played is nobody's: it is taken out as of when it was made.
            if (name == "DeletedAt" && value is null && (entry["Source"] as string) == "PracticePlayer")
                Assert.Equal(entry["At"], entry[name]);
            else if (name == atColumn || name is "DeletedAt" or "DoneAt")
                Assert.Equal(value is null ? null : Milliseconds((string)value), entry[name == atColumn ? "At" : name]);
            else if (name == "Place")
                Assert.Equal(((string)value!).ToLowerInvariant(), entry["Subject"]);
            else if (name is "Even" or "Measured")
                Assert.Equal((long)value! == 1, name == "Even" ? (string?)entry["Outcome"] == "Passed" : entry["Source"] is not null);
            else if (name == "Passed")
                Assert.Equal((long)value! == 1 ? "Passed" : "Repeat", entry["Outcome"]);
            else if (name == "Remark")
                Assert.Equal((string)value! == "" ? "As measured." : value, entry["Summary"]);
            else if (name.EndsWith("Json", StringComparison.Ordinal))
                Assert.True(JsonNode.DeepEquals(JsonNode.Parse((string)value!), body![Small(name[..^4])]), name);
            else if (Results.TryGetValue(name, out var number))
                Assert.Equal(Convert.ToDouble(value), (double)JsonNode.Parse((string)entry["Result"]!)![number]!);
            else if (name == "ApproachText")
                Assert.Equal((string)value! == "" ? null : value, entry[name]);
            else if (!Columns.ContainsKey(name) && body?.AsObject().ContainsKey(Small(name)) == true)
                SameInBody(name, value, body[Small(name)]);
            else
                Assert.Equal(value, Like(value, entry[Columns.GetValueOrDefault(name, name)]));
        }
    }

    private static void SameInBody(string name, object? value, JsonNode? stands)
    {
        if (name is "Stopped" or "ThirdForTwoThree")
            Assert.Equal((long)value! == 1, stands!.GetValue<bool>());
        else if (value is double or long)
            Assert.Equal(Convert.ToDouble(value), stands!.GetValue<double>());
        else
            Assert.Equal(value, stands?.GetValue<string>());
    }

    private static object? Like(object? value, object? stands) => value is long && stands is double number ? (long)number : stands;

    private static string Small(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    private static long Milliseconds(string text) =>
        new DateTimeOffset(DateTime.SpecifyKind(DateTime.Parse(text), DateTimeKind.Utc)).ToUnixTimeMilliseconds();
}
