namespace Bocca.Core.Counting;

/// <summary>A value that stands in a card.</summary>
/// <param name="Value">The value.</param>
/// <param name="First">The note that its figure begins with, by its place from 0.</param>
/// <param name="Count">How many notes and rests the figure has.</param>
public sealed record CardValue(RhythmValue Value, int First, int Count);

/// <summary>Which values stand in a card, and where.</summary>
public static class CardValues
{
    /// <summary>
    /// The values in a card, in order of their notes: at each place the longest figure that stands there, so that a dotted quarter with its
    /// eighth is one, and not a dotted quarter and an eighth.
    /// </summary>
    public static IReadOnlyList<CardValue> In(RhythmCard card)
    {
        var found = RhythmValue
            .All.SelectMany(value =>
                value.In(card.Metre).SelectMany(figure => Places(card, figure).Select(at => new CardValue(value, at, Tokens(figure).Count)))
            )
            .OrderBy(each => each.First)
            .ThenByDescending(each => each.Count)
            .ToList();
        var values = new List<CardValue>();
        var free = 0;
        foreach (var each in found.Where(each => each.First >= free))
        {
            if (each.First < free)
                continue;
            values.Add(each);
            free = each.First + each.Count;
        }

        return values;
    }

    /// <summary>Where a figure stands in a card: notes that lie on a beat and begin it.</summary>
    internal static IEnumerable<int> Places(RhythmCard card, string figure)
    {
        var tokens = Tokens(figure);
        var own = card.Notes.Select(note => note.Token + (note.TiedToNext ? "~" : "") + (note.InTriplet ? "3" : "")).ToList();
        for (var at = 0; at + tokens.Count <= own.Count; at++)
            if ((card.Notes[at].At / card.Metre.Beat).IsWhole && own.Skip(at).Take(tokens.Count).SequenceEqual(tokens))
                yield return at;
    }

    private static List<string> Tokens(string figure)
    {
        var inTriplet = figure.StartsWith("3(", StringComparison.Ordinal);
        return
        [
            .. figure
                .Replace("3(", "", StringComparison.Ordinal)
                .Replace(")", "", StringComparison.Ordinal)
                .Split(' ')
                .Select(token => token + (inTriplet ? "3" : "")),
        ];
    }
}
