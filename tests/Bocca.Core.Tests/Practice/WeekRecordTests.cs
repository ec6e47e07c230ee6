using Bocca.Core.Health;
using Bocca.Core.Music;
using Bocca.Core.Practice.Week;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Practice;

/// <summary>What the record says to the next week: what worked, how the lips are, what a teacher changed by hand.</summary>
public sealed class WeekRecordTests
{
    private static readonly PlayingLimits Limits = PlayingLimits.For(LearningStage.FirstNotes, 30);

    /// <summary>The gain is the slope of least squares; worked out here by the closed form of the textbooks.</summary>
    [Fact]
    public void The_gain_of_a_minute_is_the_slope_through_the_shares_with_its_error()
    {
        double[] shares = [0.2, 0.35, 0.4, 0.75, 0.6, 0.75];
        var gain = WhatWorked.Of(shares.Select((share, at) => new DrillTake("tone:a", 100 + at, share, 2, false)))["tone:a"];
        double[] x = [0, 2, 4, 6, 8, 10];
        var (mx, my) = (x.Average(), 100 * shares.Average());
        var sxx = x.Sum(at => (at - mx) * (at - mx));
        var slope = x.Zip(shares, (at, share) => (at - mx) * ((100 * share) - my)).Sum() / sxx;
        var off = x.Zip(shares, (at, share) => (100 * share) - my - (slope * (at - mx))).Sum(each => each * each);
        Assert.Equal(slope, gain.PerMinute, 1e-9);
        Assert.Equal(Math.Sqrt(off / 4 / sxx), gain.Error, 1e-9);
    }

    [Fact]
    public void What_worked_more_weighs_more_and_what_is_unsure_hardly_moves()
    {
        IEnumerable<DrillTake> Takes(string drill, Func<int, double> share, int count) =>
            Enumerable.Range(0, count).Select(at => new DrillTake(drill, 100 + at, share(at), 1, false));
        var gains = WhatWorked.Of([
            .. Takes("a", at => 0.1 + (0.08 * at), 10),
            .. Takes("b", at => 0.5 + (0.001 * at), 10),
            .. Takes("c", at => at % 2 == 0 ? 0.2 : 0.9, 4),
            .. Takes("d", _ => 0.5, 3),
        ]);
        Assert.True(gains["a"].Weight > gains["b"].Weight);
        Assert.All(gains.Values, gain => Assert.InRange(gain.Weight, 0.7, 1.3));
        Assert.True(Math.Abs(gains["c"].Weight - 1) < Math.Abs(gains["a"].Weight - 1));
        Assert.Equal((1.0, "3 takes: too few to tell"), (gains["d"].Weight, gains["d"].Words));
    }

    [Fact]
    public void What_is_lost_from_day_to_day_is_wanted_sooner()
    {
        var takes = Enumerable
            .Range(0, 8)
            .SelectMany(day => new[] { new DrillTake("a", day, 0.4, 1, false), new DrillTake("a", day, 0.8, 1, false) });
        var gain = WhatWorked.Of(takes)["a"];
        Assert.Equal(0.5, gain.Kept!.Value, 1e-9);
        Assert.True(gain.Weight > 1);
    }

    [Theory]
    [InlineData("0.7 0.7 0.7", false, WeekKind.Gate)]
    [InlineData("0.4 0.4 0.4", false, WeekKind.Stretch)]
    [InlineData("0.1 0.1", false, null)]
    [InlineData("0.7 0.9", true, null)]
    public void Near_a_gate_and_a_little_too_hard_are_told_by_the_last_takes(string shares, bool passed, WeekKind? kind)
    {
        var all = shares.Split(' ');
        var takes = all.Select((share, at) => new DrillTake("a", at, double.Parse(share), 1, passed && at == all.Length - 1)).ToList();
        Assert.Equal(kind, WhatWorked.Standing(takes));
    }

    [Fact]
    public void Each_sign_of_tired_lips_is_a_step()
    {
        LipDay Day(int day, double share, double high = 0) => new(day, [.. Enumerable.Repeat(share, 3)], high);
        Assert.Equal(0, LipState.Of("fresh", [Day(1, 0.8), Day(2, 0.8), Day(3, 0.8)], 120).Tired);
        Assert.Equal(1, LipState.Of("tired", [], 120).Tired);
        Assert.Equal(2, LipState.Of("sore", [], 120).Tired);
        Assert.Contains("Three weaker days", LipState.Of("", [Day(1, 0.9), Day(2, 0.8), Day(3, 0.6)], 120).Signs.Single());
        Assert.Contains("above the ceiling", LipState.Of("", [Day(1, 0.8, 120), Day(2, 0.8, 130)], 120).Signs.Single());
        Assert.Contains("last third", LipState.Of("", [new LipDay(1, [0.9, 0.9, 0.9, 0.9, 0.5, 0.5], 0)], 120).Signs.Single());
        Assert.Equal(3, LipState.Of("sore", [Day(1, 0.9, 120), Day(2, 0.8, 120), Day(3, 0.6, 120)], 120).Tired);
    }

