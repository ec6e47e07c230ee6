using System.Globalization;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Reads one part of a score.</summary>
internal sealed class PartReader(string name)
{
    private readonly List<ScoreMeasure> _measures = [];
    private readonly Dictionary<int, Clef> _clefs = [];
    private Rational _divisions = Rational.One;
    private Interval? _toSounding;
    private int? _fifths;
    private int _staves = 1;
    private int _source;
    private int _ending;

    // What the measure that is being read has brought so far.
    private MeasureTree _measure;
    private List<ScoreNote> _notes = [];
    private List<ScoreMark> _marks = [];
    private Dictionary<int, Clef> _newClefs = [];
    private Rational _at;
    private Rational _chordAt;

    public ScorePart Read(IReadOnlyList<MeasureTree> measures)
    {
        foreach (var measure in measures)
            _measures.Add(Measure(measure));
        var first = _measures.Count > 0 ? _measures[0] : null;
        return new ScorePart(
            name,
            first?.Clefs.GetValueOrDefault(1, _clefs.GetValueOrDefault(1, Clef.Treble)) ?? Clef.Treble,
            first?.ToSounding ?? default,
            _measures
        )
        {
            Fifths = first?.Fifths ?? 0,
            Staves = _staves,
        };
    }

    private ScoreMeasure Measure(MeasureTree tree)
    {
        (_measure, _notes, _marks, _newClefs, _at) = (tree, [], [], [], Rational.Zero);
        var read = new ScoreMeasure([], tree.Content.Elements("print").Any(print => print.Attribute("new-system")?.Value == "yes"))
        {
            Number = tree.Number,
            IsPickup = tree.Head.Attribute("implicit")?.Value == "yes",
        };
        foreach (var element in tree.Content.Elements())
            switch (element.Name.LocalName)
            {
                case "attributes":
                    read = Attributes(element, read);
                    break;
                case "note":
                    _notes.Add(Note(element));
                    break;
                case "backup":
                    _at -= Duration(element);
                    if (_at < Rational.Zero)
                        throw Bad("goes back behind its own beginning");
                    break;
                case "forward":
                    _at += Duration(element);
                    break;
                case "direction" or "sound" or "harmony":
                    var offset = element.Element("offset") is { } distance ? Quarters(distance, -100_000) : Rational.Zero;
                    _marks.AddRange(MarkReader.Read(element, _at + offset is var at && at < Rational.Zero ? Rational.Zero : at));
                    break;
                case "barline":
                    read = Barline(element, read);
                    break;
            }

        return read with
        {
            Notes = _notes,
            Marks = _marks,
            Clefs = _newClefs,
        };
    }

