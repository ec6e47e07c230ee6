namespace Bocca.Core.Fingering.Passage;

/// <summary>How a slurred change of the slide is joined.</summary>
public enum SlideSlur
{
    /// <summary>It is no slurred change of a slide.</summary>
    None,

    /// <summary>The partial changes: the lip slurs it.</summary>
    Lip,

    /// <summary>The partial stays and the slide moves: a soft tongue (<c>doo</c>) hides the smear.</summary>
    Doo,
}

/// <summary>How one note of a line is fingered, and why.</summary>
/// <param name="Fingering">The way chosen.</param>
/// <param name="Plain">The chart's own way.</param>
/// <param name="Reason">Why, in words.</param>
public sealed record PassageChoice(Fingering Fingering, Fingering Plain, string Reason)
{
    /// <summary>Whether the teacher wants it so.</summary>
    public bool IsPinned { get; init; }

    /// <summary>What stops the player where no way can be played; null where one can.</summary>
    public string? Barred { get; init; }

    /// <summary>Other ways that lie within a whisker of the best line.</summary>
    public IReadOnlyList<Fingering> Also { get; init; } = [];

    /// <summary>How it is joined to the note before.</summary>
    public SlideSlur Slur { get; init; }

    /// <summary>Where the slide stands, cm out; 0 without one.</summary>
    public double SlideCm { get; init; }
}

/// <summary>What leaving the chart gains over a line.</summary>
/// <param name="Fingers">Fingers that move less.</param>
/// <param name="Cm">Centimetres of slide less.</param>
/// <param name="Cents">Cents off less, on average of a note.</param>
public readonly record struct PassageGain(int Fingers, double Cm, double Cents);

/// <summary>The cheapest way through a line.</summary>
/// <param name="Notes">Each note's way.</param>
/// <param name="Cost">What it costs, points.</param>
/// <param name="PlainCost">What the same line costs by the chart, points.</param>
/// <param name="LowerBound">What no way costs less than, points.</param>
public sealed record PassagePlan(IReadOnlyList<PassageChoice> Notes, double Cost, double PlainCost, double LowerBound)
{
    /// <summary>Whether no cheaper way exists.</summary>
    public bool IsProven => Cost <= LowerBound;

    /// <summary>What leaving the chart gains.</summary>
    public PassageGain Gain { get; init; }

    /// <summary>Passages that return and are fingered otherwise, each with its first note that is.</summary>
    public IReadOnlyList<(PassageRepeat Repeat, int Note)> Deviating { get; init; } = [];
}

/// <summary>A note of a line that cannot be fingered as asked.</summary>
/// <param name="note">The note, by its place from 0.</param>
/// <param name="words">Why, without where.</param>
public sealed class PassageException(int note, string words) : ArgumentException(words)
{
    /// <summary>The note, by its place from 0.</summary>
    public int Note { get; } = note;
}
