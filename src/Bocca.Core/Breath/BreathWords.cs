using Bocca.Core.Teaching;

namespace Bocca.Core.Breath;

/// <summary>What an approach says about breathing.</summary>
public static class BreathWords
{
    /// <summary>What the count-in says: where the air comes in.</summary>
    public static string CountIn(Approach approach) =>
        approach.Of(Points.BreathRoute) switch
        {
            BreathRoute.AtTheCorners => "Breathe at the corners; the rim stays.",
            BreathRoute.OpenMouth => "Open wide, breathe, then set.",
            _ => "Breathe.",
        };

    /// <summary>Where the breath is felt, and how the air is asked for; empty where the approach says nothing.</summary>
    public static string Remark(Approach approach)
    {
        var place = approach.Of(Points.BreathPlace) switch
        {
            BreathPlace.Abdomen => "The abdomen moves out.",
            BreathPlace.Ribs => "The ribs widen all round.",
            _ => "",
        };
        var air = approach.Of(Points.AirAmount) switch
        {
            AirAmount.FullAndFast => "Full, fast air.",
            AirAmount.Gentle => "Gentle air.",
            _ => "",
        };
        return $"{place} {air}".Trim();
    }

    /// <summary>How the air goes out, in one word; empty where nothing is asked of it.</summary>
    public static string Of(AirSpeed air) =>
        air switch
        {
            AirSpeed.Slow => "slow",
            AirSpeed.Fast => "fast",
            _ => "",
        };

    /// <summary>A phase in one word.</summary>
    public static string Of(BreathPhaseKind kind) =>
        kind switch
        {
            BreathPhaseKind.In => "in",
            BreathPhaseKind.Hold => "wait",
            BreathPhaseKind.Sip => "sip",
            BreathPhaseKind.Out => "out",
            _ => "rest",
        };
}
