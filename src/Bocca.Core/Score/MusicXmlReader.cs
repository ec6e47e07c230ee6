using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>
/// Reads MusicXML, plain or packed (.mxl), versions 1 to 4: parts, staves and voices, notes with their signs, tuplets, grace and cue notes,
/// keys, metres, clefs and transpositions that change, repeats and endings, tempo, levels, words and chord symbols. Files may come from
/// anywhere: document types are passed over, entities are not expanded, and size, depth and packing are bounded.
/// </summary>
public static partial class MusicXmlReader
{
    /// <summary>The largest file, unpacked, in bytes.</summary>
    public const int MostBytes = 5_000_000;

    /// <summary>What is said of a larger one.</summary>
    public const string TooLarge = "The file is larger than 5 MB; split the piece.";

    /// <summary>Elements inside elements, at most.</summary>
    public const int MostDepth = 64;

    private const int MostParts = 40,
        MostNotes = 200_000;

    /// <summary>Voices of a part, and declarations of namespaces in a file, at most (ours): no score has a tenth of it.</summary>
    private const int MostVoices = 64,
        MostNamespaces = 256;

    /// <summary>Reads a score.</summary>
    /// <param name="file">The file's bytes, plain XML or a zip of it.</param>
    /// <exception cref="InvalidDataException">It is no score, or more than is read; the message says what and where.</exception>
    public static MusicScore Read(byte[] file)
    {
        return ScoreOf(Document(file));
    }

    /// <summary>The document of a score, as it was written when everything of it is to be kept.</summary>
    /// <param name="file">The file's bytes, plain XML or a zip of it.</param>
    /// <param name="whole">Whether comments, instructions and white space are kept, for writing it again.</param>
    /// <exception cref="InvalidDataException">It is no score, or more than is read; the message says what and where.</exception>
    internal static XDocument Document(byte[] file, bool whole = false)
    {
        if (file.Length == 0)
            throw new InvalidDataException("The file is empty.");
        try
        {
            return Parsed(Xml(file), whole);
        }
        catch (XmlException problem)
        {
            throw new InvalidDataException($"That is not a MusicXML file (line {problem.LineNumber}).", problem);
        }
    }

    /// <summary>The score's own bytes, out of its package where it has one.</summary>
    internal static byte[] Xml(byte[] file) => PackedScore.Is(file) ? PackedScore.Score(file) : Bounded(file, "The file");

    internal static byte[] Bounded(byte[] bytes, string what) =>
        bytes.Length <= MostBytes
            ? bytes
            : throw new InvalidDataException($"{what} is larger than {MostBytes / 1_000_000} MB; split the piece.");

    internal static XDocument Parsed(byte[] xml, bool whole = false)
    {
        CheckText(xml);
        var settings = new XmlReaderSettings
        {
            DtdProcessing = DtdProcessing.Ignore,
            XmlResolver = null,
            MaxCharactersInDocument = MostBytes,
            IgnoreComments = !whole,
            IgnoreProcessingInstructions = !whole,
            IgnoreWhitespace = !whole,
        };
        // Depth first: building a tree of any depth would come too late to refuse it.
        using (var scan = XmlReader.Create(new MemoryStream(xml), settings))
        {
            while (scan.Read())
                if (scan.Depth > MostDepth)
                    throw new InvalidDataException($"The file nests elements more than {MostDepth} deep; no score does.");
        }

        using var reader = XmlReader.Create(new MemoryStream(xml), settings);
        return XDocument.Load(reader, whole ? LoadOptions.PreserveWhitespace : LoadOptions.None);
    }

    /// <summary>What a reader of XML would take half, or for ever: letters cut in the middle, and namespaces by the thousand.</summary>
    private static void CheckText(byte[] xml)
    {
        var wide = xml is [0xFE, 0xFF, ..] or [0xFF, 0xFE, ..] or [0, (byte)'<', ..] or [(byte)'<', 0, ..];
        var head = Encoding.Latin1.GetString(xml, 0, Math.Min(xml.Length, 200));
        var declared =
            wide ? ""
            : EncodingName().Match(head) is { Success: true } named ? named.Groups[1].Value
            : "utf-8";
        if (string.Equals(declared, "utf-8", StringComparison.OrdinalIgnoreCase))
            for (ReadOnlySpan<byte> left = xml; left.Length > 0; )
            {
                if (Rune.DecodeFromUtf8(left, out _, out var taken) != System.Buffers.OperationStatus.Done)
                    throw new InvalidDataException(
                        $"Byte {xml.Length - left.Length + 1} of the file is no letter in UTF-8: it may be cut off."
                    );
                left = left[taken..];
            }

        ReadOnlySpan<byte> name = wide ? "x\0m\0l\0n\0s"u8 : "xmlns"u8;
        if (((ReadOnlySpan<byte>)xml).Count(name) > MostNamespaces)
            throw new InvalidDataException($"The file declares more than {MostNamespaces} namespaces; no score does.");
    }

    [GeneratedRegex("encoding\\s*=\\s*[\"']([A-Za-z0-9._-]+)[\"']")]
    private static partial Regex EncodingName();

    private static MusicScore ScoreOf(XDocument document)
    {
        var root = document.Root!;
        var parts = ScoreTree.Parts(root).Take(MostParts + 1).ToList();
        if (parts.Count is 0 or > MostParts)
            throw new InvalidDataException(parts.Count == 0 ? "The score has no part." : $"The score has more than {MostParts} parts.");
        if (root.Descendants("note").Take(MostNotes + 1).Count() > MostNotes)
            throw new InvalidDataException($"The score has more than {MostNotes} notes.");
        foreach (var part in parts)
            if (part.Notes.Select(note => note.Element("voice")?.Value).Distinct().Take(MostVoices + 1).Count() > MostVoices)
                throw new InvalidDataException($"A part has more than {MostVoices} voices; no score does.");
        var tempo = TempoOf(root);
        return new MusicScore(
            root.Element("work")?.Element("work-title")?.Value.Trim() ?? root.Element("movement-title")?.Value.Trim() ?? "",
            tempo ?? MusicScore.UsualTempo,
            [.. parts.Select(part => new PartReader(part.Name).Read(part.Measures))]
        )
        {
            Composer =
                root.Elements("identification")
                    .Elements("creator")
                    .FirstOrDefault(creator => creator.Attribute("type")?.Value is "composer" or null)
                    ?.Value.Trim()
                ?? "",
            HasTempo = tempo is not null,
        };
    }

    private static double? TempoOf(XElement root)
    {
        var sound = root.Descendants("sound")
            .Select(element => element.Attribute("tempo")?.Value)
            .FirstOrDefault(tempo => tempo is not null);
        if (double.TryParse(sound, NumberStyles.Float, CultureInfo.InvariantCulture, out var tempo) && tempo is >= 10 and <= 400)
            return tempo;
        return root.Descendants("metronome").Select(MarkReader.QuartersAMinute).FirstOrDefault(printed => printed is not null);
    }
}
