namespace Bocca.Core.Teaching;

/// <summary>Where the air comes in (<c>breath.route</c>).</summary>
public enum BreathRoute
{
    /// <summary>At the corners, rim on.</summary>
    AtTheCorners,

    /// <summary>By an open mouth.</summary>
    OpenMouth,

    /// <summary>As it likes.</summary>
    AsItLikes,
}

/// <summary>Where the breath is felt (<c>breath.place</c>).</summary>
public enum BreathPlace
{
    /// <summary>The abdomen moves.</summary>
    Abdomen,

    /// <summary>The ribs widen all round.</summary>
    Ribs,

    /// <summary>No remark.</summary>
    NoRemark,
}

/// <summary>Holding the breath (<c>breath.hold</c>).</summary>
public enum BreathHolding
{
    /// <summary>Never.</summary>
    Never,

    /// <summary>Three short rounds.</summary>
    ThreeShortRounds,

    /// <summary>Daily, within the limits.</summary>
    DailyWithinLimits,
}

/// <summary>Breath drills (<c>breath.push</c>).</summary>
public enum BreathDrilling
{
    /// <summary>A ladder of counts.</summary>
    LadderOfCounts,

    /// <summary>Few cycles.</summary>
    FewCycles,

    /// <summary>Plain.</summary>
    Plain,
}

/// <summary>Air (<c>air.amount</c>).</summary>
public enum AirAmount
{
    /// <summary>Full and fast.</summary>
    FullAndFast,

    /// <summary>Gentle.</summary>
    Gentle,

    /// <summary>By register.</summary>
    ByRegister,
}

/// <summary>Posture (<c>posture</c>).</summary>
public enum Posture
{
    /// <summary>Upright, off the back of the chair.</summary>
    UprightOffTheBack,

    /// <summary>Balanced, not rigid.</summary>
    Balanced,
}

/// <summary>Arms (<c>arms</c>).</summary>
public enum Arms
{
    /// <summary>About 45 degrees from the body.</summary>
    FortyFiveDegrees,

    /// <summary>Raised, clear of the ribs.</summary>
    ClearOfTheRibs,
}

/// <summary>Printed breath marks (<c>commas</c>).</summary>
public enum BreathMarks
{
    /// <summary>May be passed over.</summary>
    MayBePassedOver,

    /// <summary>Rests only.</summary>
    RestsOnly,

    /// <summary>An extra one before height.</summary>
    OneMoreBeforeHeight,
}
