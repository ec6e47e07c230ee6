using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>
/// The two pitches from which drills start, so that a mixed class starts together: a concert B flat and a concert F in
/// the middle of a beginner's reach (<c>start-notes.json</c>).
/// </summary>
/// <param name="ConcertBb">The concert B flat, sounding.</param>
/// <param name="ConcertF">The concert F, sounding.</param>
public sealed record StartNotes(Pitch ConcertBb, Pitch ConcertF)
{
    private static readonly Lazy<IReadOnlyDictionary<string, StartNotes>> Shipped = new(() =>
        EmbeddedData
            .Read<List<Entry>>("start-notes.json")
            .SelectMany(entry =>
                entry.Instruments.Select(id => (id, new StartNotes(Pitch.Parse(entry.ConcertBb), Pitch.Parse(entry.ConcertF))))
            )
            .ToDictionary(pair => pair.id, pair => pair.Item2)
    );

    /// <summary>The start notes of an instrument.</summary>
    public static StartNotes Of(Instrument instrument) => Shipped.Value[instrument.Id];

    private sealed record Entry(IReadOnlyList<string> Instruments, string ConcertBb, string ConcertF, string Basis);
}
