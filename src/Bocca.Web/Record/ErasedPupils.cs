namespace Bocca.Web.Record;

/// <summary>
/// The random keys of pupils who were erased, in a file beside the record: one a line. A copy of the record that is put back later may
/// still hold them; they are erased from it then.
/// </summary>
/// <param name="folder">The data folder.</param>
public sealed class ErasedPupils(string folder)
{
    private const string Name = "bocca.erased";

    private string File => Path.Combine(folder, Name);

    /// <summary>All keys, in no order.</summary>
    public IReadOnlySet<Guid> Keys =>
        System.IO.File.Exists(File)
            ? System.IO.File.ReadLines(File).Select(line => Guid.TryParse(line, out var key) ? key : Guid.Empty).ToHashSet()
            : new HashSet<Guid>();

    /// <summary>Adds a key; it is on the disk when this returns.</summary>
    public void Add(Guid key)
    {
        if (Keys.Contains(key))
            return;
        using (var file = new FileStream(File, FileMode.Append, FileAccess.Write))
        {
            file.Write(System.Text.Encoding.ASCII.GetBytes($"{key}\n"));
            file.Flush(flushToDisk: true);
        }

        UnixFiles.SyncFolder(folder);
    }
}
