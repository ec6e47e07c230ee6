using System.Collections.Concurrent;
using System.Diagnostics;
using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using AngleSharp.Html.Parser;
using Microsoft.AspNetCore.Mvc.Diagnostics;
using Microsoft.AspNetCore.SignalR;

namespace Bocca.Stress.Hostile;

/// <summary>
/// Sends what no page sends to everything that answers, and looks at each answer: none may fail, take long, tell of the inside,
/// or hold what was sent as it was sent; and the memory held at rest may not grow.
/// </summary>
public sealed partial class HostileRun : IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>
{
    /// <summary>Seconds a refusal may take; hearing has those of the sound over <see cref="HeardTimes"/> more.</summary>
    private const double MostSeconds = 1,
        HeardTimes = 20;

    /// <summary>How much more memory may be held at rest in the end, MB.</summary>
    private const double MostGrownMb = 50;

    /// <summary>
    /// So often each handler is asked as a page would, until it has done what it is for: at first, and once more pages are known. After so
    /// many answers of yes one that writes has written; in a run of so many requests everything has been done.
    /// </summary>
    private const int PlainTries = 12,
        MorePlainTries = 48,
        YesTries = 20,
        WordTries = 4,
        LongRun = 20_000;

    /// <summary>Bytes of a second of sound of 16 bits.</summary>
    private const double BytesOfSecond = 88_200;

    private const int LookedAtEvery = 50,
        FaultsTold = 200;

    /// <summary>What tells of problems takes no form, and so asks for no token.</summary>
    private const string ProblemPath = "/problem/{code}";

    private const string Packed = "application/zip";

    private readonly TriedApp _app;
    private readonly Values _values = new();
    private readonly MemoryWatch _memory = new();
    private readonly ConcurrentDictionary<string, int> _reached = new();
    private readonly ConcurrentDictionary<(string Target, int Code), int> _answers = new();
    private readonly ConcurrentDictionary<string, int> _succeeded = new();
    private readonly ConcurrentDictionary<string, int> _wrote = new();
    private readonly ConcurrentDictionary<string, bool> _tables = new();
    private readonly ConcurrentDictionary<string, string> _refused = new();
    private readonly ConcurrentQueue<string> _faults = new();
    private IReadOnlyList<Target> _targets = [];
    private double _before;

    private HostileRun(TriedApp app) => _app = app;

    /// <param name="requests">How many at random, after everything was asked once as a page would.</param>
    /// <param name="seed">Same seed, same requests.</param>
    /// <param name="atOnce">So many at a time.</param>
    /// <param name="isBrief">Reads the pages once only: what shows after something was done is not met.</param>
    /// <returns>0 where nothing came to harm.</returns>
    public static async Task<int> RunAsync(int requests, int seed, int atOnce, bool isBrief)
    {
        await using var app = new TriedApp();
        return await new HostileRun(app).GoAsync(requests, seed, atOnce, isBrief);
    }

    void IObserver<DiagnosticListener>.OnNext(DiagnosticListener value)
    {
        if (value.Name == "Microsoft.AspNetCore")
            value.Subscribe(this);
    }

    void IObserver<KeyValuePair<string, object?>>.OnNext(KeyValuePair<string, object?> value)
    {
        // What was thrown on the way to an answer of 500 is told whole: its address alone explains nothing.
        if (value.Key.EndsWith("andledException", StringComparison.Ordinal))
            Console.Error.WriteLine(value.Value?.GetType().GetProperty("exception")?.GetValue(value.Value));
        if (value.Value is BeforeHandlerMethodEventData handled)
            Reach(
                $"{handled.HandlerMethodDescriptor.HttpMethod.ToUpperInvariant()} /"
                    + handled.ActionContext.ActionDescriptor.AttributeRouteInfo?.Template
                    + (handled.HandlerMethodDescriptor.Name is { } name ? $"?handler={name}" : "")
            );
    }

    public void OnCompleted() { }

    public void OnError(Exception error) { }

