using AngleSharp.Html.Parser;
using Microsoft.AspNetCore.SignalR.Client;

namespace Bocca.Stress.Hostile;

/// <summary>A browser's tab: its cookies, its token, its line to the hub.</summary>
public sealed class Sender : IDisposable
{
    private HubConnection? _hub;

    public required HttpClient Http { get; init; }

    public required string Token { get; init; }

    public static async Task<Sender> OpenAsync(Uri address)
    {
        var http = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false }) { BaseAddress = address };
        using var page = new HtmlParser().ParseDocument(await http.GetStringAsync("/pupils/new"));
        return new Sender { Http = http, Token = page.QuerySelector("meta[name=antiforgery]")!.GetAttribute("content")! };
    }

    public async Task<HubConnection> HubAsync()
    {
        if (_hub is { State: HubConnectionState.Connected })
            return _hub;
        _hub = new HubConnectionBuilder().WithUrl(new Uri(Http.BaseAddress!, "/live/listen")).Build();
        await _hub.StartAsync();
        return _hub;
    }

    public void Dispose() => Http.Dispose();
}
