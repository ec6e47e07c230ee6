namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// The cheapest choice at every note of a line in which a passage that returns pays when it is done otherwise. That ties notes that lie far
/// apart and is no chain any more: branch and bound, with the chain that knows nothing of returns as the bound (published: Land and Doig
/// 1960).
/// </summary>
/// <param name="notes">How many notes.</param>
/// <param name="ties">The passages that return.</param>
/// <param name="deviating">What one of them pays that is done otherwise.</param>
/// <param name="cheapest">
/// The cheapest choices under restrictions (the one choice allowed at each note, <see cref="Free"/> where all are; null for none at all);
/// null where there are none.
/// </param>
/// <param name="choices">The choices at a note.</param>
/// <param name="alike">Note, choice, other note: the choice at the other note that is the same; null where there is none.</param>
public sealed class TiedSearch(
    int notes,
    IReadOnlyList<PassageRepeat> ties,
    long deviating,
    Func<int[]?, (long Cost, int[] Chosen)?> cheapest,
    Func<int, IEnumerable<int>> choices,
    Func<int, int, int, int?> alike
)
{
    /// <summary>No restriction at a note.</summary>
    public const int Free = -2;

    /// <summary>The most chains that are solved for a short line; long ones get fewer, for each costs more, and the fewest.</summary>
    private const int MostChains = 400,
        LeastChains = 20,
        NotesForAll = 2_000;

    /// <summary>What was found.</summary>
    /// <param name="Chosen">The choice at each note.</param>
    /// <param name="Cost">What it costs, what deviates included.</param>
    /// <param name="LowerBound">What nothing costs less than.</param>
    public sealed record Found(int[] Chosen, long Cost, long LowerBound);

    private sealed record Node(long Chain, int[] Chosen, int[]? Only, bool[] Pays, int Paid);

    /// <summary>Searches; null where there is no way through the line at all.</summary>
    public Found? Search()
    {
        if (cheapest(null) is not var (cost, chosen))
            return null;
        var open = new PriorityQueue<Node, (long, int)>();
        var (order, left) = (0, Math.Max(LeastChains, MostChains * Math.Min(1, NotesForAll / (double)notes)));
        long Bound(Node node) => node.Chain + (deviating * node.Paid);
        void Add(Node node) => open.Enqueue(node, (Bound(node), order++));
        Add(new Node(cost, chosen, null, new bool[ties.Count], 0));
        var best = new Found(chosen, cost + Deviating(chosen), cost);
        while (open.TryDequeue(out var node, out _))
        {
            if (Bound(node) >= best.Cost)
                break;
            if (node.Chain + Deviating(node.Chosen) is var real && real < best.Cost)
                best = new Found(node.Chosen, real, cost);
            if (Undecided(node) is not var (tie, note))
                break;
            if (left <= 0)
                return best with { LowerBound = Math.Min(best.Cost, Bound(node)) };
            var pays = (bool[])node.Pays.Clone();
            pays[tie] = true;
            Add(node with { Pays = pays, Paid = node.Paid + 1 });
            var (one, other) = (ties[tie].Like + note, ties[tie].From + note);
            foreach (var choice in choices(one))
            {
                if (alike(one, choice, other) is not { } same || Restricted(node.Only, (one, choice), (other, same)) is not { } only)
                    continue;
                left--;
                if (
                    cheapest(only) is var (chain, path)
                    && new Node(chain, path, only, node.Pays, node.Paid) is var next
                    && Bound(next) < best.Cost
                )
                    Add(next);
            }
        }

        return best with
        {
            LowerBound = best.Cost,
        };
    }

    /// <summary>The first note of a passage that is done otherwise, counted from its beginning; -1 where none is.</summary>
    public int Differs(int[] chosen, PassageRepeat tie)
    {
        for (var i = 0; i < tie.Count; i++)
            if (alike(tie.Like + i, chosen[tie.Like + i], tie.From + i) != chosen[tie.From + i])
                return i;
        return -1;
    }

    private long Deviating(int[] chosen) => deviating * ties.Count(tie => Differs(chosen, tie) >= 0);

    /// <summary>A passage that does not pay and is done otherwise, and where; null where there is none.</summary>
    private (int Tie, int Note)? Undecided(Node node)
    {
        for (var i = 0; i < ties.Count; i++)
            if (!node.Pays[i] && Differs(node.Chosen, ties[i]) is var note and >= 0)
                return (i, note);
        return null;
    }

    private int[]? Restricted(int[]? only, params ReadOnlySpan<(int Note, int Choice)> both)
    {
        int[] restricted = only is null ? [.. Enumerable.Repeat(Free, notes)] : [.. only];
        foreach (var (note, choice) in both)
        {
            if (restricted[note] != Free && restricted[note] != choice)
                return null;
            restricted[note] = choice;
        }

        return restricted;
    }
}
