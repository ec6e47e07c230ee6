using System.Buffers.Binary;
using System.Runtime.InteropServices;
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
    private const string LockName = "bocca.lock",
        RecordName = "bocca.db";

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
            return new RecordFolder(folder, held);
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
        try
        {
            RecordFile.Copy(record, file);
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException or SqliteException)
        {
            throw new StartRefusedException($"the record could not be copied to {file}: {Reason(problem)}.");
        }
    }

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
        var isThere = new FileInfo(record) is { Exists: true, Length: > 0 };
        if (!isThere && !anew && WasThere(folder))
            throw new StartRefusedException(
                $"{record} is {(File.Exists(record) ? "empty" : "missing")}, and a record was there before. Put a copy of it back, or say "
                    + "--anew to begin another one."
            );
        if (isThere && !IsWholeRecord(record))
            throw new StartRefusedException($"{record} is not a record of Bocca, or it is broken. Put a copy of it back.");
        if (!Directory.Exists(KeysIn(folder)))
            return;
        foreach (var key in Directory.EnumerateFiles(KeysIn(folder), "key-*.xml"))
            if (!IsWhole(key))
                throw new StartRefusedException(
                    $"the key file {key} is empty or broken. Delete it, and start again; open pages have to be reloaded."
                );
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

    private static FileStream Lock(string folder)
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
    private static void ForOwnerAlone(string folder)
    {
        if (OperatingSystem.IsWindows())
            return;
        const int GroupAndOthers = 0x3F;
        _ = Umask(GroupAndOthers);
        foreach (var each in Directory.EnumerateDirectories(folder, "*", SearchOption.AllDirectories).Prepend(folder))
            File.SetUnixFileMode(each, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        foreach (var file in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
            Narrow(file);
    }

    /// <summary>What new files and folders are denied to whom, in the bits of a Unix file mode.</summary>
    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Umask(int mask);

    private static void Narrow(string file)
    {
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    private static string Reason(Exception problem) =>
        problem switch
        {
            UnauthorizedAccessException => "it belongs to somebody else, or is read-only",
            SqliteException { SqliteErrorCode: 13 } => "the disk is full",
            SqliteException { SqliteErrorCode: 5 } => "another program holds it locked",
            IOException when problem.Message.Contains("No space left", StringComparison.Ordinal) => "the disk is full",
            IOException when problem.Message.Contains("Read-only", StringComparison.Ordinal) => "it is read-only",
            _ => problem.Message.TrimEnd('.'),
        };
}
