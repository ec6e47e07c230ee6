using System.Net;

namespace Bocca.Stress.Hostile;

/// <summary>
/// Sends every form that changes something many times at once, twice over, as impatient fingers and a slow line do: with the key of one
/// page it has to change as much as sent once, and every sender has to get an answer that says the same.
/// </summary>
public sealed class TogetherRun
{
    /// <summary>So many requests are made up for a handler until one changes something.</summary>
    private const int Tries = 48,
        Rounds = 2;

    /// <summary>A table whose rows follow from an entry's, more or fewer by what is in it.</summary>
    private const string Derived = "Figures";

    private readonly TriedApp _app;
    private readonly Sender _sender;
    private readonly Values _values = new();
    private readonly Random _random = new(1);
    private readonly int _writers;
    private int _faults;

    private TogetherRun(TriedApp app, Sender sender, int writers) => (_app, _sender, _writers) = (app, sender, writers);

    /// <returns>0 where nothing was lost and nothing doubled.</returns>
    public static async Task<int> RunAsync(int writers)
    {
        await using var app = new TriedApp();
        app.StartServer();
        await app.LookAsync();
        using var sender = await Sender.OpenAsync(app.Address);
        return await new TogetherRun(app, sender, writers).GoAsync();
    }

    private async Task<int> GoAsync()
    {
        await _app.FillAsync(_sender.Http, _sender.Token);
        await _app.LookAsync();
        await _values.ReadAsync(_sender.Http, _app.Doors);
        var targets = Targets
            .InOrder(await Targets.FindAsync(_app.Services))
            .Where(target => target.Method == "POST" && !HandlersApart.Never.Contains($"{target}"))
            .Where(target => !HandlersApart.Reading.Contains($"{target}"))
            .ToList();
        Console.WriteLine("| handler | rows when sent once | rows when sent many times | answers |");
        Console.WriteLine("| --- | --- | --- | --- |");
        var tried = 0;
        var untried = new List<string>();
        foreach (var target in targets)
            if (await TryAsync(target, targets))
                tried++;
            else
                untried.Add($"{target}");
        foreach (var target in untried)
            Console.WriteLine($"Nothing that was made up changed anything: {target}");
        Console.WriteLine($"{tried} of {targets.Count} handlers sent {_writers} times at once, twice; {_faults} faults.");
        return _faults == 0 ? 0 : 1;
    }

    /// <summary>Tries one handler; false where nothing that was made up for it changed anything.</summary>
    private async Task<bool> TryAsync(Target target, IReadOnlyList<Target> all)
    {
        if (await SingleAsync(target, all) is not { } single)
            return false;
        var isTried = false;
        for (var round = 0; round < Rounds; round++)
        {
            await PrepareAsync(target, all);
            await _app.LookAsync();
            var (attempt, key, before) = (new Attempt(target, _values, _app, _random, plain: true), $"{Guid.NewGuid()}", _app.Rows());
            var answers = await Task.WhenAll(Enumerable.Range(0, _writers).Select(_ => SendAsync(attempt, key)));
            var grown = Grown(before);
            isTried = true;
            Console.WriteLine(
                $"| {target} | {Told(single)} | {Told(grown)} | "
                    + $"{string.Join(", ", answers.GroupBy(each => each.Code).Select(same => $"{same.Count()} x {(int)same.Key}"))} |"
            );
            // One row is none twice: what is sent may differ, as an answer that is asked again and one that is not.
            foreach (
                var (table, rows) in grown.Where(each =>
                    each.Key != Derived && each.Value > Math.Max(single.GetValueOrDefault(each.Key), 1)
                )
            )
                Fault($"doubled: {rows} rows more in {table}, {single.GetValueOrDefault(table)} when sent once: {attempt}");
            if (answers.FirstOrDefault(each => (int)each.Code >= 500) is { Code: not 0 } failed)
                Fault($"answered {(int)failed.Code}: {attempt}");
            if (answers.Select(each => $"{(int)each.Code} {each.To}").Distinct().ToList() is { Count: > 1 } ways)
                Fault($"answered in several ways, {string.Join(", ", ways)}: {attempt}");
        }

        return isTried;
    }

    /// <summary>By how many rows each table grows where a request of a page changes something; null where none does.</summary>
    private async Task<IReadOnlyDictionary<string, long>?> SingleAsync(Target target, IReadOnlyList<Target> all)
    {
        var most = new Dictionary<string, long>();
        var done = 0;
        for (var i = 0; i < Tries && done < 3; i++)
        {
            if (i > 0)
                await PrepareAsync(target, all);
            await _app.LookAsync();
            var (attempt, version, before) = (new Attempt(target, _values, _app, _random, plain: true), _app.Version, _app.Rows());
            var (code, _) = await SendAsync(attempt, $"{Guid.NewGuid()}");
            if ((int)code >= 400 || _app.Version == version)
                continue;
            done++;
            _app.Wrote(target, attempt);
            foreach (var (table, rows) in Grown(before))
                most[table] = Math.Max(most.GetValueOrDefault(table), rows);
        }

        return done > 0 ? most : null;
    }

    /// <summary>Does what somebody would do before: opens the page once more, plays, or deletes what is to come back.</summary>
    private async Task PrepareAsync(Target target, IReadOnlyList<Target> all)
    {
        await _values.OpenAnewAsync(_sender.Http, target, _random);
        foreach (var before in Targets.Before(all, target))
        {
            var (attempt, version) = (new Attempt(before, _values, _app, _random, plain: true), _app.Version);
            var (code, _) = await SendAsync(attempt, $"{Guid.NewGuid()}");
            if ((int)code < 400 && _app.Version != version)
                _app.Wrote(before, attempt);
        }
    }

    private Dictionary<string, long> Grown(IReadOnlyDictionary<string, long> before) =>
        _app.Rows()
            .Select(each => (each.Key, More: each.Value - before[each.Key]))
            .Where(each => each.More != 0)
            .ToDictionary(each => each.Key, each => each.More);

    private async Task<(HttpStatusCode Code, string To)> SendAsync(Attempt attempt, string key)
    {
        using var request = attempt.Request(_sender.Token, key);
        using var answer = await _sender.Http.SendAsync(request);
        return (answer.StatusCode, $"{answer.Headers.Location}");
    }

    private static string Told(IReadOnlyDictionary<string, long> rows) =>
        rows.Count == 0 ? "none" : string.Join(", ", rows.Select(each => $"{each.Value:+0;-0} {each.Key}"));

    private void Fault(string told)
    {
        _faults++;
        Console.WriteLine($"FAULT {told}");
    }
}
