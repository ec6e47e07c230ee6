using System.Globalization;
using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Writes signs over and under the staff as MusicXML.</summary>
internal static class MarkWriter
{
    private static readonly HashSet<string> Dynamics =
    [
        "p",
        "pp",
        "ppp",
        "f",
        "ff",
        "fff",
        "mp",
        "mf",
        "sf",
        "sfz",
        "fp",
        "fz",
        "rf",
        "rfz",
        "sfp",
    ];

    /// <summary>Writes one.</summary>
    /// <param name="mark">The sign.</param>
    /// <param name="offset">How far behind the place in the file it stands, in divisions.</param>
    /// <param name="metre">The metre in force: tempi are printed in its beat.</param>
    public static XElement Write(ScoreMark mark, long offset, Metre metre) =>
        mark.Kind == MarkKind.Chord
            ? Harmony(mark, offset)
            : new XElement(
                "direction",
                new XAttribute(
                    "placement",
                    mark.Kind is MarkKind.Dynamic or >= MarkKind.Crescendo and <= MarkKind.HairpinEnd ? "below" : "above"
                ),
                Types(mark, metre).Select(type => new XElement("direction-type", type)),
                offset == 0 ? null : new XElement("offset", offset),
                Sound(mark)
            );

    private static IEnumerable<XElement> Types(ScoreMark mark, Metre metre)
    {
        switch (mark.Kind)
        {
            case MarkKind.Tempo:
                if (mark.Text != "")
                    yield return new XElement("words", new XAttribute("font-weight", "bold"), MusicXmlWriter.Shown(mark.Text));
                yield return Metronome(mark.Value, metre.Beat);
                break;
            case MarkKind.Dynamic:
                yield return new XElement(
                    "dynamics",
                    Dynamics.Contains(mark.Text) ? new XElement(mark.Text) : new XElement("other-dynamics", MusicXmlWriter.Shown(mark.Text))
                );
                break;
            case MarkKind.Crescendo or MarkKind.Diminuendo or MarkKind.HairpinEnd:
                var type =
                    mark.Kind == MarkKind.Crescendo ? "crescendo"
                    : mark.Kind == MarkKind.Diminuendo ? "diminuendo"
                    : "stop";
                yield return new XElement("wedge", new XAttribute("type", type), new XAttribute("number", 1));
                break;
            case MarkKind.Rehearsal:
                yield return new XElement("rehearsal", MusicXmlWriter.Shown(mark.Text));
                break;
            case MarkKind.Segno:
                yield return new XElement("segno");
                break;
            case MarkKind.Coda:
                yield return new XElement("coda");
                break;
            default:
                yield return new XElement("words", MusicXmlWriter.Shown(mark.Text != "" ? mark.Text : Said(mark.Kind)));
                break;
        }
    }

    private static XElement Metronome(double quarters, Rational beat)
    {
        var unit = NoteValue.Of(beat)[0];
        return new XElement(
            "metronome",
            new XElement("beat-unit", unit.Type),
            Enumerable.Range(0, unit.Dots).Select(_ => new XElement("beat-unit-dot")),
            new XElement("per-minute", Number(quarters / beat.Value))
        );
    }

    private static string Said(MarkKind kind) =>
        kind switch
        {
            MarkKind.DaCapo => "D.C.",
            MarkKind.DalSegno => "D.S.",
            MarkKind.ToCoda => "To Coda",
            MarkKind.Fine => "Fine",
            _ => "",
        };

    private static XElement? Sound(ScoreMark mark) =>
        mark.Kind switch
        {
            MarkKind.Tempo => new XElement("sound", new XAttribute("tempo", Number(mark.Value))),
            MarkKind.DaCapo => new XElement("sound", new XAttribute("dacapo", "yes")),
            MarkKind.DalSegno => new XElement("sound", new XAttribute("dalsegno", "segno")),
            MarkKind.Segno => new XElement("sound", new XAttribute("segno", "segno")),
            MarkKind.Coda => new XElement("sound", new XAttribute("coda", "coda")),
            MarkKind.ToCoda => new XElement("sound", new XAttribute("tocoda", "coda")),
            MarkKind.Fine => new XElement("sound", new XAttribute("fine", "yes")),
            _ => null,
        };

    /// <summary>A chord symbol: its root, and the rest as it is written.</summary>
    private static XElement Harmony(ScoreMark mark, long offset)
    {
        var letters = mark.Text is [_, '#' or 'b', ..] ? 2 : 1;
        var rest = mark.Text[letters..];
        return new XElement(
            "harmony",
            new XElement(
                "root",
                new XElement("root-step", mark.Text[..1]),
                letters == 2 ? new XElement("root-alter", mark.Text[1] == '#' ? 1 : -1) : null
            ),
            new XElement("kind", rest == "" ? null : new XAttribute("text", rest), KindOf(rest)),
            offset == 0 ? null : new XElement("offset", offset)
        );
    }

    private static string KindOf(string rest) =>
        rest switch
        {
            "" => "major",
            "m" => "minor",
            "7" => "dominant",
            "m7" => "minor-seventh",
            "maj7" => "major-seventh",
            "dim" => "diminished",
            "aug" or "+" => "augmented",
            "sus4" => "suspended-fourth",
            _ => "other",
        };

    private static string Number(double value) => value.ToString("0.##", CultureInfo.InvariantCulture);
}
