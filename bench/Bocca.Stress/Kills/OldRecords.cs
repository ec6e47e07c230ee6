using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>A record as an earlier version wrote it, kept as a dump beside the tests: its update is killed, too.</summary>
public static class OldRecords
{
    private static readonly string Dump = Path.Combine(Sources.Root, "tests", "Bocca.Web.Tests", "Record", "before-the-journal.sql");

    /// <summary>What each of its tables has become.</summary>
    private static readonly string[] Tables = ["Takes", "Tones", "Slurs"];

    private static readonly Lazy<long> Rows = new(Count);

    /// <summary>Writes it to a file.</summary>
    public static void Write(string record)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(record)!);
        using var connection = Open(record);
        // What nobody saved is of today, or it would rightly be cleared away at once.
        Ask(connection, File.ReadAllText(Dump) + "UPDATE Takes SET RecordedAt = strftime('%Y-%m-%d %H:%M:%f', 'now') WHERE Kept = 0;");
    }

    /// <summary>What the update has lost or doubled; null for nothing.</summary>
    public static string? Missing(string record)
    {
        using var connection = Open(record);
        var now = (long)Ask(connection, "SELECT count(*) FROM Entries WHERE Kind IN ('buzz', 'tone', 'slur')")!;
        return now == Rows.Value ? null : $"of {Rows.Value} takes of an older record {now} stand after its update.";
    }

    private static long Count()
    {
        var file = Path.Combine(Path.GetTempPath(), $"bocca-old-{Guid.NewGuid():N}.db");
        try
        {
            Write(file);
            using var connection = Open(file);
            return Tables.Sum(table => (long)Ask(connection, $"SELECT count(*) FROM {table}")!);
        }
        finally
        {
            File.Delete(file);
        }
    }

    private static SqliteConnection Open(string file)
    {
        var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        return connection;
    }

    private static object? Ask(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar();
    }
}
