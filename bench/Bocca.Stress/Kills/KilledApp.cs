using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using AngleSharp.Html.Parser;

namespace Bocca.Stress.Kills;

/// <summary>The application in a process of its own, on a folder that outlives it.</summary>
/// <param name="folder">The record's folder.</param>
public sealed class KilledApp(string folder) : IDisposable
{
    /// <summary>A start that takes longer waits for something that never comes (seconds).</summary>
    public const double MostStartSeconds = 30;

    private Process? _process;

    /// <summary>So long is waited for it to answer (seconds).</summary>
    public double MostSeconds { get; init; } = MostStartSeconds;

    /// <summary>The record's folder.</summary>
    public string Folder => folder;

    /// <summary>Where it answers.</summary>
    public Uri Address { get; private set; } = new("http://localhost/");

    /// <summary>Its folder for what is temporary: nothing of a pupil may lie there.</summary>
    public string Temporary { get; } = $"{folder}-tmp";

    /// <summary>What it printed last.</summary>
    public string Printed { get; private set; } = "";

    /// <summary>Starts it; does not wait.</summary>
    public void Start()
    {
        Address = new Uri($"http://localhost:{FreePort()}/");
        var start = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
        string[] arguments =
        [
            Path.Combine(AppContext.BaseDirectory, "Bocca.Web.dll"),
            "--contentRoot",
            Sources.Web,
            "--urls",
            Address.ToString(),
            "--data",
            folder,
            "--empty",
            "true",
            "--warm-up",
            "false",
        ];
        foreach (var argument in arguments)
            start.ArgumentList.Add(argument);
        Directory.CreateDirectory(Temporary);
        start.Environment["TMPDIR"] = Temporary;
        // The runtime's own sockets for debuggers lie there otherwise.
        start.Environment["DOTNET_EnableDiagnostics"] = "0";
        Printed = "";
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, line) => Printed += line.Data + "\n";
        _process.ErrorDataReceived += (_, line) => Printed += line.Data + "\n";
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
    }

    /// <summary>Waits until it answers.</summary>
    /// <exception cref="TimeoutException">It did not, or ended.</exception>
    public async Task AnswersAsync()
    {
        using var client = new HttpClient { BaseAddress = Address, Timeout = TimeSpan.FromSeconds(MostSeconds) };
        var clock = Stopwatch.StartNew();
        while (clock.Elapsed.TotalSeconds < MostSeconds && _process is { HasExited: false })
            try
            {
                using var answer = await client.GetAsync("/pupils/new");
                if (answer.IsSuccessStatusCode)
                    return;
            }
            catch (HttpRequestException)
            {
                await Task.Delay(20);
            }

        throw new TimeoutException($"It did not come up: {Printed}");
    }

    /// <summary>A way to it, as a page's script has one.</summary>
    public async Task<HttpClient> ClientAsync()
    {
        var client = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false })
        {
            BaseAddress = Address,
            Timeout = TimeSpan.FromMinutes(10),
        };
        using var page = new HtmlParser().ParseDocument(await client.GetStringAsync("/pupils/new"));
        client.DefaultRequestHeaders.Add("X-Antiforgery", page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content"));
        return client;
    }

    /// <summary>Megabytes that it holds now.</summary>
    public double Memory
    {
        get
        {
            _process!.Refresh();
            return _process.WorkingSet64 / 1e6;
        }
    }

    /// <summary>Ends it at once, as kill -9 does.</summary>
    public void Kill()
    {
        _process!.Kill();
        _process.WaitForExit();
        _process.Dispose();
        _process = null;
    }

    public void Dispose()
    {
        if (_process is not null)
            Kill();
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