    private async Task<int> GoAsync(int requests, int seed, int atOnce, bool isBrief)
    {
        using var listening = DiagnosticListener.AllListeners.Subscribe(this);
        _app.StartServer();
        await _app.LookAsync();
        _targets = await Targets.FindAsync(_app.Services);
        using (var sender = await Sender.OpenAsync(_app.Address))
        {
            await _app.FillAsync(sender.Http, sender.Token);
            await _app.LookAsync();
            await _values.ReadAsync(sender.Http, _app.Doors);
            await EachOnceAsync(sender, new Random(seed), PlainTries);
            if (!isBrief)
            {
                // What was done shows pages and forms that were not there before.
                await _app.LookAsync();
                await _values.ReadAsync(sender.Http, _app.Doors);
                await EachOnceAsync(sender, new Random(seed + 1), MorePlainTries);
            }
        }

        using (var sender = await Sender.OpenAsync(_app.Address))
        {
            await DirectedAsync(sender, seed);
            await RatesAsync(sender);
            await TablesAsync(sender, seed);
        }

        var clock = Stopwatch.StartNew();
        var sent = 0;
        await Task.WhenAll(
            Enumerable
                .Range(0, atOnce)
                .Select(worker =>
                    Task.Run(async () =>
                    {
                        using var sender = await Sender.OpenAsync(_app.Address);
                        var random = new Random((seed * 1000) + worker);
                        for (int number; (number = Interlocked.Increment(ref sent)) <= requests; )
                        {
                            if (number % LookedAtEvery == 0)
                                await _app.LookAsync();
                            if (number == Math.Max(1, requests / 2))
                                _before = TriedApp.MemoryAtRest();
                            var target = _targets[random.Next(_targets.Count)];
                            await TryAsync(sender, target, new Attempt(target, _values, _app, random));
                        }
                    })
                )
        );
        return Report(requests, clock.Elapsed.TotalSeconds);
    }

    /// <summary>Asks everything as a page would, until it has done what it is for.</summary>
    private async Task EachOnceAsync(Sender sender, Random random, int tries)
    {
        foreach (var target in Targets.InOrder(_targets.Where(target => !IsRare(target))))
        {
            if (!IsDone(target))
                await _app.LookAsync();
            for (var i = 0; i < tries && !IsDone(target); i++)
            {
                if (i > 0 && target.Method == "POST")
                    await PrepareAsync(sender, target, random);
                await TryAsync(sender, target, new Attempt(target, _values, _app, random, plain: true));
            }
        }
    }

    /// <summary>Does before another try what somebody would do: opens the page once more, or plays once more.</summary>
    private async Task PrepareAsync(Sender sender, Target target, Random random)
    {
        await _values.OpenAnewAsync(sender.Http, target, random);
        foreach (var before in Targets.Before(_targets, target))
            await TryAsync(sender, before, new Attempt(before, _values, _app, random, plain: true));
    }

    /// <summary>Sends everything once that has to be refused or kept.</summary>
    private async Task DirectedAsync(Sender sender, int seed)
    {
        await _app.LookAsync();
        foreach (var each in Directed.Of(_targets, _app))
        {
            var (attempt, isTaken) = await TryAsync(sender, each, seed);
            if (isTaken && each.Due == Due.Refused)
                Fault($"took what has to be refused: {attempt}");
            if (isTaken && each.Due == Due.Kept && !_app.Holds(each.Wrong.Value))
                Fault($"said yes and did not keep the words: {attempt}");
        }
    }

    /// <summary>Sends one; words that have to go in are sent until they do.</summary>
    private async Task<(Attempt Attempt, bool IsTaken)> TryAsync(Sender sender, Directed each, int seed)
    {
        for (var i = 1; ; i++)
        {
            var attempt = new Attempt(each.Target, _values, _app, new Random(seed + i), plain: true, each.Wrong);
            var isTaken = await TryAsync(sender, each.Target, attempt);
            if (isTaken || i == WordTries || each.Target.Method != "POST" || each.Wrong is not WrongValue || each.Due == Due.Refused)
                return (attempt, isTaken);
        }
    }

