using System.Collections.Concurrent;
using System.Diagnostics;
using Bocca.Core.Instruments;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Stress.Hostile;

/// <summary>The application behind its real server, on a record of its own that is gone afterwards.</summary>
public sealed class TriedApp : WebApplicationFactory<global::Program>
{
    private const int Pupils = 8,
        Filled = 4,
        MostNewest = 4;

    /// <summary>So far apart in the catalogue lie the instruments of pupils: a slide is among them.</summary>
    private const int Apart = 5;
    private readonly string _folder = Directory.CreateTempSubdirectory("bocca-stress").FullName;

    private Microsoft.Data.Sqlite.SqliteConnection? _reader;
    private Dictionary<long, string> _places = [];
    private IReadOnlyList<(string, string)>? _columns;
    private readonly ConcurrentDictionary<string, List<(long Entry, int Pupil)>> _came = new();
    private readonly ConcurrentDictionary<string, (long Entry, int Pupil)> _went = new();
    private long _newest;
    private List<(long Entry, int Pupil)> _marks = [];

    public TriedApp() => UseKestrel(0);

    /// <summary>Where it answers.</summary>
    public Uri Address => ClientOptions.BaseAddress;

    /// <summary>Who plays, and what stands in the record of each.</summary>
    public IReadOnlyList<(int Pupil, IReadOnlyList<long> Entries)> Known { get; private set; } = [];

    /// <summary>A mark of a class's turn with whom it was given to; null for none.</summary>
    public IReadOnlyDictionary<string, string>? MarkOf(Random random)
    {
        if (_marks.Count == 0)
            return null;
        var (entry, pupil) = _marks[random.Next(_marks.Count)];
        return new Dictionary<string, string>
        {
            ["id"] = $"{entry}",
            ["pupil"] = $"{pupil}",
            ["class"] = "Thursday",
            ["what"] = "a scale",
        };
    }

    /// <summary>Whether an entry is of the stop that a target belongs to.</summary>
    public Func<long, bool> IsOf(Target target)
    {
        var place = Services.GetRequiredService<Stops>().Of(target.Path).Place;
        return entry => _places.GetValueOrDefault(entry) == place;
    }

    /// <summary>Takes down what a request has written: an entry that came, or one that went.</summary>
    public void Wrote(Target target, Attempt attempt)
    {
        if (!Targets.IsOfTakes(target))
            Came(target.Path);
        else if (target.Handler == "Delete" && attempt.Named is { } named)
            _went[target.Path] = named;
    }

    private void Came(string path)
    {
        var entry = (long)Ask("SELECT coalesce(max(Id), 0) FROM Entries")!;
        if (entry <= _newest)
            return;
        _newest = entry;
        var from = _came.GetOrAdd(path, _ => []);
        lock (from)
            from.Add((entry, (int)(long)Ask($"SELECT PupilId FROM Entries WHERE Id = {entry}")!));
    }

    /// <summary>
    /// An entry that came from an address, or where none did from the page that it belongs to: one of the newest, and whose it is; null
    /// where none came.
    /// </summary>
    public (long Entry, int Pupil)? CameFrom(string path, Random random)
    {
        if (!_came.TryGetValue(path, out var from) && !_came.TryGetValue(Values.Above(path), out from))
            return null;
        lock (from)
            return from[Math.Max(0, from.Count - 1 - random.Next(MostNewest))];
    }

    /// <summary>The entry that an address deleted last, and whose it was; null for none.</summary>
    public (long Entry, int Pupil)? WentFrom(string path) => _went.TryGetValue(path, out var went) ? went : null;

