using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Lines;

/// <summary>A note of a line as somebody plays it: what is tied is one.</summary>
/// <param name="Index">Its place among the notes of the line, from 0.</param>
/// <param name="Bar">The bar it begins in, by its place from 0.</param>
/// <param name="At">When it begins, quarters after the line's beginning, as written.</param>
/// <param name="Length">How long it is held, quarters.</param>
/// <param name="Written">What this player reads.</param>
/// <param name="Sounding">What sounds, concert pitch.</param>
public sealed record LineNote(int Index, int Bar, Rational At, Rational Length, Pitch Written, Pitch Sounding)
{
    /// <summary>The beat it begins on, from 1, with its fraction: 2.5 is halfway through the second.</summary>
    public double Beat { get; init; }

    /// <summary>When it begins, seconds.</summary>
    public double Seconds { get; init; }

    /// <summary>How long it is held, seconds.</summary>
    public double Held { get; init; }

    /// <summary>The rest between it and the note after it, quarters; 0 for none.</summary>
    public Rational RestAfter { get; init; }

    /// <summary>That rest in seconds.</summary>
    public double RestSeconds { get; init; }

    /// <summary>Whether it goes on from the note before under a slur, without the tongue.</summary>
    public bool Slurred { get; init; }

    /// <summary>Its signs: those of its first head, and what stands at its end.</summary>
    public NoteMarks Marks { get; init; }

    /// <summary>The level in force, such as <c>mf</c>; empty where none is written.</summary>
    public string Level { get; init; } = "";

    /// <summary>Whether it stands in a tuplet.</summary>
    public bool InTuplet { get; init; }

    /// <summary>Whether it was written with grace notes before it.</summary>
    public bool HasGrace { get; init; }

    /// <summary>The lengths of its heads, quarters: one, or several tied.</summary>
    public IReadOnlyList<Rational> Heads { get; init; } = [];

    /// <summary>The notes of the file that it is made of: the first and the last; -1 where it comes from none.</summary>
    public (int First, int Last) Source { get; init; } = (-1, -1);

    /// <summary>When it ends, quarters after the line's beginning.</summary>
    public Rational End => At + Length;

    /// <summary>Whether it is begun with the tongue.</summary>
    public bool IsTongued => !Slurred;

    /// <summary>Whether it begins on a beat.</summary>
    public bool IsOnBeat => Math.Abs(Beat - Math.Round(Beat)) < 1e-9;
}

/// <summary>A bar of a line.</summary>
/// <param name="Index">Its place, from 0.</param>
/// <param name="Number">Its number as printed.</param>
/// <param name="At">When it begins, quarters as written.</param>
/// <param name="Length">How long it is, quarters.</param>
/// <param name="Metre">The metre in force.</param>
public sealed record LineBar(int Index, string Number, Rational At, Rational Length, Metre Metre)
{
    /// <summary>Sharps of the key in force as this player reads it, flats negative.</summary>
    public int Fifths { get; init; }

    /// <summary>Whether what is repeated begins here.</summary>
    public bool RepeatBegins { get; init; }

    /// <summary>Whether it is gone back from, to the beginning of what is repeated.</summary>
    public bool Repeats { get; init; }

    /// <summary>Whether a section ends with it: a repeat, a double bar, an ending.</summary>
    public bool EndsSection { get; init; }
}
