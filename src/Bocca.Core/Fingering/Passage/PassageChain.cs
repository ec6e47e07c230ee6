namespace Bocca.Core.Fingering.Passage;

/// <summary>
/// The cheapest way through a line, each note by one of its ways: a shortest path (Viterbi 1967, from memory), over pairs of ways where a
/// turn of the slide ties three notes together. Work and memory grow with the notes alone.
/// </summary>
internal sealed class PassageChain
{
    private const long Never = long.MaxValue / 4;

    private readonly bool _hasTurns;
    private readonly long[][] _alone;
    private readonly long[][] _change;
    private readonly double[][] _cm;
    private readonly long[] _turn;
    private readonly Dictionary<object, double[]> _places = [];
    private long[][]? _forward;

    /// <param name="costing">What ways cost.</param>
    /// <param name="ways">The ways of each note; at least one each.</param>
    public PassageChain(PassageCosting costing, IReadOnlyList<IReadOnlyList<PassageWay>> ways)
    {
        _hasTurns = costing.HasTurns && ways.Count > 1;
        (_alone, _change) = (new long[ways.Count][], new long[ways.Count][]);
        (_cm, _turn) = (new double[ways.Count][], new long[ways.Count]);
        // A piece has few pitches and few lengths: what was reckoned for two notes holds for all that are like them.
        var alone = new Dictionary<(object, double), long[]>();
        var changes = new Dictionary<(object, object, double, bool), long[]>();
        for (var i = 0; i < ways.Count; i++)
        {
            var here = ways[i];
            var weight = (here, costing.TuningWeight(i));
            if (!alone.TryGetValue(weight, out var costs))
                alone[weight] = costs = [.. here.Select(way => costing.Alone(i, way))];
            (_alone[i], _cm[i], _change[i]) = (costs, CmOf(here), []);
            if (i == 0)
                continue;
            var change = (ways[i - 1], here, costing.Seconds(i), costing.IsSlurred(i));
            if (!changes.TryGetValue(change, out _change[i]!))
                changes[change] = _change[i] = Changes(costing, i, ways[i - 1], here);
            _turn[i] = costing.Turn(i);
        }
    }

    private double[] CmOf(IReadOnlyList<PassageWay> ways) =>
        _places.TryGetValue(ways, out var known) ? known : _places[ways] = [.. ways.Select(way => way.Cm)];

    private int Count => _alone.Length;

    /// <summary>What a whole way costs, thousandths of a point.</summary>
    public long CostOf(int[] path)
    {
        var cost = 0L;
        for (var i = 0; i < path.Length; i++)
        {
            cost += _alone[i][path[i]];
            if (i > 0)
                cost += _change[i][(path[i - 1] * _alone[i].Length) + path[i]];
            if (i > 1)
                cost += Turn(i, path[i - 2], path[i - 1], path[i]);
        }

        return cost;
    }

    /// <summary>The cheapest way under restrictions; of equal ones that with the chart's ways first.</summary>
    /// <param name="only">The one way allowed on a note; <see cref="TiedSearch.Free"/> where all are. Null for none.</param>
    public (long Cost, int[] Path) Cheapest(int[]? only = null)
    {
        var forward = only is null ? _forward ??= Forward(null) : Forward(only);
        var cost = forward[^1].Min();
        return (cost, _hasTurns ? BackByPairs(forward, cost) : BackByNotes(forward, cost));
    }

    /// <summary>
    /// For each way of each note, what the cheapest line through it costs: how near it comes to the best (its min-marginal).
    /// </summary>
    public long[][] Through() => _hasTurns ? ThroughPairs() : ThroughNotes();

    private static long[] Changes(PassageCosting costing, int i, IReadOnlyList<PassageWay> before, IReadOnlyList<PassageWay> here)
    {
        var changes = new long[before.Count * here.Count];
        for (var from = 0; from < before.Count; from++)
        for (var to = 0; to < here.Count; to++)
            changes[(from * here.Count) + to] = costing.Change(i, before[from], here[to]);
        return changes;
    }

    private long Turn(int i, int before, int from, int to) =>
        (_cm[i - 1][from] - _cm[i - 2][before]) * (_cm[i][to] - _cm[i - 1][from]) < 0 ? _turn[i] : 0;

    private static bool Allowed(int[]? only, int note, int way) => only is null || only[note] < 0 || only[note] == way;

    /// <summary>What the cheapest line up to each way costs; up to each pair of ways where turns count, the first note apart.</summary>
    private long[][] Forward(int[]? only)
    {
        var forward = new long[Count][];
        forward[0] = [.. _alone[0].Select((cost, way) => Allowed(only, 0, way) ? cost : Never)];
        for (var i = 1; i < Count; i++)
            forward[i] = _hasTurns
                ? (i == 1 ? FirstPairs(forward[0], only) : NextPairs(i, forward[i - 1], only))
                : Next(i, forward[i - 1], only);
        return forward;
    }

    private long[] Next(int i, long[] before, int[]? only)
    {
        var (alone, change) = (_alone[i], _change[i]);
        var next = new long[alone.Length];
        for (var to = 0; to < next.Length; to++)
        {
            var cheapest = Never;
            for (var from = 0; from < before.Length; from++)
                cheapest = Math.Min(cheapest, before[from] + change[(from * next.Length) + to]);
            next[to] = Allowed(only, i, to) ? cheapest + alone[to] : Never;
        }

        return next;
    }

