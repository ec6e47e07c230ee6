using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Bocca.Web.Record;

/// <summary>What a record or a copy of one holds, as far as it is asked before it is trusted.</summary>
/// <param name="Pupils">Pupils, those deleted not counted.</param>
/// <param name="Entries">Entries, those deleted not counted.</param>
/// <param name="Newest">When the newest of them was written (UTC); null where there is none.</param>
public sealed record RecordContents(long Pupils, long Entries, DateTime? Newest)
{
    /// <summary>In a sentence: <c>8 pupils and 412 entries, the newest of 1 Dec 2026</c>.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Pupils} {(Pupils == 1 ? "pupil" : "pupils")} and {Entries} {(Entries == 1 ? "entry" : "entries")}"
                + $"{(Newest is { } at ? $", the newest of {at:d MMM yyyy}" : "")}"
        );
}

/// <summary>
/// Copies of a record, by the database's own means, while it is served or not. A copy is made beside its place, checked against what it
/// is of, and written out to the disk; only then does it take the place of the one before. It is one file, for its owner alone.
/// </summary>
public static class RecordCopy
{
    /// <summary>A lock of somebody else is waited for so long, in seconds.</summary>
    public const int PatienceSeconds = 5;

    /// <summary>What ends the name of a copy that is being made.</summary>
    private const string Unfinished = ".part";

    /// <summary>Held while a copy is made, and while pupils are erased from copies.</summary>
    internal static object OneAtATime { get; } = new();

    /// <summary>What the database writes beside a file of it.</summary>
    public static IReadOnlyList<string> Beside { get; } = ["-wal", "-shm", "-journal"];

    /// <summary>Copies a record.</summary>
    /// <param name="record">The record's file.</param>
    /// <param name="copy">Where the copy goes; what is there is replaced once the copy has been checked.</param>
    /// <exception cref="InvalidDataException">The record is damaged; nothing was replaced.</exception>
    /// <exception cref="SqliteException">The record is no database, the disk full, or it is held locked for seconds.</exception>
    /// <exception cref="IOException">The copy cannot be written.</exception>
    /// <exception cref="UnauthorizedAccessException">The copy's place belongs to somebody else.</exception>
    public static void Make(string record, string copy)
    {
        lock (OneAtATime)
            MakeAlone(record, copy);
    }

    private static void MakeAlone(string record, string copy)
    {
        var part = copy + Unfinished;
        try
        {
            MakeForOwnerAlone(part);
            using (var from = Open(record))
            using (var to = Open(part))
            {
                // One moment of the record, for the copy and for what it is checked against.
                Execute(from, "BEGIN");
                var rows = RowsOf(from);
                from.BackupDatabase(to);
                Execute(from, "COMMIT");
                Execute(to, "PRAGMA journal_mode = DELETE");
                if (DamageIn(to) is { } damage)
                    throw new InvalidDataException($"the record is damaged ({damage}); the copy before was kept");
                if (!RowsOf(to).SequenceEqual(rows))
                    throw new InvalidDataException("the copy does not hold what the record holds; the copy before was kept");
            }

            PutInPlace(part, copy);
        }
        finally
        {
            Delete(part);
        }
    }

    /// <summary>Gives a whole database file its name, in the place of what has it; both stand on the disk when this returns.</summary>
    internal static void PutInPlace(string part, string copy)
    {
        using (var written = new FileStream(part, FileMode.Open, FileAccess.ReadWrite))
            written.Flush(flushToDisk: true);
        File.Move(part, copy, overwrite: true);
        foreach (var end in Beside)
            File.Delete(copy + end);
        UnixFiles.SyncFolder(Path.GetDirectoryName(Path.GetFullPath(copy))!);
    }

    /// <summary>Whether a file begins as a database does (SQLite's file format, section 1.3).</summary>
    internal static bool IsDatabase(string file)
    {
        if (UnixFiles.IdentityOf(file) is { IsRegular: false })
            return false;
        using var opened = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        var head = new byte[16];
        return opened.ReadAtLeast(head, head.Length, throwOnEndOfStream: false) == head.Length
            && head.AsSpan().SequenceEqual("SQLite format 3\0"u8);
    }

