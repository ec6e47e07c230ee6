using System.Globalization;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Writes one part of a score as MusicXML.</summary>
internal sealed class PartWriter(ScorePart part, string prefix, double? tempo)
{
    private int _number;
    private bool _tied;

    public XElement Write(string id) => new("part", new XAttribute("id", id), part.Measures.Select(Measure));

    private XElement Measure(ScoreMeasure measure, int index)
    {
        var quarters = Math.Max(1, (int)Math.Round((double)measure.Ticks / MusicScore.TicksPerQuarter));
        var changed = index > 0 && measure.Ticks != part.Measures[index - 1].Ticks;
        return new XElement(
            "measure",
            new XAttribute("number", index + 1),
            measure.NewLine && index > 0 ? new XElement("print", new XAttribute("new-system", "yes")) : null,
            index == 0 ? MusicXmlWriter.Attributes(part.Clef, part.Fifths, quarters, MusicScore.TicksPerQuarter, part.ToSounding) : null,
            changed
                ? new XElement(
                    "attributes",
                    new XElement(
                        "time",
                        new XAttribute("print-object", "no"),
                        new XElement("beats", quarters),
                        new XElement("beat-type", 4)
                    )
                )
                : null,
            index == 0 && tempo is { } beats ? Tempo(beats) : null,
            measure.Notes.SelectMany(Note)
        );
    }

    private static XElement Tempo(double tempo) =>
        new(
            "direction",
            new XAttribute("placement", "above"),
            new XElement(
                "direction-type",
                new XElement(
                    "metronome",
                    new XElement("beat-unit", "quarter"),
                    new XElement("per-minute", tempo.ToString("0.##", CultureInfo.InvariantCulture))
                )
            ),
            new XElement("sound", new XAttribute("tempo", tempo.ToString("0.##", CultureInfo.InvariantCulture)))
        );

    /// <summary>A note, as several tied ones where one head cannot show its length.</summary>
    private IEnumerable<XElement> Note(ScoreNote note)
    {
        var values = NoteValue.Of(note.Ticks);
        for (var i = 0; i < values.Count; i++)
        {
            var (first, last) = (i == 0, i == values.Count - 1);
            var begins = note.Written is not null && (!last || note.TiedToNext);
            var ends = note.Written is not null && (!first || _tied);
            _number++;
            yield return new XElement(
                "note",
                new XAttribute("id", $"{prefix}n{_number}"),
                note.Written is { } pitch ? PitchOf(pitch) : new XElement("rest"),
                new XElement("duration", values[i].Ticks),
                ends ? new XElement("tie", new XAttribute("type", "stop")) : null,
                begins ? new XElement("tie", new XAttribute("type", "start")) : null,
                new XElement("voice", 1),
                new XElement("type", values[i].Type),
                values[i].Dots == 1 ? new XElement("dot") : null,
                Notations(note, first, last, begins, ends),
                first ? note.Lines.Select(Lyric) : null
            );
        }

        _tied = note.TiedToNext;
    }

    private static XElement PitchOf(Pitch pitch) =>
        new(
            "pitch",
            new XElement("step", pitch.Letter),
            pitch.Alter == 0 ? null : new XElement("alter", pitch.Alter),
            new XElement("octave", pitch.Octave)
        );

    private static XElement? Notations(ScoreNote note, bool first, bool last, bool tieBegins, bool tieEnds)
    {
        XElement[] marks =
        [
            .. tieEnds ? [new XElement("tied", new XAttribute("type", "stop"))] : Array.Empty<XElement>(),
            .. tieBegins ? [new XElement("tied", new XAttribute("type", "start"))] : Array.Empty<XElement>(),
            .. note.SlurEnds && last
                ? [new XElement("slur", new XAttribute("type", "stop"), new XAttribute("number", 1))]
                : Array.Empty<XElement>(),
            .. note.SlurBegins && first
                ? [new XElement("slur", new XAttribute("type", "start"), new XAttribute("number", 1))]
                : Array.Empty<XElement>(),
            .. note.BreathAfter && last ? [new XElement("articulations", new XElement("breath-mark"))] : Array.Empty<XElement>(),
        ];
        return marks.Length == 0 ? null : new XElement("notations", marks);
    }

    private static XElement? Lyric(string text, int line) =>
        text == ""
            ? null
            : new XElement("lyric", new XAttribute("number", line + 1), new XElement("syllabic", "single"), new XElement("text", text));
}
