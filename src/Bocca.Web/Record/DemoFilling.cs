using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Bocca.Web.Live;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// Fills an empty record with the invented pupils: they are there at once, and their histories are played by the practice player
/// and heard like any other while the Desk already answers. What a stop in the middle left open goes on at the next start.
/// </summary>
public sealed class DemoFilling(
    IServiceScopeFactory scopes,
    TimeProvider time,
    FirstPage first,
    IConfiguration configuration,
    ILogger<DemoFilling> log
)
{
    private volatile bool _isOn;
    private int _all,
        _done;

    /// <summary>How far it is, for the Desk; null where nothing is being filled in.</summary>
    public string? Words =>
        !_isOn ? null
        : _all == 0 ? "The invented pupils are about to practise."
        : $"The invented pupils are still practising: {_done} of {_all} entries are in the record.";

    private string Marker => Path.Combine(configuration["data"] ?? "data", "demo-filling");

    /// <summary>Whether a filling was stopped in the middle.</summary>
    public bool IsOpen => File.Exists(Marker);

    /// <summary>Adds the pupils, and begins with their histories.</summary>
    public async Task BeginAsync(CancellationToken stopping)
    {
        var now = time.GetUtcNow().UtcDateTime;
        await File.WriteAllTextAsync(Marker, now.ToString("O", CultureInfo.InvariantCulture), stopping);
        using (var scope = scopes.CreateScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
            db.Pupils.AddRange(DemoPupils.All.Select(demo => demo.AsPupil(now)));
            await db.SaveChangesAsync(stopping);
            await DemoRoom.AddAsync(db, scope.ServiceProvider.GetRequiredService<RoomClock>(), stopping);
            await DemoPieces.AddAsync(scope.ServiceProvider.GetRequiredService<Journal>());
        }

        GoOn(stopping);
    }

    /// <summary>Goes on with the histories, in the background.</summary>
    public void GoOn(CancellationToken stopping)
    {
        _isOn = true;
        _ = Task.Run(() => FillAsync(stopping), stopping);
    }

    /// <summary>What is not yet in the record, in the order in which it is written.</summary>
    private async Task<List<DemoItem>> ItemsAsync(CancellationToken stopping)
    {
        var now = DateTime.Parse(await File.ReadAllTextAsync(Marker, stopping), CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind);
        using var scope = scopes.CreateScope();
        var (db, clock) = (scope.ServiceProvider.GetRequiredService<BoccaDb>(), scope.ServiceProvider.GetRequiredService<RoomClock>());
        var pupils = await db.Pupils.AsNoTracking().ToListAsync(stopping);
        var keys = await db.Entries.IgnoreQueryFilters().Where(entry => entry.Key != null).Select(entry => entry.Key).ToListAsync(stopping);
        var known = keys.ToHashSet();
        return
        [
            .. DemoPupils
                .All.Join(pupils, demo => demo.Name, pupil => pupil.Name, (demo, pupil) => new DemoHistory(demo, pupil, now, clock))
                .SelectMany(history => history.Items())
                // What every page shows first comes first; steps come last, for a take that is kept closes them.
                .OrderBy(item => item.Order)
                .Where(item => !known.Contains(KeyOf(item))),
        ];
    }

    private async Task FillAsync(CancellationToken stopping)
    {
        try
        {
            await first.WaitAsync(stopping);
            var items = await ItemsAsync(stopping);
            _all = items.Count;
            var played = items
                .AsParallel()
                .AsOrdered()
                // Pages want a core too.
                .WithDegreeOfParallelism(Math.Max(1, Environment.ProcessorCount - 1))
                .WithMergeOptions(ParallelMergeOptions.NotBuffered)
                .WithCancellation(stopping)
                .Select(item => (item, item.Play()));
            foreach (var (item, (entry, write)) in played)
            {
                using var scope = scopes.CreateScope();
                entry.Key = KeyOf(item);
                entry.Kept = true;
                await write(scope.ServiceProvider.GetRequiredService<Journal>());
                Interlocked.Increment(ref _done);
            }

            File.Delete(Marker);
            _isOn = false;
        }
        catch (OperationCanceledException)
        {
            // The next start goes on.
        }
        catch (Exception problem)
        {
            _isOn = false;
            log.LogError(problem, "The invented pupils' histories could not be filled in.");
        }
    }

    /// <summary>The same item has the same key at every start.</summary>
    private static Guid KeyOf(DemoItem item) => new(SHA256.HashData(Encoding.UTF8.GetBytes(item.Name))[..16]);
}