    /// <summary>Entries that were deleted, and whose they were.</summary>
    public IReadOnlyList<(long Entry, int Pupil)> Gone { get; private set; } = [];

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
            db.Pupils.Add(New(Catalogue.All[(Apart * i) % Catalogue.All.Count], i));
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
            .Select(entry => new
            {
                entry.Id,
                entry.PupilId,
                entry.Kind,
            })
            .ToListAsync();
        var stops = Services.GetRequiredService<Stops>();
        _marks = [.. entries.Where(entry => entry.Kind == PracticeStop.Rounds.Id).Select(entry => (entry.Id, entry.PupilId))];
        _places = entries.ToDictionary(entry => entry.Id, entry => stops.OfKind(entry.Kind).Place);
        // Somebody deletes something now and then, so that it can be brought back.
        foreach (var pupil in pupils.Where(pupil => Gone.All(gone => gone.Pupil != pupil)))
            await db
                .Entries.Where(entry => entry.PupilId == pupil)
                .OrderBy(entry => entry.Id)
                .Take(1)
                .ExecuteUpdateAsync(to => to.SetProperty(entry => entry.DeletedAt, DateTime.UtcNow));
        Gone =
        [
            .. (
                await db
                    .Entries.IgnoreQueryFilters()
                    .Where(entry => entry.DeletedAt != null && pupils.Contains(entry.PupilId))
                    .OrderByDescending(entry => entry.Id)
                    .Take(100)
                    .Select(entry => new { entry.Id, entry.PupilId })
                    .ToListAsync()
            ).Select(entry => (entry.Id, entry.PupilId)),
        ];
        Known =
        [
            .. pupils.Select(pupil =>
                (pupil, (IReadOnlyList<long>)[.. entries.Where(entry => entry.PupilId == pupil).Select(entry => entry.Id)])
            ),
        ];
    }

    /// <summary>Where reading begins, so that forms of every kind are met.</summary>
    public IEnumerable<string> Doors =>
        [
            "/",
            "/pupils/new",
            "/pupils/deleted",
            "/practice/timetable",
            "/practice/paper",
            "/practice/class?class=Thursday&what=a+scale",
            "/practice/wall?class=Thursday&what=a+scale",
            "/approach/changes",
            .. Known.SelectMany(known => PagesOf(known.Pupil)),
        ];

    /// <summary>A number that is another one whenever somebody else has written to the record.</summary>
    public long Version => (long)Ask("PRAGMA data_version")!;

    /// <summary>How many rows every table has, those that are deleted too.</summary>
    public IReadOnlyDictionary<string, long> Rows() =>
        ((string)Ask("SELECT group_concat(name, ' ') FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%'")!)
            .Split(' ')
            .ToDictionary(table => table, table => (long)Ask($"SELECT COUNT(*) FROM \"{table}\"")!);

    /// <summary>All that stands in a pupil's record, as one text.</summary>
    public string PrintOf(int pupil) =>
        (string)
            Ask(
                "SELECT coalesce(group_concat(e.Id || '|' || e.Kept || '|' || coalesce(e.DeletedAt, '') || '|' || coalesce(e.DoneAt, '') "
                    + "|| '|' || e.Subject || '|' || e.Summary || '|' || coalesce(p.Body, ''), char(10)), '') FROM Entries e "
                    + $"LEFT JOIN Payloads p ON p.EntryId = e.Id WHERE e.PupilId = {pupil}"
            )!;

    /// <summary>Whether words stand somewhere in the record, as they are or inside a payload.</summary>
    public bool Holds(string words) =>
        Columns().Any(column => Ask($"SELECT 1 FROM \"{column.Table}\" WHERE instr(\"{column.Name}\", '{words}') LIMIT 1") is not null);

    /// <summary>All columns that can hold words.</summary>
    private IReadOnlyList<(string Table, string Name)> Columns() =>
        _columns ??= [
            .. (
                (string)
                    Ask(
                        "SELECT group_concat(m.name || ' ' || c.name, char(10)) FROM sqlite_master m, pragma_table_info(m.name) c "
                            + "WHERE m.type = 'table' AND c.type = 'TEXT' AND m.name NOT LIKE 'sqlite%'"
                    )!
            )
                .Split('\n')
                .Select(line => line.Split(' '))
                .Select(parts => (parts[0], parts[1])),
        ];

    /// <summary>Puts something of every kind into the record: takes, remarks, weeks, lessons, classes, pieces, times.</summary>
    public async Task FillAsync(HttpClient client, string token)
    {
        foreach (var (pupil, number) in Known.Select((known, number) => (known.Pupil, number)).Take(Filled))
        foreach (var request in Fill.Of(pupil, number, Values.GoodFiles[1].Bytes))
            using (request)
            {
                request.Headers.TryAddWithoutValidation("X-Antiforgery", token);
                // What an instrument has not is refused; what nobody can do is found out later.
                using var answer = await client.SendAsync(request);
            }
    }

    /// <summary>Megabytes that the process holds when nothing is going on.</summary>
    public static double MemoryAtRest()
    {
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
        using var process = Process.GetCurrentProcess();
        return process.WorkingSet64 / 1e6;
    }

    private static string[] PagesOf(int pupil) =>
        [
            $"/pupils/{pupil}",
            $"/buzz/{pupil}",
            $"/tone/{pupil}",
            $"/slurs/{pupil}",
            $"/record/{pupil}",
            $"/practice/{pupil}",
            $"/practice/{pupil}/lesson",
            $"/practice/{pupil}/week",
            $"/pieces/{pupil}",
            $"/approach/changes/{pupil}",
            $"/approach/drills/{pupil}",
            $"/approach/cues/{pupil}?symptom=airy",
            $"/notes/{pupil}?note=E4",
            $"/notes/{pupil}/instrument",
        ];

    private object? Ask(string question)
    {
        if (_reader is null)
        {
            _reader = new Microsoft.Data.Sqlite.SqliteConnection(
                $"Data Source={RecordFolder.RecordIn(_folder)};Mode=ReadOnly;Pooling=False"
            );
            _reader.Open();
        }

        lock (_reader)
        {
            using var command = _reader.CreateCommand();
            command.CommandText = question;
            return command.ExecuteScalar();
        }
    }

    protected override void Dispose(bool disposing)
    {
        _reader?.Dispose();
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
            Stage = Bocca.Core.Teaching.LearningStage.Second,
            Points = number % 2 == 1 ? "verdict.guess=b" : "",
            ClassName = number < 4 ? "Thursday" : "",
            Seat = number < 4 ? 1 + number : null,
            Started = new DateOnly(2026, 9, 1),
        };
}
