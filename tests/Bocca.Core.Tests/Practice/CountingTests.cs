using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Practice;

/// <summary>Nobody has to count: beats, rounds of a day, and the limit of the free lips.</summary>
public sealed class CountingTests
{
    [Fact]
    public void Every_beat_of_every_drill_is_counted_once()
    {
        foreach (var drill in BuzzDrill.All)
            Assert.Equal(drill.Plan.TotalBeats, BeatSheet.Of(drill.Plan).Count, 1e-6);
    }

    [Theory]
    [InlineData(4, 1)]
    [InlineData(11.9, 1)]
    [InlineData(12, 2)]
    [InlineData(100, 4)]
    public void A_drill_that_is_stopped_asks_for_what_was_over_by_then(double beats, int tries)
    {
        var plan = BuzzDrill.Get("sound4-rest4").Plan;
        Assert.Equal(plan.Tries.Take(tries), plan.UpTo(beats).Tries);
        Assert.Throws<ArgumentException>(() => plan.UpTo(3.9));
    }

    [Fact]
    public void A_row_that_is_stopped_ends_with_its_last_whole_phrase()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var player = new PlayerSituation(trumpet, trumpet.Readings[0], Tuning.Standard);
        var plan = ToneDrill.Get("tongue-four").Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 72);
        var ends = plan.Phrases.Select(phrase => plan.Notes[phrase.End - 1]).Select(note => note.StartBeat + note.Beats).ToList();
        Assert.True(ends.Count > 1);
        Assert.Equal(plan.Notes.Take(plan.Phrases[0].End), plan.UpTo(ends[0]).Notes);
        Assert.Equal(plan.Notes.Take(plan.Phrases[0].End), plan.UpTo(ends[1] - 0.1).Notes);
        Assert.Equal(plan.Notes, plan.UpTo(plan.TotalBeats).Notes);
        Assert.Throws<ArgumentException>(() => plan.UpTo(ends[0] - 0.1));
    }

    [Fact]
    public void A_slur_that_is_stopped_counts_as_often_as_it_was_played()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var slur = ClassSlur.Concert("pair", 3, Approach.Of(ApproachPreset.MouthpieceFirst));
        var player = new PlayerSituation(trumpet, trumpet.Readings[0], Tuning.Standard);
        var asked = new AskedSlur(slur, 72, 3, player, LearningStage.FirstNotes);
        Assert.Equal(1, asked.UpTo(slur.Beats).Times);
        Assert.Equal(1, asked.UpTo((3 * slur.Beats) - 0.1).Times);
        Assert.Equal(2, asked.UpTo(3 * slur.Beats).Times);
        Assert.Equal(3, asked.UpTo(99 * slur.Beats).Times);
        Assert.Throws<ArgumentException>(() => asked.UpTo(slur.Beats - 0.1));
    }

    [Fact]
    public void Four_on_four_off_counts_both_and_breathes_before_the_next()
    {
        var beats = BeatSheet.Of(BuzzDrill.Get("sound4-rest4").Plan, "the rim stays on");
        Assert.Equal([1, 2, 3, 4, 1, 2, 3, 4], beats.Take(8).Select(beat => beat.Count));
        Assert.Equal(
            [BeatPhase.Sound, BeatPhase.Rest, BeatPhase.Rest, BeatPhase.Breathe, BeatPhase.Breathe],
            beats.Skip(3).Take(5).Select(beat => beat.Phase)
        );
        Assert.Equal("the rim stays on", beats[4].Label);
        Assert.Equal(BeatPhase.Rest, beats[^1].Phase);
    }

    [Fact]
    public void Tongued_ones_are_counted_in_fours() =>
        Assert.Equal([1, 2, 3, 4, 1, 2, 3, 4], BeatSheet.Of(BuzzDrill.Get("four-tongued").Plan).Take(8).Select(beat => beat.Count));

    [Fact]
    public void The_approach_says_what_the_mouthpiece_does_in_a_rest()
    {
        Assert.NotEqual(
            BeatSheet.RestWords(Approach.Of(ApproachPreset.MouthpieceFirst), SoundStage.Mouthpiece),
            BeatSheet.RestWords(Approach.Of(ApproachPreset.LipsFirst), SoundStage.Mouthpiece)
        );
        Assert.Equal("", BeatSheet.RestWords(Approach.Of(ApproachPreset.LipsFirst), SoundStage.Lips));
    }

    [Fact]
    public void Rounds_too_close_do_not_count()
    {
        var now = new DateTime(2026, 11, 25, 17, 0, 0, DateTimeKind.Utc);
        var rounds = DayRounds.Of([now.AddHours(-3), now.AddHours(-2.9), now.AddHours(-1.5), now.AddMinutes(-20)], 4, 60, now);
        Assert.Equal((3, 4), (rounds.Counted, rounds.Asked));
        Assert.Equal(now.AddMinutes(40), rounds.NextFrom);
        Assert.Null(DayRounds.Of([], 4, 60, now).NextFrom);
        Assert.Null(DayRounds.Of([now.AddHours(-2)], 4, 60, now).NextFrom);
    }

    // Five minutes a day of free lips; ours, editable downward only.
    [Fact]
    public void The_free_lips_have_five_minutes_a_day()
    {
        var plan = BuzzDrill.Get("stage-grid").Plan;
        Assert.Null(LipTime.Refusal(plan, SoundStage.Lips, 300 - plan.TotalSeconds));
        Assert.Contains("minutes today", LipTime.Refusal(plan, SoundStage.Lips, 301 - plan.TotalSeconds));
        Assert.Null(LipTime.Refusal(plan, SoundStage.Mouthpiece, 3000));
    }
}
