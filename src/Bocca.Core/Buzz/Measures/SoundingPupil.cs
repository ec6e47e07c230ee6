using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>Who is judged by sound: with what is usual of the pupil's own.</summary>
/// <param name="Approach">The teacher's approach.</param>
/// <param name="Own">What is usual for this pupil.</param>
/// <param name="Tense">Whether the teacher has ticked tension: then no cue firms.</param>
public sealed record SoundingPupil(Approach Approach, OwnSound Own, bool Tense = false) : JudgedPupil(Approach, Tense)
{
    /// <summary>What is good enough.</summary>
    public BandTable Bands { get; init; } = BandTable.Shipped;

    /// <summary>Somebody nobody knows anything about yet.</summary>
    public static SoundingPupil Unknown { get; } = new(Approach.Of(ApproachPreset.MouthpieceFirst), OwnSound.Unknown);

    /// <summary>The pupil's own scale from tight to open; null where no samples were made.</summary>
    public OwnScale? Scale { get; init; }

    /// <summary>Earlier takes on the mouthpiece, for its gate; null where the gate is not asked.</summary>
    public IReadOnlyList<GateTake>? Earlier { get; init; }

    /// <summary>
    /// The pitch that a buzz is held against where the approach holds it against a model or the last one, hertz; null for none.
    /// </summary>
    public double? HeldAgainstHz { get; init; }
}
