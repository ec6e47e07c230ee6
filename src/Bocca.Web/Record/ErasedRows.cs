using Microsoft.Data.Sqlite;

namespace Bocca.Web.Record;

/// <summary>
/// The rows of a pupil in a record of this or an earlier version, found and erased by what the database itself says of its tables.
/// </summary>
internal static class ErasedRows
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    /// <summary>
    /// The pupil's number in a record, as a list of none or one. A record from before pupils had keys tells them by number, with the
    /// version or the name that it had then.
    /// </summary>
    public static IReadOnlyList<long> Find(SqliteConnection opened, Pupil pupil) =>
        HasColumn(opened, "Pupils", "Key") ? Find(opened, [pupil.Key])
        : HasColumn(opened, "Pupils", "Name")
            ? Numbers(
                opened,
                "SELECT Id FROM Pupils WHERE Id = $id AND (Version = $key OR Name = $name)",
                ("$id", pupil.Id),
                ("$key", pupil.Key),
                ("$name", pupil.Name)
            )
        : [];

    /// <summary>The numbers of the pupils with some keys.</summary>
    public static IReadOnlyList<long> Find(SqliteConnection opened, IReadOnlyList<Guid> keys) =>
        HasColumn(opened, "Pupils", "Key")
            ? [.. keys.SelectMany(key => Numbers(opened, "SELECT Id FROM Pupils WHERE Key = $key", ("$key", key)))]
            : [];

    /// <summary>Erases all rows of a pupil, and the lessons of a class in which nobody else plays.</summary>
    public static void Erase(SqliteConnection opened, long id)
    {
        RecordCopy.Ask(opened, "PRAGMA foreign_keys = ON");
        RecordCopy.Ask(opened, "PRAGMA secure_delete = ON");
        using var together = opened.BeginTransaction();
        if (HasColumn(opened, "Pupils", "ClassName") && HasColumn(opened, "TimetableSlots", "ClassName"))
            Run(
                opened,
                "DELETE FROM TimetableSlots WHERE ClassName <> '' AND ClassName = (SELECT ClassName FROM Pupils WHERE Id = $id) "
                    + "AND NOT EXISTS (SELECT 1 FROM Pupils p WHERE p.ClassName = TimetableSlots.ClassName AND p.Id <> $id)",
                id
            );
        // What hangs on these rows goes with them.
        foreach (var table in RecordCopy.TablesOf(opened).Where(table => HasColumn(opened, table, "PupilId")))
            Run(opened, $"DELETE FROM \"{table}\" WHERE PupilId = $id", id);
        if (HasColumn(opened, "Entries", "RequestId"))
            Run(opened, Journal.ForgetRequests, id);
        Run(opened, "DELETE FROM Pupils WHERE Id = $id", id);
        together.Commit();
    }

    /// <summary>Writes the file anew without its free pages, and empties the log.</summary>
    public static void Compact(SqliteConnection opened)
    {
        RecordCopy.Ask(opened, "VACUUM");
        // Whoever still reads what was there before holds the log: that takes as long as a page.
        for (var until = DateTime.UtcNow + Patience; DateTime.UtcNow < until; Thread.Sleep(50))
            if (RecordCopy.Ask(opened, "PRAGMA wal_checkpoint(TRUNCATE)") is not 1L)
                return;
        throw new IOException("the record's log could not be emptied, for somebody reads in it");
    }

    private static bool HasColumn(SqliteConnection opened, string table, string column) =>
        Numbers(opened, "SELECT COUNT(*) FROM pragma_table_info($table) WHERE name = $column", ("$table", table), ("$column", column))[0]
        > 0;

    private static void Run(SqliteConnection opened, string sql, long id)
    {
        using var command = opened.CreateCommand();
        command.CommandText = sql;
        command.Parameters.AddWithValue("$id", id);
        command.ExecuteNonQuery();
    }

    private static List<long> Numbers(SqliteConnection opened, string sql, params (string Name, object Value)[] values)
    {
        using var command = opened.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in values)
            command.Parameters.AddWithValue(name, value);
        using var reader = command.ExecuteReader();
        var numbers = new List<long>();
        while (reader.Read())
            numbers.Add(reader.GetInt64(0));
        return numbers;
    }
}

/// <summary>Text in the raw bytes of a file.</summary>
internal static class RawText
{
    private const int BlockBytes = 1 << 20;

    /// <summary>Whether a file holds a text, as UTF-8.</summary>
    public static bool Contains(string file, string text)
    {
        var sought = System.Text.Encoding.UTF8.GetBytes(text);
        var block = new byte[BlockBytes + sought.Length];
        using var read = File.OpenRead(file);
        for (var kept = 0; ; )
        {
            var got = read.ReadAtLeast(block.AsSpan(kept), block.Length - kept, throwOnEndOfStream: false);
            var held = block.AsSpan(0, kept + got);
            if (held.IndexOf(sought) >= 0)
                return true;
            if (got == 0 || kept + got < block.Length)
                return false;
            // A text may begin in one block and end in the next.
            kept = sought.Length;
            held[^kept..].CopyTo(block);
        }
    }
}