    private ScoreMeasure Attributes(XElement attributes, ScoreMeasure read)
    {
        if (attributes.Element("divisions") is { } divisions)
            _divisions = Exact(Number(divisions, 1, 100_000));
        if (attributes.Element("staves") is { } staves)
            _staves = (int)Number(staves, 1, 8);
        if (attributes.Element("key")?.Element("fifths") is { } fifths)
        {
            var sharps = (int)Number(fifths, -7, 7);
            read = sharps == _fifths ? read : read with { Fifths = sharps };
            _fifths = sharps;
        }

        if (attributes.Element("time") is { } time)
            read = read with { Metre = MetreOf(time) };
        foreach (var clef in attributes.Elements("clef"))
        {
            var staff = int.TryParse(clef.Attribute("number")?.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                ? number
                : 1;
            var shown = ClefOf(clef);
            // One at the end of a measure is for the next.
            if (_clefs.TryGetValue(staff, out var before) && before == shown)
                continue;
            _clefs[staff] = _newClefs[staff] = shown;
        }

        if (attributes.Element("transpose") is { } transpose)
        {
            var interval = IntervalOf(transpose);
            read = interval == (_toSounding ?? default) && _toSounding is not null ? read : read with { ToSounding = interval };
            _toSounding = interval;
        }

        return read;
    }

    private static Clef ClefOf(XElement clef) =>
        (clef.Element("sign")?.Value, clef.Element("line")?.Value) switch
        {
            ("F", _) => Clef.Bass,
            ("C", "4") => Clef.Tenor,
            _ => Clef.Treble,
        };

    /// <summary>A metre, of several added ones the sum; null where none is printed as numbers.</summary>
    private Metre? MetreOf(XElement time)
    {
        if (time.Element("senza-misura") is not null || time.Element("beats") is null)
            return null;
        var above = 0;
        foreach (var part in time.Elements("beats").SelectMany(beats => beats.Value.Split('+')))
            above += int.TryParse(part.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var count) ? count : 0;
        var below = time.Element("beat-type") is { } type ? (int)Number(type, 1, 64) : 4;
        if (above is < 1 or > 64 || !int.IsPow2(below))
            throw Bad($"has a metre of {string.Join(" ", time.Elements().Select(each => each.Value))}");
        return new Metre(above, below);
    }

    private Interval IntervalOf(XElement transpose)
    {
        var octaves = transpose.Element("octave-change") is { } change ? (int)Number(change, -4, 4) : 0;
        var chromatic = (int)Number(transpose.Element("chromatic") ?? throw Bad("transposes by nothing"), -36, 36);
        var diatonic = transpose.Element("diatonic") is { } steps ? (int)Number(steps, -24, 24) : (int)Math.Round(chromatic * 7 / 12.0);
        return new Interval(diatonic + (7 * octaves), chromatic + (12 * octaves));
    }

    private ScoreMeasure Barline(XElement barline, ScoreMeasure read)
    {
        if (barline.Element("repeat") is { } repeat)
        {
            if (repeat.Attribute("direction")?.Value == "forward")
                read = read with { RepeatBegins = true };
            else
                read = read with
                {
                    RepeatTimes = int.TryParse(
                        repeat.Attribute("times")?.Value,
                        NumberStyles.None,
                        CultureInfo.InvariantCulture,
                        out var times
                    )
                        ? Math.Clamp(times, 2, 16)
                        // What is repeated under an ending comes once more than that ending.
                        : Math.Max(2, _ending + 1),
                };
        }

        if (barline.Element("ending") is { } ending)
        {
            if (ending.Attribute("type")?.Value == "start")
            {
                var times = (ending.Attribute("number")?.Value ?? "")
                    .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                    .Select(text =>
                        int.TryParse(text.TrimEnd('.'), NumberStyles.None, CultureInfo.InvariantCulture, out var time) ? time : 0
                    )
                    .Where(time => time is > 0 and <= 16)
                    .ToList();
                _ending = times.DefaultIfEmpty(0).Max();
                read = read with { EndingBegins = times };
            }
            else
            {
                _ending = 0;
                read = read with { EndingEnds = true };
            }
        }

        return barline.Element("bar-style")?.Value == "light-light" && barline.Attribute("location")?.Value is "right" or null
            ? read with
            {
                EndsSection = true,
            }
            : read;
    }

    private ScoreNote Note(XElement note)
    {
        var source = _source++;
        var grace = note.Element("grace");
        var inChord = note.Element("chord") is not null;
        var length = grace is null ? Quarters(note.Element("duration") ?? throw Bad("has a note without a duration"), 0) : Rational.Zero;
        var at = inChord ? _chordAt : _at;
        if (!inChord)
            (_chordAt, _at) = (_at, _at + length);
        var notations = note.Elements("notations").ToList();
        int Count(string name, string type) => notations.Elements(name).Count(mark => mark.Attribute("type")?.Value == type);
        return new ScoreNote(note.Element("pitch") is { } pitch ? PitchOf(pitch) : null, length)
        {
            At = at,
            Voice = Small(note.Element("voice")),
            Staff = Small(note.Element("staff")),
            InChord = inChord,
            GraceType = grace is null ? null : note.Element("type")?.Value ?? "eighth",
            IsSlashed = grace?.Attribute("slash")?.Value == "yes",
            IsCue = note.Element("cue") is not null,
            IsUnpitched = note.Element("unpitched") is not null,
            IsMeasureRest = note.Element("rest")?.Attribute("measure")?.Value == "yes",
            Tuplet = TupletOf(note, Count("tuplet", "start") > 0, Count("tuplet", "stop") > 0),
            SlursBegun = Count("slur", "start"),
            SlursEnded = Count("slur", "stop"),
            TiedToNext = note.Elements("tie").Any(tie => tie.Attribute("type")?.Value == "start") || Count("tied", "start") > 0,
            Marks = MarksOf(notations),
            Lines = Lines(note),
            Source = source,
        };
    }

    private static NoteMarks MarksOf(List<XElement> notations)
    {
        var marks = notations.Elements("fermata").Any() ? NoteMarks.Fermata : NoteMarks.None;
        foreach (var sign in notations.Elements("articulations").Elements())
            marks |= sign.Name.LocalName switch
            {
                "staccato" => NoteMarks.Staccato,
                "staccatissimo" or "spiccato" => NoteMarks.Staccatissimo,
                "tenuto" => NoteMarks.Tenuto,
                "detached-legato" => NoteMarks.Tenuto | NoteMarks.Staccato,
                "accent" => NoteMarks.Accent,
                "strong-accent" => NoteMarks.Marcato,
                "breath-mark" => NoteMarks.Breath,
                "caesura" => NoteMarks.Caesura,
                _ => NoteMarks.None,
            };
        return marks;
    }

    private Tuplet? TupletOf(XElement note, bool begins, bool ends)
    {
        if (note.Element("time-modification") is not { } change || note.Element("grace") is not null)
            return null;
        var actual = (int)Number(change.Element("actual-notes") ?? throw Bad("has a tuplet of nothing"), 1, 64);
        var normal = (int)Number(change.Element("normal-notes") ?? throw Bad("has a tuplet of nothing"), 1, 64);
        return actual == normal ? null : new Tuplet(actual, normal) { Begins = begins, Ends = ends };
    }

    private static int Small(XElement? number) =>
        int.TryParse(number?.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var small) ? Math.Clamp(small, 1, 99) : 1;

    private static List<string> Lines(XElement note)
    {
        var lines = new List<string>();
        foreach (var lyric in note.Elements("lyric"))
        {
            var line = int.TryParse(lyric.Attribute("number")?.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                ? Math.Clamp(number, 1, 9)
                : lines.Count + 1;
            while (lines.Count < line)
                lines.Add("");
            lines[line - 1] = string.Concat(lyric.Elements("text").Select(text => text.Value)).Trim();
        }

        return lines;
    }

    private Pitch PitchOf(XElement pitch)
    {
        var alter = pitch.Element("alter") is { } altered ? (int)Math.Round(Number(altered, -2, 2)) : 0;
        var octave = (int)Number(pitch.Element("octave") ?? throw Bad("has a pitch without an octave"), 0, 9);
        if (!Pitch.TryLetter(pitch.Element("step")?.Value.Trim(), out var letter))
            throw Bad($"has a pitch '{pitch.Element("step")?.Value}'");
        var read = new Pitch(letter, alter, octave);
        return read.Midi is >= 0 and <= 127 ? read : throw Bad($"has a pitch {read}, which nobody plays");
    }

    private Rational Duration(XElement element) => Quarters(element.Element("duration") ?? throw Bad("moves by nothing"), 0);

    private Rational Quarters(XElement element, double least) => Exact(Number(element, least, 1_000_000)) / _divisions;

    /// <summary>A number of the file as an exact one; thousandths are the finest.</summary>
    private static Rational Exact(double number) =>
        number == Math.Floor(number) ? new Rational((long)number) : new((long)Math.Round(number * 1000), 1000);

    private double Number(XElement element, double least, double most) =>
        double.TryParse(element.Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most
            ? number
            : throw Bad($"has '{element.Value}' for {element.Name.LocalName}, which is from {least} to {most}");

    private InvalidDataException Bad(string what) => new($"Measure {_measure.Number} {what}.");
}