    /// <summary>Begins live lines of rates that no microphone has: each has to be refused.</summary>
    private async Task RatesAsync(Sender sender)
    {
        foreach (var target in _targets.Where(target => target.Method == "HUB"))
        foreach (var field in target.Fields.Where(field => field.Name.EndsWith("Rate", StringComparison.Ordinal)))
        foreach (var rate in (int[])[0, -1, 7_999, 192_001, int.MaxValue])
        {
            var attempt = new Attempt(target, _values, _app, new Random(1), plain: true, new WrongValue(field, $"{rate}"));
            if (await CallAsync(sender, target, attempt))
                Fault($"began a live line of {rate} samples a second: {attempt}");
        }
    }

    /// <summary>Asks for every file once more that may hold what was sent.</summary>
    private async Task TablesAsync(Sender sender, int seed)
    {
        var random = new Random(seed);
        foreach (var target in _targets.Where(target => target.Method == "GET" && _tables.ContainsKey($"{target}")))
            for (var i = 0; i < PlainTries; i++)
                await TryAsync(sender, target, new Attempt(target, _values, _app, random, plain: true));
    }

    /// <returns>Whether it was taken.</returns>
    private Task<bool> TryAsync(Sender sender, Target target, Attempt attempt) =>
        _memory.WhileAsync(attempt, () => TriedAsync(sender, target, attempt));

    private async Task<bool> TriedAsync(Sender sender, Target target, Attempt attempt)
    {
        if (target.Method == "HUB")
            return await CallAsync(sender, target, attempt);

        // What took long is asked once more: the machine may have been busy with something else.
        var (isTaken, late) = await AskAsync(sender, target, attempt);
        if (late > 0 && await AskAsync(sender, target, attempt) is { Late: > 0 } again)
            Fault($"took {again.Late:0.0} s too long, twice: {attempt}");
        return isTaken;
    }

    /// <summary>Asks, and looks at the answer.</summary>
    /// <returns>
    /// Whether it was taken, and seconds that a refusal or a hearing took longer than it may; nothing or less where it did not.
    /// </returns>
    private async Task<(bool IsTaken, double Late)> AskAsync(Sender sender, Target target, Attempt attempt)
    {
        using var request = attempt.Request(sender.Token);
        var (version, other) = (_app.Version, attempt.Other is { } whose ? _app.PrintOf(whose) : null);
        var clock = Stopwatch.StartNew();
        using var answer = await AnswerAsync(sender, request);
        if (answer is null)
        {
            Fault($"was not answered: {attempt}");
            return (false, 0);
        }

        var text = await TextAsync(answer);
        var seconds = clock.Elapsed.TotalSeconds;
        var code = (int)answer.StatusCode;
        // A form that is shown again was not taken.
        var isTaken =
            code < 400
            && (
                target.Method != "POST"
                || !text.StartsWith("<!DOCTYPE", StringComparison.OrdinalIgnoreCase)
                || (HandlersApart.Shown.TryGetValue($"{target}", out var shown) && text.Contains(shown, StringComparison.Ordinal))
            );
        _answers.AddOrUpdate(($"{target}", code), 1, (_, count) => count + 1);
        if (code >= 500 && !(code == 503 && answer.Headers.RetryAfter is not null))
            Fault($"answered {code}: {attempt}");
        if (WrongIn(answer, text) is { } wrong)
            Fault($"{wrong} ({code}): {attempt}");
        if (target.Method == "POST" && !attempt.HasToken && code is not (400 or 404 or 413) && target.Path != ProblemPath)
            Fault($"took a form without its token ({code}): {attempt}");
        if (attempt.Other is { } pupil && other != _app.PrintOf(pupil))
            Fault($"changed what is another pupil's ({code}): {attempt}");
        if (isTaken && target.Method == "POST" && _app.Version != version)
            _app.Wrote(target, attempt);
        if (isTaken)
            Succeed(target, _app.Version != version);
        else if (attempt.IsPlain)
            _refused[$"{target}"] = $"{code} {(text.StartsWith('<') ? "the page again" : text)}: {attempt}";
        var played = answer.Content.Headers.ContentType?.MediaType == "audio/wav" ? text.Length / BytesOfSecond : 0;
        if (answer.Content.Headers.ContentType?.MediaType is "text/csv" or Packed)
            _tables.TryAdd($"{target}", true);
        return (isTaken, seconds - MostSeconds - (code >= 400 ? 0 : (attempt.Seconds + played) / HeardTimes));
    }

