using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>What makes a place one to breathe at.</summary>
public enum PlaceKind
{
    /// <summary>A rest: the whole of it.</summary>
    Rest,

    /// <summary>A printed comma.</summary>
    Comma,

    /// <summary>The end of a phrase.</summary>
    Phrase,

    /// <summary>The end of a note that is shortened.</summary>
    Shorten,

    /// <summary>A short note left out.</summary>
    Drop,

    /// <summary>The teacher asks for it.</summary>
    Asked,
}

/// <summary>A way to breathe after a note.</summary>
/// <param name="After">The note.</param>
/// <param name="Kind">What makes it a place.</param>
/// <param name="Seconds">The time it has.</param>
/// <param name="Points">What it costs by itself, thousandths of a point.</param>
public sealed record AirPlace(int After, PlaceKind Kind, double Seconds, long Points)
{
    /// <summary>The note that gives the time, and how much of it, quarters; null where a rest does.</summary>
    public (int Note, Rational By)? Shortens { get; init; }

    /// <summary>What becomes of that note, for a mark at it: <c>less an eighth</c>, <c>left out</c>; empty for nothing.</summary>
    public string Mark =>
        Kind == PlaceKind.Drop ? "left out"
        : Shortens is { } shortens && NoteValue.Of(shortens.By) is [var less, ..]
            ? $"less {(less.Type.StartsWith('e') ? "an" : "a")} {less.Type}"
        : "";
}

/// <summary>A breath of a plan.</summary>
/// <param name="Place">Where.</param>
/// <param name="Why">Why there, in words.</param>
public sealed record PlannedBreath(AirPlace Place, string Why)
{
    /// <summary>Whether it fills the lungs; else it tops up what is left.</summary>
    public bool IsFull { get; init; } = true;

    /// <summary>The tempo, in beats of the piece, from which the line goes without it; null where it is a rest, or none does.</summary>
    public double? WithoutFrom { get; init; }

    /// <summary>How the shortened note is then written, such as <c>dotted quarter and eighth rest</c>; empty for none.</summary>
    public string WrittenAs { get; init; } = "";
}

/// <summary>What is played in one breath.</summary>
/// <param name="From">Its first note.</param>
/// <param name="To">Its last note.</param>
/// <param name="Seconds">How long it lasts.</param>
/// <param name="Needs">What it spends, seconds of a medium note.</param>
/// <param name="Capacity">What the breath before it holds, seconds of a medium note.</param>
public sealed record BreathSpan(int From, int To, double Seconds, double Needs, double Capacity)
{
    /// <summary>What is left at its end, seconds of a medium note.</summary>
    public double Spare => Capacity - Needs;
}
