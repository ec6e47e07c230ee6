using System.Numerics;

namespace Bocca.Core.Practice.Week;

/// <summary>
/// Plans a week: an integer programme in which every item takes a set of days, solved by branch and bound, depth first. It ends at a
/// number of nodes, never at a time, so that the same question has the same answer on every machine; then the gap is told.
/// </summary>
/// <remarks>
/// What an item is worth on a set of days follows from the set alone; the days' limits bind the items together: minutes, seconds above
/// the ceiling, on the lips alone, of breath drills, and one item a day that goes above the ceiling. The bound of a partial plan is
/// Lagrange's: the seconds of each day have a price (found by subgradient steps before the search); what is left of the week is worth at
/// most its seconds at their price, and of every item left its best set of days at what it brings beyond the price of its seconds.
/// </remarks>
public static class WeekPlanner
{
    /// <summary>Partial plans looked at, at most (ours): some tens of milliseconds.</summary>
    public const int MostNodes = 100_000;

    /// <summary>Steps towards the prices, and kinds of limits of a day.</summary>
    private const int PriceSteps = 300,
        Limits = 5;

    /// <summary>Each further day of an item is worth so much of the one before (ours, editable).</summary>
    private const double Again = 0.6;

    /// <summary>A recall or something new on the day after is worth so much: what is too close together hardly counts (ours).</summary>
    private const double TooClose = 0.4;

    /// <summary>Each day that a recall waits costs so much of it (ours).</summary>
    private const double Waiting = 0.08;

    /// <summary>Plans a week.</summary>
    /// <exception cref="ArgumentException">It cannot be asked so.</exception>
    public static WeekPlan Plan(WeekAsked asked, int mostNodes = MostNodes)
    {
        asked.Check();
        var search = new Search(asked, mostNodes);
        search.Run();
        var days = Enumerable.Range(0, WeekAsked.Days).Select(day => WeekLayout.Of(day, [.. search.ItemsOn(day)], asked.Limits)).ToList();
        return new WeekPlan(days, [.. search.Left()], search.Best, search.Bound, search.Nodes);
    }

    /// <summary>What an item is worth on a set of days, in points.</summary>
    /// <param name="item">The item.</param>
    /// <param name="days">The days, a bit each.</param>
    public static double Worth(WeekItem item, int days)
    {
        var (sum, share, before) = (0.0, 1.0, -2);
        for (var day = 0; day < WeekAsked.Days; day++)
        {
            if ((days & (1 << day)) == 0)
                continue;
            var worth = item.Urgency * share;
            if (item.Kind is WeekKind.Recall or WeekKind.New && before == day - 1)
                worth *= TooClose;
            if (item.Kind == WeekKind.Recall && before < 0)
                worth *= 1 - (Waiting * (day - item.From));
            sum += worth;
            // A warm-up is as good every day.
            share *= item.Kind == WeekKind.WarmUp ? 1 : Again;
            before = day;
        }

        return sum;
    }

    /// <summary>Seconds that a round takes of its day, with the most rest that it can bring about.</summary>
    public static double Cost(WeekItem item, WeekAsked asked) =>
        item.Amount.Seconds + (2 * asked.Limits.OffSeconds * item.Amount.PlayedSeconds / asked.Limits.OnSeconds);

    /// <summary>Why an item may not be done on a day; null where it may.</summary>
    public static string? Barred(WeekItem item, int day, WeekAsked asked)
    {
        if (item.Sounds && asked.Barred is { } ailment)
            return ailment;
        if (item.Amount.PlayedSeconds > asked.Limits.OnSeconds)
            return "It is longer than may be played at a time.";
        if (item.HighSeconds > 0 && asked.Tired > 0)
            return "Nothing high while the lips are tired.";
        if (item.HighSeconds > asked.Limits.HighSecondsADay)
            return "It is longer above the ceiling than a day allows.";
        if (item.LipSeconds > asked.LipSecondsADay || item.BreathSeconds > asked.BreathSecondsADay)
            return "It is longer than a day allows of it.";
        if (item.Kind is WeekKind.New or WeekKind.Stretch && day == asked.Exam - 1)
            return "Nothing new on the day before the exam.";
        if (item.Kind is not (WeekKind.WarmUp or WeekKind.Liked) && day == asked.Exam)
            return "On the day of the exam only what warms up and what is liked.";
        // A day that a teacher chose goes before the day on which it would be due.
        if (item.Locked is { } locked && !locked.Contains(day))
            return "It is locked to other days.";
        if (item.Locked is null && day < item.From)
            return "It is not due yet.";
        return Cost(item, asked) > asked.SecondsOf(day) ? "The day has not that many minutes." : null;
    }