    /// <summary>What an answer says; of a package the tables in it.</summary>
    private static async Task<string> TextAsync(HttpResponseMessage answer)
    {
        if (answer.Content.Headers.ContentType?.MediaType != Packed)
            return await answer.Content.ReadAsStringAsync();
        await using var package = new ZipArchive(await answer.Content.ReadAsStreamAsync(), ZipArchiveMode.Read);
        var tables = new StringBuilder();
        foreach (var table in package.Entries.Where(each => each.Name.EndsWith(".csv", StringComparison.Ordinal)))
        {
            using var reader = new StreamReader(await table.OpenAsync());
            tables.AppendLine(await reader.ReadToEndAsync());
        }

        return tables.ToString();
    }

    private static async Task<HttpResponseMessage?> AnswerAsync(Sender sender, HttpRequestMessage request)
    {
        try
        {
            return await sender.Http.SendAsync(request);
        }
        catch (HttpRequestException)
        {
            return null;
        }
    }

    private static string? WrongIn(HttpResponseMessage answer, string text)
    {
        var type = answer.Content.Headers.ContentType?.MediaType ?? "";
        // What the server's own parser refuses never comes to the application.
        if (answer is { StatusCode: HttpStatusCode.BadRequest, Headers.ConnectionClose: true } && text == "")
            return null;
        if (!answer.Headers.Contains("Content-Security-Policy") || !answer.Headers.Contains("X-Content-Type-Options"))
            return "without its headers";
        if (answer.Headers.CacheControl is not { NoStore: true } and not { Public: true, MaxAge: not null })
            return "may be stored";
        if (StackTrace().IsMatch(text))
            return "tells of the inside";
        if (type == "text/html" && HoldsMark(text))
            return "holds what was sent unescaped";
        if (type is "text/csv" or Packed && Formula().IsMatch(text))
            return "holds a cell that a spreadsheet would work out";
        try
        {
            if (type.EndsWith("json", StringComparison.Ordinal))
                JsonDocument.Parse(text).Dispose();
            else if (type.EndsWith("+xml", StringComparison.Ordinal) || type.EndsWith("/xml", StringComparison.Ordinal))
                XDocument.Load(XmlReader.Create(new StringReader(text), new XmlReaderSettings { DtdProcessing = DtdProcessing.Ignore }));
        }
        catch (Exception problem) when (problem is JsonException or XmlException)
        {
            return $"is no {type}";
        }

        return null;
    }

    /// <returns>Whether it was taken.</returns>
    private async Task<bool> CallAsync(Sender sender, Target target, Attempt attempt)
    {
        var code = 200;
        var clock = Stopwatch.StartNew();
        try
        {
            var hub = await sender.HubAsync();
            await hub.InvokeCoreAsync(target.Handler, typeof(object), attempt.Arguments);
            Reach($"{target}");
            Succeed(target, false);
        }
        catch (HubException refused)
        {
            code = 422;
            // A sentence of its own comes from inside the method.
            if (refused.Message.Contains("HubException:", StringComparison.Ordinal))
                Reach($"{target}");
            else if (refused.Message.Contains("unexpected error", StringComparison.Ordinal))
                Fault($"failed: {attempt}");
        }
        catch (Exception problem) when (problem is InvalidOperationException or OperationCanceledException or HttpRequestException)
        {
            // The server parted company; the next call comes anew.
            code = 400;
        }

        if (clock.Elapsed.TotalSeconds > 2 * MostSeconds)
            Fault($"took {clock.Elapsed.TotalSeconds:0.0} s: {attempt}");
        _answers.AddOrUpdate(($"{target}", code), 1, (_, count) => count + 1);
        return code == 200;
    }

