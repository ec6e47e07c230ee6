using Bocca.Core.Counting;
using Bocca.Core.Judging;
using Bocca.Core.Score;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Counting;

public sealed class CardFigureTests
{
    [Theory]
    [InlineData("q. e q q", "qd q q")]
    [InlineData("h r q", "h rq q")]
    [InlineData("s s s s e e h", "s e h")]
    [InlineData("3(e e e) q h", "3 q h")]
    public void A_card_is_made_of_the_values_that_are_taught(string card, string values) =>
        Assert.Equal(values, string.Join(' ', CardValues.In(RhythmCard.Parse(card, Metre.Common)).Select(each => each.Value.Id)));

    [Fact]
    public void Each_value_is_said_and_clapped_by_itself()
    {
        CountAsked asked = new([RhythmCard.Parse("q. e q q", Metre.Common)], 80, 0, CountWays.Said | CountWays.Clapped);
        var beat = asked.BeatSeconds;
        double[] all = [0, 1.5 * beat, 2 * beat, 3 * beat];
        var heard = CountListener.Laid(asked, all, [all[0], all[2], all[3]], 60);
        var figures = CountFigures.Of(heard, 60).ToList();
        Assert.Equal(1, figures.Single(figure => figure.Kind == CountFigures.Said && figure.Item == "qd").Value);
        Assert.Equal(0.5, figures.Single(figure => figure.Kind == CountFigures.Clapped && figure.Item == "qd").Value);
        Assert.Equal(1, figures.Single(figure => figure.Kind == CountFigures.Clapped && figure.Item == "q").Value);
        Assert.Equal([("qd", false), ("q", true)], CountFigures.Values(heard, 60).Select(each => (each.Value.Id, each.Came)));
    }

    /// <summary>Time names (common practice): French on the place in the beat, sol-fa by the value.</summary>
    [Theory]
    [InlineData("q e e h", TimeNames.French, "ta ta té ta-a")]
    [InlineData("s s s s q. e", TimeNames.French, "ta fa té fé ta-a té")]
    [InlineData("q e e h", TimeNames.SolFa, "ta ti ti ta-a")]
    [InlineData("s s s s q. e", TimeNames.SolFa, "ti ri ti ri tai ti")]
    [InlineData("3(e e e) q h", TimeNames.SolFa, "tri o la ta ta-a")]
    public void Beats_are_counted_as_the_room_has_it(string card, TimeNames names, string counted)
    {
        var metre = card.StartsWith("s s s s q.", StringComparison.Ordinal) ? new Metre(3, 4) : Metre.Common;
        Assert.Equal(counted, string.Join(' ', Counts.Of(RhythmCard.Parse(card, metre), names)));
    }

    [Fact]
    public void The_machines_delay_is_told_from_clicks_that_the_microphone_heard()
    {
        const int Rate = 44100;
        double[] clicks = [.. Enumerable.Range(0, 8).Select(i => 0.5 + (0.6 * i))];
        // Clicks that came 87 ms late, by hands that are not the finder's own: noise of 3 ms.
        var random = new Random(4);
        var samples = new float[(int)(6 * Rate)];
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)(0.002 * ((2 * random.NextDouble()) - 1));
        foreach (var at in clicks)
            for (var i = 0; i < 600; i++)
                samples[(int)((at + 0.087) * Rate) + i] += (float)(0.4 * ((2 * random.NextDouble()) - 1) * Math.Exp(-i / 140.0));
        var delay = MachineDelay.OfClicks(new MonoSound(samples, Rate), clicks);
        Assert.InRange(delay.Milliseconds, 85, 89);
        Assert.InRange(delay.SpreadMs, 0, 2);
        Assert.Equal(8, delay.Count);
        Assert.Contains(
            "Only 0 of 8",
            Assert
                .Throws<ArgumentException>(() =>
                    MachineDelay.OfClicks(new MonoSound(samples[..Rate], Rate), [.. clicks.Select(at => at + 4)])
                )
                .Message,
            StringComparison.Ordinal
        );
        var taps = MachineDelay.OfTaps(clicks, [.. clicks.Select(at => at + 0.04)]);
        Assert.Equal(-47, taps.HabitMs(87), 3);
        Assert.Throws<ArgumentException>(() => MachineDelay.OfTaps(clicks, [0.5, 1.1]));
    }

    [Fact]
    public void The_verdict_names_one_thing_and_says_which_of_the_two()
    {
        CountAsked asked = new([RhythmCard.Parse("q. e q q", Metre.Common)], 80, 0, CountWays.Said | CountWays.Clapped);
        var beat = asked.BeatSeconds;
        double[] all = [0, 1.5 * beat, 2 * beat, 3 * beat];
        var pupil = new JudgedPupil(Approach.Of(ApproachPreset.LipsFirst));
        var right = CountTakeJudge.Judge(CountListener.Laid(asked, all, all, 60), pupil);
        Assert.Equal((Outcome.Passed, "Said and clapped right."), (right.Outcome, right.Summary));
        var hands = CountTakeJudge.Judge(CountListener.Laid(asked, all, [all[0], all[2], all[3]], 60), pupil);
        Assert.Equal(("clapLost", Outcome.Repeat), (hands.Findings[0].Symptom.Id, hands.Outcome));
        double[] rushed = [.. all.Select(at => at * 0.9)];
        Assert.Equal("rushes", CountTakeJudge.Judge(CountListener.Laid(asked, rushed, rushed, 30), pupil).Findings[0].Symptom.Id);
        var silent = CountTakeJudge.Judge(CountListener.Laid(asked, [], [], 60), pupil);
        Assert.Equal(Outcome.CannotTell, silent.Outcome);
    }

    /// <summary>Whatever the values, an engraved card lasts as long as its bars, note for note (an adder of the test's own).</summary>
    [Fact]
    public void A_written_card_adds_up_in_musicxml()
    {
        for (var seed = 0; seed < 200; seed++)
        {
            var metre = Metre.Taught[seed % Metre.Taught.Count];
            var card = CardWriter.Write(metre, RhythmValue.All, 1 + (seed % 3), seed);
            var score = System.Xml.Linq.XDocument.Parse(CardScore.Write(card, Counts.Of(card)));
            foreach (var measure in score.Descendants("measure"))
                Assert.Equal(96 * 4 * metre.Above / metre.Below, measure.Elements("note").Sum(note => (int)note.Element("duration")!));
            Assert.Equal(card.Onsets.Count(), score.Descendants("lyric").Count());
            var beams = score.Descendants("beam").Select(beam => beam.Value).ToList();
            Assert.Equal(beams.Count(beam => beam == "begin"), beams.Count(beam => beam == "end"));
        }
    }
}
