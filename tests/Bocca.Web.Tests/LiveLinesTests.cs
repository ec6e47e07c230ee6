using System.Net;
using Bocca.Web.Live;
using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Http;

namespace Bocca.Web.Tests;

/// <summary>One address holds so many lines and connections open, and no more; the others still have theirs.</summary>
public sealed class LiveLinesTests
{
    private readonly LiveLines _lines = new();

    [Fact]
    public async Task The_next_line_of_an_address_is_refused_until_one_closes()
    {
        var (close, opened) = (new TaskCompletionSource(), new List<Task>());
        for (var i = 0; i < LiveLines.MostOfAddress; i++)
            opened.Add(_lines.HoldAsync(Line("127.0.0.1"), () => close.Task));

        var refused = Line("127.0.0.1");
        await _lines.HoldAsync(refused, () => throw new InvalidOperationException("It was let in."));
        Assert.Equal(503, refused.Response.StatusCode);
        Assert.Equal("10", refused.Response.Headers.RetryAfter);
        var (other, page) = (false, false);
        await _lines.HoldAsync(Line("127.0.0.2"), () => Task.FromResult(other = true));
        await _lines.HoldAsync(Line("127.0.0.1", "h2c"), () => Task.FromResult(page = true));
        Assert.True(other && page);

        close.SetResult();
        await Task.WhenAll(opened);
        var again = false;
        await _lines.HoldAsync(Line("127.0.0.1"), () => Task.FromResult(again = true));
        Assert.True(again);
    }

    [Fact]
    public async Task All_addresses_together_have_a_most_and_a_line_that_breaks_is_free_again()
    {
        var close = new TaskCompletionSource();
        var opened = Enumerable
            .Range(0, LiveLines.MostOfAll)
            .Select(i => _lines.HoldAsync(Line($"127.0.1.{1 + (i % 4)}"), () => close.Task))
            .ToList();
        var refused = Line("127.0.2.1");
        await _lines.HoldAsync(refused, () => Task.CompletedTask);
        Assert.Equal(503, refused.Response.StatusCode);
        close.SetException(new IOException("gone"));
        await Assert.ThrowsAsync<IOException>(() => Task.WhenAll(opened));
        var free = false;
        await _lines.HoldAsync(refused, () => Task.FromResult(free = true));
        Assert.True(free);
    }

    [Fact]
    public async Task A_connection_too_many_is_closed_at_once()
    {
        var (close, served) = (new TaskCompletionSource(), 0);
        var hold = _lines.Hold(_ =>
        {
            served++;
            return close.Task;
        });
        var opened = Enumerable.Range(0, LiveLines.MostConnectionsOfAddress).Select(_ => hold(Connection("127.0.0.1"))).ToList();
        var more = Connection("127.0.0.1");
        await hold(more);
        Assert.True(more.ConnectionClosed.WaitHandle.WaitOne(TimeSpan.FromSeconds(5)));
        Assert.Equal(LiveLines.MostConnectionsOfAddress, served);
        close.SetResult();
        await Task.WhenAll(opened);
        await hold(Connection("127.0.0.1"));
        Assert.Equal(LiveLines.MostConnectionsOfAddress + 1, served);
    }

    private static DefaultHttpContext Line(string address, string upgrade = "websocket")
    {
        var context = new DefaultHttpContext();
        context.Connection.RemoteIpAddress = IPAddress.Parse(address);
        context.Request.Headers.Upgrade = upgrade;
        return context;
    }

    private static DefaultConnectionContext Connection(string address) =>
        new() { RemoteEndPoint = new IPEndPoint(IPAddress.Parse(address), 1) };
}
