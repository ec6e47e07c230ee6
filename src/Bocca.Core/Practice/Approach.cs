namespace Bocca.Core.Practice;

/// <summary>The school a teacher follows where good teachers differ; a pupil sees only that one.</summary>
public enum Approach
{
    /// <summary>Lips first: tone on the lips alone before the mouthpiece.</summary>
    LipsFirst,

    /// <summary>Mouthpiece first: tone on the mouthpiece, the lips alone when wanted.</summary>
    MouthpieceFirst,

    /// <summary>Air first: the air starts, the lips narrow until it speaks.</summary>
    AirFirst,
}
