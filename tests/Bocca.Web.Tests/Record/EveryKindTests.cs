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
            command.CommandText =
                "PRAGMA foreign_keys = OFF;" + File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Record", "every-kind.sql"));
            command.ExecuteNonQuery();
        }

        _room = new Room { UseFolder = _folder, KeepFolder = true };
    }

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
