namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// The cheapest way through a line, each note by one of its ways: a shortest path (Viterbi 1967, from memory), over pairs of ways where a
/// turn of the slide ties three notes together. Work and memory grow with the notes alone.
/// </summary>
internal sealed class PassageChain
{
    private const long Never = long.MaxValue / 4;

    private readonly PassageCosting _costing;
    private readonly IReadOnlyList<IReadOnlyList<PassageWay>> _ways;
    private readonly long[][] _alone;
    private readonly long[][] _change;

    /// <param name="costing">What ways cost.</param>
    /// <param name="ways">The ways of each note; at least one each.</param>
    public PassageChain(PassageCosting costing, IReadOnlyList<IReadOnlyList<PassageWay>> ways)
    {
        (_costing, _ways) = (costing, ways);
        _alone = new long[ways.Count][];
        _change = new long[ways.Count][];
        for (var i = 0; i < ways.Count; i++)
        {
            _alone[i] = new long[ways[i].Count];
            for (var to = 0; to < ways[i].Count; to++)
                _alone[i][to] = costing.Alone(i, ways[i][to]);
            _change[i] = i == 0 ? [] : Changes(i);
        }
    }

    /// <summary>What a whole way costs, thousandths of a point.</summary>
    public long CostOf(IReadOnlyList<int> path)
    {
        var cost = 0L;
        for (var i = 0; i < path.Count; i++)
        {
            cost += _alone[i][path[i]];
            if (i > 0)
                cost += _change[i][(path[i - 1] * _ways[i].Count) + path[i]];
            if (i > 1)
                cost += Turn(i, path[i - 2], path[i - 1], path[i]);
        }

        return cost;
    }

    /// <summary>The cheapest way under restrictions; of equal ones that with the chart's ways first.</summary>
    /// <param name="only">The one way allowed on a note; -1 where all are. Null for no restriction at all.</param>
    public (long Cost, int[] Path) Cheapest(int[]? only = null) => _costing.HasTurns ? ByPairs(only) : ByNotes(only);

    /// <summary>
    /// For each way of each note, what the cheapest line through it costs: how near it comes to the best (its min-marginal).
    /// </summary>
    public long[][] Through() => _costing.HasTurns ? ThroughPairs() : ThroughNotes();

    private long[] Changes(int i)
    {
        var (before, here) = (_ways[i - 1], _ways[i]);
        var changes = new long[before.Count * here.Count];
        for (var from = 0; from < before.Count; from++)
        for (var to = 0; to < here.Count; to++)
            changes[(from * here.Count) + to] = _costing.Change(i, before[from], here[to]);
        return changes;
    }

    private long Turn(int i, int before, int from, int to) =>
        _costing.HasTurns ? _costing.Turn(i, _ways[i - 2][before], _ways[i - 1][from], _ways[i][to]) : 0;

    private static bool Allowed(int[]? only, int note, int way) => only is null || only[note] < 0 || only[note] == way;

    private (long Cost, int[] Path) ByNotes(int[]? only)
    {
        var count = _ways.Count;
        var came = new int[count][];
        var best = Starts(only);
        for (var i = 1; i < count; i++)
        {
            var next = new long[_ways[i].Count];
            came[i] = new int[next.Length];
            for (var to = 0; to < next.Length; to++)
            {
                next[to] = Never;
                if (!Allowed(only, i, to))
                    continue;
                for (var from = 0; from < best.Length; from++)
                    if (best[from] + _change[i][(from * next.Length) + to] is var cost && cost < next[to])
                        (next[to], came[i][to]) = (cost, from);
                next[to] += _alone[i][to];
            }

            best = next;
        }

        var path = new int[count];
        path[^1] = Array.IndexOf(best, best.Min());
        for (var i = count - 1; i > 0; i--)
            path[i - 1] = came[i][path[i]];
        return (best.Min(), path);
    }

    private long[] Starts(int[]? only)
    {
        var starts = new long[_ways[0].Count];
        for (var way = 0; way < starts.Length; way++)
            starts[way] = Allowed(only, 0, way) ? _alone[0][way] : Never;
        return starts;
    }

    private (long Cost, int[] Path) ByPairs(int[]? only)
    {
        var count = _ways.Count;
        if (count == 1)
            return ByNotes(only);
        var came = new byte[count][];
        var best = FirstPairs(only);
        for (var i = 2; i < count; i++)
        {
            var (before, from, to) = (_ways[i - 2].Count, _ways[i - 1].Count, _ways[i].Count);
            var next = new long[from * to];
            came[i] = new byte[from * to];
            for (var b = 0; b < from; b++)
            for (var c = 0; c < to; c++)
            {
                var cheapest = Never;
                if (Allowed(only, i, c))
                    for (var a = 0; a < before; a++)
                        if (best[(a * from) + b] + Turn(i, a, b, c) is var cost && cost < cheapest)
                            (cheapest, came[i][(b * to) + c]) = (cost, (byte)a);
                next[(b * to) + c] = cheapest >= Never ? Never : cheapest + _change[i][(b * to) + c] + _alone[i][c];
            }

            best = next;
        }

        return (best.Min(), Back(came, Array.IndexOf(best, best.Min())));
    }

