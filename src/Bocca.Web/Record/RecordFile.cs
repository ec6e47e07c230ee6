using Bocca.Web.Frame;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The file the record lives in, and how it is opened.</summary>
public static class RecordFile
{
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
    /// is killed; an update that is killed leaves the record as it was, or with a part of its entries renewed,
    /// and the next start goes on there.
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
            await new Renewal(db, stops, say).RunAsync();
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
}
