using Bocca.Core.Breath;
using Bocca.Core.Tone;

namespace Bocca.Core.Tests.Breath;

/// <summary>What one breath carries on the instrument.</summary>
public sealed class NoteBreathTests
{
    private static readonly UsableBreath Stream = new(16, 20, new DateTime(2026, 11, 1, 0, 0, 0, DateTimeKind.Utc), Sureness.Sure);

    [Fact]
    public void Notes_on_the_instrument_say_so_and_the_shortest_register_counts()
    {
        var breath = NoteBreath.Of("tuba", [new("middle", 10, null), new("low", 5, null), new("low", 4, null)], Stream);
        Assert.True(breath.IsKnown);
        Assert.Equal(4, breath.Seconds, 6);
        Assert.Contains("longest low note", breath.Words);
    }

    /// <summary>Loud notes spend a breath quicker, so a soft one says nothing of them and a loud one is enough (common practice).</summary>
    [Fact]
    public void A_soft_note_does_not_say_what_a_breath_carries_at_medium()
    {
        Assert.Equal(4, NoteBreath.Of("horn", [new("low", 12, -9), new("low", 5, 3)], Stream).Seconds, 6);
        Assert.False(NoteBreath.Of("horn", [new("low", 12, -9)], Stream).IsKnown);
        Assert.Equal(new HeldNote("low", 7, -6), ToneFigures.HeldOf("low -26", 7, -20));
        Assert.Equal(new HeldNote("low", 7, null), ToneFigures.HeldOf("low", 7, -20));
    }

    /// <summary>A hiss is no substitute: 60, 45 and 30 % of it are taken until notes are known (ours, editable).</summary>
    [Theory]
    [InlineData("trumpet", 12)]
    [InlineData("horn", 12)]
    [InlineData("trombone", 9)]
    [InlineData("euphonium", 9)]
    [InlineData("tuba", 6)]
    public void A_stream_counts_for_a_share_and_is_said_not_to_be_known(string family, double seconds)
    {
        var breath = NoteBreath.Of(family, [], Stream);
        Assert.False(breath.IsKnown);
        Assert.Equal(seconds, breath.Seconds, 6);
        Assert.Contains("not yet known", breath.Words);
        Assert.Contains("not yet known", NoteBreath.Of(family, [], null).Words);
    }
}
