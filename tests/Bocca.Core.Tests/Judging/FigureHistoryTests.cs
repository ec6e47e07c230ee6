using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;

namespace Bocca.Core.Tests.Judging;

public sealed class FigureHistoryTests
{
    private static readonly DateTime Start = new(2026, 10, 1, 16, 0, 0, DateTimeKind.Utc);

    [Fact]
    public void A_change_is_one_only_beyond_the_pupils_own_spread()
    {
        var steady = Of([30, 31, 29, 28, 29, 30], spread: 6);
        Assert.False(steady.Changed);
        Assert.Contains("No clear change", steady.Sentence);
        var better = Of([44, 46, 43, 25, 24, 23], spread: 6);
        Assert.True(better.Changed);
        Assert.Contains("Steadier: was", better.Sentence);
        Assert.Equal((44, 24), (better.Earlier, better.Now));
        // The same means with repeats that lie far apart are no change.
        Assert.False(Of([44, 46, 43, 25, 24, 23], spread: 30).Changed);
    }

    [Fact]
    public void The_spread_is_that_of_repeats_within_a_take_pooled() => Assert.Equal(6, Of([44, 46, 43], spread: 6).Spread, 1e-9);

    [Fact]
    public void Two_takes_are_too_few_to_speak_of_change() => Assert.Contains("too few takes", Of([44, 12], spread: 1).Sentence);

    [Fact]
    public void One_take_is_no_history() => Assert.Null(FigureHistory.Of(BuzzFigures.Steadiness, [Point(Start, 30, 5)]));

    [Fact]
    public void Values_that_stand_alone_are_held_against_how_far_neighbours_lie_apart()
    {
        FigureHistory Alone(params double[] values) =>
            FigureHistory.Of(Breath, [.. values.Select((value, i) => new FigurePoint(Start.AddDays(i), value))])!;
        Assert.False(Alone(6, 9, 5, 8, 6, 9, 5).Changed);
        Assert.True(Alone(5, 5.5, 5, 5.4, 9, 9.3, 9.1).Changed);
    }

    /// <summary>
    /// Two shares differ beyond chance where they lie over 1.645 standard errors apart (normal approximation of the binomial).
    /// </summary>
    [Fact]
    public void Shares_count_by_how_many_tries_they_are_of()
    {
        FigureHistory Shares(params (double Share, int Count)[] days) =>
            FigureHistory.Of(Hits, [.. days.Select((day, i) => new FigurePoint(Start.AddDays(i), day.Share, 0, day.Count))])!;
        Assert.False(Shares((0.5, 2), (0.5, 2), (1, 2), (0.5, 2), (1, 2)).Changed);
        var better = Shares((0.2, 20), (0.3, 20), (0.7, 20), (0.8, 20), (0.75, 20));
        Assert.True(better.Changed);
        Assert.Equal((25, 75), (Math.Round(better.Earlier), Math.Round(better.Now)));
        Assert.Contains("More: was", better.Sentence);
    }

    private static FigureKind Breath { get; } = new("breath", "s", "shorter", "longer");

    private static FigureKind Hits { get; } = new("hits", "%", "fewer", "more", IsShare: true);

    private static FigureHistory Of(double[] values, double spread) =>
        FigureHistory.Of(BuzzFigures.Steadiness, [.. values.Select((value, i) => Point(Start.AddDays(i), value, spread))])!;

    private static FigurePoint Point(DateTime at, double value, double spread)
    {
        var figure = BuzzFigures.Of(Take(value, spread), null, null).Single(each => each.Kind == BuzzFigures.Steadiness);
        return new FigurePoint(at, figure.Value, figure.Spread, figure.Count);
    }

    /// <summary>Three tries about a value, whose standard deviation is the spread.</summary>
    private static TakeMeasures Take(double steadiness, double spread) =>
        new()
        {
            Attempts =
            [
                .. new[] { -spread, 0, spread }.Select(
                    (off, i) =>
                        new AttemptMeasures
                        {
                            Number = i + 1,
                            Spoke = true,
                            SteadinessCents = steadiness + off,
                        }
                ),
            ],
            DurationSeconds = 10,
            RoomDb = -60,
            PeakDb = -6,
            ClippedShare = 0,
        };
}
