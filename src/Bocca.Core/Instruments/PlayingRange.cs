using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>
/// How far a learner's notes reach: from the floor of three valves or seven positions to a ceiling that rises with the
/// stage (<c>playing-ranges.json</c>, written notes of the instrument's usual reading).
/// </summary>
/// <param name="Lowest">Lowest note, sounding.</param>
/// <param name="Highest">Highest note, sounding.</param>
public readonly record struct PlayingRange(Pitch Lowest, Pitch Highest)
{
    private static readonly Lazy<IReadOnlyDictionary<string, Entry>> Shipped = new(() =>
        EmbeddedData
            .Read<List<Entry>>("playing-ranges.json")
            .SelectMany(entry => entry.Instruments.Select(id => (id, entry)))
            .ToDictionary(pair => pair.id, pair => pair.entry)
    );

    /// <summary>Whether a sounding pitch lies inside.</summary>
    public bool Holds(Pitch sounding) => sounding.Midi >= Lowest.Midi && sounding.Midi <= Highest.Midi;

    /// <summary>The range of a beginner with first notes; the ceiling follows the start.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="fromHigh">Whether a horn begins on F4 or A4 rather than lower.</param>
    public static PlayingRange OfFirstNotes(Instrument instrument, bool fromHigh)
    {
        var entry = Shipped.Value[instrument.Id];
        return new(
            Sounding(instrument, entry.Floor),
            Sounding(instrument, fromHigh ? entry.FromHigh ?? entry.FirstNotes : entry.FirstNotes)
        );
    }

    /// <summary>The range of a pupil in the second stage: scales, slurs, tunes.</summary>
    public static PlayingRange OfSecondStage(Instrument instrument) =>
        new(Sounding(instrument, Shipped.Value[instrument.Id].Floor), Sounding(instrument, Shipped.Value[instrument.Id].Second));

    /// <summary>The whole chart of the instrument.</summary>
    public static PlayingRange Whole(Instrument instrument) => new(instrument.Range.Lowest, instrument.Range.Highest);

    private static Pitch Sounding(Instrument instrument, string written) => instrument.Readings[0].ToSounding(Pitch.Parse(written));

    private sealed record Entry(
        IReadOnlyList<string> Instruments,
        string Floor,
        string FirstNotes,
        string Second,
        string Basis,
        string? FromHigh = null
    );
}
