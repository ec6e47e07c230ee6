using System.Globalization;
using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Reads signs over and under the staff.</summary>
internal static class MarkReader
{
    private const double SlowestTempo = 10,
        FastestTempo = 400;

    /// <summary>The signs of a direction, a sound or a chord symbol.</summary>
    /// <param name="element">The element.</param>
    /// <param name="at">Where in the measure it stands, its own distance included.</param>
    public static IEnumerable<ScoreMark> Read(XElement element, Rational at)
    {
        if (element.Name.LocalName == "harmony")
            return Chord(element) is { } chord ? [new ScoreMark(at, MarkKind.Chord, chord)] : [];
        var marks = element.Elements("direction-type").Elements().SelectMany(sign => Sign(sign, at)).ToList();
        var sound = element.Name.LocalName == "sound" ? element : element.Element("sound");
        if (sound is null)
            return Words(marks);
        foreach (var (name, kind) in Jumps)
            if (sound.Attribute(name) is not null && !marks.Exists(mark => mark.Kind == kind))
                marks.Add(new ScoreMark(at, kind, Said(marks)));
        if (
            double.TryParse(sound.Attribute("tempo")?.Value, NumberStyles.Float, CultureInfo.InvariantCulture, out var tempo)
            && tempo is >= SlowestTempo and <= FastestTempo
        )
        {
            marks.RemoveAll(mark => mark.Kind == MarkKind.Tempo);
            marks.Add(new ScoreMark(at, MarkKind.Tempo, Said(marks), tempo));
        }

        return Words(marks);
    }

    private static readonly (string Name, MarkKind Kind)[] Jumps =
    [
        ("dacapo", MarkKind.DaCapo),
        ("dalsegno", MarkKind.DalSegno),
        ("tocoda", MarkKind.ToCoda),
        ("fine", MarkKind.Fine),
        ("segno", MarkKind.Segno),
        ("coda", MarkKind.Coda),
    ];

    /// <summary>Quarters a minute of a printed metronome mark; null where it says none.</summary>
    public static double? QuartersAMinute(XElement metronome)
    {
        var unit = metronome.Element("beat-unit")?.Value switch
        {
            "whole" => 4.0,
            "half" => 2,
            "quarter" or null => 1,
            "eighth" => 0.5,
            "16th" => 0.25,
            _ => 0,
        };
        var dots = metronome.Elements("beat-unit-dot").Count();
        var quarters = unit * (2 - Math.Pow(0.5, dots));
        var digits = new string([
            .. (metronome.Element("per-minute")?.Value ?? "").SkipWhile(c => !char.IsAsciiDigit(c)).TakeWhile(IsOfNumber),
        ]);
        return
            double.TryParse(digits, NumberStyles.Float, CultureInfo.InvariantCulture, out var beats)
            && beats * quarters is >= SlowestTempo and <= FastestTempo and var tempo
            ? tempo
            : null;
    }

    private static bool IsOfNumber(char letter) => char.IsAsciiDigit(letter) || letter == '.';

    private static IEnumerable<ScoreMark> Sign(XElement sign, Rational at)
    {
        switch (sign.Name.LocalName)
        {
            case "dynamics":
                foreach (var level in sign.Elements())
                    yield return new ScoreMark(
                        at,
                        MarkKind.Dynamic,
                        level.Name.LocalName == "other-dynamics" ? level.Value.Trim() : level.Name.LocalName
                    );
                break;
            case "wedge":
                yield return new ScoreMark(
                    at,
                    sign.Attribute("type")?.Value switch
                    {
                        "crescendo" => MarkKind.Crescendo,
                        "diminuendo" => MarkKind.Diminuendo,
                        _ => MarkKind.HairpinEnd,
                    }
                );
                break;
            case "words" when sign.Value.Trim() is { Length: > 0 } words:
                yield return new ScoreMark(at, MarkKind.Words, words);
                break;
            case "rehearsal":
                yield return new ScoreMark(at, MarkKind.Rehearsal, sign.Value.Trim());
                break;
            case "segno":
                yield return new ScoreMark(at, MarkKind.Segno);
                break;
            case "coda":
                yield return new ScoreMark(at, MarkKind.Coda);
                break;
            case "metronome" when QuartersAMinute(sign) is { } tempo:
                yield return new ScoreMark(at, MarkKind.Tempo, "", tempo);
                break;
        }
    }

    private static string Said(List<ScoreMark> marks) => marks.Find(mark => mark.Kind == MarkKind.Words)?.Text ?? "";

    /// <summary>Words that another sign of the same direction has taken are not said twice.</summary>
    private static List<ScoreMark> Words(List<ScoreMark> marks)
    {
        var taken = marks.Where(mark => mark.Kind != MarkKind.Words && mark.Text != "").Select(mark => mark.Text).ToHashSet();
        marks.RemoveAll(mark => mark.Kind == MarkKind.Words && taken.Contains(mark.Text));
        return marks;
    }

    private static string? Chord(XElement harmony)
    {
        if (harmony.Element("root") is not { } root || root.Element("root-step")?.Value.Trim() is not { Length: 1 } step)
            return null;
        var alter = root.Element("root-alter")?.Value.Trim() switch
        {
            "1" => "#",
            "-1" => "b",
            _ => "",
        };
        var kind = harmony.Element("kind");
        return step + alter + (kind?.Attribute("text")?.Value ?? Short(kind?.Value.Trim()));
    }

    private static string Short(string? kind) =>
        kind switch
        {
            "minor" => "m",
            "dominant" => "7",
            "minor-seventh" => "m7",
            "major-seventh" => "maj7",
            "diminished" => "dim",
            "augmented" => "aug",
            "suspended-fourth" => "sus4",
            _ => "",
        };
}
