using Bocca.Core.Instruments;

namespace Bocca.Core.Fingering;

/// <summary>How safely the lips find a partial: what lies above and below it on the same tube.</summary>
/// <param name="SemitonesBelow">Semitones down to the next partial; 0 under the first.</param>
/// <param name="SemitonesAbove">Semitones up to the next partial.</param>
/// <param name="Words">The same in words.</param>
public readonly record struct Reliability(double SemitonesBelow, double SemitonesAbove, string Words)
{
    /// <summary>
    /// Neighbours at least so far apart are hard to take for each other, and closer than so they crowd (semitones; ours, editable).
    /// </summary>
    private const double Wide = 3.5,
        Crowded = 2.5;

    /// <summary>
    /// The reliability of a partial (computed from the series; that the first is no plain resonance: published, Campbell, Gilbert and
    /// Myers 2021).
    /// </summary>
    public static Reliability Of(int partial)
    {
        var here = HarmonicSeries.ExactSemitones(partial);
        var below = partial == 1 ? 0 : here - HarmonicSeries.ExactSemitones(partial - 1);
        var above = HarmonicSeries.ExactSemitones(partial + 1) - here;
        return new Reliability(
            below,
            above,
            partial == 1 ? "a pedal note, no plain resonance"
                : Math.Abs(HarmonicSeries.CentsFromEqualTemperament(partial)) > 25 ? "off its note by nature"
                : above >= Wide ? "neighbours far apart"
                : above >= Crowded ? "neighbours within a third"
                : "neighbours crowd"
        );
    }
}
