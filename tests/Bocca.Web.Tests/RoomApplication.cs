using System.Collections.Concurrent;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.Mvc.Razor;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;

[assembly: AssemblyFixture(typeof(Bocca.Web.Tests.RoomApplications))]

namespace Bocca.Web.Tests;

/// <summary>An application that serves rooms: usual ones one after the other, any other a single one of its own.</summary>
public sealed class RoomApplication(string? useFolder, bool demo, bool keepFolder, Action<IServiceCollection>? instead)
    : WebApplicationFactory<Program>
{
    /// <summary>An empty record as the application makes one; made once, since every room begins with it.</summary>
    private static readonly Lazy<string> EmptyRecord = new(MakeEmptyRecord);

    private static readonly ConcurrentBag<RoomApplication> Idle = [];

    /// <summary>Somebody else has the record just now (published: SQLite, Result and Error Codes).</summary>
    private const int Busy = 5,
        Locked = 6;

    /// <summary>What the framework knows about every page's fields: the same for every room, and most of what starting one takes.</summary>
    private static IModelMetadataProvider? _fields;

    /// <summary>The scripts and styles with their fingerprint: no test changes them.</summary>
    private static Assets? _assets;

    /// <summary>The pages and views as they were found and made ready: the same for every room.</summary>
    private static PageLoader? _pages;
    private static IRazorViewEngine? _views;

    public string Folder { get; } = useFolder ?? Directory.CreateTempSubdirectory("bocca-web").FullName;

    /// <summary>One that no test has now, its record emptied; a new one where there is none.</summary>
    public static RoomApplication Free()
    {
        if (!Idle.TryTake(out var idle))
            return new RoomApplication(null, demo: false, keepFolder: false, null);
        idle.Empty();
        return idle;
    }

    /// <summary>Ends those that no test has.</summary>
    public static async Task EndAsync()
    {
        while (Idle.TryTake(out var idle))
            await idle.DisposeAsync();
        if (!EmptyRecord.IsValueCreated)
            return;
        SqliteConnection.ClearAllPools();
        Directory.Delete(Path.GetDirectoryName(EmptyRecord.Value)!, recursive: true);
    }

    /// <summary>Is free for the next test.</summary>
    public void Leave() => Idle.Add(this);

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        if (!demo && useFolder is null)
            File.Copy(EmptyRecord.Value, Path.Combine(Folder, "bocca.db"));
        builder
            .UseSetting("data", Folder)
            .UseSetting("empty", demo ? "false" : "true")
            .UseSetting("warm-up", "false")
            .ConfigureTestServices(services =>
            {
                if (_fields is not null)
                    services.AddSingleton(_fields);
                if (_assets is not null)
                    services.AddSingleton(_assets);
                if (_pages is not null && _views is not null)
                    services.AddSingleton(_pages).AddSingleton(_views);
                instead?.Invoke(services);
            });
    }

    protected override IHost CreateHost(IHostBuilder builder)
    {
        var host = base.CreateHost(builder);
        _fields ??= host.Services.GetRequiredService<IModelMetadataProvider>();
        _assets ??= host.Services.GetRequiredService<Assets>();
        _pages ??= host.Services.GetRequiredService<PageLoader>();
        _views ??= host.Services.GetRequiredService<IRazorViewEngine>();
        return host;
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (!disposing || keepFolder || useFolder is not null || !Directory.Exists(Folder))
            return;
        SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, recursive: true);
    }

    /// <summary>Puts the empty record over this one, by the database's own means.</summary>
    private void Empty()
    {
        // Whoever opens the empty record puts its log in order first, and others would find it locked meanwhile.
        lock (EmptyRecord)
            CopyEmpty();
    }

    private void CopyEmpty()
    {
        using var empty = new SqliteConnection($"Data Source={EmptyRecord.Value};Mode=ReadOnly;Pooling=False");
        using var record = new SqliteConnection(RecordFile.ConnectionString(Folder));
        empty.Open();
        record.Open();
        for (var left = 100; ; left--)
        {
            try
            {
                empty.BackupDatabase(record);
                return;
            }
            catch (SqliteException busy) when (busy.SqliteErrorCode is Busy or Locked && left > 0)
            {
                // The last request of the test before may still let go of the record; a copy does not wait for it by itself.
                Thread.Sleep(20);
            }
        }
    }

    private static string MakeEmptyRecord()
    {
        var folder = Directory.CreateTempSubdirectory("bocca-web").FullName;
        using (var db = new BoccaDb(new DbContextOptionsBuilder<BoccaDb>().UseSqlite(RecordFile.ConnectionString(folder)).Options))
        {
            RecordFile.PrepareAsync(db, new Stops([Desk.Stop])).GetAwaiter().GetResult();
            db.Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE);");
        }

        return Path.Combine(folder, "bocca.db");
    }
}

/// <summary>Ends the applications of the rooms when the last test is over.</summary>
public sealed class RoomApplications : IAsyncDisposable
{
    public ValueTask DisposeAsync() => new(RoomApplication.EndAsync());
}
