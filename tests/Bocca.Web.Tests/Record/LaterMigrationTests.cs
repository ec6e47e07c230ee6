using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Bocca.Web.Tests.Record;

/// <summary>Later versions carry over what an earlier one wrote.</summary>
public sealed class LaterMigrationTests : IDisposable
{
    private readonly SqliteConnection _connection = new("Data Source=:memory:");

    public LaterMigrationTests() => _connection.Open();

    public void Dispose() => _connection.Dispose();

    [Fact]
    public async Task Quick_breaths_keep_their_patterns_and_the_room_one_order_of_first_notes()
    {
        await using var db = new BoccaDb(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(_connection).Options);
        var migrator = db.GetService<IMigrator>();
        await migrator.MigrateAsync("FirstNotes", TestContext.Current.CancellationToken);
        await WriteAsync(
            "INSERT INTO Pupils (Id, Name, InstrumentId, ReadingId, Points, Health, DoctorAgrees, Stage, Started, Remark, Version) "
                + "VALUES (1, 'Ada', 'trumpet-bb', 'treble', '', 0, 0, 'FirstNotes', '2026-09-01', '', "
                + "'8b2f6c1e-7d3a-4e5f-9a0b-1c2d3e4f5a6b')"
        );
        for (var rung = 0; rung < 4; rung++)
            await WriteAsync(
                "INSERT INTO Entries (PupilId, Kind, DrillId, Level, At, Kept, Subject, Summary) "
                    + $"VALUES (1, 'breath', 'quick-breath', {rung}, '2026-11-02 16:00:0{rung}', 1, '', '')"
            );
        await WriteAsync("INSERT INTO FirstNoteOrders (InstrumentId, Notes) VALUES ('trumpet-bb', 'old'), ('trumpet-bb', 'new')");

        await migrator.MigrateAsync(cancellationToken: TestContext.Current.CancellationToken);

        Assert.Equal(
            ["quick-breath-half 0", "quick-breath 0", "quick-breath 1", "quick-breath 2"],
            (await db.Entries.OrderBy(entry => entry.At).ToListAsync(TestContext.Current.CancellationToken)).Select(entry =>
                $"{entry.DrillId} {entry.Level}"
            )
        );
        Assert.Equal("new", (await db.FirstNoteOrders.SingleAsync(TestContext.Current.CancellationToken)).Notes);
        Assert.Equal("", (await db.Pupils.SingleAsync(TestContext.Current.CancellationToken)).ClassName);
    }

    private async Task WriteAsync(string sql)
    {
        await using var command = _connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }
}
