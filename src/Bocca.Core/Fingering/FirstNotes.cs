using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>The first written notes of a beginner, in teaching order.</summary>
public static class FirstNotes
{
    /// <summary>The instrument's own, but on a horn beginning where the approach begins (common practice): on C4, F4 or A3.</summary>
    public static IReadOnlyList<Pitch> Of(Instrument instrument, Reading reading, Approach approach) =>
        Of(instrument, reading, approach, Hand.Free, FingeringWeights.Default);

    /// <summary>Those of them that a hand can do: what lies beyond the reach, or is not taught yet, is not asked.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="hand">What the hand can do.</param>
    /// <param name="weights">What ranks the ways.</param>
    public static IReadOnlyList<Pitch> Of(Instrument instrument, Reading reading, Approach approach, Hand hand, FingeringWeights weights)
    {
        var all = All(instrument, reading, approach);
        var within = all.Where(note => Way(note) is { Barred: null }).ToList();
        // Hands that can do nothing were measured wrong.
        return within.Count > 0 ? within : all;

        Fingering? Way(Pitch written) =>
            FingeringFinder.FindSounding(instrument, reading.ToSounding(written), weights, hand) is [var first, ..] ? first : null;
    }

    private static List<Pitch> All(Instrument instrument, Reading reading, Approach approach)
    {
        var own = instrument.FirstNotes.Select(reading.ToWritten).ToList();
        if (instrument.Family != "horn" || reading.ToSounding(Pitch.Parse("C4")) != Pitch.Parse("F3"))
            return own;
        var first = Pitch.Parse(
            approach.Of(Points.HornStart) switch
            {
                HornStart.C4 => "C4",
                HornStart.F4 => "F4",
                _ => "A3",
            }
        );
        return [first, .. own.Where(note => note != first)];
    }
}
