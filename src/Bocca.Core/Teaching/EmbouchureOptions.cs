namespace Bocca.Core.Teaching;

/// <summary>Lips before the tone (<c>lips.contact</c>).</summary>
public enum LipContact
{
    /// <summary>Together.</summary>
    Together,

    /// <summary>A slight gap.</summary>
    SlightGap,

    /// <summary>Narrowing until it speaks.</summary>
    NarrowingUntilItSpeaks,
}

/// <summary>Centre of the lips (<c>lips.centre</c>).</summary>
public enum LipCentre
{
    /// <summary>Firm.</summary>
    Firm,

    /// <summary>Loose.</summary>
    Loose,
}

/// <summary>Corners and sides of the mouth (<c>face.corners</c>).</summary>
public enum FaceCorners
{
    /// <summary>Corners firm.</summary>
    Firm,

    /// <summary>Sides untensed.</summary>
    SidesUntensed,
}

/// <summary>Shape of the lips (<c>lips.shape</c>).</summary>
public enum LipShape
{
    /// <summary>Forward and rounded.</summary>
    ForwardAndRounded,

    /// <summary>Lower lip flat on the teeth.</summary>
    LowerLipFlat,
}

/// <summary>Where the mouthpiece sits (<c>mp.share</c>).</summary>
public enum MouthpieceShare
{
    /// <summary>Half and half.</summary>
    HalfAndHalf,

    /// <summary>Where it is comfortable.</summary>
    WhereComfortable,

    /// <summary>In the pupil's own span.</summary>
    OwnSpan,

    /// <summary>A third above on the trumpet, two thirds above on horn and low brass.</summary>
    ThirdOrTwoThirds,
}

/// <summary>How the mouthpiece is held (<c>mp.grip</c>).</summary>
public enum MouthpieceGrip
{
    /// <summary>Two fingers and thumb.</summary>
    TwoFingersAndThumb,

    /// <summary>Three fingers, then two, then one.</summary>
    ThreeThenTwoThenOne,

    /// <summary>Both hands.</summary>
    BothHands,

    /// <summary>Two fingers above one.</summary>
    TwoAboveOne,

    /// <summary>One hand.</summary>
    OneHand,
}

/// <summary>The mouthpiece in the rests (<c>mp.rests</c>).</summary>
public enum MouthpieceInRests
{
    /// <summary>Stays on.</summary>
    StaysOn,

    /// <summary>Comes off.</summary>
    ComesOff,
}

/// <summary>The jaw on low notes (<c>jaw.low</c>).</summary>
public enum JawOnLowNotes
{
    /// <summary>Lowers a little.</summary>
    LowersALittle,

    /// <summary>Stays still.</summary>
    StaysStill,
}

/// <summary>The jaw at rest (<c>jaw.forward</c>).</summary>
public enum JawAtRest
{
    /// <summary>As it hangs.</summary>
    AsItHangs,

    /// <summary>A little forward.</summary>
    ALittleForward,
}
