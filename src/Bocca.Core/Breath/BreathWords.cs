using Bocca.Core.Practice;

namespace Bocca.Core.Breath;

/// <summary>What an approach says about breathing.</summary>
public static class BreathWords
{
    /// <summary>What the count-in says: where the air comes in.</summary>
    public static string CountIn(Approach approach) =>
        approach["breath.route"] switch
        {
            "a" => "Breathe at the corners; the rim stays.",
            "b" => "Open wide, breathe, then set.",
            _ => "Breathe.",
        };

    /// <summary>Where the breath is felt, and how the air is asked for; empty where the approach says nothing.</summary>
    public static string Remark(Approach approach)
    {
        var place = approach["breath.place"] switch
        {
            "a" => "The abdomen moves out.",
            "b" => "The ribs widen all round.",
            _ => "",
        };
        var air = approach["air.amount"] switch
        {
            "a" => "Full, fast air.",
            "b" => "Gentle air.",
            _ => "",
        };
        return $"{place} {air}".Trim();
    }

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
