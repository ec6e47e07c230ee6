using System.Numerics;

namespace Bocca.Core.Practice.Week;

/// <summary>
/// Plans a week: an integer programme in which every item takes a set of days, solved by branch and bound, depth first. It ends at a
/// number of nodes, never at a time, so that the same question has the same answer on every machine; then the gap is told.
/// </summary>
/// <remarks>
/// What an item is worth on a set of days follows from the set alone; the days' limits bind the items together: minutes with the rests of
/// the day as it is laid out, seconds above the ceiling, on the lips alone, of breath drills, and one item a day above the ceiling. It
/// begins with a week made greedily and mended item by item. The bound of a partial plan is Lagrange's: the seconds of each day have a
/// price (found by subgradient steps before the search); what is left of the week is worth at most its seconds at their price, and of every
/// item left its best set of days at what it brings beyond the price of its seconds.
/// </remarks>
public static class WeekPlanner
{
    /// <summary>Partial plans looked at, at most (ours): some tens of milliseconds.</summary>
    public const int MostNodes = 50_000;

    /// <summary>Each further day of an item is worth so much of the one before (ours, editable).</summary>
    private const double Again = 0.6;

    /// <summary>
    /// What a round counts after so many days without it: a recall that comes too soon brings little, something new may come every day
    /// (common practice: reviews at 1, 3, 7 days; the numbers are ours).
    /// </summary>
    private static double Fresh(WeekKind kind, int gap) =>
        (kind, gap) switch
        {
            (WeekKind.Recall, 1) => 0.4,
            (WeekKind.Recall, 2) => 0.7,
            (WeekKind.New, 1) => 0.8,
            _ => 1,
        };

    /// <summary>A round that the spacing does not ask for is worth so much of the first (ours).</summary>
    private const double Filling = 0.05;

    /// <summary>Each day that a recall waits costs so much of it (ours).</summary>
    private const double Waiting = 0.08;

    /// <summary>What a teacher locked goes before everything that was not: more than all of it together is worth.</summary>
    internal const double AsLocked = 1000;

    /// <summary>A round that stays where it stands goes before what any other day of it is worth, and after what was locked.</summary>
    internal const double AsStanding = 100;

    /// <summary>What staying where it stands counts for an item on a set of days: each round that leaves or comes costs as much.</summary>
    internal static double Standing(WeekItem item, int days)
    {
        if (item.Stands is not { } stands || item.Locked is not null)
            return 0;
        var stood = stands.Sum(day => 1 << day);
        var (left, come) = (BitOperations.PopCount((uint)(stood & ~days)), BitOperations.PopCount((uint)(days & ~stood)));
        return AsStanding * (WeekAsked.Days - Math.Max(left, come));
    }

    /// <summary>Plans a week.</summary>
    /// <exception cref="ArgumentException">It cannot be asked so.</exception>
    public static WeekPlan Plan(WeekAsked asked, int mostNodes = MostNodes)
    {
        asked.Check();
        var search = new WeekSearch(asked, mostNodes);
        search.Run();
        var days = Enumerable.Range(0, WeekAsked.Days).Select(day => WeekLayout.Of(day, [.. search.ItemsOn(day)], asked.Limits)).ToList();
        var byHand = (search.LockedPlaced * AsLocked) + search.Standing;
        return new WeekPlan(days, [.. search.Left()], search.Best - byHand, search.Bound - byHand, search.Nodes)
        {
            Refused = [.. Refused(asked)],
        };
    }

    /// <summary>The days to which items are locked and on which they may not be.</summary>
    private static IEnumerable<RefusedDay> Refused(WeekAsked asked) =>
        asked.Items.SelectMany(item =>
            (item.Locked ?? [])
                .Select(day => (day, Why: Barred(item, day, asked)))
                .Where(each => each.Why is not null)
                .Select(each => new RefusedDay(item, each.day, each.Why!))
        );

    /// <summary>
    /// What an item is worth on a set of days, in points: its best rounds in their spacing, and a little for each more, which fills minutes
    /// that would else be left.
    /// </summary>
    /// <param name="item">The item.</param>
    /// <param name="days">The days, a bit each.</param>
    public static double Worth(WeekItem item, int days) => Worths(item)[days];

    /// <summary>The same for every set of days.</summary>
    internal static double[] Worths(WeekItem item)
    {
        var worths = new double[1 << WeekAsked.Days];
        for (var days = 1; days < worths.Length; days++)
        {
            worths[days] = Spaced(item, days);
            for (var left = days; left != 0; left &= left - 1)
                worths[days] = Math.Max(worths[days], worths[days & ~(left & -left)] + (Filling * item.Urgency));
        }

        return worths;
    }

    private static double Spaced(WeekItem item, int days)
    {
        var (sum, rounds, before) = (0.0, 0.0, -WeekAsked.Days);
        for (var day = 0; day < WeekAsked.Days; day++)
        {
            if ((days & (1 << day)) == 0)
                continue;
            var fresh = Fresh(item.Kind, day - before);
            var worth = item.Urgency * fresh * Math.Pow(Again, rounds);
            if (item.Kind == WeekKind.Recall && before < 0)
                worth *= 1 - (Waiting * (day - item.From));
            sum += worth;
            // A warm-up is as good every day.
            rounds += item.Kind == WeekKind.WarmUp ? 0 : fresh;
            before = day;
        }

        return sum;
    }

    /// <summary>
    /// Seconds that a round takes of its day at least, with its share of the rests: what is played needs a rest less than it fills the time
    /// that is played at a time.
    /// </summary>
    internal static double Cost(WeekItem item, WeekAsked asked) =>
        item.Amount.Seconds + (asked.Limits.OffSeconds * item.Amount.PlayedSeconds / asked.Limits.OnSeconds);

    /// <summary>Seconds of a day as the shares of rests count them: the last one needs none after it.</summary>
    internal static double Capacity(WeekAsked asked, int day) =>
        asked.SecondsOf(day) is var seconds and > 0 ? seconds + asked.Limits.OffSeconds : 0;

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
        return item.Amount.Seconds > asked.SecondsOf(day) ? "The day has not that many minutes." : null;
    }
}
