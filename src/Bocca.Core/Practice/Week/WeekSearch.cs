using System.Numerics;

namespace Bocca.Core.Practice.Week;

/// <summary>The search of <see cref="WeekPlanner"/> for the best days of all items together.</summary>
internal sealed class WeekSearch
{
    /// <summary>Steps towards the prices, and kinds of limits of a day.</summary>
    private const int PriceSteps = 300,
        Limits = 5;

    private readonly WeekAsked _asked;
    private readonly int _mostNodes;
    private readonly WeekItem[] _items;

    /// <summary>Of each item the sets of days it may have, those that bring most beyond the price of their seconds first.</summary>
    private readonly (int Days, double Worth, double Beyond)[][] _sets;

    /// <summary>What each item is worth by its set of days.</summary>
    private readonly double[][] _worth;

    private readonly double[] _cost;

    /// <summary>How long the days are, and what is on each so far, a bit an item.</summary>
    private readonly DaySeconds _seconds;
    private readonly int[] _on = new int[WeekAsked.Days];

    private readonly double[,] _room = new double[WeekAsked.Days, Limits];
    private readonly double[] _price;

    /// <summary>What the items from one on bring at most beyond the price of their seconds.</summary>
    private readonly double[] _beyond;

    private readonly int[] _chosen;
    private int[] _best;

    public WeekSearch(WeekAsked asked, int mostNodes)
    {
        (_asked, _mostNodes) = (asked, mostNodes);
        // Those that bring most for their seconds first: good plans are found early, and much is cut off by them.
        _items =
        [
            .. asked
                .Items.OrderByDescending(item => item.Urgency / WeekPlanner.Cost(item, asked))
                .ThenBy(item => item.Id, StringComparer.Ordinal),
        ];
        _cost = [.. _items.Select(item => WeekPlanner.Cost(item, asked))];
        _seconds = new DaySeconds(_items, asked.Limits);
        (_chosen, _best) = (new int[_items.Length], new int[_items.Length]);
        for (var day = 0; day < WeekAsked.Days; day++)
            (_room[day, 0], _room[day, 1], _room[day, 2], _room[day, 3], _room[day, 4]) = (
                WeekPlanner.Capacity(asked, day),
                asked.Limits.HighSecondsADay,
                asked.LipSecondsADay,
                asked.BreathSecondsADay,
                1
            );
        (int Days, double Worth)[][] sets = [.. _items.Select(Sets)];
        _price = Prices(sets);
        _sets =
        [
            .. sets.Select(
                (own, at) =>
                    own.Select(set => (set.Days, set.Worth, Beyond: set.Worth - (_cost[at] * PriceOf(set.Days, _price))))
                        .OrderByDescending(set => set.Beyond)
                        .ThenBy(set => set.Days)
                        .ToArray()
            ),
        ];
        _worth = [.. sets.Select(ByDays)];
        _beyond = new double[_items.Length + 1];
        for (var at = _items.Length - 1; at >= 0; at--)
            _beyond[at] = _beyond[at + 1] + _sets[at][0].Beyond;
    }

    private static double[] ByDays((int Days, double Worth)[] sets)
    {
        var worth = new double[1 << WeekAsked.Days];
        foreach (var set in sets)
            worth[set.Days] = set.Worth;
        return worth;
    }

    public double Best { get; private set; } = -1;

    public double Bound { get; private set; }

    public int Nodes { get; private set; }

    public void Run()
    {
        Bound = SecondsAtPrice() + _beyond[0];
        Begin();
        var whole = Branch(0, 0);
        if (whole)
            Bound = Best;
    }

    public IEnumerable<WeekItem> ItemsOn(int day) => _items.Where((_, i) => (_best[i] & (1 << day)) != 0);

    public int LockedPlaced => _items.Where((item, i) => item.Locked is not null && _best[i] != 0).Count();

    public double Standing => _items.Select((item, i) => WeekPlanner.Standing(item, _best[i])).Sum();

    public IEnumerable<LeftOut> Left() => _items.Where((_, i) => _best[i] == 0).Select(item => new LeftOut(item, WhyNot(item)));

