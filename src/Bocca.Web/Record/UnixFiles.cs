using System.Buffers.Binary;
using System.Runtime.InteropServices;

namespace Bocca.Web.Record;

/// <summary>Which file a name leads to, whatever the name: two names of one file have the same.</summary>
/// <param name="Device">The device it lies on.</param>
/// <param name="Number">Its number there (inode).</param>
/// <param name="IsRegular">Whether it is a file that holds bytes: no folder, pipe, socket or device.</param>
public readonly record struct FileIdentity(ulong Device, ulong Number, bool IsRegular);

/// <summary>What a Unix file system is asked for beyond what .NET offers. On Windows nothing is known and nothing is done.</summary>
public static class UnixFiles
{
    // Linux, include/uapi/linux/stat.h: struct statx and its masks; the layout is the same on every processor.
    private const int StatxBytes = 256,
        ModeAt = 28,
        InodeAt = 32,
        DeviceAt = 136,
        CurrentFolder = -100;
    private const uint TypeAndInode = 0x1 | 0x100;
    private const int FormatBits = 0xF000,
        RegularBits = 0x8000;

    /// <summary>Which file a path leads to, links followed; null where there is none or it cannot be asked.</summary>
    public static FileIdentity? IdentityOf(string path)
    {
        if (!OperatingSystem.IsLinux())
            return null;
        var told = new byte[StatxBytes];
        if (Statx(CurrentFolder, path, 0, TypeAndInode, told) != 0)
            return null;
        var mode = BinaryPrimitives.ReadUInt16LittleEndian(told.AsSpan(ModeAt));
        return new FileIdentity(
            BinaryPrimitives.ReadUInt64LittleEndian(told.AsSpan(DeviceAt)),
            BinaryPrimitives.ReadUInt64LittleEndian(told.AsSpan(InodeAt)),
            (mode & FormatBits) == RegularBits
        );
    }

    /// <summary>Sees to it that what a folder lists is on the disk, as after a file in it was renamed.</summary>
    /// <exception cref="IOException">The folder could not be written out.</exception>
    public static void SyncFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
            return;
        var opened = Open(folder, 0);
        if (opened < 0)
            throw new IOException($"The folder {folder} cannot be opened.");
        var done = Fsync(opened);
        _ = Close(opened);
        if (done != 0)
            throw new IOException($"The folder {folder} cannot be written out to the disk.");
    }

    /// <summary>Denies new files and folders of this process to everybody but its owner.</summary>
    public static void KeepForOwner()
    {
        const int GroupAndOthers = 0x3F;
        if (!OperatingSystem.IsWindows())
            _ = Umask(GroupAndOthers);
    }

    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Umask(int mask);

    [DllImport("libc", EntryPoint = "statx")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Statx(int folder, [MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags, uint mask, byte[] told);

    [DllImport("libc", EntryPoint = "open")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Open([MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags);

    [DllImport("libc", EntryPoint = "fsync")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Fsync(int opened);

    [DllImport("libc", EntryPoint = "close")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int Close(int opened);
}