    /// <summary>Deletes copies that were being made in a folder when their maker was killed.</summary>
    public static void ClearUnfinished(string folder)
    {
        foreach (var part in Directory.EnumerateFiles(folder, $"*.db*{Unfinished}", SearchOption.AllDirectories).ToList())
            Delete(part);
    }

    /// <summary>
    /// What is wrong with a database file, in the database's words; null where nothing is. It is only read: closed by somebody who may
    /// write, its log would go, and with it the trace that it was not closed in order.
    /// </summary>
    /// <exception cref="SqliteException">It is no database, or cannot be opened.</exception>
    public static string? DamageIn(string file)
    {
        using var opened = Open(file, SqliteOpenMode.ReadOnly);
        return DamageIn(opened);
    }

    /// <summary>What a record holds; null where the file is none that Bocca wrote.</summary>
    /// <exception cref="SqliteException">It is no database, or cannot be opened.</exception>
    public static RecordContents? Look(string file)
    {
        using var opened = Open(file, SqliteOpenMode.ReadOnly);
        var tables = RowsOf(opened).Select(table => table.Name).ToHashSet();
        if (!tables.Contains("__EFMigrationsHistory") || !tables.Contains("Pupils"))
            return null;
        // A record from before entries had one table has its pupils only.
        var hasEntries = tables.Contains("Entries");
        return new RecordContents(
            (long)Ask(opened, "SELECT COUNT(*) FROM Pupils WHERE DeletedAt IS NULL")!,
            hasEntries ? (long)Ask(opened, "SELECT COUNT(*) FROM Entries WHERE DeletedAt IS NULL")! : 0,
            hasEntries && Ask(opened, "SELECT MAX(At) FROM Entries WHERE DeletedAt IS NULL") is long at
                ? DateTimeOffset.FromUnixTimeMilliseconds(at).UtcDateTime
                : null
        );
    }

    /// <summary>Opens a database file that is there, for as long as somebody else's lock may be waited for.</summary>
    internal static SqliteConnection Open(string file, SqliteOpenMode mode = SqliteOpenMode.ReadWrite)
    {
        var named = new SqliteConnectionStringBuilder
        {
            DataSource = Path.GetFullPath(file),
            Mode = mode,
            Pooling = false,
        };
        var opened = new SqliteConnection(named.ToString());
        try
        {
            opened.Open();
            // The library waits for a command's sake alone, and a copy is none.
            Execute(opened, $"PRAGMA busy_timeout = {PatienceSeconds * 1000}");
            return opened;
        }
        catch
        {
            opened.Dispose();
            throw;
        }
    }

    private static string? DamageIn(SqliteConnection opened) =>
        Ask(opened, "PRAGMA quick_check(1)") is string told and not "ok" ? told : null;

    /// <summary>How many rows each table has, by its name.</summary>
    private static List<(string Name, long Rows)> RowsOf(SqliteConnection opened) =>
        [.. TablesOf(opened).Select(name => (name, (long)Ask(opened, $"SELECT COUNT(*) FROM \"{name}\"")!))];

    /// <summary>The tables of a database by name, its own left out.</summary>
    internal static IReadOnlyList<string> TablesOf(SqliteConnection opened)
    {
        var names = new List<string>();
        using (var command = opened.CreateCommand())
        {
            command.CommandText = "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name";
            using var reader = command.ExecuteReader();
            while (reader.Read())
                names.Add(reader.GetString(0));
        }

        return names;
    }

    /// <summary>The first value of what a statement gives; null for nothing.</summary>
    internal static object? Ask(SqliteConnection opened, string question)
    {
        using var command = opened.CreateCommand();
        command.CommandText = question;
        return command.ExecuteScalar();
    }

    private static void Execute(SqliteConnection opened, string sql) => Ask(opened, sql);

    private static void MakeForOwnerAlone(string file)
    {
        Delete(file);
        var made = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            made.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        using var empty = new FileStream(file, made);
    }

    /// <summary>Deletes a database file with what lies beside it.</summary>
    internal static void Delete(string part)
    {
        File.Delete(part);
        foreach (var end in Beside)
            File.Delete(part + end);
    }
}
