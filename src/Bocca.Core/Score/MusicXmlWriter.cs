using System.Text;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Writes MusicXML 4.0 (published: W3C Music Notation Community Group 2021).</summary>
public static class MusicXmlWriter
{
    /// <summary>A row of whole notes, one a measure with no bar lines between; note n has the id <c>n1</c>, <c>n2</c> ...</summary>
    public static string Write(NoteRow row) => Write([row]);

    /// <summary>Rows of whole notes above each other, one part each.</summary>
    public static string Write(IReadOnlyList<NoteRow> rows)
    {
        var score = new XElement(
            "score-partwise",
            new XAttribute("version", "4.0"),
            new XElement(
                "part-list",
                rows.Select(
                    (row, i) => new XElement("score-part", new XAttribute("id", $"P{i + 1}"), new XElement("part-name", Shown(row.Part)))
                )
            ),
            rows.Select((row, i) => new XElement("part", new XAttribute("id", $"P{i + 1}"), Measures(row, i == 0 ? "" : $"p{i + 1}")))
        );
        return $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{score}";
    }

    /// <summary>
    /// A whole score: key, clef, transposition, slurs, ties, breath marks, tempo, and lines of text under the notes; note n of the first
    /// part has the id <c>n1</c>, <c>n2</c> ...
    /// </summary>
    public static string Write(MusicScore score)
    {
        var document = new XElement(
            "score-partwise",
            new XAttribute("version", "4.0"),
            score.Title == "" ? null : new XElement("work", new XElement("work-title", Shown(score.Title))),
            score.Composer == ""
                ? null
                : new XElement("identification", new XElement("creator", new XAttribute("type", "composer"), Shown(score.Composer))),
            new XElement(
                "part-list",
                score.Parts.Select(
                    (part, i) => new XElement("score-part", new XAttribute("id", $"P{i + 1}"), new XElement("part-name", Shown(part.Name)))
                )
            ),
            score.Parts.Select(
                (part, i) => new PartWriter(part, i == 0 ? "" : $"p{i + 1}", score.ShowsTempo ? score.Tempo : null).Write($"P{i + 1}")
            )
        );
        return $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{document}";
    }

    private static IEnumerable<XElement> Measures(NoteRow row, string prefix) =>
        row.Written.Select(
            (pitch, i) =>
                new XElement(
                    "measure",
                    new XAttribute("number", i + 1),
                    i > 0 && row.NotesInLine > 0 && i % row.NotesInLine == 0
                        ? new XElement("print", new XAttribute("new-system", "yes"))
                        : null,
                    i == 0 ? Attributes(1, row.Fifths, HiddenTime(4), 1, [(1, row.Clef)], row.ToSounding) : null,
                    row.Rests.Contains(i)
                        ? Rest($"{prefix}n{i + 1}")
                        : Note(pitch, row.Fifths, $"{prefix}n{i + 1}", row.Under.Count > i ? row.Under[i] : ""),
                    new XElement("barline", new XAttribute("location", "right"), new XElement("bar-style", "none"))
                )
        );

    /// <summary>A rest as long as the whole notes beside it.</summary>
    private static XElement Rest(string id) =>
        new("note", new XAttribute("id", id), new XElement("rest"), new XElement("duration", 4), new XElement("type", "whole"));

    /// <summary>Divisions, key, time, clefs and transposition, each where it is given.</summary>
    internal static XElement Attributes(
        long? divisions,
        int? fifths,
        XElement? time,
        int staves,
        IReadOnlyList<(int Staff, Clef Clef)> clefs,
        Interval? toSounding
    ) =>
        new(
            "attributes",
            divisions is { } parts ? new XElement("divisions", parts) : null,
            fifths is { } sharps ? new XElement("key", new XElement("fifths", sharps)) : null,
            time,
            divisions is not null && staves > 1 ? new XElement("staves", staves) : null,
            clefs.Select(clef => ClefOf(clef.Clef, staves > 1 ? clef.Staff : null)),
            toSounding is { } interval ? Transpose(interval, always: divisions is null) : null
        );

    /// <summary>A pitch.</summary>
    internal static XElement PitchOf(Pitch pitch) =>
        new(
            "pitch",
            new XElement("step", pitch.Letter),
            pitch.Alter == 0 ? null : new XElement("alter", pitch.Alter),
            new XElement("octave", pitch.Octave)
        );

    /// <summary>A clef.</summary>
    internal static XElement ClefOf(Clef clef, int? staff)
    {
        var (sign, line) = clef switch
        {
            Clef.Treble => ("G", 2),
            Clef.Bass => ("F", 4),
            _ => ("C", 4),
        };
        return new XElement(
            "clef",
            staff is { } number ? new XAttribute("number", number) : null,
            new XElement("sign", sign),
            new XElement("line", line)
        );
    }

    /// <summary>A time signature that is not printed: exercises have phrases, not bars.</summary>
    private static XElement HiddenTime(int beats) =>
        new("time", new XAttribute("print-object", "no"), new XElement("beats", beats), new XElement("beat-type", 4));

    /// <summary>A text without what the format cannot hold, such as control characters.</summary>
    internal static string Shown(string text) => string.Concat(text.EnumerateRunes().Where(IsText));

    private static bool IsText(Rune rune) => rune.Value is 9 or 10 or 13 || (rune.Value >= 32 && rune.Value is not (0xFFFE or 0xFFFF));

    /// <summary>How the part sounds: octaves apart from the rest, as the format wants it.</summary>
    private static XElement? Transpose(Interval toSounding, bool always)
    {
        if (toSounding == default && !always)
            return null;
        var octaves = toSounding.Semitones / 12;
        return new XElement(
            "transpose",
            new XElement("diatonic", toSounding.Steps - (7 * octaves)),
            new XElement("chromatic", toSounding.Semitones - (12 * octaves)),
            octaves == 0 ? null : new XElement("octave-change", octaves)
        );
    }

    private static XElement Note(Pitch pitch, int fifths, string id, string under) =>
        new(
            "note",
            new XAttribute("id", id),
            PitchOf(pitch),
            new XElement("duration", 4),
            new XElement("type", "whole"),
            new Accidentals(fifths).Before(pitch, tied: false) is { } sign ? new XElement("accidental", sign) : null,
            under == ""
                ? null
                : new XElement("lyric", new XAttribute("number", 1), new XElement("syllabic", "single"), new XElement("text", under))
        );
}