    private string WhyNot(WeekItem item)
    {
        if (item.Locked is { Count: 0 })
            return "Taken out by hand.";
        var barred = Enumerable.Range(0, WeekAsked.Days).Select(day => WeekPlanner.Barred(item, day, _asked)).ToList();
        return barred.TrueForAll(why => why is not null)
            ? barred.OfType<string>().GroupBy(why => why).MaxBy(same => same.Count())!.Key
            : "The minutes went to what is more urgent.";
    }

    /// <summary>The sets of days that an item may have; a locked one has its days and nothing else.</summary>
    private (int Days, double Worth)[] Sets(WeekItem item)
    {
        var open = Enumerable.Range(0, WeekAsked.Days).Where(day => WeekPlanner.Barred(item, day, _asked) is null).Sum(day => 1 << day);
        var worths = WeekPlanner.Worths(item);
        if (item.Locked is not null)
            return open == 0 ? [(0, 0)] : [(open, worths[open] + WeekPlanner.AsLocked), (0, 0)];
        return
        [
            .. Enumerable
                .Range(0, 1 << WeekAsked.Days)
                .Where(days => (days & ~open) == 0 && BitOperations.PopCount((uint)days) <= item.Most)
                .Select(days => (days, worths[days] + WeekPlanner.Standing(item, days)))
                .OrderByDescending(set => set.Item2)
                .ThenBy(set => set.days),
        ];
    }

    /// <summary>
    /// A good week to begin with: always the round that brings most for its seconds, until nothing fits; then each item in turn on its
    /// best days beside the others, until none can do better.
    /// </summary>
    private void Begin()
    {
        for (var (at, days) = Next(); at >= 0; (at, days) = Next())
            Change(at, days);
        for (var better = true; better; )
        {
            better = false;
            for (var at = 0; at < _items.Length; at++)
            {
                var had = _chosen[at];
                Change(at, 0);
                var best = _sets[at].Where(set => Fits(at, set.Days)).MaxBy(set => set.Worth);
                var keeps = best.Worth <= WorthOf(at, had) + 1e-9;
                Change(at, keeps ? had : best.Days);
                better |= !keeps;
            }
        }

        (Best, _best) = (_items.Select((_, at) => WorthOf(at, _chosen[at])).Sum(), (int[])_chosen.Clone());
        for (var at = 0; at < _items.Length; at++)
            Change(at, 0);
    }

    /// <summary>The next round to add: which item, and its days with it; none where nothing more fits.</summary>
    private (int At, int Days) Next()
    {
        var (next, most) = ((At: -1, Days: 0), 0.0);
        for (var at = 0; at < _items.Length; at++)
            foreach (var (days, worth, _) in _sets[at])
            {
                var more = days ^ _chosen[at];
                if (more == 0 || (days & more) != more || !IsOneMore(at, more))
                    continue;
                var brings = (worth - _worth[at][_chosen[at]]) / (_cost[at] * BitOperations.PopCount((uint)more));
                if (brings > most + 1e-12 && Fits(at, more))
                    (next, most) = ((at, days), brings);
            }

        return next;
    }

    /// <summary>Days are added one by one; a locked item has all of its days at once.</summary>
    private bool IsOneMore(int at, int more) => _items[at].Locked is not null || BitOperations.IsPow2(more);

    private double WorthOf(int at, int days) => _worth[at][days];

    private void Change(int at, int days)
    {
        Take(at, _chosen[at], -1);
        Take(at, days, 1);
        _chosen[at] = days;
    }