    /// <summary>The search.</summary>
    private sealed class Search
    {
        private readonly WeekAsked _asked;
        private readonly int _mostNodes;
        private readonly WeekItem[] _items;

        /// <summary>Of each item the sets of days it may have, those that bring most beyond the price of their seconds first.</summary>
        private readonly (int Days, double Worth, double Beyond)[][] _sets;

        private readonly double[] _cost;
        private readonly double[,] _room = new double[WeekAsked.Days, Limits];
        private readonly double[] _price;

        /// <summary>What the items from one on bring at most beyond the price of their seconds.</summary>
        private readonly double[] _beyond;

        private readonly int[] _chosen;
        private int[] _best;

        public Search(WeekAsked asked, int mostNodes)
        {
            (_asked, _mostNodes) = (asked, mostNodes);
            // Those that bring most for their seconds first: good plans are found early, and much is cut off by them.
            _items =
            [
                .. asked.Items.OrderByDescending(item => item.Urgency / Cost(item, asked)).ThenBy(item => item.Id, StringComparer.Ordinal),
            ];
            _cost = [.. _items.Select(item => Cost(item, asked))];
            (_chosen, _best) = (new int[_items.Length], new int[_items.Length]);
            for (var day = 0; day < WeekAsked.Days; day++)
                (_room[day, 0], _room[day, 1], _room[day, 2], _room[day, 3], _room[day, 4]) = (
                    asked.SecondsOf(day),
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
            _beyond = new double[_items.Length + 1];
            for (var at = _items.Length - 1; at >= 0; at--)
                _beyond[at] = _beyond[at + 1] + _sets[at][0].Beyond;
        }

        public double Best { get; private set; } = -1;

        public double Bound { get; private set; }

        public int Nodes { get; private set; }

        public void Run()
        {
            Bound = SecondsAtPrice() + _beyond[0];
            var whole = Branch(0, 0);
            if (whole)
                Bound = Best;
        }

        public IEnumerable<WeekItem> ItemsOn(int day) => _items.Where((_, i) => (_best[i] & (1 << day)) != 0);

        public IEnumerable<LeftOut> Left() => _items.Where((_, i) => _best[i] == 0).Select(item => new LeftOut(item, WhyNot(item)));

        private string WhyNot(WeekItem item)
        {
            var barred = Enumerable.Range(0, WeekAsked.Days).Select(day => Barred(item, day, _asked)).ToList();
            return barred.TrueForAll(why => why is not null)
                ? barred.OfType<string>().GroupBy(why => why).MaxBy(same => same.Count())!.Key
                : "The minutes went to what is more urgent.";
        }

        /// <summary>The sets of days that an item may have; a locked one has its days and nothing else.</summary>
        private (int Days, double Worth)[] Sets(WeekItem item)
        {
            var open = Enumerable.Range(0, WeekAsked.Days).Where(day => Barred(item, day, _asked) is null).Sum(day => 1 << day);
            if (item.Locked is not null)
                return open == 0 ? [(0, 0)] : [(open, Worth(item, open)), (0, 0)];
            return
            [
                .. Enumerable
                    .Range(0, 1 << WeekAsked.Days)
                    .Where(days => (days & ~open) == 0 && BitOperations.PopCount((uint)days) <= item.Most)
                    .Select(days => (days, Worth(item, days)))
                    .OrderByDescending(set => set.Item2)
                    .ThenBy(set => set.days),
            ];
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
                if ((days & (1 << day)) != 0)
                    for (var limit = 0; limit < Limits; limit++)
                        if (Use(at, limit) > _room[day, limit] + 1e-9)
                            return false;
            return true;
        }

        private void Take(int at, int days, int sign)
        {
            for (var day = 0; day < WeekAsked.Days; day++)
                if ((days & (1 << day)) != 0)
                    for (var limit = 0; limit < Limits; limit++)
                        _room[day, limit] -= sign * Use(at, limit);
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
            var (best, least, step, since) = (price, double.MaxValue, 1.0, 0);
            for (var turn = 0; turn < PriceSteps; turn++)
            {
                var (bound, left) = (0.0, new double[WeekAsked.Days]);
                for (var day = 0; day < WeekAsked.Days; day++)
                {
                    left[day] = _asked.SecondsOf(day);
                    bound += price[day] * left[day];
                }

                for (var at = 0; at < sets.Length; at++)
                {
                    var (days, beyond) = (0, double.MinValue);
                    foreach (var set in sets[at])
                        if (set.Worth - (_cost[at] * PriceOf(set.Days, price)) is var each && each > beyond)
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
}
