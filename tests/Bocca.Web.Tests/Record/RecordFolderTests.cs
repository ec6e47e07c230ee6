using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests.Record;

/// <summary>What a start says of a folder that it cannot serve, and that it leaves it as it was.</summary>
public sealed class RecordFolderTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-folder").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    [Fact]
    public void A_folder_is_served_by_one_process_and_free_again_after_it()
    {
        using (RecordFolder.Open(_folder, anew: false))
            Assert.Contains("another Bocca serves the record", Refused(_folder));
        RecordFolder.Open(_folder, anew: false).Dispose();
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public void Folder_and_files_are_for_their_owner_alone()
    {
        File.WriteAllBytes(RecordFolder.RecordIn(_folder), [.. "SQLite format 3\0"u8, .. new byte[84]]);
        using var opened = RecordFolder.Open(_folder, anew: false);

        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute, File.GetUnixFileMode(_folder));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(RecordFolder.RecordIn(_folder)));
        // What is made later, as the log and the keys are, is so too.
        Directory.CreateDirectory(Path.Combine(_folder, "later"));
        File.WriteAllText(Path.Combine(_folder, "later", "made.txt"), "");
        Assert.Equal(
            UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute,
            File.GetUnixFileMode(Path.Combine(_folder, "later"))
        );
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Path.Combine(_folder, "later", "made.txt")));
    }

    [Fact]
    public void A_file_in_the_place_of_the_folder_is_named()
    {
        var file = Path.Combine(_folder, "data");
        File.WriteAllText(file, "notes");

        Assert.Contains("is a file", Refused(file));
        Assert.Equal("notes", File.ReadAllText(file));
    }

    [Theory]
    [InlineData(null, "missing")]
    [InlineData("", "empty")]
    public void Where_a_record_was_none_is_begun_unless_asked_for(string? record, string told)
    {
        Key("<key />");
        if (record is not null)
            File.WriteAllText(RecordFolder.RecordIn(_folder), record);

        Assert.Contains($"is {told}, and a record was there before", Refused(_folder));
        Assert.Equal(record is not null, File.Exists(RecordFolder.RecordIn(_folder)));
        RecordFolder.Open(_folder, anew: true).Dispose();
    }

    [Fact]
    public void What_is_no_record_is_left_as_it_is()
    {
        File.WriteAllText(RecordFolder.RecordIn(_folder), "two pints of milk, and bread");

        Assert.Contains("is not a record of Bocca", Refused(_folder));
        Assert.Equal("two pints of milk, and bread", File.ReadAllText(RecordFolder.RecordIn(_folder)));
    }

    [Fact]
    public void An_empty_key_is_named()
    {
        File.WriteAllBytes(RecordFolder.RecordIn(_folder), [.. "SQLite format 3\0"u8, .. new byte[84]]);
        Key("");

        Assert.Contains("is empty or broken", Refused(_folder));
    }

    [Fact]
    public async Task A_record_of_a_newer_Bocca_is_not_touched()
    {
        await using (var first = new Room { KeepFolder = true })
        {
            await first.AddAsync("Ada");
            File.Copy(RecordFolder.RecordIn(first.Folder), RecordFolder.RecordIn(_folder));
        }

        Execute("INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ('29990101000000_Later', '99')");
        var refused = await Assert.ThrowsAsync<StartRefusedException>(PrepareAsync);
        Assert.Contains("written by a newer Bocca", refused.Message);
    }

    [Fact]
    public async Task A_record_that_waits_for_an_update_is_not_kept_waiting_by_one_that_was_killed()
    {
        await PrepareAsync();
        Execute("CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL)");
        Execute("INSERT OR REPLACE INTO __EFMigrationsLock (Id, Timestamp) VALUES (1, '2026-11-27 05:30:00')");
        Execute("DROP TABLE IF EXISTS Entries; DROP TABLE IF EXISTS Figures; DROP TABLE IF EXISTS Payloads;");
        foreach (
            var table in new[]
            {
                "TimetableSlots",
                "TimetableHolidays",
                "PaperItems",
                "PieceVersions",
                "PiecesFor",
                "Pieces",
                "FirstNoteOrders",
                "SettingChanges",
                "Pupils",
                "Rooms",
                "Pins",
                "Recalls",
                "Approaches",
                "Requests",
            }
        )
            Execute($"DROP TABLE IF EXISTS {table}");
        Execute("DELETE FROM __EFMigrationsHistory");

        await PrepareAsync().WaitAsync(TimeSpan.FromSeconds(20), TestContext.Current.CancellationToken);
    }

    [Fact]
    public async Task A_copy_is_whole_while_the_record_is_being_served()
    {
        await using var room = new Room();
        await room.AddAsync("Ada");
        var copy = Path.Combine(_folder, "copy.db");
        RecordFolder.Backup(room.Folder, copy);

        using var read = new SqliteConnection($"Data Source={copy};Pooling=False");
        read.Open();
        using var command = read.CreateCommand();
        command.CommandText = "SELECT Name FROM Pupils";
        Assert.Equal("Ada", command.ExecuteScalar());
        Assert.Contains("no record at", Assert.Throws<StartRefusedException>(() => RecordFolder.Backup(_folder, copy)).Message);
    }

    [Fact]
    public async Task A_copy_waits_for_whoever_holds_the_record_locked()
    {
        await PrepareAsync();
        SqliteConnection.ClearAllPools();
        var copy = Path.Combine(_folder, "copy.db");
        var holder = new SqliteConnection($"Data Source={RecordFolder.RecordIn(_folder)};Pooling=False");
        holder.Open();
        using var hold = holder.CreateCommand();
        // Whoever holds a record so lets nobody read before the connection is closed (SQLite's manual, "PRAGMA locking_mode").
        hold.CommandText = "PRAGMA locking_mode = EXCLUSIVE; PRAGMA user_version = 7;";
        hold.ExecuteNonQuery();

        var copying = Task.Run(() => RecordFolder.Backup(_folder, copy), TestContext.Current.CancellationToken);
        await Task.Delay(TimeSpan.FromMilliseconds(500), TestContext.Current.CancellationToken);
        Assert.False(copying.IsCompleted);
        await holder.DisposeAsync();
        await copying;

        Assert.True(new FileInfo(copy).Length > 0);
    }

    [Fact]
    public async Task A_copy_that_fails_leaves_the_one_before_and_nothing_beside_it()
    {
        await PrepareAsync();
        SqliteConnection.ClearAllPools();
        var copy = Path.Combine(_folder, "copy.db");
        RecordFolder.Backup(_folder, copy);
        var before = await File.ReadAllBytesAsync(copy, TestContext.Current.CancellationToken);
        await File.WriteAllTextAsync(RecordFolder.RecordIn(_folder), "no record", TestContext.Current.CancellationToken);

        Assert.Contains("could not be copied", Assert.Throws<StartRefusedException>(() => RecordFolder.Backup(_folder, copy)).Message);
        Assert.Equal(before, await File.ReadAllBytesAsync(copy, TestContext.Current.CancellationToken));
        Assert.False(File.Exists($"{copy}.part"));
    }

    private async Task PrepareAsync()
    {
        await using var db = new BoccaDb(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(RecordFile.ConnectionString(_folder)).Options);
        await RecordFile.PrepareAsync(db, new Frame.Stops([Frame.Desk.Stop]));
    }

    private void Execute(string sql)
    {
        using var connection = new SqliteConnection($"Data Source={RecordFolder.RecordIn(_folder)};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private void Key(string text)
    {
        Directory.CreateDirectory(RecordFolder.KeysIn(_folder));
        File.WriteAllText(Path.Combine(RecordFolder.KeysIn(_folder), "key-1.xml"), text);
    }

    private static string Refused(string folder) =>
        Assert.Throws<StartRefusedException>(() => RecordFolder.Open(folder, anew: false).Dispose()).Message;
}