    /// <summary>Whether what was sent has become an element or an attribute of a page or of a drawing in it.</summary>
    private static bool HoldsMark(string text)
    {
        if (!text.Contains("data-hostile", StringComparison.Ordinal))
            return false;
        using var page = new HtmlParser().ParseDocument(text);
        return page.QuerySelector("[data-hostile]") is not null;
    }

    private void Succeed(Target target, bool wrote)
    {
        _succeeded.AddOrUpdate($"{target}", 1, (_, count) => count + 1);
        if (wrote)
            _wrote.AddOrUpdate($"{target}", 1, (_, count) => count + 1);
    }

    private static bool IsRare(Target target) => HandlersApart.Never.Contains($"{target}") || HandlersApart.Rare.Contains($"{target}");

    /// <summary>Whether a handler has done what it is for: answered, and written where it is there to write.</summary>
    private bool IsDone(Target target) =>
        _succeeded.ContainsKey($"{target}")
        && (target.Method != "POST" || HandlersApart.Reading.Contains($"{target}") || _wrote.ContainsKey($"{target}"));

    private void Reach(string target) => _reached.AddOrUpdate(target.Replace(":int?", "").Replace(":int", ""), 1, (_, count) => count + 1);

    private void Fault(string told) => _faults.Enqueue(told);

    private int Report(int requests, double seconds)
    {
        Console.WriteLine("| handler | sent | reached | done | wrote | answers |");
        Console.WriteLine("| --- | --- | --- | --- | --- | --- |");
        foreach (var target in _targets.OrderBy(target => target.Path).ThenBy(target => target.Handler))
        {
            var answers = _answers.Where(answer => answer.Key.Target == $"{target}").OrderBy(answer => answer.Key.Code).ToList();
            var reached = _reached.GetValueOrDefault($"{target}");
            Console.WriteLine(
                $"| {target} | {answers.Sum(answer => answer.Value)} | {reached} | {_succeeded.GetValueOrDefault($"{target}")} | "
                    + $"{_wrote.GetValueOrDefault($"{target}")} | "
                    + string.Join(", ", answers.Select(answer => $"{answer.Value} x {answer.Key.Code}"))
                    + " |"
            );
        }

        foreach (var target in _targets.Where(target => !IsRare(target)))
            if (requests >= LongRun && !IsDone(target))
                Fault($"never did what it is for: {target}, last {_refused.GetValueOrDefault($"{target}")}");
            else if (!IsDone(target) && _succeeded.GetValueOrDefault($"{target}") is var yes and >= YesTries)
                Fault($"said yes {yes} times and wrote nothing: {target}");
        foreach (var target in _targets.Where(target => !IsRare(target) && !IsDone(target)))
            Console.WriteLine($"not done: {target}, last {_refused.GetValueOrDefault($"{target}")}");
        var after = TriedApp.MemoryAtRest();
        if (after - _before > MostGrownMb)
            Fault($"{after - _before:0} MB more are held at rest.");
        foreach (var fault in _faults.Take(FaultsTold))
            Console.WriteLine($"FAULT {fault}");
        Console.WriteLine(
            $"{requests} requests to {_targets.Count} handlers in {seconds:0} s, {_targets.Count(IsDone)} of them did what they are for; "
                + $"{_before:0} MB at rest half way, {after:0} MB in the end; "
                + $"{_faults.Count} faults."
        );
        return _faults.IsEmpty ? 0 : 1;
    }

    [GeneratedRegex(@"(?m)(^|,)""?[=@]")]
    private static partial Regex Formula();

    [GeneratedRegex(@"^\s+at [\w.<>`+]+\(|\b\w+Exception:", RegexOptions.Multiline)]
    private static partial Regex StackTrace();
}
