using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Passage;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Teaching;

namespace Bocca.Core.Pieces;

/// <summary>The player of a piece under an approach.</summary>
public static class PiecePlayer
{
    /// <summary>Who fingers it.</summary>
    /// <param name="instrument">The instrument; a very one as its passport has it.</param>
    /// <param name="approach">The approach: valve 4, valve 3, the thumb.</param>
    /// <param name="stage">How far the pupil is.</param>
    /// <param name="hand">What the hands can do.</param>
    public static PassagePlayer Of(Instrument instrument, Approach approach, LearningStage stage, Hand hand) =>
        new(instrument)
        {
            Weights = FingeringWeights.Default.Under(approach, stage),
            Hand = hand,
            ThirdIsEqual = approach.Of(Points.ThirdValve) == ThirdValve.MayReplaceFirstAndSecond,
        };

    /// <summary>Who breathes it.</summary>
    /// <param name="capacitySeconds">What one breath carries, s.</param>
    /// <param name="approach">The approach: printed commas.</param>
    public static PieceBreather Breather(double capacitySeconds, Approach approach) =>
        new(capacitySeconds) { Commas = approach.Of(Points.BreathMarks) };
}
