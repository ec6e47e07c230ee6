using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Slurs;

/// <summary>Slurs of a score, found on the tubes of whoever plays them.</summary>
public sealed class OwnSlurTests
{
    private static SlurPlayer Player(string id, LearningStage stage = LearningStage.Pieces)
    {
        var instrument = Catalogue.Get(id);
        return SlurPlayer.Of(instrument, instrument.Readings[0], stage, Approach.Of(ApproachPreset.MouthpieceFirst));
    }

    /// <summary>A score at concert pitch in which each group of notes stands under one slur.</summary>
    private static MusicScore Score(params string[] slurs) =>
        new(
            "",
            72,
            [
                new ScorePart(
                    "Flute",
                    Clef.Treble,
                    default,
                    [
                        .. slurs
                            .Select(slur => slur.Split(' '))
                            .Select(notes =>
                                ScoreMeasure.Row(
                                    notes.Select(
                                        (note, i) =>
                                            new ScoreNote(Pitch.Parse(note), 1)
                                            {
                                                SlursBegun = i == 0 ? 1 : 0,
                                                SlursEnded = i == notes.Length - 1 ? 1 : 0,
                                            }
                                    )
                                )
                            ),
                    ]
                ),
            ]
        );

    // Common practice: concert F4 B flat 4 F4 is the third and fourth partial of the open B flat trumpet, read G4 C5 G4.
    [Fact]
    public void A_slur_is_found_on_the_first_tube_that_has_all_its_notes()
    {
        var own = Assert.Single(OwnSlur.Of(Score("F4 Bb4 F4"), Player("trumpet-bb")));
        Assert.Equal("G4~C5~G4", own.Slur!.Text);
        Assert.Equal("0", own.Slur.Setting.ToString());
        Assert.Equal([3, 4, 3], own.Slur.Notes.Select(note => note.Partial));
        // A tone lower it is the same on the first valve; on a trombone in third position.
        Assert.Equal("1", OwnSlur.Of(Score("Eb4 Ab4 Eb4"), Player("trumpet-bb"))[0].Slur!.Setting.ToString());
        Assert.Equal("3", OwnSlur.Of(Score("Eb3 Ab3 Eb3"), Player("trombone"))[0].Slur!.Setting.ToString());
    }

    [Fact]
    public void Where_it_lies_on_no_tube_it_is_taken_an_octave_away()
    {
        var low = OwnSlur.Of(Score("F3 Bb3 F3"), Player("trumpet-bb", LearningStage.Second))[0];
        Assert.Equal((1, "G4~C5~G4"), (low.Octaves, low.Slur!.Text));
        Assert.Equal(-1, OwnSlur.Of(Score("F4 Bb4 F4"), Player("euphonium-3v", LearningStage.Second))[0].Octaves);
    }

    [Theory]
    [InlineData("F4 G4", "lip slur keeps its setting")]
    [InlineData("F4", "2 to 12 notes")]
    [InlineData("Bb5 D6", "above the range")]
    public void What_is_no_lip_slur_says_why(string notes, string why)
    {
        var own = Assert.Single(OwnSlur.Of(Score(notes), Player("trumpet-bb", LearningStage.Second)));
        Assert.Null(own.Slur);
        Assert.Contains(why, own.WhyNot, StringComparison.Ordinal);
    }

    [Fact]
    public void Ties_lengthen_and_a_score_without_slurs_is_refused()
    {
        var part = Score("F4 F4 Bb4").Parts[0];
        var notes = part.Measures[0].Notes;
        var tied = new MusicScore(
            "",
            72,
            [part with { Measures = [ScoreMeasure.Row(notes[0] with { TiedToNext = true }, notes[1], notes[2])] }]
        );
        Assert.Equal([2.0, 1.0], OwnSlur.Of(tied, Player("trumpet-bb"))[0].Slur!.Notes.Select(note => note.Beats));
        var plain = new MusicScore(
            "",
            72,
            [part with { Measures = [ScoreMeasure.Row(notes.Select(note => note with { SlursBegun = 0, SlursEnded = 0 }))] }]
        );
        Assert.Contains(
            "no slur",
            Assert.Throws<InvalidDataException>(() => OwnSlur.Of(plain, Player("trumpet-bb"))).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Its_name_alone_brings_it_back_and_no_wild_name_does()
    {
        var player = Player("trombone");
        var slur = OwnSlur.Of(Score("F3 Bb3 D4 Bb3 F3"), player)[0].Slur!;
        var found = SlurWriter.Find(player, slur.Id)!;
        Assert.Equal(slur.Notes, found.Notes);
        Assert.Equal(slur.Id, found.Id);
        // The next tube comes after it, as with every shape.
        Assert.Equal("2", SlurWriter.Onward(player, slur)!.Setting.ToString());
        foreach (
            var wild in new[]
            {
                "own_",
                "own_0_4:1:3",
                "own_0.1_4:1:3",
                "own_0.1_4.0:1:3",
                "own_0.1_4.4000000:1:3",
                "own_0.x_4.4:1:3",
                "own_0.99_4.4:1:3",
                "own_1.2_4.4:1:3",
                $"own_{string.Join('.', Enumerable.Repeat(0, 13))}_{string.Join('.', Enumerable.Repeat(4, 13))}:1:3",
            }
        )
            Assert.Null(SlurWriter.Find(player, wild));
    }

    // Round trip: what the writer wrote for one instrument is read back for another at the same concert pitch.
    [Fact]
    public void Slurs_written_for_a_horn_are_read_for_a_euphonium()
    {
        var horn = Player("horn-f");
        var written = SlurWriter.Sheet(horn, SlurShape.Get("pair"), 4).Slurs.Take(3).ToList();
        var score = MusicXmlReader.Read(System.Text.Encoding.UTF8.GetBytes(MusicXmlWriter.Write(SlurScore.Of("", horn, written, 72))));
        var own = OwnSlur.Of(score, Player("horn-f"));
        Assert.Equal(written.Select(slur => slur.Text), own.Select(each => each.Slur!.Text));
        Assert.Equal(written.Select(slur => slur.Setting), own.Select(each => each.Slur!.Setting));
        var euphonium = Player("euphonium-3v");
        Assert.All(
            OwnSlur.Of(score, euphonium).Zip(written),
            pair =>
                Assert.Equal(
                    pair.Second.Notes.Select(note => note.Sounding.Midi + (12 * pair.First.Octaves)),
                    pair.First.Written.Select(note => euphonium.Reading.ToSounding(note).Midi)
                )
        );
    }
}
