using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>
/// The first written notes of a beginner, in teaching order: on one partial downwards, or stepwise from the lowest; a horn's by the note it
/// begins on (<c>first-notes.json</c>, common practice). A teacher's own order goes before all of them.
/// </summary>
public static class FirstNotes
{
    private static readonly Lazy<IReadOnlyDictionary<string, Entry>> Shipped = new(() =>
        EmbeddedData
            .Read<List<Entry>>("first-notes.json")
            .SelectMany(entry => entry.Instruments.Select(id => (id, entry)))
            .ToDictionary(pair => pair.id, pair => pair.entry)
    );

    /// <summary>The notes for hands that nothing holds back.</summary>
    public static IReadOnlyList<Pitch> Of(Instrument instrument, Reading reading, Approach approach) =>
        Of(instrument, reading, approach, Hand.Free, FingeringWeights.Default);

    /// <summary>Those that a hand can do: what lies beyond the reach, or is not taught yet, is not asked.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="hand">What the hand can do, and the teacher's own order if there is one.</param>
    /// <param name="weights">What ranks the ways.</param>
    public static IReadOnlyList<Pitch> Of(Instrument instrument, Reading reading, Approach approach, Hand hand, FingeringWeights weights)
    {
        var all = hand.FirstNotes is { Count: > 0 } own
            ? [.. own.Select(reading.ToWritten)]
            : Taught(instrument, approach).Select(reading.ToWritten).ToList();
        var within = all.Where(note => Way(note) is { Barred: null }).ToList();
        // Hands that can do nothing were measured wrong.
        return within.Count > 0 ? within : all;

        Fingering? Way(Pitch written) =>
            FingeringFinder.FindSounding(instrument, reading.ToSounding(written), weights, hand) is [var first, ..] ? first : null;
    }

    /// <summary>What is taught first on an instrument under an approach, sounding.</summary>
    public static IReadOnlyList<Pitch> Taught(Instrument instrument, Approach approach)
    {
        var entry = Shipped.Value[instrument.Id];
        var notes =
            entry.Starts is { } starts ? starts[approach.Of(Points.HornStart)]
            : approach.Of(Points.FirstNoteWay) == FirstNoteWay.OnOnePartial ? entry.OnOnePartial
            : entry.Stepwise;
        return [.. notes.Split(' ').Select(note => instrument.Readings[0].ToSounding(Pitch.Parse(note)))];
    }

    private sealed record Entry
    {
        public IReadOnlyList<string> Instruments { get; init; } = [];

        public string OnOnePartial { get; init; } = "";

        public string Stepwise { get; init; } = "";

        /// <summary>A horn's, by the note it begins on.</summary>
        public IReadOnlyDictionary<HornStart, string>? Starts { get; init; }
    }
}
