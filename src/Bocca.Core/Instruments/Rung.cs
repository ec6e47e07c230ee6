using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>A partial of a tube as a rung of its ladder.</summary>
/// <param name="Partial">Which partial, 1 the fundamental.</param>
/// <param name="Hertz">Where it sounds.</param>
/// <param name="Nearest">The nearest note of equal temperament, sounding.</param>
/// <param name="Cents">Cents from that note to the rung.</param>
public readonly record struct Rung(int Partial, double Hertz, Pitch Nearest, double Cents)
{
    /// <summary>The rungs of a tube from partial 1 up to one, in equal temperament at a tuning.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="tube">One of its tubes.</param>
    /// <param name="highest">Highest partial, up to <see cref="HarmonicSeries.Highest"/>.</param>
    /// <param name="tuning">The reference A.</param>
    public static IReadOnlyList<Rung> Of(Instrument instrument, Tube tube, int highest, Tuning tuning)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(highest, HarmonicSeries.Highest);
        return
        [
            .. Enumerable
                .Range(1, highest)
                .Select(partial =>
                {
                    var hertz = instrument.Frequency(tube, partial, tuning);
                    var nearest = Pitch.FromMidi((int)Math.Round(tuning.Midi(hertz)));
                    return new Rung(partial, hertz, nearest, tuning.CentsFrom(nearest, hertz));
                }),
        ];
    }
}
