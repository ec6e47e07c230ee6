using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering;

/// <summary>A written note of a chart with every way to play it.</summary>
/// <param name="Written">The note as read.</param>
/// <param name="Sounding">The concert pitch.</param>
/// <param name="Ways">All fingerings, best first; empty where the instrument has none.</param>
public sealed record ChartNote(Pitch Written, Pitch Sounding, IReadOnlyList<Fingering> Ways);

/// <summary>The chromatic chart of an instrument: the best fingering of each note, computed.</summary>
public static class FingeringChart
{
    /// <summary>The chart from one written note up to another, or over the instrument's own range.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="from">Lowest written note; the chart's own by default.</param>
    /// <param name="to">Highest written note; the chart's own by default.</param>
    /// <param name="weights">What ranks the fingerings; the ones that ship by default.</param>
    /// <param name="hand">What the player's hands can do; anything by default.</param>
    /// <param name="passport">Where this very instrument's partials lie; the harmonic series by default.</param>
    /// <exception cref="ArgumentException">The range is upside down or holds a note that cannot be played.</exception>
    public static IReadOnlyList<ChartNote> Of(
        Instrument instrument,
        Reading reading,
        Pitch? from = null,
        Pitch? to = null,
        FingeringWeights? weights = null,
        Hand? hand = null,
        Passport? passport = null
    )
    {
        var lowest = from ?? reading.ToWritten(instrument.Range.Lowest);
        var highest = to ?? reading.ToWritten(instrument.Range.Highest);
        if (lowest.Midi > highest.Midi)
            throw new ArgumentException($"A chart runs upwards: {lowest} lies above {highest}.");
        return
        [
            .. Enumerable
                .Range(lowest.Midi, highest.Midi - lowest.Midi + 1)
                .Select(Pitch.FromMidi)
                .Where(written => !IsLost(instrument, reading.ToSounding(written)))
                .Select(written => new ChartNote(
                    written,
                    reading.ToSounding(written),
                    FingeringFinder.Find(instrument, reading, written, weights, hand, passport)
                )),
        ];
    }

    /// <summary>Whether a note lies in the range of instruments of its kind, and this one, as it was measured, does not give it.</summary>
    private static bool IsLost(Instrument instrument, Pitch sounding) =>
        sounding.Midi >= instrument.Range.Lowest.Midi
        && sounding.Midi <= instrument.Range.Highest.Midi
        && FingeringFinder.FindSounding(instrument, sounding).Count == 0;
}
