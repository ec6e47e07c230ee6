using Bocca.Core.Buzz;

namespace Bocca.Core.Tests.Buzz;

public sealed class MeasureHistoryTests
{
    private static readonly DateTime Start = new(2026, 10, 1, 16, 0, 0, DateTimeKind.Utc);

    [Fact]
    public void A_change_is_one_only_beyond_the_pupils_own_spread()
    {
        var steady = Of([30, 31, 29, 28, 29, 30], spread: 6);
        Assert.False(steady.Changed);
        Assert.Contains("no change", steady.Sentence);
        var better = Of([44, 46, 43, 25, 24, 23], spread: 6);
        Assert.True(better.Changed);
        Assert.Contains("steadier", better.Sentence);
        Assert.Equal((44, 24), (better.Earlier, better.Now));
        // The same means with repeats that lie far apart are no change.
        Assert.False(Of([44, 46, 43, 25, 24, 23], spread: 30).Changed);
    }

    [Fact]
    public void The_spread_is_that_of_repeats_within_a_take_pooled() => Assert.Equal(6, Of([44, 46, 43], spread: 6).Spread, 1e-9);

    [Fact]
    public void Two_takes_are_too_few_to_speak_of_change() => Assert.Contains("more takes", Of([44, 12], spread: 1).Sentence);

    [Fact]
    public void One_take_is_no_history() => Assert.Empty(MeasureHistory.Of([new DatedTake(Start, Take(30, 5))]));

    private static MeasureHistory Of(double[] values, double spread) =>
        MeasureHistory
            .Of([.. values.Select((value, i) => new DatedTake(Start.AddDays(i), Take(value, spread)))])
            .Single(history => history.Name == "steadiness");

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
