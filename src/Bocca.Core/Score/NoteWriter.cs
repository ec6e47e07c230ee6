using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Writes the notes of one voice as MusicXML, several tied ones where one head cannot show a length.</summary>
/// <param name="staves">Whether the part has several staves, so that each note says its own.</param>
/// <param name="ticks">A length in the part's divisions.</param>
/// <param name="id">The id of the next note.</param>
internal sealed class NoteWriter(bool staves, Func<Rational, long> ticks, Func<string> id)
{
    private static readonly (NoteMarks Mark, string Name)[] Articulations =
    [
        (NoteMarks.Accent, "accent"),
        (NoteMarks.Marcato, "strong-accent"),
        (NoteMarks.Staccato, "staccato"),
        (NoteMarks.Tenuto, "tenuto"),
        (NoteMarks.Staccatissimo, "staccatissimo"),
        (NoteMarks.Breath, "breath-mark"),
        (NoteMarks.Caesura, "caesura"),
    ];

    /// <summary>Articulations that belong to the end of what is tied.</summary>
    private const NoteMarks AtTheEnd = NoteMarks.Breath | NoteMarks.Caesura;

    private readonly List<int> _slurs = [];
    private readonly HashSet<int> _tied = [];
    private HashSet<int> _tying = [];

    /// <summary>The heads that a note needs, with their real lengths.</summary>
    public static IReadOnlyList<(NoteValue Value, Rational Length)> Heads(ScoreNote note)
    {
        var share = note.Tuplet?.Share ?? Rational.One;
        return [.. NoteValue.Of(note.Length / share).Select(value => (value, value.Length * share))];
    }

    public IEnumerable<XElement> Write(ScoreNote note, IReadOnlyList<string>? beams, Accidentals accidentals)
    {
        if (!note.InChord)
        {
            _tied.Clear();
            _tied.UnionWith(_tying);
            _tying = [];
        }

        var from = note.Written is { } pitch && _tied.Contains(pitch.Midi);
        if (note.TiedToNext && note.Written is { } kept)
            _tying.Add(kept.Midi);
        if (note.GraceType is not null || note.IsMeasureRest)
        {
            yield return Head(
                note,
                note.IsMeasureRest ? null : new NoteValue(note.GraceType!, 0, 0),
                note.Length,
                beams,
                true,
                true,
                from,
                accidentals
            );
            yield break;
        }

        var heads = Heads(note);
        for (var i = 0; i < heads.Count; i++)
            yield return Head(note, heads[i].Value, heads[i].Length, beams, i == 0, i == heads.Count - 1, from, accidentals);
    }

    private XElement Head(
        ScoreNote note,
        NoteValue? value,
        Rational length,
        IReadOnlyList<string>? beams,
        bool first,
        bool last,
        bool tiedFrom,
        Accidentals accidentals
    )
    {
        var (ends, begins) = (note.Written is not null && (!first || tiedFrom), note.Written is not null && (!last || note.TiedToNext));
        return new XElement(
            "note",
            new XAttribute("id", id()),
            note.GraceType is null ? null : new XElement("grace", note.IsSlashed ? new XAttribute("slash", "yes") : null),
            note.IsCue ? new XElement("cue") : null,
            note.InChord ? new XElement("chord") : null,
            Sound(note),
            note.GraceType is null ? new XElement("duration", ticks(length)) : null,
            ends ? new XElement("tie", new XAttribute("type", "stop")) : null,
            begins ? new XElement("tie", new XAttribute("type", "start")) : null,
            new XElement("voice", note.Voice),
            value is { } head ? new XElement("type", head.Type) : null,
            Enumerable.Range(0, value?.Dots ?? 0).Select(_ => new XElement("dot")),
            note.Written is { } pitch && accidentals.Before(pitch, ends) is { } sign ? new XElement("accidental", sign) : null,
            note.Tuplet is { } tuplet
                ? new XElement(
                    "time-modification",
                    new XElement("actual-notes", tuplet.Actual),
                    new XElement("normal-notes", tuplet.Normal)
                )
                : null,
            staves ? new XElement("staff", note.Staff) : null,
            first && last ? beams?.Select((beam, i) => new XElement("beam", new XAttribute("number", i + 1), beam)) : null,
            Notations(note, first, last, begins, ends),
            first ? note.Lines.Select(Lyric) : null
        );
    }

    private static XElement Sound(ScoreNote note) =>
        note.Written is { } pitch ? MusicXmlWriter.PitchOf(pitch)
        : note.IsUnpitched ? new XElement("unpitched", new XElement("display-step", "E"), new XElement("display-octave", 4))
        : new XElement("rest", note.IsMeasureRest ? new XAttribute("measure", "yes") : null);

    private XElement? Notations(ScoreNote note, bool first, bool last, bool tieBegins, bool tieEnds)
    {
        static XElement Typed(string name, string type, params object[] more) => new(name, new XAttribute("type", type), more);
        var marks = new List<XElement>();
        if (tieEnds)
            marks.Add(Typed("tied", "stop"));
        if (tieBegins)
            marks.Add(Typed("tied", "start"));
        for (var i = 0; last && i < note.SlursEnded && _slurs.Count > 0; i++)
        {
            marks.Add(Typed("slur", "stop", new XAttribute("number", _slurs[^1])));
            _slurs.RemoveAt(_slurs.Count - 1);
        }

        for (var i = 0; first && i < note.SlursBegun; i++)
        {
            var number = Enumerable.Range(1, 16).First(each => !_slurs.Contains(each));
            _slurs.Add(number);
            marks.Add(Typed("slur", "start", new XAttribute("number", number)));
        }

        if (first && note.Tuplet is { Begins: true })
            marks.Add(Typed("tuplet", "start", new XAttribute("bracket", "yes")));
        if (last && note.Tuplet is { Ends: true })
            marks.Add(Typed("tuplet", "stop"));
        var articulations = Articulations
            .Where(each => note.Marks.HasFlag(each.Mark) && (AtTheEnd.HasFlag(each.Mark) ? last : first))
            .Select(each => new XElement(each.Name))
            .ToList();
        if (articulations.Count > 0)
            marks.Add(new XElement("articulations", articulations));
        if (last && note.Marks.HasFlag(NoteMarks.Fermata))
            marks.Add(new XElement("fermata"));
        return marks.Count == 0 ? null : new XElement("notations", marks);
    }

    private static XElement? Lyric(string text, int line) =>
        text == ""
            ? null
            : new XElement("lyric", new XAttribute("number", line + 1), new XElement("syllabic", "single"), new XElement("text", text));
}
