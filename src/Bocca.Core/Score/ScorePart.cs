using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>A part of a score.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Clef">Its clef at the beginning.</param>
/// <param name="ToSounding">The interval from what is read to what sounds, at the beginning.</param>
/// <param name="Measures">Its measures. Where the first has no metre the part has none: exercises have phrases, not bars.</param>
public sealed record ScorePart(string Name, Clef Clef, Interval ToSounding, IReadOnlyList<ScoreMeasure> Measures)
{
    /// <summary>Sharps of its key at the beginning, flats negative, -7 to 7.</summary>
    public int Fifths { get; init; }

    /// <summary>How many staves it has.</summary>
    public int Staves { get; init; } = 1;

    /// <summary>The voice it has where it is played back, 0 to 127 as General MIDI numbers them (published: MIDI Association).</summary>
    public int Program { get; init; } = 56;
}
