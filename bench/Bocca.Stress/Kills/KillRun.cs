using System.Diagnostics;
using Microsoft.Data.Sqlite;

namespace Bocca.Stress.Kills;

/// <summary>
/// Kills the application at random moments, in its start and under writers of every kind, and looks afterwards for every write that was
/// acknowledged. The next start has to come up by itself.
/// </summary>
public sealed class KillRun
{
    private const double InStart = 0.3,
        NewFolder = 0.4,
        OldRecord = 0.7,
        OfAStart = 1.1,
        MostWritingMs = 5000;

    private readonly Random _random;
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-kills").FullName;
    private readonly List<string> _faults = [];
    private int _inStart,
        _old;
    private double _slowest,
        _lastStart;

    private KillRun(int seed) => _random = new Random(seed);

    private string Folder => Path.Combine(_folder, "data");

    private string Record => Path.Combine(Folder, "bocca.db");

    /// <returns>0 where nothing was lost, doubled or locked.</returns>
    public static async Task<int> RunAsync(int kills, int seed)
    {
        var run = new KillRun(seed);
        try
        {
            return await run.GoAsync(kills);
        }
        finally
        {
            Directory.Delete(run._folder, recursive: true);
        }
    }

    private async Task<int> GoAsync(int kills)
    {
        using (var first = new KilledApp(Folder))
        {
            await UpAsync(first);
            using var client = await first.ClientAsync();
            foreach (var writer in Writers.All)
            {
                using var made = await client.SendAsync(Writers.Form("/pupils/new", Writers.NewPupil(writer.Kind)));
                writer.Pupil = int.Parse(
                    made.Headers.Location!.OriginalString.Split('/')[^1],
                    System.Globalization.CultureInfo.InvariantCulture
                );
            }
        }

        for (var kill = 1; kill <= kills && _faults.Count < 10; kill++)
            if (_random.NextDouble() < InStart)
                await InStartAsync();
            else
                await UnderWritersAsync();
        foreach (var writer in Writers.All)
            Console.WriteLine($"{writer.Kind}: {writer.Acknowledged} stand");
        foreach (var fault in _faults)
            Console.WriteLine($"FAULT {fault}");
        Console.WriteLine(
            $"{kills} kills, {_inStart} of them in a start, {_old} of those in the update of an older record; "
                + $"{Writers.All.Sum(writer => writer.Acknowledged)} acknowledged writes looked for; "
                + $"slowest start {_slowest:0.0} s; {_faults.Count} faults."
        );
        return _faults.Count == 0 ? 0 : 1;
    }

    /// <summary>In a start on the record that is there, or on a folder with none yet, where all of it is being made.</summary>
    private async Task InStartAsync()
    {
        _inStart++;
        var choice = _random.NextDouble();
        var folder = choice < OldRecord ? Path.Combine(_folder, $"start-{_inStart}") : Folder;
        var isOld = choice is >= NewFolder and < OldRecord;
        if (isOld)
        {
            _old++;
            OldRecords.Write(Path.Combine(folder, "bocca.db"));
        }

        using (var app = new KilledApp(folder))
        {
            app.Start();
            await Task.Delay((int)(_random.NextDouble() * OfAStart * 1000 * _lastStart));
        }

        using var next = new KilledApp(folder);
        await UpAsync(next);
        Check(Path.Combine(folder, "bocca.db"));
        if (isOld && OldRecords.Missing(Path.Combine(folder, "bocca.db")) is { } missing)
            _faults.Add(missing);
    }

    private async Task UnderWritersAsync()
    {
        using (var app = new KilledApp(Folder))
        {
            await UpAsync(app);
            using var client = await app.ClientAsync();
            using var over = new CancellationTokenSource();
            var writing = Writers.All.Select(writer => Task.Run(() => WriteAsync(writer, client, over.Token))).ToList();
            await Task.Delay((int)(_random.NextDouble() * MostWritingMs) + 50);
            app.Kill();
            over.Cancel();
            await Task.WhenAll(writing);
        }

        Check(Record);
    }

    private async Task WriteAsync(Writer writer, HttpClient client, CancellationToken over)
    {
        try
        {
            while (!over.IsCancellationRequested)
                await writer.WriteAsync(client, Record);
        }
        catch (InvalidDataException problem)
        {
            lock (_faults)
                _faults.Add(problem.Message);
        }
        catch (Exception problem) when (problem is HttpRequestException or IOException or SqliteException)
        {
            // It was killed.
        }
    }

    private async Task UpAsync(KilledApp app)
    {
        var clock = Stopwatch.StartNew();
        app.Start();
        try
        {
            await app.AnswersAsync();
        }
        catch (TimeoutException problem)
        {
            _faults.Add(problem.Message);
            throw;
        }

        if (Directory.EnumerateFiles(app.Temporary).FirstOrDefault() is { } left)
            _faults.Add($"left in the temporary folder: {left}");
        if (Directory.EnumerateFiles(app.Folder, "*.part", SearchOption.AllDirectories).FirstOrDefault() is { } part)
            _faults.Add($"an unfinished copy is left: {part}");
        _lastStart = clock.Elapsed.TotalSeconds;
        _slowest = Math.Max(_slowest, _lastStart);
    }

    private void Check(string record)
    {
        foreach (var copy in Directory.EnumerateFiles(Path.GetDirectoryName(record)!, "*.db", SearchOption.AllDirectories))
            if (copy != record && Told(copy, "PRAGMA integrity_check;") is not "ok" and var broken)
                _faults.Add($"a copy is broken: {copy}, {broken}");
        if (Told(record, "PRAGMA integrity_check;") is not "ok" and var wrong)
            _faults.Add($"the record is broken: {wrong}");
        if (record == Record)
            _faults.AddRange(Writers.All.Select(writer => writer.Check(record)).OfType<string>());
    }

    private static string? Told(string record, string question)
    {
        using var connection = new SqliteConnection($"Data Source={record};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = question;
        return command.ExecuteScalar() as string;
    }
}
