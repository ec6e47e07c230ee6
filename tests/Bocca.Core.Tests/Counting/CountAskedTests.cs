using Bocca.Core.Counting;
using Bocca.Core.Judging;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Counting;

public class CountAskedTests
{
    [Theory]
    [InlineData(80, 0, "1 to 4 cards")]
    [InlineData(80, 0, "1 to 4 cards", "q q q q", "q q q q", "q q q q", "q q q q", "q q q q")]
    [InlineData(80, 9, "0 to 8 beats", "q q q q")]
    [InlineData(80, -1, "0 to 8 beats", "q q q q")]
    [InlineData(0, 0, "beats a minute", "q q q q")]
    [InlineData(double.NaN, 0, "beats a minute", "q q q q")]
    [InlineData(80, 0, "fill", "q q")]
    public void What_cannot_be_asked_says_why(double tempo, int gap, string why, params string[] cards) =>
        Assert.Contains(
            why,
            Assert.Throws<ArgumentException>(() => CountAsked.Of(cards, Metre.Common, tempo, gap, CountWays.Said)).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public void Beats_are_counted_from_one_in_each_bar_and_in_the_rest_between_cards()
    {
        var asked = CountAsked.Of(["q q q q | h h", "w"], Metre.Common, 80, 2, CountWays.Said);
        Assert.Equal("1 2 3 4 1 2 3 4 1r 2r 1 2 3 4", Told(asked));
        Assert.Equal(asked.TotalBeats, asked.CountedBeats.Count);
        // Two beats in a bar of six eighths (common practice).
        Assert.Equal("1 2", Told(CountAsked.Of(["q. q."], Metre.Parse("6/8"), 60, 4, CountWays.Clapped)));

        static string Told(CountAsked asked) =>
            string.Join(' ', asked.CountedBeats.Select(beat => beat.Count + (beat.Phase == BeatPhase.Rest ? "r" : "")));
    }

    [Fact]
    public void Two_in_a_row_move_the_tempo_and_nothing_else_does()
    {
        Assert.Equal((84.0, "Twice all inside: on to 84 a minute."), Stepped(Outcome.Passed, Outcome.Passed));
        Assert.Equal((72.0, "Once more, at 72 a minute."), Stepped(Outcome.Repeat, Outcome.Repeat));
        Assert.Equal((72.0, "Once more, at 72 a minute."), Stepped(Outcome.Repeat, Outcome.StepBack));
        foreach (
            var (now, before) in new (Outcome, Outcome?)[]
            {
                (Outcome.Passed, Outcome.Repeat),
                (Outcome.Repeat, Outcome.Passed),
                (Outcome.Passed, null),
                (Outcome.Repeat, Outcome.CannotTell),
                (Outcome.CannotTell, Outcome.CannotTell),
                (Outcome.CannotTell, Outcome.Repeat),
            }
        )
            Assert.Equal((null, "Once more."), Stepped(now, before));

        static (double?, string) Stepped(Outcome now, Outcome? before)
        {
            var next = new NextStep(CountTakeJudge.Place, CountTakeJudge.DrillId, "Once more.", "");
            var stepped = CountTakeJudge.Stepped(new Verdict(now, "", [], [], next), 80, before).Next;
            return (stepped.Tempo, stepped.Cue);
        }
    }

    [Fact]
    public void The_clean_tempo_is_the_fastest_that_came_twice()
    {
        Assert.Equal(76, TempoLadder.Clean([72, 76, 80, 76, 72, 72]));
        Assert.Null(TempoLadder.Clean([72, 76, 80]));
        Assert.Null(TempoLadder.Clean([]));
    }
}
