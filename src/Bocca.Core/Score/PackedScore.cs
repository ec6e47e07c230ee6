using System.IO.Compression;
using System.Text;

namespace Bocca.Core.Score;

/// <summary>A packed score (.mxl): a zip whose container names the score in it (published: MusicXML 4.0, compressed files).</summary>
internal static class PackedScore
{
    private const int MostFiles = 200;

    private const string Container = "META-INF/container.xml",
        Usual = "score.musicxml",
        MediaType = "application/vnd.recordare.musicxml+xml";

    /// <summary>Whether a file is packed.</summary>
    public static bool Is(byte[] file) => file is [0x50, 0x4B, ..];

    /// <summary>The score inside: the one its container names.</summary>
    /// <exception cref="InvalidDataException">There is none, or more than is read; the message says what.</exception>
    public static byte[] Score(byte[] file) => Open(file, zip => Taken(zip.GetEntry(PathIn(zip))!));

    /// <summary>Packs a score; where it came packed, everything else that was in the package stays in it.</summary>
    /// <param name="score">The score.</param>
    /// <param name="came">The package it came in; null for none.</param>
    public static byte[] Pack(byte[] score, byte[]? came)
    {
        using var memory = new MemoryStream();
        using (var zip = new ZipArchive(memory, ZipArchiveMode.Create, leaveOpen: true))
        {
            if (came is not null)
                return Open(
                    came,
                    old =>
                    {
                        var path = PathIn(old);
                        foreach (var entry in old.Entries)
                            Put(zip, entry.FullName, entry.FullName == path ? score : Taken(entry));
                        zip.Dispose();
                        return memory.ToArray();
                    }
                );
            // The container comes first.
            Put(
                zip,
                Container,
                Encoding.UTF8.GetBytes(
                    "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<container><rootfiles>"
                        + $"<rootfile full-path=\"{Usual}\" media-type=\"{MediaType}\"/></rootfiles></container>"
                )
            );
            Put(zip, Usual, score);
        }

        return memory.ToArray();
    }

    private static byte[] Open(byte[] file, Func<ZipArchive, byte[]> read)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
            return zip.Entries.Count <= MostFiles
                ? read(zip)
                : throw new InvalidDataException($"The packed file holds {zip.Entries.Count} files; a score has a few.");
        }
        catch (InvalidDataException problem)
            when (problem.GetType() == typeof(InvalidDataException) && problem.Source == "System.IO.Compression")
        {
            throw new InvalidDataException("The packed file is damaged.", problem);
        }
    }

    private static string PathIn(ZipArchive zip)
    {
        var container =
            zip.GetEntry(Container)
            ?? throw new InvalidDataException($"The packed file has no {Container}, so it does not say which score is in it.");
        var path = MusicXmlReader
            .Parsed(Taken(container))
            .Descendants()
            .FirstOrDefault(element => element.Name.LocalName == "rootfile")
            ?.Attribute("full-path")
            ?.Value;
        return path is not null && zip.GetEntry(path) is not null
            ? path
            : throw new InvalidDataException($"The packed file names '{path}' as its score and does not hold it.");
    }

    /// <summary>Reads an entry byte by byte up to the bound, whatever it says of its own size.</summary>
    private static byte[] Taken(ZipArchiveEntry entry)
    {
        if (entry.IsEncrypted)
            throw new InvalidDataException($"'{entry.FullName}' in the packed file is encrypted: save it without a password.");
        using var stream = entry.Open();
        var buffer = new byte[MusicXmlReader.MostBytes + 1];
        var count = 0;
        int read;
        while (count < buffer.Length && (read = stream.Read(buffer, count, buffer.Length - count)) > 0)
            count += read;
        return MusicXmlReader.Bounded(buffer[..count], $"'{entry.FullName}' unpacked");
    }

    private static void Put(ZipArchive zip, string name, byte[] content)
    {
        using var entry = zip.CreateEntry(name).Open();
        entry.Write(content);
    }
}
