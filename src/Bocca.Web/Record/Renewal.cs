using System.Diagnostics;
using Bocca.Web.Frame;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// Brings the entries of an older record up: what follows from their payloads is made anew, some entries at a time, each batch in a
/// transaction with how far it has come. Where the process is killed it goes on after the last batch.
/// </summary>
/// <param name="db">The record.</param>
/// <param name="stops">Whose entries stand in it.</param>
/// <param name="say">Tells whoever waits how far it is; null for nobody.</param>
internal sealed class Renewal(BoccaDb db, Stops stops, Action<string>? say)
{
    /// <summary>The form that entries have today.</summary>
    internal const int Version = 2;

    /// <summary>From this form on figures are as they are made today.</summary>
    private const int FiguresVersion = 1;

    /// <summary>The column that held one number of every kind, before results.</summary>
    private const string Level = "Level";

    private const int EntriesAtOnce = 500;

    /// <summary>Whoever waits is told after so long how far it is, in seconds.</summary>
    private const double SecondsQuiet = 5;

    private readonly Stopwatch _quiet = Stopwatch.StartNew();

    /// <summary>Renews every entry, where the record is of an older form.</summary>
    public async Task RunAsync()
    {
        var from = await NumberAsync("SELECT user_version AS Value FROM pragma_user_version");
        if (from == Version)
            return;
        await db.Database.ExecuteSqlRawAsync(
            "CREATE TABLE IF NOT EXISTS Renewals (Version INTEGER PRIMARY KEY, Last INTEGER NOT NULL, Unread INTEGER NOT NULL);"
        );
        await db.Database.ExecuteSqlAsync($"INSERT OR IGNORE INTO Renewals VALUES ({Version}, 0, 0)");
        var last = await NumberAsync($"SELECT Last AS Value FROM Renewals WHERE Version = {Version}");
        var all = await db.Entries.IgnoreQueryFilters().MaxAsync(entry => (long?)entry.Id) ?? 0;
        var levels = await NumberAsync($"SELECT COUNT(*) AS Value FROM pragma_table_info('Entries') WHERE name = '{Level}'") > 0;
        while (last < all)
        {
            last = await BatchAfterAsync(last, levels, figures: from < FiguresVersion);
            Tell(last, all);
        }

        await FinishAsync(levels);
    }

    private void Tell(long last, long all)
    {
        if (_quiet.Elapsed.TotalSeconds < SecondsQuiet)
            return;
        say?.Invoke($"The record is brought up to date: {100 * last / all} % of its entries.");
        _quiet.Restart();
    }

    /// <returns>The last entry that is done.</returns>
    private async Task<long> BatchAfterAsync(long last, bool levels, bool figures)
    {
        var entries = await db
            .Entries.IgnoreQueryFilters()
            .Include(entry => entry.Payload)
            .Where(entry => entry.Id > last)
            .OrderBy(entry => entry.Id)
            .Take(EntriesAtOnce)
            .ToListAsync();
        var upTo = entries[^1].Id;
        var level = levels ? await LevelsAsync(last, upTo) : [];
        var renewed = entries.Where(entry => Renew(entry, level.TryGetValue(entry.Id, out var number) ? number : null, figures)).ToList();
        await using var together = await db.Database.BeginTransactionAsync();
        if (figures)
        {
            var ids = renewed.ConvertAll(entry => entry.Id);
            await db.Figures.Where(figure => ids.Contains(figure.EntryId)).ExecuteDeleteAsync();
        }

        await db.SaveChangesAsync();
        await db.Database.ExecuteSqlAsync(
            $"UPDATE Renewals SET Last = {upTo}, Unread = Unread + {entries.Count - renewed.Count} WHERE Version = {Version}"
        );
        await together.CommitAsync();
        db.ChangeTracker.Clear();
        return upTo;
    }

    private async Task<Dictionary<long, double>> LevelsAsync(long after, long upTo) =>
        await db
            .Database.SqlQuery<OlderLevel>(
                $"SELECT Id, Level FROM Entries WHERE Id > {after} AND Id <= {upTo} AND Level IS NOT NULL AND Result IS NULL"
            )
            .ToDictionaryAsync(row => row.Id, row => row.Level);

    /// <summary>Whether an entry's own is made anew; one whose payload is gone or cannot be read keeps what it has.</summary>
    private bool Renew(Entry entry, double? level, bool figures)
    {
        var kind = stops.Kind(entry.Kind);
        try
        {
            if (level is { } number && kind.OfOlderLevel is { } meant)
                entry.Result = meant(number);
            if (entry.Payload is not null)
                kind.Complete(entry);
            if (figures && entry is { Kept: true, DeletedAt: null })
                Journal.AddFigures(kind, entry);
            return true;
        }
        catch (InvalidDataException)
        {
            return false;
        }
    }

    private async Task FinishAsync(bool levels)
    {
        var unread = await NumberAsync($"SELECT Unread AS Value FROM Renewals WHERE Version = {Version}");
        await using var together = await db.Database.BeginTransactionAsync();
        if (levels)
            await db.Database.ExecuteSqlRawAsync("ALTER TABLE Entries DROP COLUMN Level;");
        await db.Database.ExecuteSqlRawAsync("DROP TABLE Renewals;");
        await db.Database.ExecuteSqlRawAsync($"PRAGMA user_version = {Version};");
        await together.CommitAsync();
        if (unread > 0)
            say?.Invoke($"{unread} {(unread == 1 ? "entry" : "entries")} of the record could not be read; what stood there is left.");
    }

    private async Task<long> NumberAsync(string sql) => await db.Database.SqlQueryRaw<long>(sql).SingleAsync();

    /// <summary>The number of an entry in the column of before.</summary>
    private sealed record OlderLevel(long Id, double Level);
}
