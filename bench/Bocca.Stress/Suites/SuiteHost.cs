using System.Collections.Concurrent;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace Bocca.Stress.Suites;

/// <summary>
/// What the browser suites share: one process that serves a room to each, an application of its own with its own record, port and services,
/// and runs their command lines. Most of what an application of a suite costs is the runtime making code ready, which is done once here.
/// </summary>
public static class SuiteHost
{
    /// <summary>Says on a line where it is asked, and answers until its input ends.</summary>
    public static async Task<int> RunAsync()
    {
        var rooms = new ConcurrentDictionary<int, ServedRoom>();
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        await using var host = builder.Build();
        host.Urls.Add("http://127.0.0.1:0");
        host.MapPost("/rooms", (string data) => Open(rooms, data));
        host.MapDelete("/rooms/{port:int}", (int port) => CloseAsync(rooms, port));
        host.MapPost("/commands", (string[] arguments) => CommandLines.Run(arguments));
        await host.StartAsync();
        await Console.Out.WriteLineAsync(host.Urls.First());
        CommandLines.Listen();
        while (await Console.In.ReadLineAsync() is not null) { }
        foreach (var port in rooms.Keys)
            await CloseAsync(rooms, port);
        return 0;
    }

    private static int Open(ConcurrentDictionary<int, ServedRoom> rooms, string data)
    {
        var room = ServedRoom.Open(data);
        rooms[room.Port] = room;
        return room.Port;
    }

    private static async Task<IResult> CloseAsync(ConcurrentDictionary<int, ServedRoom> rooms, int port)
    {
        if (!rooms.TryRemove(port, out var room))
            return Results.NotFound();
        await room.DisposeAsync();
        return Results.NoContent();
    }
}
