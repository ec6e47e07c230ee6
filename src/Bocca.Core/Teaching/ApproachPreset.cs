namespace Bocca.Core.Teaching;

/// <summary>A whole school of teaching, as a start from which single points can be changed.</summary>
public enum ApproachPreset
{
    /// <summary>Lips first: tone on the lips alone before the mouthpiece.</summary>
    LipsFirst,

    /// <summary>Mouthpiece first: tone on the mouthpiece, the lips alone when wanted.</summary>
    MouthpieceFirst,

    /// <summary>Air first: the air starts, the lips narrow until it speaks.</summary>
    AirFirst,
}
