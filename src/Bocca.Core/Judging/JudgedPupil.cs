using Bocca.Core.Teaching;

namespace Bocca.Core.Judging;

/// <summary>Who is judged, and by whose school.</summary>
/// <param name="Approach">The teacher's approach.</param>
/// <param name="Tense">Whether the teacher has ticked tension: then no cue firms.</param>
public record JudgedPupil(Approach Approach, bool Tense = false)
{
    /// <summary>What else is known just now: what was seen, answered, placed.</summary>
    public IReadOnlyList<Evidence> Known { get; init; } = [];

    /// <summary>The symptoms and cues that hold.</summary>
    public SymptomTable Symptoms { get; init; } = SymptomTable.Shipped;

    /// <summary>What came of earlier cues.</summary>
    public CueHistory Cues { get; init; } = CueHistory.Empty;

    /// <summary>How the take of the same drill before this one was judged; null for none lately.</summary>
    public Verdict? Before { get; init; }

    /// <summary>Whether the instrument is looked at before the player: one is played, and nobody has looked at it today.</summary>
    public bool LooksFirst { get; init; }

    /// <summary>The day of the take.</summary>
    public DateOnly Day { get; init; }
}
