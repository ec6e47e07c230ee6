using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Counting;

/// <summary>What was clapped, said or tapped, laid on the grid.</summary>
public sealed class CountJudgeTests
{
    private static readonly RhythmCard Card = RhythmCard.Parse("q. e q q", Metre.Common);

    /// <summary>At 80: 0, 1.125, 1.5, 2.25 s (computed).</summary>
    private static readonly double[] Due = [0, 1.125, 1.5, 2.25];

    [Fact]
    public void What_is_in_its_place_passes() => Assert.Equal((true, "Every clap came in its place."), Told(Due.Select(at => at + 0.02)));

    [Fact]
    public void What_is_missing_is_said_with_its_place() =>
        Assert.Equal((false, "A clap is missing on the & of 2."), Told([0, 1.51, 2.24]));

    [Fact]
    public void What_is_too_much_is_said() => Assert.Equal((false, "1 clap more than the card has."), Told([0, 0.75, 1.13, 1.5, 2.25]));

    [Fact]
    public void What_is_late_is_said_in_milliseconds()
    {
        var track = CountJudge.Of(Card, 80, [0, 1.27, 1.5, 2.25], 100);
        Assert.Equal(145, track.Beats[1].ErrorMs!.Value, 1e-6);
        Assert.Equal("1 of 4 lies outside; most on the & of 2, 145 ms late.", track.Sentence);
    }

    [Fact]
    public void A_tempo_that_runs_away_is_told_in_per_cent()
    {
        var track = CountJudge.Of(
            RhythmCard.Parse("q q q q | q q q q", Metre.Common),
            80,
            [.. Enumerable.Range(0, 8).Select(at => at * 0.75 * 0.95)],
            60
        );
        Assert.Equal(5, track.DriftPercent!.Value, 0.01);
        Assert.Equal(0, track.EvennessMs!.Value, 1e-6);
        Assert.Contains("faster: 5 per cent", track.Sentence);
    }

    [Fact]
    public void One_beat_astray_is_no_drift_of_the_tempo()
    {
        double[] off = [-0.062, 0.012, 0.002, 0.024];
        var track = CountJudge.Of(Card, 110, [.. Card.Onsets.Zip(off, (at, late) => (at.Value * 60 / 110) + late)], 60);
        Assert.False(track.Drifts);
        Assert.Equal("1 of 4 lies outside; most on 1, 62 ms early.", track.Sentence);
    }

    /// <summary>Whoever is uneven by so much has a slope in nearly every bar, and a drift in one of twenty.</summary>
    [Theory]
    [InlineData(0.02)]
    [InlineData(0.04)]
    public void Unevenness_feigns_a_drift_once_in_twenty_bars(double spread)
    {
        var random = new Random(11);
        double Jitter() => spread * Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var tracks = Enumerable
            .Range(0, 2000)
            .Select(_ => CountJudge.Of(Card, 110, [.. Card.Onsets.Select(at => (at.Value * 60 / 110) + Jitter())], 60))
            .ToList();
        Assert.InRange(tracks.Average(track => track.Drifts ? 1 : 0), 0, 0.06);
        Assert.InRange(tracks.Average(track => Math.Abs(track.DriftPercent!.Value) >= CountJudge.ToldDrift ? 1 : 0), 0.07, 1);
    }

    [Fact]
    public void Who_rushes_unevenly_is_told_so()
    {
        double[] off = [0, -0.02, -0.07, -0.1, -0.16, -0.17, -0.22, -0.27];
        var card = RhythmCard.Parse("q q q q | q q q q", Metre.Common);
        var track = CountJudge.Of(card, 80, [.. off.Select((late, at) => (at * 0.75) + late)], 60);
        Assert.True(track.Drifts);
        Assert.Contains("faster: 5 per cent", track.Sentence);
    }

    [Fact]
    public void Nothing_at_all_is_no_clap() => Assert.Equal((false, "No clap was heard."), Told([]));

    /// <summary>Thousands of cards clapped with jitter: every error is found again, whatever is left out or added far away.</summary>
    [Fact]
    public void Errors_are_found_again_on_any_card()
    {
        var random = new Random(5);
        for (var seed = 0; seed < 1000; seed++)
        {
            var card = CardWriter.Write(Metre.Common, [.. RhythmValue.All.Take(9).Where(value => value.Id[0] != 'r')], 2, seed);
            var late = card.Onsets.Select(_ => 0.08 * (random.NextDouble() - 0.5)).ToList();
            var left = random.Next(late.Count);
            var came = card.Onsets.Zip(late, (at, off) => (at.Value * 60 / 80) + off).Where((_, at) => at != left).ToList();
            var track = CountJudge.Of(card, 80, came, 100);
            Assert.Empty(track.ExtraSeconds);
            for (var at = 0; at < late.Count; at++)
                if (at == left)
                    Assert.Null(track.Beats[at].ErrorMs);
                else
                    Assert.Equal(1000 * late[at], track.Beats[at].ErrorMs!.Value, 1e-6);
        }
    }

    [Fact]
    public void The_tolerance_goes_by_the_stage()
    {
        Assert.Equal(100, CountJudge.ToleranceMs(LearningStage.FirstNotes));
        Assert.Equal(60, CountJudge.ToleranceMs(LearningStage.Second));
    }

    private static (bool, string) Told(IEnumerable<double> onsets) =>
        CountJudge.Of(Card, 80, [.. onsets], 100) is var track ? (track.Passed, track.Sentence) : default;
}
