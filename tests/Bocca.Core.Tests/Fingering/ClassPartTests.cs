using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Fingering;

/// <summary>One concert instruction for a mixed class.</summary>
public sealed class ClassPartTests
{
    private static ClassMember Member(string id, string? reading = null, LearningStage stage = LearningStage.Second) =>
        new(id, Catalogue.Get(id), Catalogue.Get(id).ReadingOf(reading), stage) { Approach = Approach.Of(ApproachPreset.MouthpieceFirst) };

    private static ClassPart Long(string concert, string id, string? reading = null) =>
        ClassPart.Of(Member(id, reading), ConcertLine.Of(ConcertShape.LongNote, concert));

    /// <summary>Where a note is left out the score has a rest, and no notehead.</summary>
    [Fact]
    public void A_note_left_out_is_a_rest_in_the_score()
    {
        var part = ClassPart.Of(Member("trumpet-bb", stage: LearningStage.FirstNotes), ConcertLine.Parse("Bb3 Bb5"));
        Assert.Contains(part.Notes, note => note.WhyNot is not null);
        var xml = Bocca.Core.Score.MusicXmlWriter.Write(part.ToRow("Ada"));
        Assert.Equal(part.Notes.Count(note => note.WhyNot is not null), xml.Split("<rest").Length - 1);
        Assert.Equal(part.Notes.Count(note => note.WhyNot is null), xml.Split("<pitch>").Length - 1);
    }

    // Unison sheet, ten concert notes (common practice; each computed from the transposition).
    [Theory]
    [InlineData("trumpet-bb", null, "Bb C4 0|F G4 0|C D4 1-3|D E4 1-2|Eb F4 1|G A4 1-2|Ab Bb3 1|A B3 2|E F#4 2|B C#4 1-2-3")]
    [InlineData("horn-f", null, "Bb F4 1|F C4 0|C G4 0|D A3 1-2|Eb Bb3 1|G D4 1|Ab Eb4 2|A E4 0|E B3 2|B F#4 2")]
    [InlineData("trombone", null, "Bb Bb2 1|F F3 1|C C3 6|D D3 4|Eb Eb3 3|G G3 4|Ab Ab2 3|A A2 2|E E3 2|B B2 7")]
    [InlineData("euphonium-3v", null, "Bb Bb2 0|F F3 0|C C3 1-3|D D3 1-2|Eb Eb3 1|G G3 1-2|Ab Ab2 1|A A2 2|E E3 2|B B2 1-2-3")]
    [InlineData("euphonium-3v", "treble-bb", "Bb C4 0|F G4 0|C D4 1-3|D E4 1-2|Eb F4 1|G A4 1-2|Ab Bb3 1|A B3 2|E F#4 2|B C#4 1-2-3")]
    [InlineData("tuba-bb-3v", null, "Bb Bb1 0|F F2 0|C C2 1-3|D D2 1-2|Eb Eb2 1|G G2 1-2|Ab Ab1 1|A A1 2|E E2 2|B B1 1-2-3")]
    [InlineData("tuba-eb-3v", null, "Bb Bb2 0|F F2 1-3|C C3 1-2|D D2 2|Eb Eb2 0|G G2 1-2|Ab Ab2 1|A A2 2|E E2 1-2-3|B B2 2-3")]
    [InlineData("tuba-eb-3v", "treble-eb", "Bb G4 0|F D4 1-3|C A4 1-2|D B3 2|Eb C4 0|G E4 1-2|Ab F4 1|A F#4 2|E C#4 1-2-3|B Ab4 2-3")]
    public void Everybody_reads_the_same_concert_note(string id, string? reading, string sheet) =>
        Assert.All(
            sheet.Split('|'),
            entry =>
            {
                var expected = entry.Split(' ');
                var note = Long(expected[0], id, reading).Notes[0];
                var asked = Pitch.Parse(expected[1]);
                // Which of two octaves is taken is a matter of range; the name of the note and its fingering are not.
                Assert.Equal(0, (note.Concert.Midi - Pitch.Parse($"{expected[0]}4").Midi) % 12);
                Assert.Equal((asked.Midi, expected[2]), (note.Written.Midi, note.Way!.Setting.ToString()));
                Assert.Null(note.WhyNot);
            }
        );

    [Fact]
    public void A_run_keeps_its_contour_in_everybodys_octave()
    {
        var line = ConcertLine.Of(ConcertShape.SemitonesDown, "F");
        string[] ids = ["trumpet-bb", "horn-f", "trombone", "euphonium-4v", "tuba-bb-3v", "tuba-eb-3v"];
        Assert.All(
            ids,
            id =>
            {
                var part = ClassPart.Of(Member(id), line);
                Assert.Equal(7, part.Notes.Count);
                Assert.All(
                    part.Notes.Zip(part.Notes.Skip(1)),
                    pair => Assert.Equal(-1, pair.Second.Concert.Midi - pair.First.Concert.Midi)
                );
                Assert.All(part.Notes, note => Assert.Equal(note.Concert.Midi, part.Member.Reading.ToSounding(note.Written).Midi));
                Assert.True(part.IsWhole, $"{id}: {part.WhyNot}");
            }
        );
    }

    [Fact]
    public void Says_what_is_left_out_and_why()
    {
        var beginner = ClassPart.Of(Member("trumpet-bb", stage: LearningStage.FirstNotes), ConcertLine.Of(ConcertShape.MajorScale, "Bb"));
        Assert.False(beginner.IsWhole);
        Assert.Contains("above the range of this stage, which ends at G4", beginner.WhyNot!, StringComparison.Ordinal);
        Assert.Contains("rests", beginner.Called, StringComparison.Ordinal);
        var shortArm = ClassPart.Of(
            Member("trombone", stage: LearningStage.FirstNotes) with
            {
                Hand = Hand.Free with { ReachCm = 40 },
            },
            ConcertLine.Of(ConcertShape.LongNote, "C")
        );
        Assert.Contains("arm reaches 40 cm", shortArm.WhyNot!, StringComparison.Ordinal);
    }

    [Fact]
    public void Notes_of_ones_own_lie_nearest_to_those_before()
    {
        Assert.Equal(["Bb4", "A4", "Bb4", "C5", "F3"], ConcertLine.Parse("Bb A, Bb C F3").Notes.Select(note => note.ToString()));
        Assert.Throws<ArgumentException>(() => ConcertLine.Parse(" "));
        Assert.Throws<ArgumentException>(() => ConcertLine.Parse("H"));
        Assert.Throws<ArgumentException>(() => ConcertLine.Parse(string.Join(' ', Enumerable.Repeat("C", 65))));
        Assert.Throws<ArgumentException>(() => ConcertLine.Of(ConcertShape.SemitonesDown, "F", 40));
    }
}
