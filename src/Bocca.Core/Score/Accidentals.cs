using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Which accidental stands before a note: what its key and the notes before it in the measure do not already say.</summary>
/// <param name="fifths">Sharps of the key, flats negative.</param>
public sealed class Accidentals(int fifths)
{
    /// <summary>The order in which sharps come; flats come the other way (common practice).</summary>
    private const string Sharps = "FCGDAEB";

    private readonly Dictionary<int, int> _inMeasure = [];

    /// <summary>What a key signature does to a letter: 1 sharp, -1 flat, 0 nothing.</summary>
    public static int InKey(Letter letter, int fifths)
    {
        var place = Sharps.IndexOf($"{letter}", StringComparison.Ordinal);
        return place < fifths ? 1
            : 6 - place < -fifths ? -1
            : 0;
    }

    /// <summary>The name of an alteration in MusicXML.</summary>
    public static string Name(int alter) =>
        alter switch
        {
            0 => "natural",
            1 => "sharp",
            -1 => "flat",
            2 => "double-sharp",
            _ => "flat-flat",
        };

    /// <summary>The accidental to be printed at the next note of the measure; null for none.</summary>
    /// <param name="pitch">The note.</param>
    /// <param name="tied">Whether it goes on from one before: it needs none.</param>
    public string? Before(Pitch pitch, bool tied)
    {
        var holds = _inMeasure.TryGetValue(pitch.StaffStep, out var before) ? before : InKey(pitch.Letter, fifths);
        if (tied || holds == pitch.Alter)
            return null;
        _inMeasure[pitch.StaffStep] = pitch.Alter;
        return Name(pitch.Alter);
    }
}
