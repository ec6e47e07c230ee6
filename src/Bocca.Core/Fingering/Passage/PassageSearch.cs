namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// The cheapest way through a line in which a passage that returns pays when it is fingered otherwise. That ties notes that lie far apart
/// and is no chain any more: branch and bound, with the chain that knows nothing of repeats as the bound (published: Land and Doig 1960).
/// </summary>
internal sealed class PassageSearch
{
    /// <summary>The most chains that are solved for a short line; long ones get fewer, for each costs more.</summary>
    private const int MostChains = 400;

    private const int NotesForAll = 2_000;

    private readonly PassageChain _chain;
    private readonly IReadOnlyList<IReadOnlyList<PassageWay>> _ways;
    private readonly IReadOnlyList<PassageRepeat> _repeats;
    private readonly long _deviating;

    public PassageSearch(
        PassageChain chain,
        IReadOnlyList<IReadOnlyList<PassageWay>> ways,
        IReadOnlyList<PassageRepeat> repeats,
        long deviating
    ) => (_chain, _ways, _repeats, _deviating) = (chain, ways, repeats, deviating);

    /// <summary>What was found.</summary>
    /// <param name="Path">The way of each note.</param>
    /// <param name="Cost">What it costs.</param>
    /// <param name="LowerBound">What no way costs less than.</param>
    public readonly record struct Found(int[] Path, long Cost, long LowerBound);

    private sealed record Node(long Bound, int[] Path, int[]? Only, bool[] Pays);

    public Found Search()
    {
        var (cost, path) = _chain.Cheapest();
        if (_repeats.Count == 0)
            return new Found(path, cost, cost);
        var open = new PriorityQueue<Node, (long, int)>();
        var (order, left) = (0, Math.Max(20, MostChains * Math.Min(1, NotesForAll / (double)_ways.Count)));
        void Add(Node node) => open.Enqueue(node, (node.Bound, order++));
        Add(new Node(cost, path, null, new bool[_repeats.Count]));
        var best = new Found(path, CostOf(path), cost);
        while (open.TryDequeue(out var node, out _))
        {
            if (node.Bound >= best.Cost)
                return best with { LowerBound = best.Cost };
            if (CostOf(node.Path) is var real && real < best.Cost)
                best = new Found(node.Path, real, cost);
            if (Undecided(node) is not var (repeat, note))
                return best with { LowerBound = best.Cost };
            if (left <= 0)
                return best with { LowerBound = Math.Min(best.Cost, node.Bound) };
            var pays = (bool[])node.Pays.Clone();
            pays[repeat] = true;
            Add(node with { Bound = node.Bound + _deviating, Pays = pays });
            foreach (var both in Both(repeat, note))
            {
                if (Restricted(node.Only, both) is not { } only)
                    continue;
                left--;
                var (chain, way) = _chain.Cheapest(only);
                var bound = chain + (_deviating * node.Pays.Count(each => each));
                if (bound < best.Cost)
                    Add(new Node(bound, way, only, node.Pays));
            }
        }

        return best with
        {
            LowerBound = best.Cost,
        };
    }

    /// <summary>What a way costs, its deviating repeats included.</summary>
    public long CostOf(int[] path) => _chain.CostOf(path) + (_deviating * _repeats.Count(repeat => Deviates(path, repeat) >= 0));

    /// <summary>The first note of a repeat that is fingered otherwise, counted from its beginning; -1 where none is.</summary>
    public int Deviates(int[] path, PassageRepeat repeat)
    {
        for (var i = 0; i < repeat.Count; i++)
            if (Setting(repeat.From + i, path[repeat.From + i]) != Setting(repeat.Like + i, path[repeat.Like + i]))
                return i;
        return -1;
    }

    private Instruments.Setting Setting(int note, int way) => _ways[note][way].Fingering.Setting;

    /// <summary>A repeat that does not pay and is fingered otherwise, and where; null where there is none.</summary>
    private (int Repeat, int Note)? Undecided(Node node)
    {
        for (var i = 0; i < _repeats.Count; i++)
            if (!node.Pays[i] && Deviates(node.Path, _repeats[i]) is var note and >= 0)
                return (i, note);
        return null;
    }

    /// <summary>The settings that both can have, as restrictions on the two notes.</summary>
    private IEnumerable<(int Note, int Way, int Other, int OtherWay)> Both(int repeat, int note)
    {
        var (one, other) = (_repeats[repeat].Like + note, _repeats[repeat].From + note);
        for (var way = 0; way < _ways[one].Count; way++)
        for (var same = 0; same < _ways[other].Count; same++)
            if (Setting(one, way) == Setting(other, same))
                yield return (one, way, other, same);
    }

    private int[]? Restricted(int[]? only, (int Note, int Way, int Other, int OtherWay) both)
    {
        var restricted = only is null ? Enumerable.Repeat(-1, _ways.Count).ToArray() : (int[])only.Clone();
        if (!Restrict(restricted, both.Note, both.Way) || !Restrict(restricted, both.Other, both.OtherWay))
            return null;
        return restricted;
    }

    private static bool Restrict(int[] only, int note, int way)
    {
        if (only[note] >= 0 && only[note] != way)
            return false;
        only[note] = way;
        return true;
    }
}
