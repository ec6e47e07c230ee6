using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Drills;

/// <summary>What was asked of the player of a take.</summary>
/// <param name="Drill">The drill.</param>
/// <param name="Plan">The drill's cues at the tempo played.</param>
/// <param name="On">What it was played on.</param>
/// <param name="Pupil">How far the pupil has come.</param>
/// <param name="FirstCueSeconds">When the first try was due, seconds into the sound; null to use the sound's own marks, or none.</param>
/// <param name="MissingSeconds">How much of the recording did not arrive.</param>
public sealed record AskedTake(
    BuzzDrill Drill,
    CuePlan Plan,
    SoundStage On,
    LearningStage Pupil,
    double? FirstCueSeconds = null,
    double MissingSeconds = 0
);
