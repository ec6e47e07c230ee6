using System.Globalization;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Pieces;

/// <summary>What is played up and down.</summary>
public enum ScalePattern
{
    /// <summary>The major scale.</summary>
    Major,

    /// <summary>The natural minor scale.</summary>
    NaturalMinor,

    /// <summary>The harmonic minor scale.</summary>
    HarmonicMinor,

    /// <summary>The melodic minor scale: another way down.</summary>
    MelodicMinor,

    /// <summary>Semitones.</summary>
    Chromatic,

    /// <summary>The notes of the major chord.</summary>
    MajorArpeggio,

    /// <summary>The notes of the minor chord.</summary>
    MinorArpeggio,

    /// <summary>The dominant seventh chord.</summary>
    DominantSeventh,
}

/// <summary>Writes scales and arpeggios as typed pieces, so that they are studied, fingered and breathed like any other.</summary>
public static class ScaleText
{
    /// <summary>Octaves of a scale at most.</summary>
    public const int MostOctaves = 3;

    private static readonly Dictionary<ScalePattern, (int[] Up, int[] Steps)> Degrees = new()
    {
        // Semitones above the tonic, and steps of the staff (common practice).
        [ScalePattern.Major] = ([0, 2, 4, 5, 7, 9, 11], [0, 1, 2, 3, 4, 5, 6]),
        [ScalePattern.NaturalMinor] = ([0, 2, 3, 5, 7, 8, 10], [0, 1, 2, 3, 4, 5, 6]),
        [ScalePattern.HarmonicMinor] = ([0, 2, 3, 5, 7, 8, 11], [0, 1, 2, 3, 4, 5, 6]),
        [ScalePattern.MelodicMinor] = ([0, 2, 3, 5, 7, 9, 11], [0, 1, 2, 3, 4, 5, 6]),
        [ScalePattern.Chromatic] = ([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11], [0, 0, 1, 1, 2, 3, 3, 4, 4, 5, 5, 6]),
        [ScalePattern.MajorArpeggio] = ([0, 4, 7], [0, 2, 4]),
        [ScalePattern.MinorArpeggio] = ([0, 3, 7], [0, 2, 4]),
        [ScalePattern.DominantSeventh] = ([0, 4, 7, 10], [0, 2, 4, 6]),
    };

    /// <summary>The text of a scale in quarters or eighths, from the tonic up and back, the last note long.</summary>
    /// <param name="instrument">The instrument: what it does not play is refused.</param>
    /// <param name="reading">How it is read.</param>
    /// <param name="tonic">The lowest note, as it is written.</param>
    /// <param name="pattern">What is played.</param>
    /// <param name="octaves">How many octaves.</param>
    /// <param name="tempo">Quarters a minute.</param>
    /// <param name="eighths">Whether it goes in eighths.</param>
    /// <param name="slurred">Whether notes are slurred in pairs.</param>
    /// <exception cref="ArgumentException">A note of it lies outside the instrument, or it is no scale; the message says which.</exception>
    public static string Write(
        Instrument instrument,
        Reading reading,
        Pitch tonic,
        ScalePattern pattern,
        int octaves,
        double tempo,
        bool eighths = false,
        bool slurred = false
    )
    {
        if (octaves is < 1 or > MostOctaves || !Degrees.ContainsKey(pattern))
            throw new ArgumentException($"A scale has 1 to {MostOctaves} octaves.");
        var fifths = FifthsOf(tonic, pattern);
        if (Math.Abs(fifths) > 7)
            throw new ArgumentException($"{tonic.Letter} has no key for this: take its other name.");
        var notes = Notes(tonic, pattern, octaves);
        if (notes.Find(note => !FingeringFinder.Plays(instrument, reading.ToSounding(note))) is { Octave: > 0 } outside)
            throw new ArgumentException($"{outside} is not on the {instrument.Name}'s chart: take another octave, or fewer.");
        var each = eighths ? 8 : 4;
        var text = new List<string>
        {
            "4/4",
            $"{KeyName(fifths)}:",
            string.Create(CultureInfo.InvariantCulture, $"={tempo:0.##}"),
            eighths ? "e" : "q",
        };
        for (var i = 0; i < notes.Count - 1; i++)
        {
            var pair = slurred && i < notes.Count - 1 - (notes.Count % 2 == 0 ? 1 : 0);
            text.Add((pair && i % 2 == 0 ? "(" : "") + notes[i] + (pair && i % 2 == 1 ? ")" : ""));
            if ((i + 1) % each == 0)
                text.Add("|");
        }

        text.Add(Ending(notes, each));
        return string.Join(' ', text);
    }

    /// <summary>The last note fills its bar.</summary>
    private static string Ending(List<Pitch> notes, int each)
    {
        var left = 4 - ((notes.Count - 1) % each * 4.0 / each);
        var (value, rest) = left switch
        {
            4 => ("w", ""),
            >= 3 => ("h.", left > 3 ? " e r" : ""),
            >= 2 => ("h", left > 2 ? " e r" : ""),
            >= 1 => ("q", left > 1 ? " e r" : ""),
            _ => ("e", ""),
        };
        return $"{value} {notes[^1]}{rest} |";
    }

    private static int FifthsOf(Pitch tonic, ScalePattern pattern) =>
        pattern switch
        {
            ScalePattern.Chromatic => 0,
            ScalePattern.NaturalMinor or ScalePattern.HarmonicMinor or ScalePattern.MelodicMinor or ScalePattern.MinorArpeggio =>
                tonic.MajorKeyFifths - 3,
            // Its chord stands on the fifth note of the key.
            ScalePattern.DominantSeventh => tonic.MajorKeyFifths - 1,
            _ => tonic.MajorKeyFifths,
        };

    private static string KeyName(int fifths) =>
        ((string[])["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"])[fifths + 7];

    private static List<Pitch> Notes(Pitch tonic, ScalePattern pattern, int octaves)
    {
        var up = Rising(tonic, pattern, octaves);
        var down = pattern == ScalePattern.MelodicMinor ? Rising(tonic, ScalePattern.NaturalMinor, octaves) : up;
        if (pattern == ScalePattern.Chromatic)
            (up, down) = (up.ConvertAll(note => Spelled(note, up: true)), up.ConvertAll(note => Spelled(note, up: false)));
        return [.. up, .. Enumerable.Reverse(down).Skip(1)];
    }

    private static List<Pitch> Rising(Pitch tonic, ScalePattern pattern, int octaves)
    {
        var (semitones, steps) = Degrees[pattern];
        var notes = new List<Pitch>();
        for (var octave = 0; octave < octaves; octave++)
            notes.AddRange(
                semitones.Select((semitone, i) => tonic.Transpose(new Interval(steps[i] + (7 * octave), semitone + (12 * octave))))
            );
        notes.Add(tonic.Transpose(new Interval(7 * octaves, 12 * octaves)));
        return notes;
    }

    /// <summary>Sharps on the way up, flats on the way down (common practice).</summary>
    private static Pitch Spelled(Pitch note, bool up)
    {
        var chart = Pitch.FromMidi(note.Midi);
        return chart.Alter == 0 ? chart : chart.SpelledBeside(new Pitch(Letter.F, up ? 1 : -1, 4));
    }
}
