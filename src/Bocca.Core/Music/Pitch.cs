using System.Diagnostics.CodeAnalysis;

namespace Bocca.Core.Music;

/// <summary>The seven letters of a note name, in the order of the scale from C.</summary>
public enum Letter
{
    /// <summary>C</summary>
    C,

    /// <summary>D</summary>
    D,

    /// <summary>E</summary>
    E,

    /// <summary>F</summary>
    F,

    /// <summary>G</summary>
    G,

    /// <summary>A</summary>
    A,

    /// <summary>B</summary>
    B,
}

/// <summary>
/// A spelled pitch in scientific pitch notation, where C4 is middle C (published: Young 1939).
/// F sharp and G flat are different pitches that sound alike.
/// </summary>
/// <param name="Letter">The letter of the name.</param>
/// <param name="Alter">Semitones by which the letter is altered: -2 (double flat) to +2 (double sharp).</param>
/// <param name="Octave">The octave number; it changes between B and C. From -1 to 9.</param>
public readonly record struct Pitch(Letter Letter, int Alter, int Octave)
{
    private static readonly int[] SemitonesFromC = [0, 2, 4, 5, 7, 9, 11];

    // The spelling that charts of the trade use when no key says otherwise: C# Eb F# Ab Bb.
    private static readonly (Letter Letter, int Alter)[] ChartSpelling =
    [
        (Letter.C, 0),
        (Letter.C, 1),
        (Letter.D, 0),
        (Letter.E, -1),
        (Letter.E, 0),
        (Letter.F, 0),
        (Letter.F, 1),
        (Letter.G, 0),
        (Letter.A, -1),
        (Letter.A, 0),
        (Letter.B, -1),
        (Letter.B, 0),
    ];

    /// <summary>The MIDI note number: A4 is 69 and middle C is 60 (common practice).</summary>
    public int Midi => (12 * (Octave + 1)) + SemitonesFromC[(int)Letter] + Alter;

    /// <summary>Steps of the staff above C0; C4 is 28. Two pitches on one line of the staff are equal in it.</summary>
    public int StaffStep => (7 * Octave) + (int)Letter;

    /// <summary>The pitch of a MIDI note number, spelled as fingering charts spell it (C#, Eb, F#, Ab, Bb).</summary>
    /// <param name="midi">0 to 127.</param>
    /// <exception cref="ArgumentOutOfRangeException">The number is no MIDI note.</exception>
    public static Pitch FromMidi(int midi)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(midi, 0);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(midi, 127);
        var (letter, alter) = ChartSpelling[midi % 12];
        return new Pitch(letter, alter, (midi / 12) - 1);
    }

    /// <summary>Reads a letter from A to G, and nothing else; false if the text is none.</summary>
    public static bool TryLetter(string? text, out Letter letter)
    {
        letter = default;
        if (text is not [>= 'A' and <= 'G' and var name])
            return false;
        letter = Enum.Parse<Letter>($"{name}");
        return true;
    }

    /// <summary>Reads a pitch such as <c>C4</c>, <c>F#4</c> or <c>Bb3</c>.</summary>
    /// <exception cref="FormatException">The text is no pitch; the message names it.</exception>
    public static Pitch Parse(string text) =>
        TryParse(text, out var pitch)
            ? pitch
            : throw new FormatException(
                $"'{text}' is not a note: write a letter, # or b if altered, and the octave, such as C4, F#4 or Bb3."
            );

    /// <summary>Reads a pitch such as <c>C4</c>, <c>F#4</c> or <c>Bb3</c>; false if the text is none.</summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out Pitch pitch)
    {
        pitch = default;
        if (string.IsNullOrEmpty(text) || text.Length > 5 || !TryLetter(text[..1].ToUpperInvariant(), out var letter))
            return false;
        var rest = text.AsSpan(1);
        var alter = 0;
        while (rest.Length > 0 && (rest[0] == '#' || rest[0] == 'b') && Math.Abs(alter) < 2)
        {
            var turn = rest[0] == '#' ? 1 : -1;
            if (alter * turn < 0)
                return false;
            alter += turn;
            rest = rest[1..];
        }

        if (!int.TryParse(rest, System.Globalization.NumberStyles.AllowLeadingSign, null, out var octave) || octave is < -1 or > 9)
            return false;
        pitch = new Pitch(letter, alter, octave);
        return pitch.Midi is >= 0 and <= 127;
    }

    /// <summary>
    /// Sharps (positive) or flats of the major key on this note: seven fifths a sign, one a letter along F C G D A E B.
    /// </summary>
    public int MajorKeyFifths => "FCGDAEB".IndexOf($"{Letter}", StringComparison.Ordinal) - 1 + (7 * Alter);

    /// <summary>The pitch an interval higher (or lower, for a negative interval), spelled by the interval's steps.</summary>
    public Pitch Transpose(Interval interval)
    {
        var step = StaffStep + interval.Steps;
        var octave = Math.DivRem(step, 7, out var letter);
        if (letter < 0)
        {
            letter += 7;
            octave--;
        }

        var natural = new Pitch((Letter)letter, 0, octave);
        var alter = Midi + interval.Semitones - natural.Midi;
        return Math.Abs(alter) <= 2 ? natural with { Alter = alter } : FromMidi(Midi + interval.Semitones);
    }

    /// <summary>
    /// The same sound, spelled as a part spells it: with flats beside a flat, with sharps beside a sharp, else as charts do.
    /// </summary>
    /// <param name="beside">A note of the part.</param>
    public Pitch SpelledBeside(Pitch beside)
    {
        var chart = FromMidi(Midi);
        if (chart.Alter == 0 || beside.Alter == 0 || Math.Sign(chart.Alter) == Math.Sign(beside.Alter))
            return chart;
        // The black key from its other side: a step of the staff further, and back by a semitone.
        return chart.Transpose(new Interval(Math.Sign(chart.Alter), 0));
    }

    /// <summary>The name in ASCII: <c>C4</c>, <c>F#4</c>, <c>Bb3</c>.</summary>
    public override string ToString() => $"{Letter}{(Alter >= 0 ? new string('#', Alter) : new string('b', -Alter))}{Octave}";
}
