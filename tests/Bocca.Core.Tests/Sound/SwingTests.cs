using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

public class SwingTests
{
    private static readonly List<double> Times = [.. Enumerable.Range(0, 300).Select(i => i * 0.01)];

    [Theory]
    [InlineData(2.5, 20)]
    [InlineData(5, 8)]
    [InlineData(7.7, 40)]
    public void A_swing_is_measured_by_its_rate_and_how_far_it_goes(double hz, double halfRange)
    {
        var swing = Swing.Strongest(Times, [.. Times.Select(time => halfRange * Math.Sin((2 * Math.PI * hz * time) + 1))]);
        Assert.Equal(hz, swing.Hz, 0.11);
        Assert.Equal(halfRange, swing.HalfRange, 0.05 * halfRange);
    }

    [Fact]
    public void Noise_swings_little_at_any_one_rate()
    {
        var random = new Random(1);
        Assert.True(Swing.Strongest(Times, [.. Times.Select(_ => 20 * ((2 * random.NextDouble()) - 1))]).HalfRange < 5);
    }

    [Fact]
    public void Less_than_one_swing_is_none() => Assert.Equal(default, Swing.Strongest([0, 0.1, 0.2], [1, 0, -1]));
}
