using System.Net;
using Microsoft.AspNetCore.Connections;

namespace Bocca.Web.Live;

/// <summary>
/// How many lines and connections one address may hold open: a room of pupils at their own computers needs far fewer, and whoever opens
/// more leaves the others their line.
/// </summary>
public sealed class LiveLines
{
    /// <summary>Listening lines of one address, and of all together (measured: see METHODS, speed).</summary>
    public const int MostOfAddress = 64,
        MostOfAll = 128;

    /// <summary>Connections of any kind of one address, and of all together (ours).</summary>
    public const int MostConnectionsOfAddress = 128,
        MostConnections = 512;

    private readonly Open _lines = new(MostOfAddress, MostOfAll);
    private readonly Open _connections = new(MostConnectionsOfAddress, MostConnections);

    /// <summary>Answers a listening line, which lasts as long as the answer; one too many is refused in a sentence.</summary>
    public async Task HoldAsync(HttpContext context, Func<Task> next)
    {
        var address = context.Connection.RemoteIpAddress ?? IPAddress.None;
        if (!string.Equals(context.Request.Headers.Upgrade, "websocket", StringComparison.OrdinalIgnoreCase))
        {
            await next();
        }
        else if (_lines.Enter(address))
        {
            try
            {
                await next();
            }
            finally
            {
                _lines.Leave(address);
            }
        }
        else
        {
            (context.Response.StatusCode, context.Response.Headers.RetryAfter) = (StatusCodes.Status503ServiceUnavailable, "10");
            await context.Response.WriteAsync($"No more than {MostOfAddress} listening lines can be open. Close one that nobody uses.");
        }
    }

    /// <summary>Serves a connection; one too many is closed at once.</summary>
    public ConnectionDelegate Hold(ConnectionDelegate next) =>
        async connection =>
        {
            var address = (connection.RemoteEndPoint as IPEndPoint)?.Address ?? IPAddress.None;
            if (!_connections.Enter(address))
            {
                connection.Abort();
                return;
            }

            try
            {
                await next(connection);
            }
            finally
            {
                _connections.Leave(address);
            }
        };

    private sealed class Open(int mostOfAddress, int mostOfAll)
    {
        private readonly Lock _counting = new();
        private readonly Dictionary<IPAddress, int> _open = [];
        private int _all;

        public bool Enter(IPAddress address)
        {
            lock (_counting)
            {
                var open = _open.GetValueOrDefault(address);
                if (open >= mostOfAddress || _all >= mostOfAll)
                    return false;
                (_open[address], _all) = (open + 1, _all + 1);
                return true;
            }
        }

        public void Leave(IPAddress address)
        {
            lock (_counting)
            {
                _all--;
                if (--_open[address] == 0)
                    _open.Remove(address);
            }
        }
    }
}
