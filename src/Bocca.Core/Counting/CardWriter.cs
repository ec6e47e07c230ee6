using Bocca.Core.Score;

namespace Bocca.Core.Counting;

/// <summary>
/// Writes rhythm cards from the values that somebody has met: bars that are full, and nothing in them that was not asked for. The same seed
/// writes the same card.
/// </summary>
public static class CardWriter
{
    /// <summary>So many bars are drawn, of which the one is taken that has most of what is wanted (ours).</summary>
    private const int Drawn = 12;

    /// <summary>The length of each figure there is, worked out once.</summary>
    private static readonly Dictionary<string, Rational> Lengths = RhythmValue
        .All.SelectMany(value => value.Simple.Concat(value.Compound))
        .Distinct()
        .ToDictionary(text => text, text => RhythmCard.Parse(text, Free(text)).Length);

    /// <summary>Writes a card.</summary>
    /// <param name="metre">Its metre.</param>
    /// <param name="values">The values it may have.</param>
    /// <param name="bars">How many bars.</param>
    /// <param name="seed">Another seed, another card.</param>
    /// <param name="wanted">Values that it should have, such as those that are due; null for none.</param>
    /// <exception cref="ArgumentException">No bar of this metre can be made of these values; the message says so.</exception>
    public static RhythmCard Write(
        Metre metre,
        IReadOnlyList<RhythmValue> values,
        int bars,
        int seed,
        IReadOnlyList<RhythmValue>? wanted = null
    )
    {
        if (bars is < 1 or > RhythmCard.MostBars)
            throw new ArgumentException($"A card has 1 to {RhythmCard.MostBars} bars.");
        var figures = values.SelectMany(value => value.In(metre).Select(text => new Figure(value, text, Lengths[text]))).ToList();
        var fills = Fills(metre, figures);
        if (!fills[^1])
            throw new ArgumentException(
                $"No bar of {metre} can be filled with {string.Join(", ", values.Select(value => value.Name))}: add a value."
            );
        var random = new Random(seed);
        var due = figures.Where(figure => wanted?.Contains(figure.Value) == true).ToList();
        var best = Enumerable
            .Range(0, Drawn)
            .Select(i => Draw(metre, figures, fills, bars, random, due.Count > 0 ? due[i % due.Count] : null))
            .MaxBy(drawn => Score(drawn, wanted))!;
        return RhythmCard.Parse(string.Join(' ', best.Select(figure => figure.Text)), metre);
    }

    /// <summary>Draws a card at random; a figure that it must have stands in it, wherever the bars have room for it.</summary>
    private static List<Figure> Draw(Metre metre, List<Figure> figures, bool[] fills, int bars, Random random, Figure? must)
    {
        var drawn = new List<Figure>();
        var places = PlacesOf(must, metre, fills);
        var (mustBar, mustLeft) = places.Count > 0 ? (random.Next(bars), places[random.Next(places.Count)]) : (-1, 0);
        for (var bar = 0; bar < bars; bar++)
        for (var left = metre.Beats; left > 0; )
        {
            if (bar == mustBar && left == mustLeft)
            {
                drawn.Add(must!);
                left -= must!.BeatsIn(metre)!.Value;
                continue;
            }

            // What stands before it ends where it begins.
            var goal = bar == mustBar && left > mustLeft ? mustLeft : 0;
            var fitting = figures
                .Where(figure => figure.BeatsIn(metre) is { } beats && beats <= left - goal && fills[left - goal - beats])
                .ToList();
            // Not the same thing over and over, where there is another.
            var others = drawn is [.., var last] ? fitting.Where(figure => figure != last).ToList() : fitting;
            var figure = others.Count > 0 && random.Next(3) > 0 ? others[random.Next(others.Count)] : fitting[random.Next(fitting.Count)];
            drawn.Add(figure);
            left -= figure.BeatsIn(metre)!.Value;
        }

        return drawn;
    }

    /// <summary>Where in a bar a figure may stand, as the beats that are left there: what is before and behind it can be filled.</summary>
    private static List<int> PlacesOf(Figure? figure, Metre metre, bool[] fills) =>
        figure?.BeatsIn(metre) is { } beats
            ? [.. Enumerable.Range(0, metre.Beats + 1).Where(left => left >= beats && fills[metre.Beats - left] && fills[left - beats])]
            : [];

    /// <summary>Which numbers of beats can be filled at all.</summary>
    private static bool[] Fills(Metre metre, List<Figure> figures)
    {
        var fills = new bool[metre.Beats + 1];
        fills[0] = true;
        for (var beats = 1; beats < fills.Length; beats++)
            fills[beats] = figures.Exists(figure => figure.BeatsIn(metre) is { } own && own <= beats && fills[beats - own]);
        return fills;
    }

    private static double Score(List<Figure> drawn, IReadOnlyList<RhythmValue>? wanted) =>
        (10.0 * (wanted?.Count(value => drawn.Exists(figure => figure.Value == value)) ?? 0))
        + drawn.DistinctBy(figure => figure.Value).Count()
        // A card of rests is none.
        - (drawn.TrueForAll(figure => figure.Text.StartsWith('r')) ? 100 : 0);

    /// <summary>A metre that a figure alone fills, so that it can be read.</summary>
    private static Metre Free(string text) =>
        Enumerable
            .Range(1, 16)
            .SelectMany(above => new[] { new Metre(above, 8), new Metre(above, 4) })
            .First(metre => CanRead(text, metre));

    private static bool CanRead(string text, Metre metre)
    {
        try
        {
            return RhythmCard.Parse(text, metre).Bars == 1;
        }
        catch (ArgumentException)
        {
            return false;
        }
    }

    private sealed record Figure(RhythmValue Value, string Text, Rational Length)
    {
        /// <summary>How many beats of a metre it lasts; null where these are not whole.</summary>
        public int? BeatsIn(Metre metre) => (Length / metre.Beat) is { IsWhole: true } beats ? (int)beats.Floor : null;
    }
}
