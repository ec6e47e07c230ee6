using Bocca.Core.Ear;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Music;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Study;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Phrases of pieces as lines to be sung, and such lines as text.</summary>
public sealed class SungPhraseTests
{
    [Theory]
    [InlineData("4/4 q. C4 e D4 q E4 q F4 |", "C4:1.5 D4:0.5 E4:1 F4:1")]
    [InlineData("4/4 q C4 r h E4 |", "C4:2 E4:2")]
    [InlineData("6/8 q C4 e D4 q. E4 |", "C4:0.667 D4:0.333 E4:1")]
    [InlineData("4/4 h C4 q E4~ | q E4 h. G4 |", "C4:2 E4:3 G4:3")]
    public void A_phrase_keeps_its_rhythm(string text, string expected)
    {
        var line = Typed.Line(text.Replace("q E4~ |", "h E4~ |", StringComparison.Ordinal));
        Assert.Equal(expected, $"{SungPhrase.Of(line, new Phrase(0, line.Notes.Count - 1))}");
    }

    [Fact]
    public void What_is_too_long_to_be_sung_at_once_is_none()
    {
        var line = Typed.Line(string.Concat(Enumerable.Repeat("4/4 e C4 D4 E4 F4 G4 F4 E4 D4 | ", 4)).Replace("| 4/4", "|"));
        Assert.Null(SungPhrase.Of(line, new Phrase(0, line.Notes.Count - 1)));
        Assert.Equal(8, SungPhrase.Of(line, new Phrase(8, 15))!.Notes.Count);
    }

    [Theory]
    [InlineData("C4 D4 E4")]
    [InlineData("C4:1.5 Eb4:0.5 F#4:2")]
    public void What_is_written_is_read_back(string text) => Assert.Equal(text, $"{EarLine.Parse(text)}");

    [Theory]
    [InlineData("C4:1 D4", "every note")]
    [InlineData("C4:0", "cannot last 0 beats")]
    [InlineData("C4:x", "cannot last x beats")]
    [InlineData("C4:99", "cannot last 99 beats")]
    [InlineData("C4:1:2", "every note")]
    public void A_line_that_is_none_says_why(string text, string why) =>
        Assert.Contains(why, Assert.Throws<ArgumentException>(() => EarLine.Parse(text)).Message, StringComparison.Ordinal);

    [Fact]
    public void Its_notes_are_due_where_they_stand_and_as_many_beats_are_asked()
    {
        var instrument = Core.Instruments.Catalogue.Get("trumpet-bb");
        var player = new EarPlayer(
            instrument,
            instrument.Readings[0],
            LearnersRange.Of(instrument, LearningStage.Second, Approach.Of(ApproachPreset.MouthpieceFirst))
        );
        var question = EarWriter.Write(EarDrill.OfLine, 0, 1, player, Tuning.Standard, EarLine.Parse("C4:1.5 D4:0.5 E4:2"));
        Assert.Equal([0, 1.5, 2, 4], Enumerable.Range(0, 4).Select(question.SungFrom));
        Assert.Equal(4, question.Cues.Tries[0].SoundBeats);
    }
}
