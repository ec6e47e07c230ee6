using Bocca.Core.Breath;

namespace Bocca.Core.Tests.Breath;

/// <summary>Rests in which a breath fits: a quarter, then an eighth; what is shorter only tops a breath up (common practice).</summary>
public sealed class RestForBreathTests
{
    private static BreathPass Pass(int rung, bool even = true) =>
        new("quick-breath", rung, 60, 4, even, true, new DateTime(2026, 11, 2, 0, 0, 0, DateTimeKind.Utc));

    [Fact]
    public void The_quickest_full_breath_is_the_shortest_after_which_the_stream_was_even()
    {
        var rungs = BreathDrill.All.First(drill => drill.Id == "quick-breath").Rungs;
        var eighth = rungs.ToList().FindIndex(rung => rung.Name.Contains("eighth", StringComparison.Ordinal));
        Assert.Equal(1, eighth);
        Assert.Equal(0.5, RestForBreath.Quickest([Pass(0), Pass(eighth)])!.Value, 6);
        Assert.Equal(1, RestForBreath.Quickest([Pass(0), Pass(eighth, even: false)])!.Value, 6);
        Assert.Null(RestForBreath.Quickest([]));
    }

    [Fact]
    public void A_top_up_is_no_full_breath()
    {
        var rungs = BreathDrill.All.First(drill => drill.Id == "quick-breath").Rungs;
        var topUp = rungs.ToList().FindIndex(rung => rung.Name.Contains("top-up", StringComparison.Ordinal));
        Assert.True(topUp > 0);
        Assert.Null(RestForBreath.Quickest([Pass(topUp)]));
        // A pass of a rung that is no more counts for nothing.
        Assert.Null(RestForBreath.Quickest([Pass(rungs.Count)]));
    }
}
