namespace Bocca.Core.Teaching;

/// <summary>What a part of a drill is for, where its aim holds parts against each other; what it is called is its label.</summary>
public enum DrillPart
{
    /// <summary>Nothing of its own.</summary>
    Any,

    /// <summary>Played soft.</summary>
    Soft,

    /// <summary>As loud as usual.</summary>
    Medium,

    /// <summary>Loud, but not forced.</summary>
    Loud,

    /// <summary>Before something is done with the face.</summary>
    Before,

    /// <summary>After it.</summary>
    After,

    /// <summary>The pupil's own sample of lips that are too tight.</summary>
    TooTight,

    /// <summary>The own sample as good as it gets.</summary>
    Centred,

    /// <summary>The own sample of lips that are too open.</summary>
    TooOpen,

    /// <summary>Above the drill's middle.</summary>
    Higher,

    /// <summary>Below it.</summary>
    Lower,

    /// <summary>All heights in one breath.</summary>
    Joined,

    /// <summary>Begun by the air, without the tongue.</summary>
    AirStarts,
}