    private long[] FirstPairs(long[] first, int[]? only)
    {
        var to = _alone[1].Length;
        var pairs = new long[first.Length * to];
        for (var pair = 0; pair < pairs.Length; pair++)
            pairs[pair] = Allowed(only, 1, pair % to) ? first[pair / to] + _change[1][pair] + _alone[1][pair % to] : Never;
        return pairs;
    }

    private long[] NextPairs(int i, long[] before, int[]? only)
    {
        var (first, from, to) = (_cm[i - 2], _cm[i - 1], _cm[i]);
        var next = new long[from.Length * to.Length];
        for (var b = 0; b < from.Length; b++)
        for (var c = 0; c < to.Length; c++)
        {
            var (cheapest, away) = (Never, to[c] - from[b]);
            for (var a = 0; a < first.Length; a++)
            {
                var turn = (from[b] - first[a]) * away < 0 ? _turn[i] : 0;
                cheapest = Math.Min(cheapest, before[(a * from.Length) + b] + turn);
            }

            var pair = (b * to.Length) + c;
            next[pair] = Allowed(only, i, c) ? cheapest + _change[i][pair] + _alone[i][c] : Never;
        }

        return next;
    }

    /// <summary>Back along what gave each cost; of equal ways the first.</summary>
    private int[] BackByNotes(long[][] forward, long cost)
    {
        var path = new int[Count];
        path[^1] = Array.IndexOf(forward[^1], cost);
        for (var i = Count - 1; i > 0; i--)
        {
            var left = forward[i][path[i]] - _alone[i][path[i]];
            while (forward[i - 1][path[i - 1]] + _change[i][(path[i - 1] * _alone[i].Length) + path[i]] != left)
                path[i - 1]++;
        }

        return path;
    }

    private int[] BackByPairs(long[][] forward, long cost)
    {
        var path = new int[Count];
        var last = Array.IndexOf(forward[^1], cost);
        (path[^2], path[^1]) = (last / _alone[^1].Length, last % _alone[^1].Length);
        for (var i = Count - 1; i > 1; i--)
        {
            var pair = (path[i - 1] * _alone[i].Length) + path[i];
            var left = forward[i][pair] - _change[i][pair] - _alone[i][path[i]];
            while (forward[i - 1][(path[i - 2] * _alone[i - 1].Length) + path[i - 1]] + Turn(i, path[i - 2], path[i - 1], path[i]) != left)
                path[i - 2]++;
        }

        return path;
    }

    private long[][] ThroughNotes()
    {
        var forward = _forward ??= Forward(null);
        var through = new long[Count][];
        var rest = new long[_alone[^1].Length];
        for (var i = Count - 1; i >= 0; i--)
        {
            through[i] = new long[rest.Length];
            for (var way = 0; way < rest.Length; way++)
                through[i][way] = forward[i][way] + rest[way];
            rest = i > 0 ? RestBefore(i, rest) : rest;
        }

        return through;
    }

    /// <summary>What is still to come after each way, one note further to the front.</summary>
    private long[] RestBefore(int i, long[] rest)
    {
        var earlier = new long[_alone[i - 1].Length];
        for (var from = 0; from < earlier.Length; from++)
        {
            var cheapest = Never;
            for (var to = 0; to < rest.Length; to++)
                cheapest = Math.Min(cheapest, _change[i][(from * rest.Length) + to] + _alone[i][to] + rest[to]);
            earlier[from] = cheapest;
        }

        return earlier;
    }

    private long[][] ThroughPairs()
    {
        var forward = _forward ??= Forward(null);
        var through = _alone.Select(ways => Enumerable.Repeat(Never, ways.Length).ToArray()).ToArray();
        var rest = new long[forward[^1].Length];
        for (var i = Count - 1; i > 0; i--)
        {
            var to = _alone[i].Length;
            for (var pair = 0; pair < rest.Length; pair++)
            {
                var cost = forward[i][pair] + rest[pair];
                through[i][pair % to] = Math.Min(through[i][pair % to], cost);
                through[i - 1][pair / to] = Math.Min(through[i - 1][pair / to], cost);
            }

            rest = i > 1 ? RestBeforePair(i, rest) : rest;
        }

        return through;
    }

    /// <summary>What is still to come after a pair of ways, one note further to the front.</summary>
    private long[] RestBeforePair(int i, long[] rest)
    {
        var (first, from, to) = (_cm[i - 2], _cm[i - 1], _cm[i]);
        var earlier = new long[first.Length * from.Length];
        for (var b = 0; b < from.Length; b++)
        for (var a = 0; a < first.Length; a++)
        {
            var (cheapest, came) = (Never, from[b] - first[a]);
            for (var c = 0; c < to.Length; c++)
            {
                var turn = came * (to[c] - from[b]) < 0 ? _turn[i] : 0;
                var pair = (b * to.Length) + c;
                cheapest = Math.Min(cheapest, turn + _change[i][pair] + _alone[i][c] + rest[pair]);
            }

            earlier[(a * from.Length) + b] = cheapest;
        }

        return earlier;
    }
}
