using System.Net;
using System.Text.Json.Nodes;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests.Record;

/// <summary>
/// A record with entries of every kind, written by the version of 2 December 2026 (kept as a dump): whatever changes, it is read, shown
/// and measured as it was.
/// </summary>
public sealed class EveryKindTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-every-kind").FullName;
    private readonly Room _room;

    public EveryKindTests()
    {
        using (var connection = new SqliteConnection($"Data Source={RecordFolder.RecordIn(_folder)};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = Dump;
            command.ExecuteNonQuery();
        }

        _room = new Room { UseFolder = _folder, KeepFolder = true };
    }

    private static string Dump =>
        "PRAGMA foreign_keys = OFF;" + File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Record", "every-kind.sql"));

    private Stops Stops => _room.Services.GetRequiredService<Stops>();

    public void Dispose()
    {
        _room.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    [Fact]
    public async Task Every_kind_stands_in_it()
    {
        var kinds = await _room.InRecordAsync(db => db.Entries.Select(entry => entry.Kind).Distinct().ToListAsync());
        Assert.Equal(Stops.Kinds.Select(kind => kind.Id).Order(), kinds.Order());
    }

    [Fact]
    public async Task Every_payload_is_read_whole_and_measures_as_it_did()
    {
        var entries = await _room.InRecordAsync(db => db.Entries.Include(each => each.Payload).Include(each => each.Figures).ToListAsync());
        Assert.NotEmpty(entries);
        foreach (var entry in entries)
        {
            var kind = Stops.Kinds.Single(each => each.Id == entry.Kind);
            var told = $"{entry.Kind} {entry.Id}";
            if (entry.Payload is { } payload)
                Assert.True(JsonNode.DeepEquals(JsonNode.Parse(payload.Body), JsonNode.Parse(kind.Checked(payload)!.Body)), told);
            if (entry.Figures.Count > 0)
                Assert.Equal(
                    entry.Figures.Select(figure => (told, figure.Name, figure.Item, $"{figure.Value:0.######}", figure.Count)).Order(),
                    kind.FiguresOf(entry)
                        .Select(figure => (told, figure.Kind.Name, figure.Item, $"{figure.Value:0.######}", figure.Count))
                        .Order()
                );
        }
    }

    /// <summary>What stood in one column of all kinds is the number of a result, and no payload is read for it.</summary>
    [Fact]
    public async Task Every_number_that_stood_in_a_column_of_its_own_is_in_the_result()
    {
        var stood = new Dictionary<long, double>();
        using (var connection = new SqliteConnection("Data Source=:memory:"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = Dump;
            command.ExecuteNonQuery();
            command.CommandText = "SELECT Id, Level FROM Entries WHERE Level IS NOT NULL";
            using var rows = command.ExecuteReader();
            while (rows.Read())
                stood[rows.GetInt64(0)] = rows.GetDouble(1);
        }

        var entries = await _room.InRecordAsync(db => db.Entries.ToListAsync());
        Assert.True(stood.Count > 10);
        foreach (var entry in entries)
        {
            var numbers = JsonNode.Parse(entry.ResultText ?? "{}")!.AsObject();
            var kind = Stops.Kinds.Single(each => each.Id == entry.Kind);
            if (stood.TryGetValue(entry.Id, out var level))
            {
                var (name, value) = JsonNode.Parse(kind.OfOlderLevel!(level).Written()!)!.AsObject().Single();
                Assert.Equal((entry.Kind, $"{value}"), (entry.Kind, $"{numbers[name]}"));
            }

            Assert.InRange(entry.ResultText?.Length ?? 0, 0, EntryResult.LongestText);
        }

        // Of a take, what differed most stands beside it.
        var late = entries.First(entry => entry is { Kind: "buzz", Outcome: Core.Judging.Outcome.Repeat });
        Assert.Equal("short", late.Result.Code);
        Assert.True(late.Result[ResultNumber.Measured] > 0);
        await _room.InRecordAsync(async db =>
        {
            Assert.Equal(
                [2, 0, 0],
                await db
                    .Database.SqlQueryRaw<long>(
                        """
                        SELECT user_version AS Value FROM pragma_user_version
                        UNION ALL SELECT COUNT(*) FROM pragma_table_info('Entries') WHERE name = 'Level'
                        UNION ALL SELECT COUNT(*) FROM sqlite_master WHERE name = 'Renewals'
                        """
                    )
                    .ToListAsync()
            );
            return 0;
        });
    }

    [Fact]
    public async Task Every_entry_is_listed_and_opened()
    {
        var client = _room.CreateClient();
        var entries = await _room.InRecordAsync(db => db.Entries.ToListAsync());
        foreach (var entry in entries)
        {
            var kind = Stops.Kinds.Single(each => each.Id == entry.Kind);
            Assert.NotEmpty(kind.Title(entry));
            if (kind.Opens?.Invoke(entry) is { } address)
                Assert.Equal((address, HttpStatusCode.OK), (address, (await client.GetAsync(address)).StatusCode));
        }
    }
}
