using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Bocca.Stress.Suites;

/// <summary>The application on a record, behind its real server and a port that nobody uses, as <c>start</c> serves it.</summary>
public sealed class ServedRoom : WebApplicationFactory<global::Program>
{
    private readonly string _data;

    private ServedRoom(string data)
    {
        _data = data;
        UseKestrel(0);
    }

    /// <summary>Where it answers.</summary>
    public int Port => ClientOptions.BaseAddress.Port;

    /// <summary>Serves the record in a folder; a new one is filled with the invented pupils.</summary>
    public static ServedRoom Open(string data)
    {
        var room = new ServedRoom(data);
        room.StartServer();
        return room;
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder) =>
        builder.UseContentRoot(Sources.Web).UseEnvironment("Production").UseSetting("data", _data).UseSetting("warm-up", "false");
}
