namespace Bocca.Core.Pieces.Breathing;

/// <summary>
/// The cheapest breaths of a line in which a passage that returns pays when it is breathed otherwise: branch and bound, with the line that
/// knows nothing of returns as the bound (published: Land and Doig 1960).
/// </summary>
internal sealed class AirSearch(
    AirChain chain,
    IReadOnlyList<IReadOnlyList<AirPlace>> places,
    IReadOnlyList<(int From, int Like, int Count)> parallel,
    AirCosts costs
)
{
    private const int MostChains = 300,
        NotesForAll = 2_000;

    private const int None = -1,
        Free = -2;

    private readonly long _deviating = (long)Math.Round(costs.PerDeviatingReturn * AirPlaces.Unit);

    /// <summary>What was found.</summary>
    public readonly record struct Found(int[] Chosen, long Cost, long LowerBound, int? OutOfAirAt);

    private sealed record Node(long Bound, int[] Chosen, int[]? Only, bool[] Pays);

    public Found Search()
    {
        var root = chain.Cheapest();
        if (root.OutOfAirAt is not null)
            return new Found([], 0, 0, root.OutOfAirAt);
        if (parallel.Count == 0)
            return new Found(root.Chosen, root.Cost, root.Cost, null);
        var open = new PriorityQueue<Node, (long, int)>();
        var (order, left) = (0, Math.Max(20, MostChains * Math.Min(1, NotesForAll / (double)places.Count)));
        void Add(Node node) => open.Enqueue(node, (node.Bound, order++));
        Add(new Node(root.Cost, root.Chosen, null, new bool[parallel.Count]));
        var best = new Found(root.Chosen, root.Cost + Deviating(root.Chosen), root.Cost, null);
        while (open.TryDequeue(out var node, out _))
        {
            if (node.Bound >= best.Cost)
                return best with { LowerBound = best.Cost };
            var chains = node.Bound - (_deviating * node.Pays.Count(each => each));
            if (chains + Deviating(node.Chosen) is var real && real < best.Cost)
                best = new Found(node.Chosen, real, root.Cost, null);
            if (Undecided(node) is not var (stretch, note))
                return best with { LowerBound = best.Cost };
            if (left <= 0)
                return best with { LowerBound = Math.Min(best.Cost, node.Bound) };
            var pays = (bool[])node.Pays.Clone();
            pays[stretch] = true;
            Add(node with { Bound = node.Bound + _deviating, Pays = pays });
            var (one, other) = (parallel[stretch].Like + note, parallel[stretch].From + note);
            for (var place = None; place < places[one].Count; place++)
            {
                if (Alike(one, place, other) is not { } same || Restricted(node.Only, one, place, other, same) is not { } only)
                    continue;
                left--;
                var found = chain.Cheapest(only);
                if (found.OutOfAirAt is null && found.Cost + node.Bound - chains is var bound && bound < best.Cost)
                    Add(new Node(bound, found.Chosen, only, node.Pays));
            }
        }

        return best with
        {
            LowerBound = best.Cost,
        };
    }

    private long Deviating(int[] chosen) => _deviating * parallel.Count(stretch => Differs(chosen, stretch) >= 0);

    private int Differs(int[] chosen, (int From, int Like, int Count) stretch)
    {
        for (var i = 0; i < stretch.Count; i++)
            if (Alike(stretch.Like + i, chosen[stretch.Like + i], stretch.From + i) != chosen[stretch.From + i])
                return i;
        return -1;
    }

    private (int Stretch, int Note)? Undecided(Node node)
    {
        for (var i = 0; i < parallel.Count; i++)
            if (!node.Pays[i] && Differs(node.Chosen, parallel[i]) is var note and >= 0)
                return (i, note);
        return null;
    }

    /// <summary>The place after another note that is the same as one after this; null where there is none.</summary>
    private int? Alike(int one, int place, int other)
    {
        if (place == None)
            return None;
        var own = places[one][place];
        for (var i = 0; i < places[other].Count; i++)
            if (places[other][i].Shortens?.By == own.Shortens?.By && IsDrop(places[other][i]) == IsDrop(own))
                return i;
        return null;
    }

    private static bool IsDrop(AirPlace place) => place.Kind == PlaceKind.Drop;

    private int[]? Restricted(int[]? only, int one, int place, int other, int same)
    {
        int[] restricted = only is null ? [.. Enumerable.Repeat(Free, places.Count)] : [.. only];
        if ((restricted[one] != Free && restricted[one] != place) || (restricted[other] != Free && restricted[other] != same))
            return null;
        (restricted[one], restricted[other]) = (place, same);
        return restricted;
    }
}
