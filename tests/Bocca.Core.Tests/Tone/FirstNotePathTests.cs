using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Tone;

/// <summary>The way of first notes: what each falls to, where a step hides a change of partial, when the next one comes.</summary>
public class FirstNotePathTests
{
    /// <summary>
    /// C to D on a trumpet, B flat to C on the bass clef instruments are changes of partial (computed; common practice on early sheets).
    /// </summary>
    [Theory]
    [InlineData("trumpet-bb", "D4", "G3", "G4", true)]
    [InlineData("trumpet-bb", "E4", "A3", "A4", false)]
    [InlineData("trombone-f", "C3", "F2", "F3", true)]
    [InlineData("trombone", "D3", "G2", "G3", false)]
    [InlineData("euphonium-4v-comp", "D3", "G2", "G3", false)]
    [InlineData("tuba-bb-3v", "C2", "F1", "F2", true)]
    public void Tells_what_lips_would_get_instead(string id, string written, string below, string above, bool hides)
    {
        var note = Path(id, []).Notes.Single(note => note.Note.Written.ToString() == written);

        Assert.Equal(below, note.FallsTo.ToString());
        Assert.Equal(above, note.OvershootsTo.ToString());
        Assert.Equal(hides, note.HidesChange);
    }

    [Fact]
    public void The_next_note_comes_with_four_of_five_first_tries()
    {
        FirstTry[] three = [new("C4", false), new("C4", true), new("C4", true), new("C4", true)];

        Assert.Equal("C4", Path("trumpet-bb", three).Next!.Note.Written.ToString());
        Assert.Equal("D4", Path("trumpet-bb", [.. three, new("C4", true)]).Next!.Note.Written.ToString());
        // What was known can be lost again.
        Assert.Equal(
            "C4",
            Path("trumpet-bb", [.. three, new("C4", true), new("C4", false), new("C4", false)]).Next!.Note.Written.ToString()
        );
    }

    [Fact]
    public void A_horn_begins_where_the_approach_does()
    {
        FirstNotePath Under(string option) =>
            FirstNotePath.Of(Player("horn-f"), Approach.Of(ApproachPreset.MouthpieceFirst).With("horn.start", option), []);

        Assert.Equal("C4", Under("a").Next!.Note.Written.ToString());
        Assert.Equal("F4", Under("b").Next!.Note.Written.ToString());
        Assert.Equal("A3", Under("c").Next!.Note.Written.ToString());
    }

    private static FirstNotePath Path(string id, FirstTry[] tries) =>
        FirstNotePath.Of(Player(id), Approach.Of(ApproachPreset.MouthpieceFirst), tries);

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], Tuning.Standard);
}
