using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>
/// A MusicXML document as somebody else wrote it, with everything that is in it. What is written into it carries ids of our own, so that it
/// can be taken out again and the document stands as it was.
/// </summary>
public sealed partial class ScoreDocument
{
    /// <summary>What the ids of everything written into a document begin with.</summary>
    private const string Ours = "bocca-";

    private readonly XDocument _document;
    private readonly byte[]? _package;

    private ScoreDocument(XDocument document, byte[]? package) => (_document, _package) = (document, package);

    private XElement Root => _document.Root!;

    /// <summary>Reads a document, plain or packed, bounded as <see cref="MusicXmlReader"/> is.</summary>
    /// <exception cref="InvalidDataException">It is no score; the message says what and where.</exception>
    public static ScoreDocument Read(byte[] file)
    {
        var document = MusicXmlReader.Document(file, whole: true);
        if (document.DocumentType is null && TypeOf(MusicXmlReader.Xml(file)) is { } type)
            document.AddFirst(type);
        return new ScoreDocument(document, PackedScore.Is(file) ? file : null);
    }

    /// <summary>The document as a plain file.</summary>
    public byte[] Write()
    {
        using var memory = new MemoryStream();
        var settings = new XmlWriterSettings
        {
            Encoding = new UTF8Encoding(encoderShouldEmitUTF8Identifier: false),
            NewLineHandling = NewLineHandling.Entitize,
        };
        using (var writer = XmlWriter.Create(memory, settings))
            _document.Save(writer);
        return memory.ToArray();
    }

    /// <summary>The document packed (.mxl), with whatever else was in the package it came in.</summary>
    public byte[] WritePacked() => PackedScore.Pack(Write(), _package);

    /// <summary>The same document with marks written into a part; marks that were written before are taken out first.</summary>
    /// <param name="part">The part, by its place from 0.</param>
    /// <param name="marks">What is written; notes that are not there are passed over.</param>
    public ScoreDocument Annotated(int part, IReadOnlyList<ScoreAnnotation> marks)
    {
        var copy = WithoutAnnotations();
        var notes = ScoreTree.Parts(copy.Root)[part].Notes.ToList();
        foreach (var mark in marks.Where(mark => mark.Note >= 0 && mark.Note < notes.Count))
            ScoreAnnotator.Write(notes[mark.Note], mark, Ours);
        return copy;
    }

    /// <summary>The same document without anything that was written into it.</summary>
    public ScoreDocument WithoutAnnotations()
    {
        var copy = new XDocument(_document);
        copy.Descendants().Where(IsOurs).Remove();
        return new ScoreDocument(copy, _package);
    }

    /// <summary>One part alone.</summary>
    /// <param name="part">The part, by its place from 0.</param>
    public ScoreDocument PartAlone(int part)
    {
        var copy = new XDocument(_document);
        var kept = ScoreTree.Parts(copy.Root!)[part].Id;
        copy.Root!.Descendants("part").Where(each => each.Attribute("id")?.Value != kept).Remove();
        copy.Root.Elements("part-list").Elements().Where(each => each.Attribute("id")?.Value != kept).Remove();
        return new ScoreDocument(copy, _package);
    }

    /// <summary>
    /// The score with one part written as another player reads it, at its own concert pitch or octaves away; or only moved by octaves.
    /// </summary>
    /// <param name="part">The part, by its place from 0.</param>
    /// <param name="reading">How it is to be read; null where it stays as it is written.</param>
    /// <param name="octaves">Octaves by which it is moved, up positive.</param>
    public ScoreDocument Transposed(int part, Reading? reading, int octaves)
    {
        var copy = new XDocument(_document);
        PartTransposer.Write(ScoreTree.Parts(copy.Root!)[part], reading, octaves);
        return new ScoreDocument(copy, _package);
    }

    /// <summary>
    /// The part alone, each of its notes named by its place (<c>n0</c>, <c>n1</c> ...), for drawing: a mark laid upon the picture finds its
    /// note so.
    /// </summary>
    /// <param name="part">The part, by its place from 0.</param>
    public string Drawn(int part)
    {
        var copy = PartAlone(part);
        foreach (
            var named in copy
                .Root.Descendants()
                .Attributes("id")
                .Where(id => id.Parent!.Name.LocalName is not ("part" or "score-part"))
                .ToList()
        )
            named.Remove();
        var number = 0;
        foreach (var note in ScoreTree.Parts(copy.Root)[0].Notes)
            note.SetAttributeValue("id", $"n{number++}");
        return Encoding.UTF8.GetString(copy.Write());
    }

    private static bool IsOurs(XElement element) => element.Attribute("id")?.Value.StartsWith(Ours, StringComparison.Ordinal) == true;

    [GeneratedRegex("<!DOCTYPE\\s+([\\w:.-]+)\\s+PUBLIC\\s+[\"']([^\"'<>]*)[\"']\\s+[\"']([^\"'<>]*)[\"']\\s*>")]
    private static partial Regex DocumentType();

    /// <summary>The document type that reading passes over; null for none, or one with rules of its own.</summary>
    private static XDocumentType? TypeOf(byte[] file)
    {
        const int Head = 2000;
        var found = DocumentType().Match(Encoding.UTF8.GetString(file, 0, Math.Min(Head, file.Length)));
        return found.Success ? new XDocumentType(found.Groups[1].Value, found.Groups[2].Value, found.Groups[3].Value, null) : null;
    }
}
