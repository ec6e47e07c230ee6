using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests.Record;

/// <summary>What a power cut leaves: the database and its log as far as it was written.</summary>
public sealed class PowerCutTests : IDisposable
{
    private const int Written = 40,
        Cuts = 100;
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-cut").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    [Fact]
    public async Task Every_connection_waits_until_the_disk_has_it()
    {
        using var room = new Room();
        for (var i = 0; i < 3; i++)
            Assert.Equal(
                (2, "wal"),
                await room.InRecordAsync(async db =>
                    (
                        await db.Database.SqlQueryRaw<int>("SELECT synchronous AS Value FROM pragma_synchronous").SingleAsync(),
                        await db.Database.SqlQueryRaw<string>("SELECT journal_mode AS Value FROM pragma_journal_mode").SingleAsync()
                    )
                )
            );
    }

    [Fact]
    public async Task A_log_cut_anywhere_opens_with_the_first_of_what_was_written_and_nothing_half()
    {
        var (database, log) = await WriteAsync();
        var random = new Random(7);
        var cuts = Enumerable.Range(0, Cuts - 1).Select(_ => random.Next(log.Length)).Append(log.Length).Order().ToList();
        var before = 0;
        foreach (var (cut, i) in cuts.Select((cut, i) => (cut, i)))
        {
            var folder = Path.Combine(_folder, $"{i}");
            Directory.CreateDirectory(folder);
            await File.WriteAllBytesAsync(Path.Combine(folder, "bocca.db"), database, TestContext.Current.CancellationToken);
            await File.WriteAllBytesAsync(Path.Combine(folder, "bocca.db-wal"), log[..cut], TestContext.Current.CancellationToken);
            await using var db = Open(folder);
            await RecordFile.PrepareAsync(db, new Stops([Desk.Stop]));
            Assert.Equal(
                "ok",
                await db
                    .Database.SqlQueryRaw<string>("SELECT integrity_check AS Value FROM pragma_integrity_check")
                    .SingleAsync(TestContext.Current.CancellationToken)
            );
            var names = await db
                .Pupils.OrderBy(pupil => pupil.Id)
                .Select(pupil => pupil.Name)
                .ToListAsync(TestContext.Current.CancellationToken);
            Assert.Equal(Enumerable.Range(1, names.Count).Select(number => $"{number}"), names);
            Assert.InRange(names.Count, before, Written);
            before = names.Count;
        }

        Assert.Equal(Written, before);
    }

    [Fact]
    public async Task A_database_that_lost_its_end_is_refused_and_left_as_it_was()
    {
        var (database, _) = await WriteAsync();
        foreach (var cut in (int[])[1, 50, 100, 512, 4096, 5000, 40_960, database.Length / 2, database.Length - 4096])
        {
            var folder = Path.Combine(_folder, $"database-{cut}");
            Directory.CreateDirectory(folder);
            var file = Path.Combine(folder, "bocca.db");
            await File.WriteAllBytesAsync(file, database[..cut], TestContext.Current.CancellationToken);
            Assert.Contains("broken", Assert.Throws<StartRefusedException>(() => RecordFolder.Open(folder, anew: false)).Message);
            Assert.Equal(database[..cut], await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken));
        }
    }

    /// <summary>Pupils written one by one, with nothing moved from the log to the database: both as they lie on the disk.</summary>
    private async Task<(byte[] Database, byte[] Log)> WriteAsync()
    {
        var folder = Path.Combine(_folder, "whole");
        await using (var db = Open(folder))
            await RecordFile.PrepareAsync(db, new Stops([Desk.Stop]));
        SqliteConnection.ClearAllPools();
        await using var record = Open(folder);
        await record.Database.OpenConnectionAsync(TestContext.Current.CancellationToken);
        await record.Database.ExecuteSqlRawAsync("PRAGMA wal_autocheckpoint=0;", TestContext.Current.CancellationToken);
        for (var number = 1; number <= Written; number++)
        {
            record.Pupils.Add(
                new Pupil
                {
                    Name = $"{number}",
                    InstrumentId = "trumpet-bb",
                    ReadingId = "treble",
                    Started = new DateOnly(2026, 9, 1),
                }
            );
            await record.SaveChangesAsync(TestContext.Current.CancellationToken);
        }

        return (await ReadAsync(Path.Combine(folder, "bocca.db")), await ReadAsync(Path.Combine(folder, "bocca.db-wal")));
    }

    private static async Task<byte[]> ReadAsync(string file)
    {
        await using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        var bytes = new byte[stream.Length];
        await stream.ReadExactlyAsync(bytes);
        return bytes;
    }

    private static BoccaDb Open(string folder) =>
        new(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(RecordFile.ConnectionString(folder)).Options);
}
