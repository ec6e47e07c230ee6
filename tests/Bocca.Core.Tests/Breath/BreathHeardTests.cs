using Bocca.Core.Breath;
using Bocca.Core.Simulation;

namespace Bocca.Core.Tests.Breath;

public class BreathHeardTests
{
    private static readonly BreathPlan Plan = BreathPlan
        .Make(
            BreathDrill.Get("even-stream"),
            BreathDrill.Get("even-stream").Rungs[1],
            80,
            new BreathingPupil(14, BreathHealth.None, false),
            BreathDay.Fresh
        )
        .Plan!;

    private static (StreamHeard Stream, BreathVerdict Verdict) Hear(params string[] faults)
    {
        var sound = SimulatedBreath.Play(Plan, [.. faults.Select(Fault.Parse)], 5);
        var streams = BreathJudge.Streams(Plan, sound, 0);
        return (streams[0], BreathJudge.Judge(Plan, streams));
    }

    [Fact]
    public void An_even_stream_passes()
    {
        var (stream, verdict) = Hear();
        Assert.InRange(stream.UnbrokenSeconds, 5.85, 6.1);
        Assert.InRange(stream.StartSeconds!.Value, 2.95, 3.15);
        Assert.InRange(stream.VariationPercent!.Value, 0, 8);
        Assert.Empty(stream.Sags);
        Assert.True(verdict.Even);
    }

    // A sine of amplitude g on a level of 1 has a standard deviation of g / root 2 (computed).
    [Theory]
    [InlineData(0.2, 14.1)]
    [InlineData(0.5, 35.4)]
    public void Gusts_are_measured(double gust, double percent)
    {
        var (stream, verdict) = Hear($"gusty={gust}");
        Assert.InRange(stream.VariationPercent!.Value, percent - 4, percent + 4);
        Assert.Equal(percent <= 25, verdict.Even);
    }

    [Fact]
    public void A_hole_ends_the_unbroken_stream_and_a_short_one_is_told_in_seconds_and_counts()
    {
        Assert.InRange(Hear("break=400").Stream.UnbrokenSeconds, 2.6, 3);
        var (stream, verdict) = Hear("short=0.4");
        Assert.InRange(stream.UnbrokenSeconds, 3.4, 3.7);
        Assert.False(verdict.Even);
        Assert.Contains("counts", verdict.Summary);
        Assert.Contains("6.0 s asked", verdict.Summary);
    }

    [Fact]
    public void A_fading_stream_sags_at_its_end()
    {
        var (stream, verdict) = Hear("fade=3");
        var sag = Assert.Single(stream.Sags);
        Assert.InRange(sag.FromSeconds, 3.5, 5);
        Assert.False(verdict.Even);
        Assert.Contains("sagged", verdict.Summary);
    }

    [Fact]
    public void Silence_is_no_stream()
    {
        var (stream, verdict) = Hear("silent=1");
        Assert.Null(stream.StartSeconds);
        Assert.False(verdict.Even);
        Assert.Contains("No stream", verdict.Summary);
    }

