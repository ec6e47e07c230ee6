using System.Diagnostics;
using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests.Record;

/// <summary>Copies that can be trusted: none destroys the record, none that is damaged replaces a good one, each can be put back.</summary>
public sealed class RecordCopyTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca;it's a \"copy").FullName;

    private string Record => RecordFolder.RecordIn(_folder);

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    [Theory]
    [InlineData("bocca.db")]
    [InlineData("bocca.db-wal")]
    [InlineData("bocca.db-shm")]
    [InlineData("bocca.db-journal")]
    [InlineData("bocca.lock")]
    [InlineData("../here/bocca.db")]
    [InlineData("hard link")]
    [InlineData("symbolic link")]
    public async Task A_copy_onto_the_record_itself_is_refused_while_it_is_served(string target)
    {
        await using var room = new Room();
        await room.AddAsync("Ada");
        var record = RecordFolder.RecordIn(room.Folder);
        var copy = Path.Combine(room.Folder, target);
        if (target.StartsWith("..", StringComparison.Ordinal))
        {
            Directory.CreateSymbolicLink(Path.Combine(_folder, "here"), room.Folder);
            copy = Path.Combine(_folder, "here", "bocca.db");
        }
        else if (target == "hard link")
            await RunAsync("ln", record, copy = Path.Combine(_folder, "other.db"));
        else if (target == "symbolic link")
            File.CreateSymbolicLink(copy = Path.Combine(_folder, "other.db"), record);

        var refused = Assert.Throws<StartRefusedException>(() => RecordFolder.Backup(room.Folder, copy));

        Assert.Contains("belongs to the record itself", refused.Message);
        await room.AddAsync("Bo");
        Assert.Equal(2, await room.InRecordAsync(db => db.Pupils.CountAsync()));
    }

    [Fact]
    public async Task A_damaged_record_replaces_no_good_copy()
    {
        await MakeAsync("Ada");
        var copy = Path.Combine(_folder, "copies", "a copy.db");
        Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
        RecordFolder.Backup(_folder, copy);
        var good = await File.ReadAllBytesAsync(copy, TestContext.Current.CancellationToken);
        await DamageAsync();

        var refused = Assert.Throws<StartRefusedException>(() => RecordFolder.Backup(_folder, copy));

        Assert.Contains("damaged", refused.Message);
        Assert.Equal(good, await File.ReadAllBytesAsync(copy, TestContext.Current.CancellationToken));
        Assert.Equal([copy], Directory.EnumerateFiles(Path.GetDirectoryName(copy)!));
    }

    [Fact]
    public async Task A_copy_is_one_file_with_everything_in_it()
    {
        await using var room = new Room();
        var ada = await room.AddAsync("Ada");
        var at = new DateTime(2026, 11, 30, 15, 50, 0, DateTimeKind.Utc);
        await room.InRecordAsync(db =>
        {
            db.Entries.Add(
                new Entry
                {
                    PupilId = ada.Id,
                    Kind = "buzz",
                    At = at,
                }
            );
            return db.SaveChangesAsync();
        });
        var copy = Path.Combine(_folder, "copy.db");

        RecordFolder.Backup(room.Folder, copy);

        Assert.Equal([copy], Directory.EnumerateFiles(_folder));
        Assert.Equal(new RecordContents(1, 1, at), RecordCopy.Look(copy));
        Assert.Equal("1 pupil and 1 entry, the newest of 30 Nov 2026", $"{RecordCopy.Look(copy)}");
        Assert.Equal([copy], Directory.EnumerateFiles(_folder));
    }

    [Fact]
    public async Task What_a_killed_copy_left_is_cleared_by_the_next_start()
    {
        await MakeAsync("Ada");
        string[] left = [$"{Record}.before-1.part", Path.Combine(_folder, "tuesday.db.part"), Path.Combine(_folder, "tuesday.db.part-wal")];
        foreach (var file in left)
            await File.WriteAllTextAsync(file, "half", TestContext.Current.CancellationToken);

        RecordFolder.Open(_folder, anew: false).Dispose();

        Assert.DoesNotContain(left, File.Exists);
    }

    [Fact]
    public async Task A_damaged_record_is_refused_with_its_good_copies_and_set_aside_only_where_asked()
    {
        await MakeAsync("Ada");
        var (good, bad) = (Path.Combine(_folder, "good.db"), Path.Combine(_folder, "bad.db"));
        RecordFolder.Backup(_folder, good);
        await File.WriteAllTextAsync(bad, "no record", TestContext.Current.CancellationToken);
        await DamageAsync();
        // As a killed process leaves it: with its log.
        await File.WriteAllBytesAsync($"{Record}-wal", new byte[64], TestContext.Current.CancellationToken);
        var before = await File.ReadAllBytesAsync(Record, TestContext.Current.CancellationToken);

        var refused = Assert.Throws<StartRefusedException>(() => RecordFolder.Open(_folder, anew: false).Dispose()).Message;

        Assert.Contains("is damaged", refused);
        Assert.Contains(good, refused);
        Assert.DoesNotContain(bad, refused);
        Assert.Equal(before, await File.ReadAllBytesAsync(Record, TestContext.Current.CancellationToken));
        RecordFolder.Open(_folder, anew: true).Dispose();
        Assert.False(File.Exists(Record));
        var aside = Directory.EnumerateFiles(_folder, "bocca.db.damaged-*").Min(StringComparer.Ordinal)!;
        Assert.Equal(before, await File.ReadAllBytesAsync(aside, TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task A_copy_is_put_back_after_a_look_and_that_can_be_undone()
    {
        await MakeAsync("Ada");
        var copy = Path.Combine(_folder, "monday.db");
        RecordFolder.Backup(_folder, copy);
        await MakeAsync("Bo");

        using (RecordFolder.Open(_folder, anew: false))
            Assert.Contains("another Bocca", Assert.Throws<StartRefusedException>(() => RecordRestore.Restore(_folder, copy)).Message);
        var said = RecordRestore.Restore(_folder, copy);

        Assert.Contains("1 pupil and 0 entries", said);
        Assert.Equal(["Ada"], await NamesAsync());
        Assert.Contains("again the one that was replaced", RecordRestore.Undo(_folder));
        Assert.Equal(["Ada", "Bo"], await NamesAsync());
        // The one that was undone is the one that is replaced now.
        RecordRestore.Undo(_folder);
        Assert.Equal(["Ada"], await NamesAsync());
    }

    [Theory]
    [InlineData("nothing", "there is no copy at")]
    [InlineData("words", "is not a copy of a record")]
    [InlineData("database", "is not a record of Bocca")]
    [InlineData("record", "belongs to the record itself")]
    public async Task What_is_no_copy_is_not_put_back(string what, string says)
    {
        await MakeAsync("Ada");
        var copy = what == "record" ? Record : Path.Combine(_folder, "some.db");
        if (what == "words")
            await File.WriteAllTextAsync(copy, "two pints of milk, and bread", TestContext.Current.CancellationToken);
        if (what == "database")
            Execute(copy, "CREATE TABLE Milk (Pints INTEGER)");

        Assert.Contains(says, Assert.Throws<StartRefusedException>(() => RecordRestore.Restore(_folder, copy)).Message);
        Assert.Equal(["Ada"], await NamesAsync());
        Assert.Empty(Directory.EnumerateFiles(_folder, "*.replaced-*"));
        if (what == "nothing")
            Assert.Contains("nothing was restored", Assert.Throws<StartRefusedException>(() => RecordRestore.Undo(_folder)).Message);
    }

    [Theory]
    [InlineData("pipe")]
    [InlineData("link")]
    [InlineData("folder")]
    public async Task What_stands_in_the_place_of_the_record_is_refused_and_left(string what)
    {
        if (what == "pipe")
            await RunAsync("mkfifo", Record);
        else if (what == "link")
            File.CreateSymbolicLink(Record, Path.Combine(Path.GetTempPath(), "bocca-elsewhere.db"));
        else
            Directory.CreateDirectory(Record);
        var before = Directory.EnumerateFileSystemEntries(_folder).ToList();

        var refused = Assert.Throws<StartRefusedException>(() => RecordFolder.Open(_folder, anew: false).Dispose());

        Assert.Contains("not the record itself", refused.Message);
        Assert.Equal(before, Directory.EnumerateFileSystemEntries(_folder));
    }

    private async Task MakeAsync(string name)
    {
        await using (var db = Open())
        {
            await RecordFile.PrepareAsync(db, new Frame.Stops([Frame.Desk.Stop]));
            db.Pupils.Add(
                new Pupil
                {
                    Name = name,
                    InstrumentId = "trumpet-bb",
                    ReadingId = "treble",
                }
            );
            await db.SaveChangesAsync();
        }

        SqliteConnection.ClearAllPools();
    }

    private async Task<List<string>> NamesAsync()
    {
        SqliteConnection.ClearAllPools();
        await using var db = Open();
        return await db.Pupils.Select(pupil => pupil.Name).Order().ToListAsync();
    }

    private BoccaDb Open() => new(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(RecordFile.ConnectionString(_folder)).Options);

    /// <summary>Writes over pages in the middle of the record, as a failing disk does.</summary>
    private async Task DamageAsync()
    {
        SqliteConnection.ClearAllPools();
        await using var file = new FileStream(Record, FileMode.Open, FileAccess.Write);
        file.Position = file.Length / 4 / 4096 * 4096;
        await file.WriteAsync(Enumerable.Repeat((byte)0xA5, (int)(file.Length / 2)).ToArray(), TestContext.Current.CancellationToken);
    }

    private static void Execute(string file, string sql)
    {
        using var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString());
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static async Task RunAsync(string program, params string[] arguments)
    {
        using var run = Process.Start(program, arguments);
        await run.WaitForExitAsync(TestContext.Current.CancellationToken);
        Assert.Equal(0, run.ExitCode);
    }
}
