using System.Diagnostics;
using Bocca.Core.Instruments;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Stress.Hostile;

/// <summary>The application behind its real server, on a record of its own that is gone afterwards.</summary>
public sealed class TriedApp : WebApplicationFactory<global::Program>
{
    private const int Pupils = 8;
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-stress").FullName;

    public TriedApp() => UseKestrel(0);

    /// <summary>Where it answers.</summary>
    public Uri Address => ClientOptions.BaseAddress;

    /// <summary>Who plays, and what stands in the record of each.</summary>
    public IReadOnlyList<(int Pupil, IReadOnlyList<long> Entries)> Known { get; private set; } = [];

    /// <summary>A pupil who was deleted.</summary>
    public int Deleted { get; private set; }

    protected override void ConfigureWebHost(IWebHostBuilder builder) =>
        builder.UseContentRoot(Sources.Web).UseSetting("data", _folder).UseSetting("empty", "true").UseSetting("warm-up", "false");

    /// <summary>Sees to it that somebody is there, and looks up what can be asked for.</summary>
    public async Task LookAsync()
    {
        using var scope = Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
        var here = await db.Pupils.OrderBy(pupil => pupil.Id).Select(pupil => pupil.Id).ToListAsync();
        for (var i = here.Count; i <= Pupils; i++)
            db.Pupils.Add(New(Catalogue.All[i % Catalogue.All.Count], i));
        await db.SaveChangesAsync();
        if (Deleted == 0)
        {
            var last = await db.Pupils.OrderBy(pupil => pupil.Id).LastAsync();
            (Deleted, last.DeletedAt) = (last.Id, DateTime.UtcNow);
            await db.SaveChangesAsync();
        }

        var pupils = await db.Pupils.OrderBy(pupil => pupil.Id).Select(pupil => pupil.Id).Take(Pupils).ToListAsync();
        var entries = await db
            .Entries.Where(entry => pupils.Contains(entry.PupilId))
            .OrderByDescending(entry => entry.Id)
            .Take(400)
            .Select(entry => new { entry.Id, entry.PupilId })
            .ToListAsync();
        Known =
        [
            .. pupils.Select(pupil =>
                (pupil, (IReadOnlyList<long>)[.. entries.Where(entry => entry.PupilId == pupil).Select(entry => entry.Id)])
            ),
        ];
    }

    /// <summary>Megabytes that the process holds when nothing is going on.</summary>
    public static double MemoryAtRest()
    {
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
        using var process = Process.GetCurrentProcess();
        return process.WorkingSet64 / 1e6;
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (!disposing || !Directory.Exists(_folder))
            return;
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    private static Pupil New(Instrument instrument, int number) =>
        new()
        {
            Name = $"Pupil {number}",
            InstrumentId = instrument.Id,
            ReadingId = instrument.Readings[0].Id,
            Started = new DateOnly(2026, 9, 1),
        };
}
