using System.Diagnostics;
using System.Net;
using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>
/// Opens the pages of a large record again and again and prints how long each kind of page takes, and what memory the room holds.
/// </summary>
public static class PagesRun
{
    private const int Seed = 1,
        WarmRounds = 30;

    /// <summary>So long may the update of a record take (seconds).</summary>
    private const double MostSeconds = 1200;

    /// <summary>What a teacher and a pupil open, a pupil's number in the place of 0.</summary>
    private static readonly string[] Pages =
    [
        "/",
        "/set-up/{0}",
        "/buzz/{0}",
        "/breath/{0}",
        "/tone/{0}",
        "/slurs/{0}",
        "/slurs/{0}/map",
        "/notes/{0}/hand",
        "/ear/{0}",
        "/ear/count/{0}",
        "/practice/{0}",
        "/practice/{0}/week",
        "/practice/timetable",
        "/record/{0}",
    ];

    /// <summary>Runs it.</summary>
    /// <param name="entries">How many entries a record has that is grown here.</param>
    /// <param name="times">How often each page is opened, each time a pupil drawn by lot.</param>
    /// <param name="folder">A record that stands already or is to stay; null for one that goes with the run.</param>
    /// <returns>1 where a page did not come.</returns>
    public static async Task<int> RunAsync(int entries, int times, string? folder)
    {
        var home = folder ?? Directory.CreateTempSubdirectory("bocca-pages").FullName;
        var record = Path.Combine(home, "bocca.db");
        if (!File.Exists(record))
            GrownRecord.Write(record, entries);
        using var app = new KilledApp(home) { MostSeconds = MostSeconds };
        app.Start();
        await app.AnswersAsync();
        var pupils = Pupils(record);
        Console.WriteLine($"{Count(record, "Entries")} entries of {pupils.Count} pupils, {new FileInfo(record).Length / 1e6:0} MB");
        using var client = await app.ClientAsync();
        var missing = await OpenedAsync(client, pupils, times);
        Console.WriteLine($"{app.Memory:0} MB of memory");
        app.Kill();
        SqliteConnection.ClearAllPools();
        if (folder is null)
            Directory.Delete(home, recursive: true);
        return missing == 0 ? 0 : 1;
    }

    /// <summary>Opens every page so often; gives how many did not come.</summary>
    private static async Task<int> OpenedAsync(HttpClient client, List<long> pupils, int times)
    {
        var (random, all, missing) = (new Random(Seed), new List<double>(), 0);
        foreach (var page in Pages)
        {
            var took = new List<double>();
            for (var i = -WarmRounds; i < times; i++)
            {
                var address = string.Format(null, page, pupils[random.Next(pupils.Count)]);
                var clock = Stopwatch.StartNew();
                using var answer = await client.GetAsync(address);
                await answer.Content.ReadAsByteArrayAsync();
                if (i >= 0)
                    took.Add(clock.Elapsed.TotalMilliseconds);
                if (answer.StatusCode != HttpStatusCode.OK)
                    Console.WriteLine($"{address}: {(int)answer.StatusCode} ({++missing})");
            }

            all.AddRange(took);
            Console.WriteLine($"{page, -22} {At(took, 0.5), 6:0.0} ms in the middle {At(took, 0.95), 6:0.0} ms at 95 %");
        }

        Console.WriteLine($"{"all", -22} {At(all, 0.5), 6:0.0} ms in the middle {At(all, 0.95), 6:0.0} ms at 95 %");
        return missing;
    }

    private static double At(IEnumerable<double> took, double share) =>
        took.Order().ToList() is var sorted ? sorted[(int)(share * (sorted.Count - 1))] : 0;

    private static List<long> Pupils(string record) => Read(record, "SELECT Id FROM Pupils WHERE DeletedAt IS NULL");

    private static long Count(string record, string table) => Read(record, $"SELECT count(*) FROM {table}")[0];

    private static List<long> Read(string record, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={record};Pooling=False;Mode=ReadOnly");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var rows = command.ExecuteReader();
        var numbers = new List<long>();
        while (rows.Read())
            numbers.Add(rows.GetInt64(0));
        return numbers;
    }
}
