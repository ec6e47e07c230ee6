using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// Fills an empty record with the invented pupils: they are there at once, and their histories are played by the practice player
/// and heard like any other while the Desk already answers. What a stop in the middle left open goes on at the next start.
/// </summary>
public sealed class DemoFilling(IServiceScopeFactory scopes, TimeProvider time, IConfiguration configuration, ILogger<DemoFilling> log)
{
    private int _all,
        _done;

    /// <summary>How far it is, for the Desk; null where nothing is being filled in.</summary>
    public string? Words => _done < _all ? $"The invented pupils are still practising: {_done} of {_all} entries are in the record." : null;

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
        }

        await GoOnAsync(stopping);
    }

    /// <summary>Goes on with the histories, in the background.</summary>
    public async Task GoOnAsync(CancellationToken stopping)
    {
        var now = DateTime.Parse(await File.ReadAllTextAsync(Marker, stopping), CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind);
        List<Pupil> pupils;
        HashSet<Guid?> known;
        using (var scope = scopes.CreateScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<BoccaDb>();
            pupils = await db.Pupils.AsNoTracking().ToListAsync(stopping);
            known =
            [
                .. await db.Entries.IgnoreQueryFilters().Where(entry => entry.Key != null).Select(entry => entry.Key).ToListAsync(stopping),
            ];
        }

        var items = DemoPupils
            .All.Join(pupils, demo => demo.Name, pupil => pupil.Name, (demo, pupil) => new DemoHistory(demo, pupil, now))
            .SelectMany(history => history.Items())
            // What every page shows first comes first; steps come last, for a take that is kept closes them.
            .OrderBy(item => item.Order)
            .Where(item => !known.Contains(KeyOf(item)))
            .ToList();
        (_done, _all) = (0, items.Count);
        _ = Task.Run(() => FillAsync(items, stopping), stopping);
    }

    private async Task FillAsync(List<DemoItem> items, CancellationToken stopping)
    {
        try
        {
            var played = items
                .AsParallel()
                .AsOrdered()
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
        }
        catch (OperationCanceledException)
        {
            // The next start goes on.
        }
        catch (Exception problem)
        {
            _all = _done;
            log.LogError(problem, "The invented pupils' histories could not be filled in.");
        }
    }

    /// <summary>The same item has the same key at every start.</summary>
    private static Guid KeyOf(DemoItem item) => new(SHA256.HashData(Encoding.UTF8.GetBytes(item.Name))[..16]);
}
