using Bocca.Core.Teaching;

namespace Bocca.Core.Slurs;

/// <summary>What a change between two notes of a slur may cost at a stage (<c>slur-bands.json</c>; ours, editable).</summary>
/// <param name="GapMs">Silence between the notes, at most, milliseconds.</param>
/// <param name="DipDb">Drop below the softer note, at most, decibels.</param>
/// <param name="OvershootCents">Beyond the new note, at most, cents.</param>
/// <param name="PassageMs">From leaving one note to staying on the other, at most, milliseconds.</param>
/// <param name="Basis">Where the numbers come from.</param>
public sealed record SlurBands(double GapMs, double DipDb, double OvershootCents, double PassageMs, string Basis)
{
    /// <summary>The low note may be so much louder than the others (decibels).</summary>
    public const double LowNoteDb = 4;
}

/// <summary>
/// What a change may cost at each stage: the bands that ship, or a teacher's own. It does not change: a slur asked under one is judged
/// under it.
/// </summary>
/// <param name="FirstNotes">While first notes are learnt.</param>
/// <param name="Second">Later.</param>
public sealed record SlurBandTable(SlurBands FirstNotes, SlurBands Second)
{
    private static readonly Lazy<SlurBandTable> Read = new(() => EmbeddedData.Read<SlurBandTable>("slur-bands.json"));

    /// <summary>The bands that ship.</summary>
    public static SlurBandTable Shipped => Read.Value;

    /// <summary>The bands of a stage.</summary>
    public SlurBands For(LearningStage stage) => stage >= LearningStage.Second ? Second : FirstNotes;
}
