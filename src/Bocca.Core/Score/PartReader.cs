using System.Globalization;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Reads one part of a score: its first voice on its first staff.</summary>
internal sealed class PartReader(string name)
{
    private readonly List<ScoreMeasure> _measures = [];
    private Clef? _clef;
    private Interval _toSounding;
    private int? _fifths;
    private double _divisions = 1;
    private string? _voice;

    public ScorePart Read(XElement part)
    {
        foreach (var measure in part.Elements("measure"))
            _measures.Add(Measure(measure));
        return new ScorePart(name, _clef ?? Clef.Treble, _toSounding, _measures) { Fifths = _fifths ?? 0 };
    }

    private ScoreMeasure Measure(XElement measure)
    {
        var notes = new List<ScoreNote>();
        foreach (var element in measure.Elements())
        {
            if (element.Name.LocalName == "attributes")
                Attributes(element, measure);
            else if (element.Name.LocalName == "note" && IsRead(element))
                notes.Add(Note(element, measure));
        }

        return new ScoreMeasure(notes, measure.Elements("print").Any(print => print.Attribute("new-system")?.Value == "yes"));
    }

    /// <summary>Grace and cue notes are no part of the line; of a chord its first note is, of several voices the first.</summary>
    private bool IsRead(XElement note)
    {
        if (
            note.Element("grace") is not null
            || note.Element("cue") is not null
            || note.Element("chord") is not null
            || note.Element("staff")?.Value is not (null or "1")
        )
            return false;
        var voice = note.Element("voice")?.Value ?? "1";
        _voice ??= voice;
        return voice == _voice;
    }

    private void Attributes(XElement attributes, XElement measure)
    {
        if (attributes.Element("divisions") is { } divisions)
            _divisions = Number(divisions, measure, 1, 100_000);
        if (attributes.Element("key")?.Element("fifths") is { } fifths)
            _fifths ??= (int)Number(fifths, measure, -7, 7);
        if (attributes.Elements("clef").FirstOrDefault() is { } clef)
            _clef ??= (clef.Element("sign")?.Value, clef.Element("line")?.Value) switch
            {
                ("F", _) => Clef.Bass,
                ("C", "4") => Clef.Tenor,
                _ => Clef.Treble,
            };
        if (attributes.Element("transpose") is { } transpose)
        {
            var octaves = transpose.Element("octave-change") is { } change ? (int)Number(change, measure, -4, 4) : 0;
            var chromatic = (int)Number(transpose.Element("chromatic") ?? throw Bad(measure, "transposes by nothing"), measure, -36, 36);
            var diatonic = transpose.Element("diatonic") is { } steps
                ? (int)Number(steps, measure, -24, 24)
                : (int)Math.Round(chromatic * 7 / 12.0);
            _toSounding = new Interval(diatonic + (7 * octaves), chromatic + (12 * octaves));
        }
    }

    private ScoreNote Note(XElement note, XElement measure)
    {
        var duration = Number(note.Element("duration") ?? throw Bad(measure, "has a note without a duration"), measure, 0, 1_000_000);
        var notations = note.Elements("notations").ToList();
        bool Has(string name, string type) => notations.Elements(name).Any(mark => mark.Attribute("type")?.Value == type);
        return new ScoreNote(
            note.Element("pitch") is { } pitch ? PitchOf(pitch, measure) : null,
            (int)Math.Round(duration * MusicScore.TicksPerQuarter / _divisions)
        )
        {
            SlurBegins = Has("slur", "start"),
            SlurEnds = Has("slur", "stop"),
            TiedToNext = note.Elements("tie").Any(tie => tie.Attribute("type")?.Value == "start"),
            BreathAfter = notations.Elements("articulations").Elements("breath-mark").Any(),
            Lines = Lines(note),
        };
    }

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

    private static Pitch PitchOf(XElement pitch, XElement measure)
    {
        var alter = pitch.Element("alter") is { } altered ? (int)Math.Round(Number(altered, measure, -2, 2)) : 0;
        var octave = (int)Number(pitch.Element("octave") ?? throw Bad(measure, "has a pitch without an octave"), measure, 0, 9);
        if (!Enum.TryParse<Letter>(pitch.Element("step")?.Value, out var letter) || !Enum.IsDefined(letter))
            throw Bad(measure, $"has a pitch '{pitch.Element("step")?.Value}'");
        return new Pitch(letter, alter, octave);
    }

    private static double Number(XElement element, XElement measure, double least, double most) =>
        double.TryParse(element.Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most
            ? number
            : throw Bad(measure, $"has '{element.Value}' for {element.Name.LocalName}, which is from {least} to {most}");

    private static InvalidDataException Bad(XElement measure, string what) => new($"Measure {measure.Attribute("number")?.Value} {what}.");
}
