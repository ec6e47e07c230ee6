using Bocca.Core.Buzz.Measures;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Buzz;

public sealed class MouthpieceGateTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);

    [Fact]
    public void Where_it_must_repeat_eight_of_ten_on_two_days_open_it()
    {
        var approach = With("stage.mouthpiece=b", "advance=b");
        GateTake[] first = [new(Monday, 4, 4, true), new(Monday, 4, 3, false), new(Monday, 4, 4, true)];
        Assert.False(MouthpieceGate.Of(approach, first, Monday).Open);
        Assert.Contains("another day", MouthpieceGate.Of(approach, first, Monday).Next);
        GateTake[] second =
        [
            .. first,
            new(Monday.AddDays(1), 4, 4, true),
            new(Monday.AddDays(1), 4, 2, false),
            new(Monday.AddDays(1), 4, 2, false),
        ];
        Assert.False(MouthpieceGate.Of(approach, second, Monday.AddDays(1)).Open);
        GateTake[] third = [.. second, new(Monday.AddDays(3), 6, 6, true), new(Monday.AddDays(3), 4, 3, true)];
        var gate = MouthpieceGate.Of(approach, third, Monday.AddDays(3));
        Assert.True(gate.Open);
        Assert.Equal([Monday, Monday.AddDays(3)], gate.Deciding.Select(take => take.Day).Distinct());
        Assert.Contains("11 of 12", gate.Reason);
    }

    [Fact]
    public void Where_days_decide_it_opens_after_one_with_a_pass_and_after_seven_anyway()
    {
        var approach = With("stage.mouthpiece=a", "advance=a");
        GateTake[] takes = [new(Monday, 4, 4, true)];
        Assert.False(MouthpieceGate.Of(approach, takes, Monday).Open);
        Assert.True(MouthpieceGate.Of(approach, takes, Monday.AddDays(1)).Open);
        GateTake[] failing = [new(Monday, 4, 0, false)];
        Assert.False(MouthpieceGate.Of(approach, failing, Monday.AddDays(6)).Open);
        Assert.True(MouthpieceGate.Of(approach, failing, Monday.AddDays(7)).Open);
    }

    [Fact]
    public void Where_once_is_enough_one_pass_opens_it_and_where_it_is_left_out_nothing_is_asked()
    {
        Assert.True(MouthpieceGate.Of(With("stage.mouthpiece=c", "advance=b"), [new(Monday, 4, 4, true)], Monday).Open);
        Assert.False(MouthpieceGate.Of(With("stage.mouthpiece=c", "advance=b"), [new(Monday, 4, 3, false)], Monday).Open);
        Assert.True(MouthpieceGate.Of(With("stage.mouthpiece=d", "advance=b"), [], Monday).Open);
    }

    private static Approach With(params string[] points) =>
        Approach.Of(ApproachPreset.MouthpieceFirst).With(Approach.Points(string.Join(' ', points)));
}
