using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Writes one part of a score as MusicXML.</summary>
/// <param name="part">The part.</param>
/// <param name="prefix">What the ids of its notes begin with.</param>
/// <param name="tempo">Quarters a minute to be printed at the beginning; null for none.</param>
internal sealed class PartWriter(ScorePart part, string prefix, double? tempo)
{
    /// <summary>Parts of a quarter finer than this are not written.</summary>
    private const long MostDivisions = 100_000;

    private readonly long _divisions = Divisions(part);
    private readonly Dictionary<int, NoteWriter> _voices = [];
    private readonly bool _hasMetre = part.Measures.Count > 0 && part.Measures[0].Metre is not null;
    private int _number;
    private int _fifths = part.Fifths;
    private Metre _metre = Metre.Common;
    private IReadOnlyList<int> _ending = [];

    public XElement Write(string id) => new("part", new XAttribute("id", id), part.Measures.Select(Measure));

    private static long Divisions(ScorePart part)
    {
        var divisions = 1L;
        foreach (var over in part.Measures.SelectMany(measure => measure.Notes).SelectMany(Overs).Distinct())
            divisions = checked(divisions / (long)System.Numerics.BigInteger.GreatestCommonDivisor(divisions, over) * over);
        return divisions <= MostDivisions
            ? divisions
            : throw new ArgumentException($"The lengths of the part need {divisions} parts of a quarter; {MostDivisions} are written.");
    }

    /// <summary>What a note's place and heads are parts of: a head of a tuplet needs its own.</summary>
    private static IEnumerable<long> Overs(ScoreNote note) =>
        note.IsMeasureRest || note.GraceType is not null
            ? [note.At.Denominator, note.Length.Denominator]
            : [note.At.Denominator, .. NoteWriter.Heads(note).Select(head => head.Length.Denominator)];

    private XElement Measure(ScoreMeasure measure, int index)
    {
        _fifths = measure.Fifths ?? _fifths;
        _metre = measure.Metre ?? _metre;
        _ending = measure.EndingBegins.Count > 0 ? measure.EndingBegins : _ending;
        var number = measure.Number == "" ? $"{index + 1}" : measure.Number;
        return new XElement(
            "measure",
            new XAttribute("number", number),
            measure.IsPickup ? new XAttribute("implicit", "yes") : null,
            measure.NewLine && index > 0 ? new XElement("print", new XAttribute("new-system", "yes")) : null,
            Barlines.Left(measure),
            index == 0 ? Opening(measure) : Changes(measure, part.Measures[index - 1]),
            index == 0 && tempo is { } beats && !measure.Marks.Any(mark => mark.Kind == MarkKind.Tempo)
                ? MarkWriter.Write(new ScoreMark(Rational.Zero, MarkKind.Tempo, "", beats), 0, _hasMetre ? _metre : Metre.Common)
                : null,
            Content(measure),
            Barlines.Right(measure, _hasMetre && index == part.Measures.Count - 1, _ending)
        );
    }

    private XElement Opening(ScoreMeasure measure) =>
        MusicXmlWriter.Attributes(
            _divisions,
            part.Fifths,
            _hasMetre ? Time(measure.Metre!.Value) : HiddenTime(measure),
            part.Staves,
            [.. Enumerable.Range(1, part.Staves).Select(staff => (staff, measure.Clefs.GetValueOrDefault(staff, part.Clef)))],
            part.ToSounding
        );

    private XElement? Changes(ScoreMeasure measure, ScoreMeasure before)
    {
        var time = _hasMetre
            ? measure.Metre is { } metre
                ? Time(metre)
                : null
            : measure.Length != before.Length
                ? HiddenTime(measure)
                : null;
        return time is null && measure.Fifths is null && measure.Clefs.Count == 0 && measure.ToSounding is null
            ? null
            : MusicXmlWriter.Attributes(
                null,
                measure.Fifths,
                time,
                part.Staves,
                [.. measure.Clefs.OrderBy(clef => clef.Key).Select(clef => (clef.Key, clef.Value))],
                measure.ToSounding
            );
    }

    private static XElement Time(Metre metre) => new("time", new XElement("beats", metre.Above), new XElement("beat-type", metre.Below));

    /// <summary>A time signature that is not printed, for exercises that have phrases and not bars.</summary>
    private static XElement HiddenTime(ScoreMeasure measure) =>
        new(
            "time",
            new XAttribute("print-object", "no"),
            new XElement("beats", Math.Max(1, (int)Math.Round(measure.Length.Value))),
            new XElement("beat-type", 4)
        );

    /// <summary>Voice by voice, each from the beginning of the measure; signs stand with the first.</summary>
    private IEnumerable<XElement> Content(ScoreMeasure measure)
    {
        var accidentals = Enumerable.Range(1, part.Staves).ToDictionary(staff => staff, _ => new Accidentals(_fifths));
        var voices = measure.Notes.GroupBy(note => (note.Staff, note.Voice)).OrderBy(voice => voice.Key).ToList();
        var beams = _hasMetre ? Beams.Of(measure, _metre) : [];
        var marks = new Queue<ScoreMark>(measure.Marks.OrderBy(mark => mark.At));
        var at = Rational.Zero;
        foreach (var voice in voices)
        {
            if (at > Rational.Zero)
                yield return new XElement("backup", new XElement("duration", Ticks(at)));
            at = Rational.Zero;
            foreach (var note in voice)
            {
                // What stands within a note is written before it, with its distance.
                while (marks.TryPeek(out var mark) && (mark.At < note.End || mark.At <= note.At))
                    yield return MarkWriter.Write(marks.Dequeue(), Ticks(mark.At - note.At), _metre);
                if (note.At > at)
                    yield return new XElement("forward", new XElement("duration", Ticks(note.At - at)));
                foreach (var written in WriterOf(note).Write(note, beams.GetValueOrDefault(note), accidentals[note.Staff]))
                    yield return written;
                at = note.End;
            }

            while (marks.TryDequeue(out var mark))
                yield return MarkWriter.Write(mark, Ticks(mark.At - at), _metre);
        }

        while (marks.TryDequeue(out var mark))
            yield return MarkWriter.Write(mark, Ticks(mark.At - at), _metre);
    }

    private NoteWriter WriterOf(ScoreNote note)
    {
        var key = (100 * note.Staff) + note.Voice;
        if (!_voices.TryGetValue(key, out var writer))
            _voices[key] = writer = new NoteWriter(part.Staves > 1, Ticks, () => $"{prefix}n{++_number}");
        return writer;
    }

    private long Ticks(Rational quarters) => (quarters * new Rational(_divisions)).Floor;
}
