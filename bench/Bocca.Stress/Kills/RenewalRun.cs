using System.Diagnostics;
using System.Security.Cryptography;
using System.Text;
using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>
/// Brings an older record up to date, once undisturbed and once killed at random moments again and again: both come to the same rows.
/// </summary>
public static class RenewalRun
{
    /// <summary>So long may the update of a record take (seconds).</summary>
    private const double MostSeconds = 1200;

    /// <summary>Runs both.</summary>
    /// <param name="entries">How many entries the record has.</param>
    /// <param name="kills">How often the second update is killed.</param>
    /// <param name="seed">Same seed, same moments.</param>
    /// <returns>1 where rows differ.</returns>
    public static async Task<int> RunAsync(int entries, int kills, int seed)
    {
        var folder = Directory.CreateTempSubdirectory("bocca-renewal").FullName;
        try
        {
            var (quiet, killed) = (Path.Combine(folder, "quiet", "bocca.db"), Path.Combine(folder, "killed", "bocca.db"));
            GrownRecord.Write(quiet, entries);
            Directory.CreateDirectory(Path.GetDirectoryName(killed)!);
            if (kills > 0)
                File.Copy(quiet, killed);
            var before = new FileInfo(quiet).Length;
            var seconds = await UpdatedAsync(quiet);
            Console.WriteLine(
                $"{Rows(quiet)} entries: {seconds:0.0} s; {before / 1e6:0} MB before, {new FileInfo(quiet).Length / 1e6:0} after"
            );
            if (kills == 0)
                return 0;
            var random = new Random(seed);
            for (var kill = 0; kill < kills; kill++)
            {
                using var app = new KilledApp(Path.GetDirectoryName(killed)!);
                app.Start();
                // The later ones meet what the earlier ones have left.
                await Task.Delay(TimeSpan.FromSeconds(random.NextDouble() * seconds));
            }

            var after = await UpdatedAsync(killed);
            var same = Digest(quiet) == Digest(killed);
            Console.WriteLine($"{kills} kills, then {after:0.0} s; {(same ? "the same rows" : "FAULT: other rows")}");
            return same ? 0 : 1;
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<double> UpdatedAsync(string record)
    {
        var clock = Stopwatch.StartNew();
        using var app = new KilledApp(Path.GetDirectoryName(record)!) { MostSeconds = MostSeconds };
        app.Start();
        await app.AnswersAsync();
        return clock.Elapsed.TotalSeconds;
    }

    private static long Rows(string record)
    {
        using var connection = Open(record);
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT count(*) FROM Entries";
        return (long)command.ExecuteScalar()!;
    }

    /// <summary>What stands in entries and figures, row by row.</summary>
    private static string Digest(string record)
    {
        using var connection = Open(record);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var sql in new[] { "SELECT * FROM Entries ORDER BY Id", "SELECT * FROM Figures ORDER BY EntryId, Name, Item" })
        {
            using var command = connection.CreateCommand();
            command.CommandText = sql;
            using var rows = command.ExecuteReader();
            while (rows.Read())
            {
                var row = string.Join('|', Enumerable.Range(0, rows.FieldCount).Select(i => $"{rows.GetName(i)}={rows.GetValue(i)}"));
                hash.AppendData(Encoding.UTF8.GetBytes(row + "\n"));
            }
        }

        return Convert.ToHexStringLower(hash.GetHashAndReset());
    }

    private static SqliteConnection Open(string record)
    {
        var connection = new SqliteConnection($"Data Source={record};Pooling=False");
        connection.Open();
        return connection;
    }
}
