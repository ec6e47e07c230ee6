using Bocca.Core.Judging;

namespace Bocca.Core.Counting;

/// <summary>What takes of cards say over weeks: each value said, and each value clapped.</summary>
public static class CountFigures
{
    /// <summary>The share of a value's beginnings that were said in their place; its item is the value.</summary>
    public static FigureKind Said { get; } = new("said in place", "%", "fewer in place", "more in place", IsShare: true);

    /// <summary>The same of what was clapped, tapped or played.</summary>
    public static FigureKind Clapped { get; } = new("clapped in place", "%", "fewer in place", "more in place", IsShare: true);

    /// <summary>How evenly all of it came, milliseconds.</summary>
    public static FigureKind Evenness { get; } = new("evenness of the beat", "ms", "more even", "less even");

    /// <summary>The figures of a take.</summary>
    /// <param name="heard">What was heard.</param>
    /// <param name="toleranceMs">What was close enough.</param>
    public static IEnumerable<Figure> Of(HeardCount heard, double toleranceMs)
    {
        foreach (
            var (kind, of) in new (FigureKind, Func<HeardCard, CountedTrack?>)[]
            {
                (Said, card => card.Said),
                (Clapped, card => card.Clapped),
            }
        )
        foreach (var (value, came, all) in Values(heard, of, toleranceMs))
            yield return new Figure(kind, (double)came / all, 0, all, value.Id);
        var even = heard.Cards.SelectMany(card => new[] { card.Said?.EvennessMs, card.Clapped?.EvennessMs }).OfType<double>().ToList();
        if (even.Count > 0)
            yield return new Figure(Evenness, even.Average(), 0, even.Count);
    }

    /// <summary>Each value of a take with how many of its beginnings came in their place, in all tracks that were asked.</summary>
    public static IEnumerable<(RhythmValue Value, bool Came)> Values(HeardCount heard, double toleranceMs) =>
        Values(heard, card => card.Said, toleranceMs)
            .Concat(Values(heard, card => card.Clapped, toleranceMs))
            .GroupBy(each => each.Value)
            .Select(each => (each.Key, each.All(track => track.Came == track.All)));

    private static IEnumerable<(RhythmValue Value, int Came, int All)> Values(
        HeardCount heard,
        Func<HeardCard, CountedTrack?> of,
        double toleranceMs
    )
    {
        var counted = new Dictionary<RhythmValue, (int Came, int All)>();
        foreach (var card in heard.Cards)
        {
            if (of(card) is not { } track)
                continue;
            var errors = track.Beats.ToDictionary(beat => beat.At, beat => beat.ErrorMs);
            foreach (var value in CardValues.In(card.Card))
            {
                var due = card.Card.Notes.Skip(value.First).Take(value.Count).Where(note => note.Begins).Select(note => note.At).ToList();
                if (due.Count == 0)
                    continue;
                var came = due.Count(at => errors.TryGetValue(at, out var off) && off is { } ms && Math.Abs(ms) <= toleranceMs);
                var (before, all) = counted.GetValueOrDefault(value.Value);
                counted[value.Value] = (before + came, all + due.Count);
            }
        }

        return counted.Select(each => (each.Key, each.Value.Came, each.Value.All));
    }
}
