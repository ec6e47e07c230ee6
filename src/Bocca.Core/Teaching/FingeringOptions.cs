namespace Bocca.Core.Teaching;

/// <summary>The fourth valve (<c>valve4</c>).</summary>
public enum FourthValve
{
    /// <summary>For every 1-3 and 1-2-3.</summary>
    ForEveryFirstAndThird,

    /// <summary>1-3 where the fingers are easier.</summary>
    FirstAndThirdWhereEasier,

    /// <summary>Ask.</summary>
    Ask,
}

/// <summary>The third valve alone (<c>valve3</c>).</summary>
public enum ThirdValve
{
    /// <summary>May replace 1-2.</summary>
    MayReplaceFirstAndSecond,

    /// <summary>For special notes.</summary>
    ForSpecialNotes,
}

/// <summary>Moving tuning slides while playing (<c>slide.pull</c>).</summary>
public enum SlidePulling
{
    /// <summary>From the first written notes.</summary>
    FromTheFirstNotes,

    /// <summary>Later.</summary>
    Later,
}

/// <summary>The thumb valve of a double horn (<c>horn.thumb</c>).</summary>
public enum HornThumb
{
    /// <summary>Hidden at first.</summary>
    HiddenAtFirst,

    /// <summary>By the chart.</summary>
    ByTheChart,
}

/// <summary>Finding slide positions (<c>slide.find</c>).</summary>
public enum SlideFinding
{
    /// <summary>By ear.</summary>
    ByEar,

    /// <summary>By sight.</summary>
    BySight,

    /// <summary>Both.</summary>
    Both,
}

/// <summary>Little finger of the right hand, trumpet (<c>tp.littleFinger</c>).</summary>
public enum LittleFinger
{
    /// <summary>On the hook.</summary>
    OnTheHook,

    /// <summary>In the hook.</summary>
    InTheHook,
}

/// <summary>Finger in the third slide's ring, trumpet (<c>tp.leftRing</c>).</summary>
public enum LeftRing
{
    /// <summary>Ring finger.</summary>
    RingFinger,

    /// <summary>Middle finger.</summary>
    MiddleFinger,

    /// <summary>By the size of the hand.</summary>
    ByTheSizeOfTheHand,
}
