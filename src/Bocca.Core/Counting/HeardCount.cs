using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Counting;

/// <summary>A card, and what came of each way of doing it.</summary>
/// <param name="Card">The card.</param>
/// <param name="Said">What was said; null where nothing was asked or heard of it.</param>
/// <param name="Clapped">What was clapped, tapped or played; null likewise.</param>
/// <param name="AheadMs">How much the hands were ahead of the voice where both came, median, milliseconds; null for fewer than two.</param>
public sealed record HeardCard(RhythmCard Card, CountedTrack? Said, CountedTrack? Clapped, double? AheadMs);

/// <summary>A row of cards as it was heard.</summary>
/// <param name="Cards">Card by card.</param>
/// <param name="Problem">Why nothing is judged, in a sentence; null where it is.</param>
/// <param name="Sentence">What was heard, in a sentence.</param>
public sealed record HeardCount(IReadOnlyList<HeardCard> Cards, string? Problem, string Sentence)
{
    /// <summary>What came of each note, in order, where the cards were played on their notes; null for one that was not begun.</summary>
    public IReadOnlyList<JudgedNote?> Notes { get; init; } = [];

    /// <summary>Whether every note that was begun is the one that was meant.</summary>
    public bool NotesPassed => Notes.All(note => note is null or { Outcome: NoteOutcome.Right });

    /// <summary>Whether all that was asked came in its place.</summary>
    public bool Passed =>
        Problem is null && NotesPassed && Cards.All(card => (card.Said?.Passed ?? true) && (card.Clapped?.Passed ?? true));

    /// <summary>Whether all that was said came in its place; null where nothing was asked of it.</summary>
    public bool? SaidPassed => Cards.Any(card => card.Said is not null) ? Cards.All(card => card.Said?.Passed ?? true) : null;

    /// <summary>The same of the hands.</summary>
    public bool? ClappedPassed => Cards.Any(card => card.Clapped is not null) ? Cards.All(card => card.Clapped?.Passed ?? true) : null;
}
