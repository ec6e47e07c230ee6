namespace Bocca.Core.Counting;

/// <summary>
/// How hard a card is, in points (ours, editable): the place of its hardest value in the order in which values are taught, what begins off
/// the beat, rests that stand on a beat, and how often the value changes.
/// </summary>
/// <param name="Points">All of it together.</param>
/// <param name="Reasons">What makes it hard, in words, the most first; empty for a plain one.</param>
public sealed record CardDifficulty(double Points, IReadOnlyList<string> Reasons)
{
    /// <summary>Points of a place in the order, of what begins off the beat, of a rest on a beat, of a change.</summary>
    private const double Place = 2,
        OffBeat = 0.5,
        RestOnBeat = 0.4,
        Change = 0.15;

    /// <summary>Works it out.</summary>
    public static CardDifficulty Of(RhythmCard card)
    {
        var hardest = RhythmValue
            .All.Select((value, at) => (value, Place: at))
            .Where(each => each.value.In(card.Metre).Any(figure => CardValues.Places(card, figure).Any()))
            .Select(each => ((RhythmValue? Value, int Place))(each.value, each.Place))
            .LastOrDefault();
        var off = card.Onsets.Count(at => !(at / card.Metre.Beat).IsWhole);
        var rests = card.Notes.Count(note => note.IsRest && (note.At / card.Metre.Beat).IsWhole);
        var changes = card
            .Notes.Zip(card.Notes.Skip(1))
            .Count(pair => pair.First.Length != pair.Second.Length || pair.First.IsRest != pair.Second.IsRest);
        (double Points, string Words)[] parts =
        [
            (Place * hardest.Place, hardest.Value is { } value ? $"it has the {value.Name}" : ""),
            (OffBeat * off, $"{off} {(off == 1 ? "begins" : "begin")} off the beat"),
            (RestOnBeat * rests, $"{rests} {(rests == 1 ? "rest stands" : "rests stand")} on a beat"),
            (Change * changes, $"the value changes {(changes == 1 ? "once" : $"{changes} times")}"),
        ];
        return new CardDifficulty(
            parts.Sum(part => part.Points),
            [.. parts.Where(part => part.Points > 0).OrderByDescending(part => part.Points).Select(part => part.Words)]
        );
    }
}