    private int[] Back(byte[][] came, int last)
    {
        var count = _ways.Count;
        var path = new int[count];
        (path[^2], path[^1]) = (last / _ways[^1].Count, last % _ways[^1].Count);
        for (var i = count - 1; i > 1; i--)
            path[i - 2] = came[i][(path[i - 1] * _ways[i].Count) + path[i]];
        return path;
    }

    private long[] FirstPairs(int[]? only)
    {
        var (from, to) = (_ways[0].Count, _ways[1].Count);
        var pairs = new long[from * to];
        for (var a = 0; a < from; a++)
        for (var b = 0; b < to; b++)
            pairs[(a * to) + b] =
                Allowed(only, 0, a) && Allowed(only, 1, b) ? _alone[0][a] + _change[1][(a * to) + b] + _alone[1][b] : Never;
        return pairs;
    }

    private long[][] ThroughNotes()
    {
        var count = _ways.Count;
        var forward = new long[count][];
        forward[0] = Starts(null);
        for (var i = 1; i < count; i++)
        {
            forward[i] = new long[_ways[i].Count];
            for (var to = 0; to < forward[i].Length; to++)
            {
                var cheapest = Never;
                for (var from = 0; from < forward[i - 1].Length; from++)
                    cheapest = Math.Min(cheapest, forward[i - 1][from] + _change[i][(from * forward[i].Length) + to]);
                forward[i][to] = cheapest + _alone[i][to];
            }
        }

        var backward = new long[_ways[^1].Count];
        for (var i = count - 1; i >= 0; i--)
        {
            var here = backward;
            if (i > 0)
            {
                backward = new long[_ways[i - 1].Count];
                for (var from = 0; from < backward.Length; from++)
                {
                    backward[from] = Never;
                    for (var to = 0; to < here.Length; to++)
                        backward[from] = Math.Min(backward[from], _change[i][(from * here.Length) + to] + _alone[i][to] + here[to]);
                }
            }

            for (var way = 0; way < here.Length; way++)
                forward[i][way] += here[way];
        }

        return forward;
    }

    private long[][] ThroughPairs()
    {
        var count = _ways.Count;
        if (count == 1)
            return ThroughNotes();
        var forward = new long[count][];
        forward[1] = FirstPairs(null);
        for (var i = 2; i < count; i++)
        {
            var (before, from, to) = (_ways[i - 2].Count, _ways[i - 1].Count, _ways[i].Count);
            forward[i] = new long[from * to];
            for (var b = 0; b < from; b++)
            for (var c = 0; c < to; c++)
            {
                var cheapest = Never;
                for (var a = 0; a < before; a++)
                    cheapest = Math.Min(cheapest, forward[i - 1][(a * from) + b] + Turn(i, a, b, c));
                forward[i][(b * to) + c] = cheapest + _change[i][(b * to) + c] + _alone[i][c];
            }
        }

        var through = _ways.Select(ways => Enumerable.Repeat(Never, ways.Count).ToArray()).ToArray();
        var rest = new long[forward[^1].Length];
        for (var i = count - 1; i > 0; i--)
        {
            var (from, to) = (_ways[i - 1].Count, _ways[i].Count);
            for (var pair = 0; pair < rest.Length; pair++)
            {
                var (a, b) = (pair / to, pair % to);
                var cost = forward[i][pair] + rest[pair];
                through[i][b] = Math.Min(through[i][b], cost);
                through[i - 1][a] = Math.Min(through[i - 1][a], cost);
            }

            rest = i > 1 ? RestBefore(i, rest, from, to) : rest;
        }

        return through;
    }

    /// <summary>What is still to come after a pair of ways, one note further to the front.</summary>
    private long[] RestBefore(int i, long[] rest, int from, int to)
    {
        var before = _ways[i - 2].Count;
        var earlier = new long[before * from];
        for (var a = 0; a < before; a++)
        for (var b = 0; b < from; b++)
        {
            var cheapest = Never;
            for (var c = 0; c < to; c++)
                cheapest = Math.Min(cheapest, Turn(i, a, b, c) + _change[i][(b * to) + c] + _alone[i][c] + rest[(b * to) + c]);
            earlier[(a * from) + b] = cheapest;
        }

        return earlier;
    }
}
