using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// Erases a pupil for good, from the record and from every copy of it in the data folder: all rows of the pupil, with the pages they
/// stood on overwritten. What was begun is finished after a restart, since the pupil's key is noted first.
/// </summary>
public sealed class Erasing(RecordFolder folder, ILogger<Erasing> log)
{
    /// <summary>A deleted pupil can be brought back for so many days, and is erased then (ours).</summary>
    public const int Days = 30;

    /// <summary>A copy in the making; its name is one that is cleared at the next start.</summary>
    private const string RewrittenName = "bocca.db.rewritten.part";

    private readonly ErasedPupils _erased = new(folder.Path);

    /// <summary>The copies of the record in the data folder, whoever made them.</summary>
    public IEnumerable<string> Copies =>
        Directory
            .EnumerateFiles(folder.Path, "*", SearchOption.AllDirectories)
            .Where(file => !RecordFolder.IsOfTheRecord(Record, file) && RecordCopy.IsDatabase(file));

    private string Record => RecordFolder.RecordIn(folder.Path);

    /// <summary>Erases a pupil.</summary>
    /// <remarks>What is begun and cannot be done is done later.</remarks>
    /// <exception cref="SqliteException">The record is held locked for seconds, or the disk is full.</exception>
    /// <exception cref="IOException">A copy cannot be written.</exception>
    public void Erase(Pupil pupil)
    {
        // No copy may be made of the record as it was while this goes on.
        lock (RecordCopy.OneAtATime)
        {
            _erased.Add(pupil.Key);
            foreach (var copy in Copies.ToList())
                EraseFromCopy(copy, opened => ErasedRows.Find(opened, pupil), pupil.Name);
            using var opened = RecordCopy.Open(Record);
            foreach (var id in ErasedRows.Find(opened, pupil))
                ErasedRows.Erase(opened, id);
            ErasedRows.Compact(opened);
        }
    }

    /// <summary>
    /// Erases whoever was to be erased and is here: where it was interrupted, or a copy from before was put back or into the folder.
    /// </summary>
    public async Task FinishAsync(BoccaDb db)
    {
        var keys = _erased.Keys.ToList();
        if (keys.Count == 0)
            return;
        foreach (var pupil in await db.Pupils.IgnoreQueryFilters().AsNoTracking().Where(pupil => keys.Contains(pupil.Key)).ToListAsync())
            Erase(pupil);
        lock (RecordCopy.OneAtATime)
            foreach (var copy in Copies.ToList())
                EraseFromCopy(copy, opened => ErasedRows.Find(opened, keys), null);
    }

    /// <summary>Erases the pupils who were deleted long enough ago, and lets go of copies made before updates of that time.</summary>
    public async Task EraseDueAsync(BoccaDb db, RoomClock clock)
    {
        var before = clock.Now.AddDays(-Days);
        foreach (var pupil in await db.Pupils.IgnoreQueryFilters().AsNoTracking().Where(each => each.DeletedAt < before).ToListAsync())
            Erase(pupil);
        foreach (var copy in Directory.EnumerateFiles(folder.Path, $"{RecordFolder.RecordName}.before-*").ToList())
            if (File.GetLastWriteTimeUtc(copy) < before)
                File.Delete(copy);
    }

    /// <summary>
    /// Writes a copy anew without some pupils; one in which they are not stays as it is. A damaged one, which cannot be written anew,
    /// goes where it holds the pupil's name.
    /// </summary>
    private void EraseFromCopy(string copy, Func<SqliteConnection, IReadOnlyList<long>> find, string? name)
    {
        var part = Path.Combine(folder.Path, RewrittenName);
        try
        {
            using (var opened = RecordCopy.Open(copy, SqliteOpenMode.ReadOnly))
                if (find(opened).Count == 0)
                    return;
            var made = File.GetLastWriteTimeUtc(copy);
            RecordCopy.Make(copy, part);
            using (var opened = RecordCopy.Open(part))
            {
                RecordCopy.Ask(opened, "PRAGMA journal_mode = MEMORY");
                foreach (var id in find(opened))
                    ErasedRows.Erase(opened, id);
                ErasedRows.Compact(opened);
            }

            RecordCopy.PutInPlace(part, copy);
            File.SetLastWriteTimeUtc(copy, made);
        }
        catch (Exception problem) when (problem is SqliteException { SqliteErrorCode: 1 or 11 or 26 } or InvalidDataException)
        {
            if (name is null || !RawText.Contains(copy, name))
                return;
            log.LogWarning("{Copy} is damaged and held a pupil who is erased: it was deleted.", copy);
            RecordCopy.Delete(copy);
        }
        finally
        {
            RecordCopy.Delete(part);
        }
    }
}

/// <summary>Erases by the clock: what was interrupted, and who was deleted thirty days ago.</summary>
public sealed class ErasesDeleted(IServiceScopeFactory scopes, TimeProvider time, Erasing erasing, ILogger<ErasesDeleted> log)
    : Clockwork(scopes, time, log)
{
    protected override async Task<DateTime?> TurnAsync(IServiceProvider services)
    {
        var (db, clock) = (services.GetRequiredService<BoccaDb>(), services.GetRequiredService<RoomClock>());
        await erasing.FinishAsync(db);
        await erasing.EraseDueAsync(db, clock);
        return clock.StartOf(clock.Today.AddDays(1));
    }
}
