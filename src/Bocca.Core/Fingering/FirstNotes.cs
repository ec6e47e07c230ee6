using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>The first written notes of a beginner, in teaching order.</summary>
public static class FirstNotes
{
    /// <summary>The instrument's own, but on a horn beginning where the approach begins (common practice): on C4, F4 or A3.</summary>
    public static IReadOnlyList<Pitch> Of(Instrument instrument, Reading reading, Approach approach)
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
