namespace Bocca.Core.Fingering;

/// <summary>What a fingering can be ranked by.</summary>
public enum RankingKind
{
    /// <summary>Amount of tube added, or distance of the slide.</summary>
    Tube,

    /// <summary>Tuning that the hand cannot mend.</summary>
    Tuning,

    /// <summary>How safely the partial speaks.</summary>
    Partial,

    /// <summary>Fingers and thumbs down.</summary>
    Fingers,

    /// <summary>Triggers of a trombone in use.</summary>
    Trigger,

    /// <summary>Valve 3 doing the work of 1 and 2.</summary>
    ThirdValve,

    /// <summary>Valve 4 doing the work of 1 and 3 against the approach.</summary>
    FourthValve,

    /// <summary>The side of a double horn outside its register.</summary>
    HornSide,
}

/// <summary>One reason for a fingering's rank.</summary>
/// <param name="Kind">What it is about.</param>
/// <param name="Points">Points against the fingering, above 0.</param>
/// <param name="Words">The reason in words.</param>
public readonly record struct RankingReason(RankingKind Kind, double Points, string Words);
