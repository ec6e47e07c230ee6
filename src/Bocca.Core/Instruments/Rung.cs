using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>A partial of a tube as a rung of its ladder.</summary>
/// <param name="Partial">Which partial, 1 the fundamental.</param>
/// <param name="Hertz">Where it sounds.</param>
/// <param name="Note">
/// The note it stands for, sounding: the one that charts finger so, however sharp the tube; of the partials that charts leave out
/// (7, 11, 13, 14) the nearest note of equal temperament.
/// </param>
/// <param name="Cents">Cents from that note up to the rung.</param>
public readonly record struct Rung(int Partial, double Hertz, Pitch Note, double Cents)
{
    /// <summary>The rungs of a tube from partial 1 up to one, in equal temperament at a tuning.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="tube">One of its tubes.</param>
    /// <param name="highest">Highest partial, up to <see cref="HarmonicSeries.Highest"/>.</param>
    /// <param name="tuning">The reference A.</param>
    public static IReadOnlyList<Rung> Of(Instrument instrument, Tube tube, int highest, Tuning tuning)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(highest, HarmonicSeries.Highest);
        return [.. Enumerable.Range(1, highest).Select(partial => At(instrument, tube, partial, tuning))];
    }

    /// <summary>One rung of a tube. For the arguments see <see cref="Of"/>.</summary>
    public static Rung At(Instrument instrument, Tube tube, int partial, Tuning tuning)
    {
        var midi = instrument.Midi(tube, partial);
        var note = HarmonicSeries.IsAvoided(partial) ? Pitch.FromMidi((int)Math.Round(midi)) : instrument.NoteOf(tube, partial);
        return new Rung(partial, tuning.Frequency(midi), note, 100 * (midi - note.Midi));
    }

    /// <summary>The note as its player reads it, spelled as charts spell it.</summary>
    /// <param name="reading">How the player reads.</param>
    /// <param name="beside">A note of the part, whose accidentals the spelling follows; its own name where it is the same note.</param>
    public Pitch Written(Reading reading, Pitch? beside = null)
    {
        var chart = Pitch.FromMidi(reading.ToWritten(Note).Midi);
        return beside is not { } other ? chart
            : other.Midi == chart.Midi ? other
            : chart.SpelledBeside(other);
    }
}
