using System.Buffers.Binary;
using System.Xml;
using System.Xml.Linq;
using Microsoft.Data.Sqlite;

namespace Bocca.Web.Record;

/// <summary>Why Bocca does not start on a folder, in one sentence with the way out.</summary>
/// <param name="sentence">The sentence.</param>
public sealed class StartRefusedException(string sentence) : Exception(sentence);

/// <summary>
/// The folder of the record while this process serves it. An operating-system lock keeps a second server away, for as long as this
/// process lives and however it ends; folder and files are for their owner alone; what is not fit to be served is refused, untouched.
/// </summary>
public sealed class RecordFolder : IDisposable
{
    /// <summary>The name of the record in its folder.</summary>
    public const string RecordName = "bocca.db";

    private const string LockName = "bocca.lock",
        DamagedName = "damaged-";

    /// <summary>So many copies are named to whoever needs one.</summary>
    private const int CopiesNamed = 3;

    /// <summary>A server that is going away is waited for so long.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);
    private readonly FileStream _lock;

    private RecordFolder(string path, FileStream held) => (Path, _lock) = (path, held);

    public string Path { get; }

    /// <summary>The record's file in a folder.</summary>
    public static string RecordIn(string folder) => System.IO.Path.Combine(folder, RecordName);

    /// <summary>Where the keys lie that sign forms.</summary>
    public static string KeysIn(string folder) => System.IO.Path.Combine(folder, "keys");

    /// <summary>Takes a folder for this process.</summary>
    /// <param name="path">The folder; made where it is missing.</param>
    /// <param name="anew">Whether a record that was there and is gone may be begun anew.</param>
    /// <exception cref="StartRefusedException">It cannot be served; it is as it was.</exception>
    public static RecordFolder Open(string path, bool anew)
    {
        var folder = System.IO.Path.GetFullPath(path);
        Examine(folder, anew);
        FileStream? held = null;
        try
        {
            Directory.CreateDirectory(folder);
            held = Lock(folder);
            Probe(System.IO.Path.Combine(folder, ".bocca-probe"));
            ForOwnerAlone(folder);
            RecordCopy.ClearUnfinished(folder);
            CheckAfterStop(folder, anew);
            return new RecordFolder(folder, held);
        }
        catch (StartRefusedException)
        {
            held?.Dispose();
            throw;
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            held?.Dispose();
            throw new StartRefusedException(
                $"the data folder {folder} cannot be written: {Reason(problem)}. Free it, or choose another with --data."
            );
        }
    }

    /// <summary>Copies a record by the database's own means, while it is served or not.</summary>
    /// <param name="path">The folder of the record.</param>
    /// <param name="file">Where the copy goes; what is there is replaced once the copy is whole.</param>
    /// <exception cref="StartRefusedException">There is no record, or the copy cannot be written.</exception>
    public static void Backup(string path, string file)
    {
        var record = RecordIn(System.IO.Path.GetFullPath(path));
        if (!File.Exists(record))
            throw new StartRefusedException($"there is no record at {record}.");
        var copy = System.IO.Path.GetFullPath(file);
        if (IsOfTheRecord(record, copy))
            throw new StartRefusedException($"{copy} belongs to the record itself. Choose another name for the copy.");
        try
        {
            RecordCopy.Make(record, copy);
        }
        catch (Exception problem) when (IsOfDisk(problem))
        {
            throw new StartRefusedException($"the record could not be copied to {copy}: {Reason(problem)}.");
        }
    }

    /// <summary>
    /// Whether a file is the record, what the database writes beside it or the folder's lock, by whatever name; or would be taken for
    /// one of them where it is to lie.
    /// </summary>
    internal static bool IsOfTheRecord(string record, string file)
    {
        var folder = System.IO.Path.GetDirectoryName(record)!;
        string[] own = [record, .. RecordCopy.Beside.Select(end => record + end), System.IO.Path.Combine(folder, LockName)];
        if (own.Contains(file, StringComparer.OrdinalIgnoreCase))
            return true;
        var isHere = UnixFiles.IdentityOf(System.IO.Path.GetDirectoryName(file)!) is { } place && place == UnixFiles.IdentityOf(folder);
        var isNamedSo = own.Any(each => System.IO.Path.GetFileName(each) == System.IO.Path.GetFileName(file));
        return (isHere && isNamedSo) || (UnixFiles.IdentityOf(file) is { } target && own.Any(each => UnixFiles.IdentityOf(each) == target));
    }