    /// <summary>Fast and slow, 6 dB apart (common practice).</summary>
    [Theory]
    [InlineData(false, true, "10 dB over slow")]
    [InlineData(true, false, "0 dB over slow")]
    public void Fast_air_is_told_from_slow(bool alike, bool apart, string heard)
    {
        var drill = BreathDrill.Get("slow-fast-air");
        var pupil = new BreathingPupil(9, BreathHealth.None, false);
        BreathPlan Asked(BreathPattern pattern) => BreathPlan.Make(drill, pattern, 80, pupil, BreathDay.Fresh).Plan!;
        var (plan, pattern) = (Asked(drill.Rungs[0]), drill.Rungs[0]);
        var played = alike
            ? Asked(pattern with { Phases = [.. pattern.Phases.Select(phase => phase with { Air = AirSpeed.Usual })] })
            : plan;
        var verdict = BreathJudge.Judge(plan, BreathJudge.Streams(plan, SimulatedBreath.Play(played, [], 3), 0));
        Assert.Equal(apart, verdict.Even);
        Assert.Contains(
            heard,
            verdict.Summary.Replace("-0 dB under slow", "0 dB over slow", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "Only one",
            BreathJudge.Judge(plan, BreathJudge.Streams(plan, SimulatedBreath.Play(plan, [Fault.Parse("silent=1@2,4")], 3), 0)).Summary,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_next_rung_opens_after_two_even_passes_in_a_row()
    {
        var drill = BreathDrill.Get("even-stream");
        var day = new DateTime(2026, 11, 2, 16, 0, 0, DateTimeKind.Utc);
        BreathPass Pass(int rung, bool even, int minute) => new("even-stream", rung, 80, 6, even, true, day.AddMinutes(minute));
        Assert.Equal(0, BreathLadder.Next(drill, []));
        Assert.Equal(0, BreathLadder.Next(drill, [Pass(0, true, 1)]));
        Assert.Equal(1, BreathLadder.Next(drill, [Pass(0, true, 1), Pass(0, true, 2)]));
        Assert.Equal(0, BreathLadder.Next(drill, [Pass(0, true, 1), Pass(0, true, 2), Pass(0, false, 3)]));

        Assert.Equal(drill.Rungs.Count - 1, BreathLadder.Next(drill, [Pass(5, true, 1), Pass(5, true, 2)]));
    }

    /// <summary>At 80, 12 counts are 9 s; 6.2 s are 8.3 counts (computed).</summary>
    [Fact]
    public void A_breath_that_ends_early_twice_changes_the_next_pattern_until_that_one_holds()
    {
        var drill = BreathDrill.Get("even-stream");
        var day = new DateTime(2026, 11, 2, 16, 0, 0, DateTimeKind.Utc);
        BreathPass Pass(int rung, bool even, int minute, double seconds = 6.2) =>
            new("even-stream", rung, 80, seconds, even, true, day.AddMinutes(minute));
        List<BreathPass> early = [Pass(1, true, 1), Pass(1, true, 2), Pass(2, false, 3)];
        Assert.Equal(2, BreathLadder.Next(drill, early));
        Assert.Equal(1, BreathLadder.Next(drill, [.. early, Pass(2, false, 4)]));
        Assert.Equal(1, BreathLadder.Next(drill, [.. early, Pass(2, false, 4), Pass(1, true, 5)]));
        Assert.Equal(2, BreathLadder.Next(drill, [.. early, Pass(2, false, 4), Pass(1, true, 5), Pass(1, true, 6)]));
        // Uneven to its end is not early.
        Assert.Equal(2, BreathLadder.Next(drill, [.. early.Take(2), Pass(2, false, 3, 9), Pass(2, false, 4, 9)]));
    }

    [Fact]
    public void Usable_breath_has_its_date_and_how_sure_it_is()
    {
        var day = new DateTime(2026, 11, 2, 16, 0, 0, DateTimeKind.Utc);
        BreathPass Pass(double seconds, int daysAgo, bool measured = true, bool even = true) =>
            new("even-stream", 1, 80, seconds, even, measured, day.AddDays(-daysAgo));
        Assert.Null(UsableBreath.From([Pass(9, 60), Pass(9, 1, even: false)], day));
        var sure = UsableBreath.From([Pass(10, 1), Pass(9.5, 3), Pass(9, 5), Pass(4, 6)], day)!;
        Assert.Equal(8, sure.Seconds, 6);
        Assert.Equal(Sureness.Sure, sure.Sureness);
        Assert.Equal(day.AddDays(-1), sure.At);
        Assert.Equal(Sureness.Guess, UsableBreath.From([Pass(10, 1)], day)!.Sureness);
        Assert.Equal(Sureness.Fair, UsableBreath.From([Pass(10, 1), Pass(9.5, 2)], day)!.Sureness);
    }

    // C^3 / (6 pi^2) / 1000, worked out by hand.
    [Theory]
    [InlineData(50, 2.11)]
    [InlineData(60, 3.65)]
    [InlineData(70, 5.79)]
    public void A_balloon_holds_its_litres(double cm, double litres)
    {
        Assert.Equal(litres, Balloon.LitresFromCircumference(cm), 2);
        Assert.Equal(litres, Balloon.LitresFromDiameter(cm / Math.PI), 2);
    }

    [Fact]
    public void A_balloon_is_bounded_rare_and_changes_only_beyond_its_spread()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() => Balloon.LitresFromCircumference(200));
        Assert.Throws<ArgumentOutOfRangeException>(() => Balloon.LitresFromCircumference(double.NaN));
        var day = new DateTime(2026, 11, 2, 16, 0, 0, DateTimeKind.Utc);
        BalloonReading[] Readings(params double[] litres) => [.. litres.Select((each, i) => new BalloonReading(each, day.AddDays(-i)))];
        var grown = new BreathingPupil(14, BreathHealth.None, false);
        Assert.NotNull(Balloon.TooSoon(Readings(2, 2, 2), grown, day));
        Assert.Null(Balloon.TooSoon(Readings(2, 2), grown, day));
        Assert.NotNull(Balloon.TooSoon([], grown with { Health = BreathHealth.Heart }, day));
        Assert.Contains("no change", Balloon.Change(Readings(2.1, 2.0, 2.2)));
        Assert.Contains("more than", Balloon.Change(Readings(2.4, 2.0, 2.2, 2.1)));
        Assert.Contains("less than", Balloon.Change(Readings(1.9, 2.0, 2.2)));
    }
}
