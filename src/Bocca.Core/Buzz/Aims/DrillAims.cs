using Bocca.Core.Buzz.Drills;
using Bocca.Core.Judging;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Holds a take against what its drill is for.</summary>
internal static class DrillAims
{
    /// <summary>What was asked beside what was heard; empty for drills that only ask for tries alike.</summary>
    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        if (!take.Measures.Spoken.Any())
            return [];
        return take.Asked.Drill.Aim switch
        {
            DrillAim.Heights => HeightsAim.Of(take),
            DrillAim.Siren => SirenAim.Of(take),
            DrillAim.Neighbour => NeighbourAim.Of(take),
            DrillAim.Directions => DirectionsAim.Of(take),
            DrillAim.Reference => ReferenceAim.Of(take),
            DrillAim.Grip => GripAim.Of(take),
            DrillAim.Speaking => SpeakingAim.Of(take),
            DrillAim.Pair => PairAim.Of(take),
            DrillAim.Proof => ProofAim.Of(take),
            DrillAim.Search => SearchAim.Of(take),
            _ => AlikeAim.Of(take),
        };
    }
}
