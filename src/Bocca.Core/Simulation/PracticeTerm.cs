using Bocca.Core.Health;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>What a simulated term came to.</summary>
/// <param name="Retained">Of twelve items so many are expected to come a week after the term, at first try.</param>
/// <param name="HighMinutes">Minutes played above the ceiling.</param>
/// <param name="OverCapDays">Days on which more was played above the ceiling than a day allows.</param>
/// <param name="Minutes">Minutes of practice, rests included.</param>
public sealed record TermOutcome(double Retained, double HighMinutes, int OverCapDays, double Minutes);

/// <summary>How the weeks of a simulated term are made.</summary>
public enum TermPlan
{
    /// <summary>Planned from what is due, what does not come for good yet, and what is new.</summary>
    Planned,

    /// <summary>The same every day, from the top of a list that grows at its end.</summary>
    SameList,

    /// <summary>The same every day, what is newest first.</summary>
    SameNewest,
}

/// <summary>
/// A term of twelve weeks with a simulated pupil, who learns one new item a week, forgets, tires and misses days; once with planned weeks,
/// once with the same every day. The pupil is a model, no child: what it shows is how plans differ under it, nothing more.
/// </summary>
/// <remarks>
/// Memory is the activation model of Pavlik and Anderson 2005 (doi:10.1207/s15516709cog0000_14; their parameter values from memory), which
/// the planner does not know: it goes by reviews after 1, 3, 7, 14 and 28 days. Learning is exponential in the minutes of fresh practice
/// (Heathcote, Brown and Mewhort 2000, doi:10.3758/BF03212979); how fast, how tired and how often a day is missed differs by pupil (ours).
/// </remarks>
public sealed class PracticeTerm
{
    /// <summary>Weeks of a term.</summary>
    public const int Weeks = 12;

    private const double MinutesADay = 12;

    /// <summary>Decay of a presentation by the activation at it, threshold and noise; seconds between sessions count so much.</summary>
    private const double DecayScale = 0.217,
        DecayIntercept = 0.177,
        Threshold = -0.704,
        Noise = 0.255,
        BetweenSessions = 0.025;

    private const double SecondsADay = 86400;

    /// <summary>Days to the next review after so many in a row that came (common practice).</summary>
    private static readonly int[] Reviews = [1, 3, 7, 14, 28];

    private static readonly PlayingLimits Limits = PlayingLimits.For(LearningStage.FirstNotes, PlayingLimits.FirstDays);

    private readonly Random _random;
    private readonly double _rate;
    private readonly double _missed;
    private readonly double _tires;
    private readonly Learnt[] _items = [.. Enumerable.Range(0, Weeks).Select(_ => new Learnt())];

    private double _minutes,
        _high;

    private int _overCap;

    private PracticeTerm(int seed)
    {
        _random = new Random(seed);
        _rate = 0.12 * Math.Exp(0.4 * Normal());
        _missed = 0.35 * _random.NextDouble();
        _tires = 60 + (120 * _random.NextDouble());
    }

    /// <summary>Runs a term.</summary>
    /// <param name="seed">Which pupil.</param>
    /// <param name="by">How its weeks are made.</param>
    public static TermOutcome Run(int seed, TermPlan by)
    {
        var term = new PracticeTerm(seed);
        var tired = false;
        for (var week = 0; week < Weeks; week++)
        {
            var days = by == TermPlan.Planned ? term.Planned(week, tired) : Same(week, newestFirst: by == TermPlan.SameNewest);
            tired = false;
            for (var day = 0; day < days.Count; day++)
                // The same days are missed whatever the plan.
                if (new Random((seed * 1009) + (7 * week) + day).NextDouble() >= term._missed)
                    tired = term.Practise((7 * week) + day, days[day]) || tired;
        }

        var at = ((7 * Weeks) + 7) * SecondsADay;
        return new TermOutcome(term._items.Sum(item => item.Skill * item.Recall(at)), term._high / 60, term._overCap, term._minutes);
    }

    /// <summary>An item as a week has it; every sixth goes above the ceiling.</summary>
    private static WeekItem Item(int number, WeekKind kind, double urgency) =>
        new($"item:{number}", $"item {number}", kind, Amount.Of(16, 8, 4, 60), urgency, "It comes at first.", "")
        {
            HighSeconds = number % 6 == 5 ? 64 : 0,
        };

    private static WeekItem WarmUp => new("warm", "long notes", WeekKind.WarmUp, Amount.Of(8, 4, 4, 60), 6, "Even.", "");

