using System.Text;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Score;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Pieces typed as text: read, written, and refused at the place of the slip.</summary>
public sealed class PieceTextTests
{
    private static MusicScore Read(string text) => PieceText.Read(text, "Ferry Bell", Catalogue.Get("trumpet-bb").ReadingOf(null));

    private static EntrySlip Slip(string text) => Assert.Throws<EntrySlip>(() => Read(text));

    [Fact]
    public void A_line_is_read_with_its_values_and_signs()
    {
        var score = Read("4/4 Bb: =96 mf q F4. e G4> A4- | h Bb4@ r |");
        var part = score.Parts[0];
        Assert.Equal((-2, 96.0), (part.Fifths, score.Tempo));
        var first = part.Measures[0];
        Assert.Equal(["F4", "G4", "A4"], first.Notes.Select(note => note.Written.ToString()));
    }

    private const string Rich =
        "6/8 Eb: =60 p \"Gently\" (q. Bb4 e C5 D5 Eb5) | |: q. F4~ F4 | < s Bb4 C5 D5 Eb5 F5 Eb5 > e D5 C5 Bb4 = | "
        + "|1 3/4 q G4! F4 r :| |2 3{e G4 A4 B4} q /C5 D5 , F4 || 4/4 Bb: =100 ff [Bb7] h.. Bb4^ e A4 | R | w Bb4 |";

    [Fact]
    public void All_that_can_be_typed_is_written_and_read_again()
    {
        var score = Read(Rich);
        var back = MusicXmlReader.Read(Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score)));
        Assert.Equal(("Ferry Bell", score.Tempo), (back.Title, back.Tempo));
        var (before, after) = (score.Parts[0], back.Parts[0]);
        Assert.Equal(before.Measures.Count, after.Measures.Count);
        for (var i = 0; i < before.Measures.Count; i++)
        {
            var (one, other) = (before.Measures[i], after.Measures[i]);
            Assert.Equal(one.Notes.Select(Told), other.Notes.Select(Told));
            Assert.Equal(one.Marks.OrderBy(mark => mark.At), other.Marks.OrderBy(mark => mark.At));
            Assert.Equal(
                (one.Number, one.Metre, one.RepeatBegins, one.RepeatTimes, one.EndingEnds, one.EndsSection, one.IsPickup),
                (other.Number, other.Metre, other.RepeatBegins, other.RepeatTimes, other.EndingEnds, other.EndsSection, other.IsPickup)
            );
            Assert.Equal(one.EndingBegins, other.EndingBegins);
            Assert.Equal(i == 0 ? other.Fifths : one.Fifths, other.Fifths);
        }
    }

    /// <summary>Everything of a note that a score holds.</summary>
    private static string Told(ScoreNote note) =>
        $"{note.Written} {note.At} {note.Length} {note.GraceType} {note.IsSlashed} {note.Tuplet} {note.SlursBegun} {note.SlursEnded} "
        + $"{note.TiedToNext} {note.Marks} {note.IsMeasureRest}";

    // Common practice: both times through, the first ending once and the second instead of it.
    [Fact]
    public void Repeats_and_endings_are_played_in_their_order() =>
        Assert.Equal([0, 1, 2, 3, 1, 2, 4, 5, 6, 7], PlayingOrder.Of(Read(Rich).Parts[0].Measures));

    [Theory]
    [InlineData("4/4 q F4 G4 A4 |", 0, "")]
    [InlineData("4/4 q F4 G4 A4 B4 | q F4 G4 |", 28, "Bar 2 has 2 of 4 quarters: 2 are missing")]
    [InlineData("4/4 q F4 G4 A4 B4 C5 |", 21, "Bar 2 has 1 of 4 quarters")]
    [InlineData("4/4 h. F4 h G4", 12, "This goes over the end of bar 1")]
    [InlineData("q F G4", 2, "lacks its octave: write F4")]
    [InlineData("q f4", 2, "Notes have capital letters: F4")]
    [InlineData("q F4 x9", 5, "'x9' is no note")]
    [InlineData("H: q F4", 0, "'H' is not a key")]
    [InlineData("q F4 4/4 G4", 5, "A metre changes at the beginning of a bar")]
    [InlineData("7/9 q F4", 0, "'7/9' is no metre")]
    [InlineData("q ( F4 G4", 8, "A slur is open at the end")]
    [InlineData("q F4 ) G4", 5, "No slur is open here")]
    [InlineData("3{ q F4 G4", 9, "A tuplet is open at the end")]
    [InlineData("8{ q F4 }", 0, "Tuplets are of 2, 3, 4, 5, 6, 7, 9 notes")]
    [InlineData("q F4 =900", 5, "A tempo is = and 10 to 400")]
    [InlineData("q F4 \"Gently", 5, "Words end with a second")]
    [InlineData("", 0, "There is no note yet")]
    [InlineData("r r r r |", 0, "There is no note yet")]
    [InlineData("q F99", 2, "is no note")]
    public void A_slip_is_told_at_its_place(string text, int at, string says)
    {
        if (says == "")
        {
            // The first bar may be short: a pickup.
            Assert.True(Read(text).Parts[0].Measures[0].IsPickup);
            return;
        }

        var slip = Slip(text);
        Assert.Contains(says, slip.Message);
        Assert.Equal(at, slip.At);
    }

    /// <summary>A plain bar line may be left out wherever a bar is full.</summary>
    [Theory]
    [InlineData("4/4 Bb: q F4 e G4 A4 h Bb4 q C5 D5 h Bb4", "4/4 Bb: q F4 e G4 A4 h Bb4 | q C5 D5 h Bb4")]
    [InlineData("3/4 q F4 G4 A4 mf /Bb4 h. C5", "3/4 q F4 G4 A4 | mf /Bb4 h. C5")]
    [InlineData("2/4 q F4 G4 3/4 h. C5", "2/4 q F4 G4 | 3/4 h. C5")]
    [InlineData("2/4 q F4 G4 R h C5", "2/4 q F4 G4 | R | h C5")]
    public void Plain_bar_lines_may_be_left_out(string without, string with) =>
        Assert.Equal(MusicXmlWriter.Write(Read(with)), MusicXmlWriter.Write(Read(without)));

    /// <summary>The tune of the README, as it stands there.</summary>
    [Fact]
    public void The_tune_of_the_readme_is_read() =>
        Assert.Equal(3, Read("4/4 Bb: q F4 e G4 A4").Parts[0].Measures[0].Notes.Count(note => note.Sounds));

    [Fact]
    public void Any_text_is_read_or_refused_and_nothing_else()
    {
        var random = new Random(5);
        string[] tokens =
        [
            "4/4",
            "3/8",
            "Bb:",
            "q",
            "e.",
            "F4",
            "C5~",
            "r",
            "R",
            "(",
            ")",
            "3{",
            "}",
            ",",
            "|",
            ":|",
            "|:",
            "|1",
            "||",
            "=90",
            "mf",
            "<",
            "=",
            "\"a\"",
            "[C]",
            "/D4",
            "x",
        ];
        var read = 0;
        for (var round = 0; round < 20_000; round++)
        {
            var text = string.Join(
                random.Next(6) == 0 ? "" : " ",
                Enumerable.Range(0, random.Next(14)).Select(_ => tokens[random.Next(tokens.Length)])
            );
            try
            {
                var score = Read(text);
                MusicXmlWriter.Write(score);
                read++;
            }
            catch (EntrySlip slip)
            {
                Assert.InRange(slip.At, 0, Math.Max(0, text.Length));
                Assert.Contains(slip.Message[^1], ".?");
            }
        }

        Assert.InRange(read, 500, 19_000);
    }
}
