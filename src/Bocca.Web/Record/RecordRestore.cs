namespace Bocca.Web.Record;

/// <summary>Puts copies back, and takes that back.</summary>
public static class RecordRestore
{
    /// <summary>What comes behind the record's name where another took its place, before the moment of that.</summary>
    private const string ReplacedName = "replaced-";

    /// <summary>
    /// Puts a copy in the place of the record, once it was looked at; the record that was there stays beside it until that is undone or
    /// it is deleted by hand.
    /// </summary>
    /// <param name="path">The folder of the record, which nobody serves.</param>
    /// <param name="file">The copy.</param>
    /// <returns>What the copy holds, what the record held, and how that is undone, in sentences.</returns>
    /// <exception cref="StartRefusedException">The copy is none, or is damaged; or the folder is served.</exception>
    public static string Restore(string path, string file)
    {
        var copy = Path.GetFullPath(file);
        var contents = Looked(copy);
        var folder = Path.GetFullPath(path);
        var record = RecordFolder.RecordIn(folder);
        if (RecordFolder.IsOfTheRecord(record, copy))
            throw new StartRefusedException($"{copy} belongs to the record itself. Name a copy of it.");
        return Alone(
            folder,
            () =>
            {
                var aside = $"{record}.{ReplacedName}{DateTime.UtcNow:yyyyMMdd'T'HHmmssfff}";
                var had = RecordFolder.SetAside(record, aside);
                try
                {
                    RecordCopy.Make(copy, record);
                }
                catch
                {
                    if (had)
                        RecordFolder.SetAside(aside, record);
                    throw;
                }

                return $"The record is now {copy}: {contents}."
                    + (had ? $" The record that was there is kept as {aside}; --undo-restore brings it back." : "");
            }
        );
    }

    /// <summary>Takes the last restoring back; what was restored stays beside, and is itself brought back the next time.</summary>
    /// <param name="path">The folder of the record, which nobody serves.</param>
    /// <returns>What happened, in a sentence.</returns>
    /// <exception cref="StartRefusedException">Nothing was restored, or the folder is served.</exception>
    public static string Undo(string path)
    {
        var folder = Path.GetFullPath(path);
        var record = RecordFolder.RecordIn(folder);
        var replaced = Directory.Exists(folder)
            ? Directory
                .EnumerateFiles(folder, $"{RecordFolder.RecordName}.{ReplacedName}*")
                .Where(file => !RecordCopy.Beside.Any(end => file.EndsWith(end, StringComparison.Ordinal)))
                .Max(StringComparer.Ordinal)
            : null;
        if (replaced is null)
            throw new StartRefusedException($"nothing was restored in {folder}: there is no record that was replaced.");
        return Alone(
            folder,
            () =>
            {
                var aside = $"{record}.{ReplacedName}{DateTime.UtcNow:yyyyMMdd'T'HHmmssfff}";
                RecordFolder.SetAside(record, aside);
                RecordFolder.SetAside(replaced, record);
                return $"The record is again the one that was replaced; the one in its place is kept as {aside}.";
            }
        );
    }

    private static RecordContents Looked(string copy)
    {
        if (!File.Exists(copy))
            throw new StartRefusedException($"there is no copy at {copy}.");
        try
        {
            if (RecordCopy.DamageIn(copy) is { } damage)
                throw new StartRefusedException($"{copy} is damaged ({damage}). Choose another copy.");
            return RecordCopy.Look(copy) ?? throw new StartRefusedException($"{copy} is not a record of Bocca.");
        }
        catch (Exception problem) when (RecordFolder.IsOfDisk(problem))
        {
            throw new StartRefusedException($"{copy} is not a copy of a record, or it is damaged: {RecordFolder.Reason(problem)}.");
        }
    }

    private static string Alone(string folder, Func<string> change)
    {
        try
        {
            Directory.CreateDirectory(folder);
            using var held = RecordFolder.Lock(folder);
            var said = change();
            RecordFolder.ForOwnerAlone(folder);
            return said;
        }
        catch (Exception problem) when (RecordFolder.IsOfDisk(problem))
        {
            throw new StartRefusedException(
                $"the record in {folder} could not be changed: {RecordFolder.Reason(problem)}. It is as it was."
            );
        }
    }
}
