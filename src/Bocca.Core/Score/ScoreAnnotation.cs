namespace Bocca.Core.Score;

/// <summary>What is written into a score at one note.</summary>
/// <param name="Note">Which <c>note</c> of its part, from 0; see <see cref="ScoreNote.Source"/>.</param>
public sealed record ScoreAnnotation(int Note)
{
    /// <summary>The setting that plays it, as text; empty for none.</summary>
    public string Setting { get; init; } = "";

    /// <summary>Whether a breath mark stands after it.</summary>
    public bool Breath { get; init; }

    /// <summary>Words above it; empty for none.</summary>
    public string Words { get; init; } = "";
}