    /// <summary>Tries every set of days of an item; false where the nodes ran out.</summary>
    private bool Branch(int at, double worth)
    {
        if (at == _items.Length)
        {
            if (worth > Best + 1e-12)
                (Best, _best) = (worth, (int[])_chosen.Clone());
            return true;
        }

        var seconds = SecondsAtPrice();
        foreach (var (days, own, beyond) in _sets[at])
        {
            if (++Nodes > _mostNodes)
                return false;
            // The sets come by what they bring beyond their price: once the rest cannot make up for it, no later set can.
            if (worth + seconds + beyond + _beyond[at + 1] <= Best + 1e-12)
                break;
            if (!Fits(at, days))
                continue;
            Take(at, days, 1);
            _chosen[at] = days;
            var whole = Branch(at + 1, worth + own);
            Take(at, days, -1);
            _chosen[at] = 0;
            if (!whole)
                return false;
        }

        return true;
    }

    private bool Fits(int at, int days)
    {
        for (var day = 0; day < WeekAsked.Days; day++)
        {
            if ((days & (1 << day)) == 0)
                continue;
            for (var limit = 0; limit < Limits; limit++)
                if (Use(at, limit) > _room[day, limit] + 1e-9)
                    return false;
            if (_seconds.Of(_on[day] | (1 << at)) > _asked.SecondsOf(day) + 1e-9)
                return false;
        }

        return true;
    }

    private void Take(int at, int days, int sign)
    {
        for (var day = 0; day < WeekAsked.Days; day++)
        {
            if ((days & (1 << day)) == 0)
                continue;
            _on[day] ^= 1 << at;
            for (var limit = 0; limit < Limits; limit++)
                _room[day, limit] -= sign * Use(at, limit);
        }
    }

    private double Use(int at, int limit) =>
        limit switch
        {
            0 => _cost[at],
            1 => _items[at].HighSeconds,
            2 => _items[at].LipSeconds,
            3 => _items[at].BreathSeconds,
            _ => _items[at].HighSeconds > 0 ? 1 : 0,
        };

    /// <summary>What the seconds left of the week are worth at their price.</summary>
    private double SecondsAtPrice()
    {
        var sum = 0.0;
        for (var day = 0; day < WeekAsked.Days; day++)
            sum += _price[day] * Math.Max(0, _room[day, 0]);
        return sum;
    }

    private static double PriceOf(int days, double[] price)
    {
        var sum = 0.0;
        for (var day = 0; day < WeekAsked.Days; day++)
            if ((days & (1 << day)) != 0)
                sum += price[day];
        return sum;
    }

    /// <summary>
    /// The prices of a second of each day that bound the whole most closely, by steps against the subgradient: dearer where more is
    /// wanted than there is, cheaper where something is left.
    /// </summary>
    private double[] Prices((int Days, double Worth)[][] sets)
    {
        var price = new double[WeekAsked.Days];
        var priced = new double[1 << WeekAsked.Days];
        var (best, least, step, since) = (price, double.MaxValue, 1.0, 0);
        for (var turn = 0; turn < PriceSteps; turn++)
        {
            var (bound, left) = (0.0, new double[WeekAsked.Days]);
            for (var days = 1; days < priced.Length; days++)
                priced[days] = priced[days & (days - 1)] + price[BitOperations.TrailingZeroCount(days)];
            for (var day = 0; day < WeekAsked.Days; day++)
            {
                left[day] = WeekPlanner.Capacity(_asked, day);
                bound += price[day] * left[day];
            }

            for (var at = 0; at < sets.Length; at++)
            {
                var (days, beyond) = (0, double.MinValue);
                foreach (var set in sets[at])
                    if (set.Worth - (_cost[at] * priced[set.Days]) is var each && each > beyond)
                        (days, beyond) = (set.Days, each);
                bound += beyond;
                for (var day = 0; day < WeekAsked.Days; day++)
                    if ((days & (1 << day)) != 0)
                        left[day] -= _cost[at];
            }

            if (bound < least - 1e-9)
                (best, least, since) = ((double[])price.Clone(), bound, 0);
            else if (++since % 8 == 0)
                step /= 2;
            var norm = left.Sum(each => each * each);
            if (norm < 1e-9)
                break;
            // The best plan is taken to lie a twentieth under the bound.
            for (var day = 0; day < WeekAsked.Days; day++)
                price[day] = Math.Max(0, price[day] - (step * 0.05 * bound / norm * left[day]));
        }

        return best;
    }
}
