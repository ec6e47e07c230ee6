using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Simulation;

/// <summary>
/// Slurs on the physical model, told by what a brass player knows of them (common practice): lips that stay keep the note,
/// lips that go too far find the next one, lips too far apart give air.
/// </summary>
public sealed class SlurTrialTests
{
    private static SlurTrial Try(string id, int first, SlurLips lips, string shape = "pair", int seed = 1)
    {
        var instrument = Catalogue.Get(id);
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var slur = SlurWriter.Sheet(player, SlurShape.Get(shape), first).Slurs[0];
        return SlurTrial.Play(
            new AskedSlur(slur, 72, 1, new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard), LearningStage.Second),
            lips,
            seed
        );
    }

    [Theory]
    [InlineData("trumpet-bb", 2)]
    [InlineData("trumpet-bb", 4)]
    [InlineData("horn-f", 4)]
    [InlineData("trombone", 3)]
    [InlineData("trombone", 4)]
    [InlineData("euphonium-3v", 3)]
    public void With_the_handles_as_usual_the_slur_is_clean(string id, int first)
    {
        var trial = Try(id, first, SlurLips.Usual);
        Assert.True(trial.Slurred, trial.Sentence);
        Assert.Equal("", trial.Why);
        Assert.StartsWith("Let the lips go less far", trial.Next, StringComparison.Ordinal);
        Assert.Equal([first, first + 1, first], trial.Heard.Row.Notes.Select(note => note.Judged.Partial!.Value));
    }

    [Theory]
    [InlineData("trumpet-bb", 3)]
    [InlineData("horn-f", 4)]
    [InlineData("trombone", 3)]
    [InlineData("tuba-bb-3v", 3)]
    public void Lips_that_stay_keep_the_note(string id, int first)
    {
        var trial = Try(id, first, SlurLips.Usual with { Reach = 0 });
        Assert.False(trial.Slurred);
        Assert.Equal(NoteOutcome.PreviousNote, trial.Heard.Row.Notes[1].Judged.Outcome);
        Assert.Contains($"Partial {first} kept sounding", trial.Sentence, StringComparison.Ordinal);
        Assert.Contains("0 % of the way", trial.Why, StringComparison.Ordinal);
        Assert.Equal("Let the lips go further: 100 % of the way.", trial.Next);
        // The notes on either side of the one that did not come did sound.
        Assert.All(trial.Heard.Row.Notes.Where(note => note.Number != 2), note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
    }

    [Theory]
    [InlineData("trumpet-bb", 3)]
    [InlineData("horn-f", 4)]
    [InlineData("trombone", 3)]
    public void Lips_that_go_twice_as_far_find_a_higher_partial(string id, int first)
    {
        var trial = Try(id, first, SlurLips.Usual with { Reach = 200 });
        Assert.Equal(NoteOutcome.PartialHigh, trial.Heard.Row.Notes[1].Judged.Outcome);
        Assert.Contains("past the place", trial.Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Lips_far_apart_give_air_and_pressed_together_they_go_sharp()
    {
        var apart = Try("trumpet-bb", 3, SlurLips.Usual with { Opening = 95 });
        Assert.Equal("No tone came.", apart.Sentence);
        Assert.Contains("so far apart", apart.Why, StringComparison.Ordinal);
        var pressed = Try("trumpet-bb", 3, SlurLips.Usual with { Opening = 15 });
        Assert.False(pressed.Slurred);
        Assert.Contains("Pinched", pressed.Why, StringComparison.Ordinal);
    }

    [Fact]
    public void The_same_handles_give_the_same_sound() =>
        Assert.Equal(
            Try("trombone", 3, new SlurLips(80, 50, 50)).Sound.Samples,
            Try("trombone", 3, new SlurLips(80, 50, 50)).Sound.Samples
        );

    [Fact]
    public void A_slur_that_no_breath_holds_is_refused()
    {
        var instrument = Catalogue.Get("trumpet-bb");
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var slur = SlurWriter.Find(player, "own_0.1.0_64.64.64:0:3")!;
        var asked = new AskedSlur(
            slur,
            40,
            1,
            new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard),
            LearningStage.Second
        );
        Assert.Contains(
            "no breath holds it",
            Assert.Throws<ArgumentException>(() => SlurTrial.Play(asked, SlurLips.Usual, 1)).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_slur_that_changes_its_tube_is_refused()
    {
        var instrument = Catalogue.Get("trumpet-bb");
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.MouthpieceFirst));
        var slur = SlurWriter.Neighbours(player, player.Range.Highest).Slurs[0];
        var asked = new AskedSlur(
            slur,
            72,
            1,
            new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard),
            LearningStage.Second
        );
        Assert.Contains(
            "change the tube",
            Assert.Throws<ArgumentException>(() => SlurTrial.Play(asked, SlurLips.Usual, 1)).Message,
            StringComparison.Ordinal
        );
    }
}
