using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Data;

/// <summary>The file the record lives in, and how it is opened.</summary>
public static class RecordFile
{
    private static readonly TimeSpan UnsavedTakesLast = TimeSpan.FromDays(1);

    /// <summary>The connection to the record in a folder, which is made if need be.</summary>
    public static string ConnectionString(string folder)
    {
        Directory.CreateDirectory(folder);
        return new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, "bocca.db"),
            ForeignKeys = true,
            DefaultTimeout = 5,
        }.ToString();
    }

    /// <summary>
    /// Brings the record up to date and clears takes that nobody saved within a day. The write-ahead log with full
    /// synchronisation keeps what was acknowledged even if the process is killed.
    /// </summary>
    public static async Task PrepareAsync(BoccaDb db, DateTime now)
    {
        await db.Database.MigrateAsync();
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;");
        var limit = now - UnsavedTakesLast;
        await db.Takes.IgnoreQueryFilters().Where(take => !take.Kept && take.RecordedAt < limit).ExecuteDeleteAsync();
        await db.Slurs.IgnoreQueryFilters().Where(take => !take.Kept && take.RecordedAt < limit).ExecuteDeleteAsync();
        await db.Tones.IgnoreQueryFilters().Where(take => !take.Kept && take.RecordedAt < limit).ExecuteDeleteAsync();
    }
}
