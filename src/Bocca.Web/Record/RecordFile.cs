using System.Diagnostics;
using Bocca.Web.Frame;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The file the record lives in, and how it is opened.</summary>
public static class RecordFile
{
    /// <summary>The form of figures written today; a record with another has them made anew.</summary>
    private const int FiguresVersion = 1;

    private const int EntriesAtOnce = 500;

    /// <summary>Whoever waits is told after so long how far it is, in seconds.</summary>
    private const double SecondsQuiet = 5;

    /// <summary>The connection to the record in a folder, which is made if need be.</summary>
    public static string ConnectionString(string folder)
    {
        Directory.CreateDirectory(folder);
        return new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, "bocca.db"),
            ForeignKeys = true,
            DefaultTimeout = RecordCopy.PatienceSeconds,
        }.ToString();
    }

    /// <summary>
    /// Brings the record up to date. Before an older one is touched, a copy is made beside it by the database's own means, and
    /// named after what was there. The write-ahead log with full synchronisation keeps what was acknowledged even if the process
    /// is killed; an update that is killed leaves the record as it was, or with a part of its figures made anew.
    /// </summary>
    /// <param name="db">The record.</param>
    /// <param name="stops">Whose entries stand in it.</param>
    /// <param name="say">Tells whoever waits what takes so long; null for nobody.</param>
    public static async Task PrepareAsync(BoccaDb db, Stops stops, Action<string>? say = null)
    {
        try
        {
            await UpdateAsync(db, say);
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;");
            await RebuildFiguresAsync(db, stops, say);
        }
        catch (InvalidDataException problem)
        {
            throw new StartRefusedException($"{problem.Message}; nothing was changed.");
        }
        catch (SqliteException problem) when (problem.SqliteErrorCode is 8 or 10 or 11 or 13 or 14 or 26)
        {
            var file = new SqliteConnectionStringBuilder(db.Database.GetConnectionString()).DataSource;
            throw new StartRefusedException(
                problem.SqliteErrorCode switch
                {
                    13 => $"the disk is full: {file} cannot be brought up to date. Make room, and start again.",
                    8 or 14 => $"{file} cannot be written. Whoever starts Bocca has to own it.",
                    _ => $"{file} is broken: {problem.Message} Put a copy of it back.",
                }
            );
        }
    }

    private static async Task UpdateAsync(BoccaDb db, Action<string>? say)
    {
        var (applied, known) = ((await db.Database.GetAppliedMigrationsAsync()).ToList(), db.Database.GetMigrations().ToList());
        if (applied.Except(known).FirstOrDefault() is { } newer)
            throw new StartRefusedException($"the record was written by a newer Bocca ({newer}). Start that one; nothing was changed.");
        if (!known.Except(applied).Any())
            return;
        if (applied.Count > 0)
        {
            var file = new SqliteConnectionStringBuilder(db.Database.GetConnectionString()).DataSource;
            var copy = $"{file}.before-{applied[^1]}";
            say?.Invoke($"The record is brought up to date. It is copied to {copy} first.");
            RecordCopy.Make(file, copy);
        }

        // Whoever holds the folder's lock is alone here: a row that says otherwise was left by a start that was killed.
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS __EFMigrationsLock;");
        await db.Database.MigrateAsync();
    }

    /// <summary>
    /// Makes all figures anew, and the columns that follow from payloads, where those that stand are of another form. Some entries at a
    /// time, each with its own: where it is killed, it begins anew and comes to the same end.
    /// </summary>
    private static async Task RebuildFiguresAsync(BoccaDb db, Stops stops, Action<string>? say)
    {
        if (await db.Database.SqlQueryRaw<int>("SELECT user_version AS Value FROM pragma_user_version").SingleAsync() == FiguresVersion)
            return;
        var all = await db.Entries.IgnoreQueryFilters().MaxAsync(entry => (long?)entry.Id) ?? 0;
        var quiet = Stopwatch.StartNew();
        var unread = 0;
        for (var last = 0L; last < all; )
        {
            (last, var left) = await RenewAfterAsync(db, stops, last);
            unread += left;
            if (quiet.Elapsed.TotalSeconds < SecondsQuiet)
                continue;
            say?.Invoke($"The record's figures are made anew: {100 * last / all} %.");
            quiet.Restart();
        }

        if (unread > 0)
            say?.Invoke($"{unread} {(unread == 1 ? "entry" : "entries")} of the record could not be read; figures of old are left there.");
        await db.Database.ExecuteSqlRawAsync($"PRAGMA user_version = {FiguresVersion};");
    }

    /// <returns>The last entry that is done, and how many before it could not be read.</returns>
    private static async Task<(long Last, int Unread)> RenewAfterAsync(BoccaDb db, Stops stops, long last)
    {
        var entries = await db
            .Entries.IgnoreQueryFilters()
            .Include(entry => entry.Payload)
            .Where(entry => entry.Id > last)
            .OrderBy(entry => entry.Id)
            .Take(EntriesAtOnce)
            .ToListAsync();
        var renewed = entries.Where(entry => Renew(stops.Kind(entry.Kind), entry)).Select(entry => entry.Id).ToList();
        await using var together = await db.Database.BeginTransactionAsync();
        await db.Figures.Where(figure => renewed.Contains(figure.EntryId)).ExecuteDeleteAsync();
        await db.SaveChangesAsync();
        await together.CommitAsync();
        db.ChangeTracker.Clear();
        return (entries[^1].Id, entries.Count - renewed.Count);
    }

    /// <summary>Whether an entry's own is made anew; one whose payload is gone or cannot be read keeps what it has.</summary>
    private static bool Renew(EntryKind kind, Entry entry)
    {
        try
        {
            if (entry.Payload is not null)
                kind.Complete(entry);
            if (entry is { Kept: true, DeletedAt: null })
                Journal.AddFigures(kind, entry);
            return true;
        }
        catch (InvalidDataException)
        {
            return false;
        }
    }
}
