using Bocca.Core.Counting;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Ear;

/// <summary>A beginning on the grid of a card.</summary>
/// <param name="At">Quarters from the card's first beat.</param>
/// <param name="Place">Its syllable.</param>
public sealed record StoredBeat(double At, string Place) : StoredShape
{
    /// <summary>How late it came, milliseconds; null where nothing came.</summary>
    public double? ErrorMs { get; init; }
}

/// <summary>A track of a card.</summary>
/// <param name="Beats">Its beginnings.</param>
/// <param name="ExtraSeconds">Where something came that was not asked.</param>
/// <param name="Passed">Whether it was right.</param>
public sealed record StoredTrack(IReadOnlyList<StoredBeat> Beats, IReadOnlyList<double> ExtraSeconds, bool Passed) : StoredShape
{
    public static StoredTrack? Of(TracedTrack? track) =>
        track is null
            ? null
            : new StoredTrack(
                [.. track.Beats.Select(beat => new StoredBeat(beat.At, beat.Place) { ErrorMs = beat.ErrorMs })],
                track.ExtraSeconds,
                track.Passed
            );

    public TracedTrack Read() => new([.. Beats.Select(beat => new TracedBeat(beat.At, beat.Place, beat.ErrorMs))], ExtraSeconds, Passed);
}

/// <summary>A card of a take.</summary>
/// <param name="Card">The card as text: <c>q. e q q</c>.</param>
public sealed record StoredCard(string Card) : StoredShape
{
    public StoredTrack? Said { get; init; }

    public StoredTrack? Hands { get; init; }
}

/// <summary>A take of cards as the record holds it.</summary>
/// <param name="Metre">The metre, <c>4/4</c>.</param>
/// <param name="GapBeats">Beats of rest between two cards.</param>
/// <param name="Ways">How they were done: names of the ways, parted by a comma and a space; <c>None</c> for none.</param>
/// <param name="ToleranceMs">How far off still counted as right.</param>
/// <param name="DelayMs">The machine's delay that was taken off.</param>
/// <param name="Cards">The cards.</param>
/// <param name="Values">The figures.</param>
/// <param name="Verdict">What was said of it.</param>
public sealed record StoredCardsTake(
    string Metre,
    int GapBeats,
    string Ways,
    double ToleranceMs,
    double DelayMs,
    IReadOnlyList<StoredCard> Cards,
    IReadOnlyList<StoredFigure> Values,
    StoredVerdict Verdict
) : StoredShape
{
    private static readonly Names<CountWays> WayNames = new(
        (CountWays.None, "None"),
        (CountWays.Said, "Said"),
        (CountWays.Clapped, "Clapped"),
        (CountWays.Tapped, "Tapped"),
        (CountWays.Played, "Played"),
        (CountWays.OnNotes, "OnNotes")
    );

    public static PayloadShape<CountPayload, StoredCardsTake> Shape { get; } = new(Of, stored => stored.Read());

    /// <summary>Ways as they are stored.</summary>
    public static string Written(CountWays ways) =>
        ways == CountWays.None
            ? WayNames[ways]
            : string.Join(
                ", ",
                Enum.GetValues<CountWays>().Where(way => way != CountWays.None && ways.HasFlag(way)).Select(way => WayNames[way])
            );

    /// <summary>Ways as they were stored.</summary>
    /// <exception cref="InvalidDataException">There is no such way.</exception>
    public static CountWays ReadWays(string stored) =>
        stored.Split(", ").Select(WayNames.Read).Aggregate(CountWays.None, (all, way) => all | way);

    private static StoredCardsTake Of(CountPayload take) =>
        new(
            take.Metre,
            take.GapBeats,
            Written(take.Ways),
            take.ToleranceMs,
            take.DelayMs,
            [
                .. take.Cards.Select(card => new StoredCard(card.Card)
                {
                    Said = StoredTrack.Of(card.Said),
                    Hands = StoredTrack.Of(card.Hands),
                }),
            ],
            [.. take.Values.Select(StoredFigure.Of)],
            StoredVerdict.Of(take.Verdict)
        );

    private CountPayload Read() =>
        new(
            Metre,
            GapBeats,
            ReadWays(Ways),
            ToleranceMs,
            DelayMs,
            [.. Cards.Select(card => new TracedCard(card.Card, card.Said?.Read(), card.Hands?.Read()))],
            [.. Values.Select(each => each.Read())],
            Verdict.Read()
        );
}