    /// <summary>Gives a record another name, with what the database writes beside it; whether there was one.</summary>
    internal static bool SetAside(string record, string aside)
    {
        foreach (var end in RecordCopy.Beside.Where(end => File.Exists(record + end)))
            File.Move(record + end, aside + end);
        if (!File.Exists(record))
            return false;
        File.Move(record, aside);
        UnixFiles.SyncFolder(System.IO.Path.GetDirectoryName(record)!);
        return true;
    }

    internal static bool IsOfDisk(Exception problem) =>
        problem is IOException or UnauthorizedAccessException or SqliteException or InvalidDataException;

    public void Dispose() => _lock.Dispose();

    /// <summary>Writes a little, and takes it away whatever comes of it.</summary>
    private static void Probe(string file)
    {
        try
        {
            File.WriteAllBytes(file, new byte[65536]);
        }
        finally
        {
            File.Delete(file);
        }
    }

    /// <summary>What can be seen of a folder without touching it.</summary>
    private static void Examine(string folder, bool anew)
    {
        if (File.Exists(folder))
            throw new StartRefusedException($"the data folder {folder} is a file; choose a folder with --data.");
        var record = RecordIn(folder);
        if (new FileInfo(record).LinkTarget is not null || UnixFiles.IdentityOf(record) is { IsRegular: false })
            throw new StartRefusedException(
                $"{record} is a link, a pipe or a folder, not the record itself. Put the record in its place, or choose another "
                    + "folder with --data."
            );
        var isThere = new FileInfo(record) is { Exists: true, Length: > 0 };
        if (!isThere && !anew && WasThere(folder))
            throw new StartRefusedException(
                $"{record} is {(File.Exists(record) ? "empty" : "missing")}, and a record was there before. Put a copy of it back, or say "
                    + "--anew to begin another one."
            );
        if (isThere && !anew && !IsWholeRecord(record))
            throw new StartRefusedException($"{record} is not a record of Bocca, or it is broken. {WaysOut(folder)}");
        if (!Directory.Exists(KeysIn(folder)))
            return;
        foreach (var key in Directory.EnumerateFiles(KeysIn(folder), "key-*.xml"))
            if (!IsWhole(key))
                throw new StartRefusedException(
                    $"the key file {key} is empty or broken. Delete it, and start again; open pages have to be reloaded."
                );
    }

    /// <summary>
    /// A record that was not closed in order, whose log still lies beside it, is read through before it is served. A damaged one is
    /// refused, or set aside where another is begun anew.
    /// </summary>
    private static void CheckAfterStop(string folder, bool anew)
    {
        var record = RecordIn(folder);
        if (new FileInfo(record) is not { Exists: true, Length: > 0 } || DamageAfterStop(record) is not { } damage)
            return;
        if (!anew)
            throw new StartRefusedException($"{record} is damaged ({damage}). {WaysOut(folder)}");
        SetAside(record, $"{record}.{DamagedName}{DateTime.UtcNow:yyyyMMdd'T'HHmmssfff}");
    }

    private static string? DamageAfterStop(string record)
    {
        if (!IsWholeRecord(record))
            return "it is not whole";
        if (new FileInfo($"{record}-wal") is not { Exists: true, Length: > 0 })
            return null;
        try
        {
            return RecordCopy.DamageIn(record);
        }
        catch (SqliteException problem)
        {
            return problem.Message;
        }
    }

    /// <summary>What to do where the record cannot be served: the newest copies that are whole.</summary>
    private static string WaysOut(string folder)
    {
        var copies = Directory
            .EnumerateFiles(folder, "*.db*", SearchOption.AllDirectories)
            .Where(file => System.IO.Path.GetFileName(file) != RecordName && !RecordCopy.Beside.Any(file.EndsWith))
            .OrderByDescending(File.GetLastWriteTimeUtc)
            .Where(IsGood)
            .Take(CopiesNamed)
            .ToList();
        return copies.Count == 0
            ? "No copy lies in its folder: put one back with --restore FILE, or say --anew to set it aside and begin another."
            : $"Put a copy back with --restore FILE: {string.Join(", ", copies)}. Or say --anew to set it aside and begin another.";
    }

