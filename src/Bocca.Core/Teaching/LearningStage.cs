namespace Bocca.Core.Teaching;

/// <summary>How far a pupil has come; the bands of what is good enough follow it.</summary>
public enum LearningStage
{
    /// <summary>Sound without the instrument.</summary>
    Lips,

    /// <summary>Sound on the mouthpiece.</summary>
    Mouthpiece,

    /// <summary>First notes.</summary>
    FirstNotes,

    /// <summary>Scales, slurs and tunes.</summary>
    Second,

    /// <summary>Pieces.</summary>
    Pieces,
}