    [Fact]
    public void What_is_locked_by_hand_goes_before_everything_else_and_a_day_that_bars_it_is_said()
    {
        WeekItem Item(string id, double urgency, WeekKind kind = WeekKind.Fault) =>
            new(id, id, kind, Amount.Of(16, 8, 4, 60), urgency, "", "");
        var plain = new WeekAsked([3, 0, 3, 0, 0, 0, 0], [Item("a", 10), Item("b", 1)], Limits);
        Assert.Contains(WeekPlanner.Plan(plain).Left, left => left.Item.Id == "b");
        var locked = plain with { Items = [Item("a", 10), Item("b", 1) with { Locked = [0, 1] }] };
        var plan = WeekPlanner.Plan(locked);
        Assert.Equal("b", plan.Days[0].Rounds.Single().Item.Id);
        Assert.Equal(("b", 1), (plan.Refused.Single().Item.Id, plan.Refused.Single().Day));
        Assert.InRange(plan.Worth, 1, 30);
        Assert.True(plan.Bound >= plan.Worth - 1e-9);
        var without = WeekPlanner.Plan(plain with { Items = [Item("a", 10) with { Locked = [] }, Item("b", 1)] });
        Assert.Equal("Taken out by hand.", without.Left.Single().Why);
        Assert.Equal("b", without.Days[0].Rounds.Single().Item.Id);
    }

    /// <summary>A day that was missed is not made up for: the days left hold what they would have held.</summary>
    [Fact]
    public void A_missed_day_is_not_doubled()
    {
        WeekItem[] items =
        [
            .. Enumerable.Range(0, 4).Select(at => new WeekItem($"{at}", $"{at}", WeekKind.Fault, Amount.Of(8, 8, 4, 60), 5 + at, "", "")),
        ];
        var whole = new WeekAsked([10, 10, 10, 10, 10, 10, 0], items, Limits);
        var plan = WeekPlanner.Plan(whole with { Minutes = [0, 10, 10, 10, 10, 10, 0] });
        Assert.All(plan.Days, day => Assert.True(day.Seconds <= 600));
        Assert.All(plan.Days, day => Assert.Equal(day.Rounds.Count, day.Rounds.DistinctBy(round => round.Item.Id).Count()));
    }

    [Fact]
    public void The_same_week_is_planned_alike_every_time()
    {
        var items = Enumerable
            .Range(0, 10)
            .Select(at => new WeekItem($"{at}", $"{at}", (WeekKind)(at % 8), Amount.Of(4 + at, 4, 4, 60), 3 + (at % 5), "", ""))
            .ToList();
        var asked = new WeekAsked([12, 12, 12, 12, 12, 12, 0], items, Limits);
        string Told(WeekPlan plan) =>
            string.Join("|", plan.Days.Select(day => string.Join(",", day.Rounds.Select(round => round.Item.Id))));
        var once = Told(WeekPlanner.Plan(asked));
        Assert.Equal(once, Told(WeekPlanner.Plan(asked)));
        // The order in which things were asked for is no reason for another week.
        Assert.Equal(once, Told(WeekPlanner.Plan(asked with { Items = [.. Enumerable.Reverse(items)] })));
    }

    [Fact]
    public void A_week_of_one_note_has_that_note_and_no_other()
    {
        WeekItem Item(string id) => new(id, id, WeekKind.Fault, Amount.Of(8, 8, 4, 60), 5, "", "");
        var items = OneNoteWeek.Of(
            [Item("tone:new-note"), Item("buzz:long-buzz"), Item("slurs"), Item("breath:even-stream")],
            Pitch.Parse("C4")
        );
        Assert.Equal(["note:C4", "buzz:long-buzz", "breath:even-stream"], items.Select(item => item.Id));
    }

    /// <summary>The pupils are simulated; the full table of 200 is made by the benchmark.</summary>
    [Fact]
    public void A_simulated_term_of_planned_weeks_keeps_more_and_never_passes_the_ceilings_minutes()
    {
        var planned = Enumerable.Range(0, 12).Select(seed => PracticeTerm.Run(seed, TermPlan.Planned)).ToList();
        var same = Enumerable.Range(0, 12).Select(seed => PracticeTerm.Run(seed, TermPlan.SameList)).ToList();
        Assert.All(planned, term => Assert.Equal(0, term.OverCapDays));
        Assert.True(planned.Average(term => term.Retained) > same.Average(term => term.Retained));
        Assert.Equal(planned[3], PracticeTerm.Run(3, TermPlan.Planned));
    }
}