    private static bool IsGood(string copy)
    {
        try
        {
            return RecordCopy.DamageIn(copy) is null && RecordCopy.Look(copy) is not null;
        }
        catch (SqliteException)
        {
            return false;
        }
    }

    private static bool WasThere(string folder) =>
        Directory.Exists(folder)
        && (
            (Directory.Exists(KeysIn(folder)) && Directory.EnumerateFiles(KeysIn(folder), "key-*.xml").Any())
            || Directory.EnumerateFiles(folder, $"{RecordName}-wal").Any()
            || Directory.EnumerateFiles(folder, $"{RecordName}.before-*").Any()
        );

    /// <summary>
    /// Whether a file begins as a record does and has all the pages that its head counts (SQLite's file format, section 1.3). While a
    /// log lies beside it the file may still be shorter: what is missing is in the log.
    /// </summary>
    private static bool IsWholeRecord(string record)
    {
        try
        {
            using var file = new FileStream(record, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
            var head = new byte[100];
            if (
                file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false) < head.Length
                || !head.AsSpan().StartsWith("SQLite format 3\0"u8)
            )
                return false;
            long size = BinaryPrimitives.ReadUInt16BigEndian(head.AsSpan(16));
            var isCounted = head.AsSpan(24, 4).SequenceEqual(head.AsSpan(92, 4));
            return !isCounted
                || new FileInfo($"{record}-wal") is { Exists: true, Length: > 0 }
                || file.Length >= (size == 1 ? 65536 : size) * BinaryPrimitives.ReadUInt32BigEndian(head.AsSpan(28));
        }
        catch (UnauthorizedAccessException)
        {
            throw new StartRefusedException($"{record} cannot be read. Whoever starts Bocca has to own it.");
        }
    }

    private static bool IsWhole(string key)
    {
        try
        {
            return XDocument.Load(key).Root is not null;
        }
        catch (XmlException)
        {
            return false;
        }
    }

    internal static FileStream Lock(string folder)
    {
        var until = DateTime.UtcNow + Patience;
        while (true)
        {
            try
            {
                return new FileStream(
                    System.IO.Path.Combine(folder, LockName),
                    FileMode.OpenOrCreate,
                    FileAccess.ReadWrite,
                    FileShare.None
                );
            }
            catch (IOException) when (File.Exists(System.IO.Path.Combine(folder, LockName)))
            {
                if (DateTime.UtcNow > until)
                    throw new StartRefusedException($"another Bocca serves the record in {folder}. Use that one, or stop it first.");
                Thread.Sleep(100);
            }
        }
    }

    /// <summary>The folder and all in it for its owner alone, and whatever this process makes from now on.</summary>
    internal static void ForOwnerAlone(string folder)
    {
        if (OperatingSystem.IsWindows())
            return;
        UnixFiles.KeepForOwner();
        foreach (var each in Directory.EnumerateDirectories(folder, "*", SearchOption.AllDirectories).Prepend(folder))
            File.SetUnixFileMode(each, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        foreach (var file in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
            Narrow(file);
    }

    private static void Narrow(string file)
    {
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    internal static string Reason(Exception problem) =>
        problem switch
        {
            UnauthorizedAccessException => "it belongs to somebody else, or is read-only",
            SqliteException { SqliteErrorCode: 11 } => "it is damaged",
            SqliteException { SqliteErrorCode: 26 } => "it is no database",
            SqliteException { SqliteErrorCode: 13 } => "the disk is full",
            SqliteException { SqliteErrorCode: 5 } => "another program holds it locked",
            IOException when problem.Message.Contains("No space left", StringComparison.Ordinal) => "the disk is full",
            IOException when problem.Message.Contains("Read-only", StringComparison.Ordinal) => "it is read-only",
            _ => problem.Message.TrimEnd('.'),
        };
}