    private List<List<WeekItem>> Planned(int week, bool tired)
    {
        var first = 7 * week;
        List<WeekItem> items = [WarmUp, Item(week, WeekKind.New, 6)];
        // What is due is wanted most, then what does not come for good yet; what is neither fills the minutes that are left.
        items.AddRange(
            Enumerable
                .Range(0, week)
                .OrderBy(number => _items[number].DueDay)
                .Take(WeekAsked.MostItems - items.Count)
                .Select(number =>
                    _items[number].Open ? Item(number, WeekKind.Gate, 6)
                    : _items[number].DueDay < first + WeekAsked.Days ? Item(number, WeekKind.Recall, 7) with { Most = 2 }
                    : Item(number, WeekKind.Liked, 2)
                )
        );
        var asked = new WeekAsked([.. Enumerable.Repeat(MinutesADay, 6), 0], items, Limits) { Tired = tired ? 1 : 0 };
        return [.. WeekPlanner.Plan(asked, mostNodes: 10_000).Days.Select(day => day.Rounds.Select(round => round.Item).ToList())];
    }

    /// <summary>The same every day: the warm-up, then everything learnt so far in one order, as long as the minutes last.</summary>
    private static List<List<WeekItem>> Same(int week, bool newestFirst)
    {
        var (day, seconds) = (new List<WeekItem>(), 0.0);
        var order = Enumerable.Range(0, week + 1).Select(at => newestFirst ? week - at : at);
        foreach (var item in order.Select(number => Item(number, WeekKind.Recall, 7)).Prepend(WarmUp))
        {
            var rest = Limits.OffSeconds * item.Amount.PlayedSeconds / Limits.OnSeconds;
            if ((seconds += item.Amount.Seconds + rest) > MinutesADay * 60)
                break;
            day.Add(item);
        }

        return [.. Enumerable.Repeat(day, 6), []];
    }

    /// <summary>Practises a day.</summary>
    /// <returns>Whether the lips are tired after it.</returns>
    private bool Practise(int day, List<WeekItem> items)
    {
        var (now, played, high, since) = (day * SecondsADay, 0.0, 0.0, 0.0);
        foreach (var item in items)
        {
            if (since + item.Amount.PlayedSeconds > Limits.OnSeconds)
                (now, since) = (now + Limits.OffSeconds, 0);
            var fresh = 1 - (0.4 * Math.Min(1, since / Limits.OnSeconds)) - (0.3 * Math.Min(1, high / _tires));
            if (item.Id.StartsWith("item:", StringComparison.Ordinal))
                Meet(_items[int.Parse(item.Id[5..], System.Globalization.CultureInfo.InvariantCulture)], item, now, day, fresh);
            now += item.Amount.Seconds;
            since += item.Amount.PlayedSeconds;
            played += item.Amount.PlayedSeconds;
            high += item.HighSeconds;
        }

        _minutes += (now - (day * SecondsADay)) / 60;
        _high += high;
        _overCap += high > Limits.HighSecondsADay ? 1 : 0;
        return high > _tires || played > 4 * Limits.OnSeconds;
    }

    private void Meet(Learnt item, WeekItem round, double now, int day, double fresh)
    {
        var came = _random.NextDouble() < item.Recall(now) * item.Skill;
        item.Skill += (1 - item.Skill) * (1 - Math.Exp(-_rate * fresh * round.Amount.PlayedSeconds / 60));
        item.Present(now);
        item.Came(came);
        item.Streak = came ? Math.Min(item.Streak + 1, Reviews.Length - 1) : 0;
        item.DueDay = day + Reviews[item.Streak];
    }

    private double Normal() => Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble())) * Math.Cos(2 * Math.PI * _random.NextDouble());

    /// <summary>What a pupil has of an item.</summary>
    private sealed class Learnt
    {
        private const int LastTries = 3;

        private readonly Queue<bool> _came = [];
        private readonly List<(double At, double Decay)> _presented = [];

        public double Skill { get; set; }

        public int Streak { get; set; }

        public int DueDay { get; set; }

        /// <summary>Whether it does not come for good yet: of its last three tries one was missed.</summary>
        public bool Open => _came.Count(each => each) < LastTries;

        public void Came(bool came)
        {
            _came.Enqueue(came);
            if (_came.Count > LastTries)
                _came.Dequeue();
        }

        /// <summary>The likelihood that it comes to mind at a moment.</summary>
        public double Recall(double now) => _presented.Count == 0 ? 0 : 1 / (1 + Math.Exp((Threshold - Activation(now)) / Noise));

        public void Present(double now) =>
            _presented.Add((now, DecayIntercept + (_presented.Count == 0 ? 0 : DecayScale * Math.Exp(Activation(now)))));

        private double Activation(double now) => Math.Log(_presented.Sum(each => Math.Pow(Aged(now - each.At), -each.Decay)));

        /// <summary>Seconds as memory counts them: those between sessions less.</summary>
        private static double Aged(double seconds) => seconds < SecondsADay / 2 ? Math.Max(1, seconds) : BetweenSessions * seconds;
    }
}
