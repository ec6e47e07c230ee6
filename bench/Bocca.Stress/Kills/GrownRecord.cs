using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>
/// A record with entries of every kind as an earlier version wrote it (a dump beside the tests), grown to a size: its pupils, entries,
/// payloads and figures again and again.
/// </summary>
public static class GrownRecord
{
    /// <summary>The most pupils that a grown record has.</summary>
    private const int MostPupils = 500;

    private static readonly string Dump = Path.Combine(Sources.Root, "tests", "Bocca.Web.Tests", "Record", "every-kind.sql");

    /// <summary>A key that nobody else has.</summary>
    private const string AnyKey =
        "upper(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-' || "
        + "hex(randomblob(2)) || '-' || hex(randomblob(6)))";

    /// <summary>Writes it to a file.</summary>
    /// <param name="record">The file.</param>
    /// <param name="entries">How many entries it has at least.</param>
    public static void Write(string record, int entries)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(record)!);
        using var connection = new SqliteConnection($"Data Source={record};Pooling=False");
        connection.Open();
        Ask(connection, "PRAGMA foreign_keys = OFF; PRAGMA journal_mode = OFF; PRAGMA synchronous = OFF;");
        Ask(connection, File.ReadAllText(Dump));
        var (stand, pupils) = (Number(connection, "SELECT count(*) FROM Entries"), Number(connection, "SELECT max(Id) FROM Pupils"));
        var copies = (entries / stand) + 1;
        var rooms = Math.Max(1, Math.Min(MostPupils / pupils, copies));
        Ask(connection, "BEGIN;");
        Again(connection, "Pupils", rooms, ("Id", $"Id + {pupils} * n"), ("Key", AnyKey));
        var step = Number(connection, "SELECT max(Id) FROM Entries");
        Again(
            connection,
            "Entries",
            copies,
            ("Id", $"Id + {step} * n"),
            ("PupilId", $"PupilId + {pupils} * (n % {rooms})"),
            ("Key", "NULL"),
            ("At", "At - n * 3600000"),
            ("DueAt", "NULL"),
            // Of a pupil's steps the newest is open at most.
            ("DoneAt", $"CASE WHEN n >= {rooms} THEN coalesce(\"DoneAt\", At - n * 3600000) ELSE \"DoneAt\" END")
        );
        Again(connection, "Payloads", copies, ("EntryId", $"EntryId + {step} * n"));
        Again(
            connection,
            "Figures",
            copies,
            ("EntryId", $"EntryId + {step} * n"),
            ("PupilId", $"PupilId + {pupils} * (n % {rooms})"),
            ("At", "At - n * 3600000")
        );
        Ask(connection, "COMMIT;");
    }

    /// <summary>The rows of a table once more, so many times less one, with other values in some columns.</summary>
    private static void Again(SqliteConnection connection, string table, long copies, params (string Column, string Value)[] others)
    {
        var columns = new List<string>();
        using (var command = connection.CreateCommand())
        {
            command.CommandText = $"SELECT name FROM pragma_table_info('{table}')";
            using var rows = command.ExecuteReader();
            while (rows.Read())
                columns.Add(rows.GetString(0));
        }

        var values = columns.Select(column => others.FirstOrDefault(other => other.Column == column).Value ?? $"\"{column}\"");
        Ask(
            connection,
            $"""
            CREATE TEMP TABLE Stood AS SELECT * FROM {table};
            WITH RECURSIVE Copies(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM Copies WHERE n < {copies - 1})
            INSERT INTO {table} ({string.Join(", ", columns.Select(column => $"\"{column}\""))})
            SELECT {string.Join(", ", values)} FROM Copies CROSS JOIN Stood WHERE {copies} > 1;
            DROP TABLE Stood;
            """
        );
    }

    private static long Number(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return (long)command.ExecuteScalar()!;
    }

    private static void Ask(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
