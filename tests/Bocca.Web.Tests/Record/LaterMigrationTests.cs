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
            await db
                .Database.SqlQueryRaw<string>("SELECT DrillId || ' ' || CAST(Level AS INTEGER) AS Value FROM Entries ORDER BY At")
                .ToListAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal("new", (await db.FirstNoteOrders.SingleAsync(TestContext.Current.CancellationToken)).Notes);
        Assert.Equal("", (await db.Pupils.SingleAsync(TestContext.Current.CancellationToken)).ClassName);
    }

    [Fact]
    public async Task What_the_practice_player_played_leaves_the_record_and_the_invented_pupils_are_marked()
    {
        await using var db = new BoccaDb(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(_connection).Options);
        var migrator = db.GetService<IMigrator>();
        await migrator.MigrateAsync("Pieces", TestContext.Current.CancellationToken);
        foreach (var (id, name) in new[] { (1, "Ada"), (2, "Tomas Oduya") })
            await WriteAsync(
                "INSERT INTO Pupils (Id, Name, InstrumentId, ReadingId, Points, Own, Health, DoctorAgrees, Mouth, ConsentFor, "
                    + "ConsentSaysWhy, HasStand, Stage, ClassName, WeekRuns, Started, Remark, Version) "
                    + $"VALUES ({id}, '{name}', 'trumpet-bb', 'treble', '', '', 0, 0, 0, '', 0, 0, 'FirstNotes', '', 0, '2026-09-01', "
                    + "'', '8b2f6c1e-7d3a-4e5f-9a0b-1c2d3e4f5a6b')"
            );
        foreach (
            var (id, pupil, source, key) in new[]
            {
                (1, 1, "Microphone", "NULL"),
                (2, 1, "PracticePlayer", "NULL"),
                (3, 2, "PracticePlayer", "'0f8fad5b-d9cb-469f-a165-70867728950e'"),
            }
        )
        {
            await WriteAsync(
                "INSERT INTO Entries (Id, PupilId, Kind, Source, At, DueAt, Kept, Subject, Summary, Key) "
                    + $"VALUES ({id}, {pupil}, 'buzz', '{source}', 1000, 2000, 1, '', '', {key})"
            );
            await WriteAsync($"INSERT INTO Figures VALUES ({id}, {pupil}, 'steadiness', '', NULL, NULL, 1000, 1, 0, 1)");
        }

        await migrator.MigrateAsync(cancellationToken: TestContext.Current.CancellationToken);

        Assert.Equal(
            ["1 Microphone", "3 Microphone"],
            (await db.Entries.OrderBy(entry => entry.Id).ToListAsync(TestContext.Current.CancellationToken)).Select(entry =>
                $"{entry.Id} {entry.Source}"
            )
        );
        Assert.Equal(
            [1L, 3L],
            await db.Figures.Select(figure => figure.EntryId).Order().ToListAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal(
            ["Tomas Oduya"],
            await db.Pupils.Where(pupil => pupil.Invented).Select(pupil => pupil.Name).ToListAsync(TestContext.Current.CancellationToken)
        );
    }

    private async Task WriteAsync(string sql)
    {
        await using var command = _connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }
}
