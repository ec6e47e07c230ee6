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

    private static readonly Lazy<Table> Shipped = new(() => EmbeddedData.Read<Table>("slur-bands.json"));

    /// <summary>The bands of a stage.</summary>
    public static SlurBands For(LearningStage stage) => stage >= LearningStage.Second ? Shipped.Value.Second : Shipped.Value.FirstNotes;

    private sealed record Table(SlurBands FirstNotes, SlurBands Second);
}
