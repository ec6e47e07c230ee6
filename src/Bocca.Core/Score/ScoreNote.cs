using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Signs at a note that say how it is begun, held and left.</summary>
[Flags]
public enum NoteMarks
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>A dot: shorter.</summary>
    Staccato = 1,

    /// <summary>A wedge: as short as can be.</summary>
    Staccatissimo = 2,

    /// <summary>A line: its full length.</summary>
    Tenuto = 4,

    /// <summary>Its start stands out.</summary>
    Accent = 8,

    /// <summary>An upright wedge: a strong accent.</summary>
    Marcato = 16,

    /// <summary>Held as long as is liked.</summary>
    Fermata = 32,

    /// <summary>A comma: a breath after it.</summary>
    Breath = 64,

    /// <summary>Two strokes: everything stops after it.</summary>
    Caesura = 128,
}

/// <summary>So many notes in the time of so many: a triplet is three in the time of two.</summary>
/// <param name="Actual">How many are played.</param>
/// <param name="Normal">In whose time.</param>
public readonly record struct Tuplet(int Actual, int Normal)
{
    /// <summary>Whether a group of them begins on this note.</summary>
    public bool Begins { get; init; }

    /// <summary>Whether a group of them ends on it.</summary>
    public bool Ends { get; init; }

    /// <summary>What a note's written length is multiplied with.</summary>
    public Rational Share => new(Normal, Actual);
}

/// <summary>A note or a rest of a part.</summary>
/// <param name="Written">What is read; null for a rest, and for a note without pitch.</param>
/// <param name="Length">How long it lasts, quarters; 0 for a grace note.</param>
public sealed record ScoreNote(Pitch? Written, Rational Length)
{
    /// <summary>When it begins, quarters after its measure.</summary>
    public Rational At { get; init; }

    /// <summary>The voice it belongs to, as the score numbers them, from 1.</summary>
    public int Voice { get; init; } = 1;

    /// <summary>The staff it stands on, from 1 at the top.</summary>
    public int Staff { get; init; } = 1;

    /// <summary>Whether it sounds together with the note before it, of the same voice.</summary>
    public bool InChord { get; init; }

    /// <summary>The value of a grace note as MusicXML names it, such as <c>eighth</c>; null for any other.</summary>
    public string? GraceType { get; init; }

    /// <summary>Whether a grace note has a stroke through its stem.</summary>
    public bool IsSlashed { get; init; }

    /// <summary>Whether it is a small note that shows what somebody else plays.</summary>
    public bool IsCue { get; init; }

    /// <summary>Whether it is struck and has no pitch.</summary>
    public bool IsUnpitched { get; init; }

    /// <summary>Whether it is a rest of a whole measure, whatever the metre.</summary>
    public bool IsMeasureRest { get; init; }

    /// <summary>The tuplet it stands in; null for none.</summary>
    public Tuplet? Tuplet { get; init; }

    /// <summary>How many slurs begin on it.</summary>
    public int SlursBegun { get; init; }

    /// <summary>How many slurs end on it.</summary>
    public int SlursEnded { get; init; }

    /// <summary>Whether a slur begins on it.</summary>
    public bool SlurBegins => SlursBegun > 0;

    /// <summary>Whether a slur ends on it.</summary>
    public bool SlurEnds => SlursEnded > 0;

    /// <summary>Whether it is tied to the next, which has the same pitch and is not begun anew.</summary>
    public bool TiedToNext { get; init; }

    /// <summary>Its signs.</summary>
    public NoteMarks Marks { get; init; }

    /// <summary>Whether a breath is taken after it.</summary>
    public bool BreathAfter => Marks.HasFlag(NoteMarks.Breath);

    /// <summary>Texts under it, the upper line first, such as a fingering and a vowel; an empty one is left out.</summary>
    public IReadOnlyList<string> Lines { get; init; } = [];

    /// <summary>Which <c>note</c> of its part in the file it was read from, from 0; -1 where it was not read.</summary>
    public int Source { get; init; } = -1;

    /// <summary>Whether it is nothing but time.</summary>
    public bool IsRest => Written is null && !IsUnpitched;

    /// <summary>Whether it is played by somebody who plays one line: a pitched note with a length of its own.</summary>
    public bool Sounds => Written is not null && GraceType is null && !IsCue;

    /// <summary>When it ends, quarters after its measure.</summary>
    public Rational End => At + Length;
}
