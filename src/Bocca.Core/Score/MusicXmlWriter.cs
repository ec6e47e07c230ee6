using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Writes MusicXML 4.0 (published: W3C Music Notation Community Group 2021).</summary>
public static class MusicXmlWriter
{
    /// <summary>A row of whole notes, one a measure with no bar lines between; note n has the id <c>n1</c>, <c>n2</c> ...</summary>
    public static string Write(NoteRow row)
    {
        var measures = row.Written.Select((pitch, i) => new XElement(
            "measure",
            new XAttribute("number", i + 1),
            i == 0 ? Attributes(row.Clef) : null,
            Note(pitch, i + 1),
            new XElement("barline", new XAttribute("location", "right"), new XElement("bar-style", "none"))));
        var score = new XElement(
            "score-partwise",
            new XAttribute("version", "4.0"),
            new XElement("part-list", new XElement("score-part", new XAttribute("id", "P1"), new XElement("part-name"))),
            new XElement("part", new XAttribute("id", "P1"), measures));
        return $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{score}";
    }

    private static XElement Attributes(Clef clef)
    {
        var (sign, line) = clef switch { Clef.Treble => ("G", 2), Clef.Bass => ("F", 4), _ => ("C", 4) };
        return new XElement(
            "attributes",
            new XElement("divisions", 1),
            new XElement("key", new XElement("fifths", 0)),
            new XElement("time", new XAttribute("print-object", "no"), new XElement("beats", 4), new XElement("beat-type", 4)),
            new XElement("clef", new XElement("sign", sign), new XElement("line", line)));
    }

    private static XElement Note(Pitch pitch, int number) => new(
        "note",
        new XAttribute("id", $"n{number}"),
        new XElement("pitch", new XElement("step", pitch.Letter), pitch.Alter == 0 ? null : new XElement("alter", pitch.Alter), new XElement("octave", pitch.Octave)),
        new XElement("duration", 4),
        new XElement("type", "whole"),
        pitch.Alter == 0 ? null : new XElement("accidental", pitch.Alter switch { 1 => "sharp", -1 => "flat", 2 => "double-sharp", _ => "flat-flat" }));
}
