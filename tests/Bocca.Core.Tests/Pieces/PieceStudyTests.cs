using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Study;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Pieces;

/// <summary>What a piece shows before it is played.</summary>
public sealed class PieceStudyTests
{
    private const string Tune =
        "4/4 =92 mf q C4 D4 E4 F4 | h G4 h E4 | q F4 E4 D4 E4 | w C4 | p q C4 D4 E4 F4 | h G4 h E4 | q F4 E4 D4 D4 | h. C4 q r |";

    private static PiecePlan Plan(string text, string instrument = "trumpet-bb", PieceChoices? choices = null, StudyPupil? pupil = null) =>
        PiecePlan.Of(
            Typed.Line(text, instrument),
            PiecePlayer.Of(
                Catalogue.Get(instrument),
                Approach.Of(ApproachPreset.MouthpieceFirst),
                LearningStage.Pieces,
                Bocca.Core.Fingering.Hand.Free
            ),
            new PieceBreather(8),
            choices,
            pupil
        );

    [Fact]
    public void Bars_that_return_say_what_differs()
    {
        var back = Assert.Single(Plan(Tune).Returns);
        Assert.Equal((11, 0, 4), (back.From, back.Like, back.Bars.First));
        Assert.Equal([Difference.Level, Difference.Ending], back.Differs);
        // The first two bars return note for note; in the third the way parts.
        Assert.Equal(6, back.Same);
    }

    [Fact]
    public void What_returns_higher_or_tongued_otherwise_is_found()
    {
        var higher = Assert.Single(Plan("4/4 q C4 D4 E4 C4 | w G4 | q D4 E4 F#4 D4 | w A4 |").Returns);
        Assert.Equal((Difference.Pitch, 2), (Assert.Single(higher.Differs), higher.Semitones));
        var slurred = Assert.Single(Plan("4/4 q C4 D4 E4 C4 | w G4 | q (C4 D4) (E4 C4) | w G4 |").Returns);
        Assert.Equal([Difference.Articulation], slurred.Differs);
    }

    [Fact]
    public void Phrases_end_where_music_rests_and_where_the_teacher_says()
    {
        Assert.Equal([(0, 10), (11, 21)], Plan(Tune).Phrases.Select(phrase => (phrase.From, phrase.To)));
        Assert.Equal(["mf", "p"], Plan(Tune).Phrases.Select(phrase => phrase.Level));
        var moved = Plan(
            Tune,
            choices: new PieceChoices
            {
                PhraseEnds = new HashSet<int> { 5 },
                PhraseJoins = new HashSet<int> { 10 },
            }
        );
        Assert.Equal([(0, 5), (6, 21)], moved.Phrases.Select(phrase => (phrase.From, phrase.To)));
    }

    [Fact]
    public void Runs_are_chromatic_scales_or_chords()
    {
        var runs = Plan("4/4 e G4 F#4 F4 E4 Eb4 D4 q r | e C4 D4 E4 F4 G4 A4 q r | q C4 E4 G4 C5 |").Runs;
        Assert.Equal(
            [(0, 5, RunKind.Chromatic), (6, 11, RunKind.Scale), (12, 15, RunKind.Arpeggio)],
            runs.Select(run => (run.From, run.To, run.Kind))
        );
    }

    [Fact]
    public void Articulation_is_a_row_a_bar_and_returns()
    {
        var rows = Plan("4/4 e (C4 D4) E4 F4 (G4 F4) E4 D4 | q C4 C4 C4 C4 | e (D4 E4) F4 G4 (A4 G4) F4 E4 |").Articulation;
        Assert.Equal(["TSTTTSTT", "TTTT", "TSTTTSTT"], rows.Select(row => row.Pattern));
        Assert.Equal([null, null, 0], rows.Select(row => row.Like));
    }

    // Computed from the tubes: C to D on the trumpet goes from partial 2 to 3, G to A from 3 to 4.
    [Fact]
    public void Hidden_changes_of_partial_are_found() =>
        Assert.Equal(
            [(1, 2, 3), (5, 3, 4)],
            Plan("6/4 q C4 D4 E4 F4 G4 A4 |").Hidden.Select(hidden => (hidden.To, hidden.FromPartial, hidden.ToPartial))
        );

    [Fact]
    public void Hard_spots_give_their_reasons()
    {
        var pupil = new StudyPupil
        {
            Met = new HashSet<string> { "q" },
            Missed = new Dictionary<int, double> { [62] = 0.8 },
        };
        var plan = Plan("4/4 q C4 E4 G4 C5 | C4 E5 e D4 E4 q F4 |", pupil: pupil);
        var reasons = plan.Hard.ToDictionary(spot => spot.Note, spot => string.Join("; ", spot.Why));
        // E4 sounds as D4 does: missed four times in five.
        Assert.Contains("missed 80 % lately", reasons[1]);
        Assert.Contains("wide", reasons[5]);
        Assert.Contains("not met yet: eighths", reasons[6]);
    }

    [Fact]
    public void A_pin_and_a_bar_by_the_chart_are_kept()
    {
        var choices = new PieceChoices
        {
            Pins = new Dictionary<int, Setting> { [1] = Setting.OfValves("", 1, 2) },
            ByChart = new HashSet<int> { 1 },
        };
        const string Fast = "4/4 =160 e D4 E4 D4 E4 D4 E4 D4 E4 | D4 E4 D4 E4 D4 E4 D4 E4 |";
        var free = Plan(Fast);
        var plan = Plan(Fast, choices: choices);
        Assert.Equal("3", free.Fingered.Notes[3].Fingering.Setting.ToString());
        Assert.Equal("1-2", plan.Fingered.Notes[1].Fingering.Setting.ToString());
        Assert.All(plan.Fingered.Notes.Skip(8).Where((_, i) => i % 2 == 1), note => Assert.Equal("1-2", note.Fingering.Setting.ToString()));
        Assert.True(plan.Fingered.Cost >= free.Fingered.Cost);
        Assert.Contains(
            "Bar 1, E4: 2 does not give this note",
            Assert
                .Throws<ArgumentException>(() =>
                    Plan(Fast, choices: new PieceChoices { Pins = new Dictionary<int, Setting> { [1] = Setting.OfValves("", 2) } })
                )
                .Message
        );
    }

    [Fact]
    public void How_far_it_goes_and_what_it_uses_is_counted()
    {
        var plan = Plan("4/4 q C4 D4 E4 F4 | h C4 h G4 |");
        Assert.Equal(("C4", "G4", "C4"), ($"{plan.Use.Lowest}", $"{plan.Use.Highest}", $"{plan.Use.Frequent[0]}"));
        Assert.Equal(["0 3", "1 1", "1-2 1", "1-3 1"], plan.Use.Settings.Select(use => $"{use.Setting} {use.Notes}"));
        var first = PlayingRange.OfFirstNotes(Catalogue.Get("trumpet-bb"), fromHigh: false);
        Assert.Contains("all within", plan.Use.Words(plan.Line, first));
        var high = Plan("4/4 w C6 |");
        Assert.Contains("1 of 1 notes lie outside", high.Use.Words(high.Line, first));
    }

    [Fact]
    public void A_whole_piece_by_the_chart_is_the_chart()
    {
        var plan = Plan("4/4 =160 e D4 E4 D4 E4 D4 E4 D4 E4 |", choices: new PieceChoices { AllByChart = true });
        Assert.All(plan.Fingered.Notes, note => Assert.Equal(note.Plain.Setting, note.Fingering.Setting));
    }

    [Theory]
    [InlineData("pin 3=1-2 8=0; breath 12; hold 20; end 12; join 16; chart all; chart 4", false)]
    [InlineData("pin 0=T1 2=6", true)]
    [InlineData("", false)]
    public void What_is_settled_is_kept_as_text(string text, bool slide)
    {
        var choices = PieceChoices.Parse(text, slide);
        Assert.Equal(text, choices.ToString());
        Assert.Equal(text == "", choices.IsEmpty);
    }

    [Theory]
    [InlineData("pin 3")]
    [InlineData("pin x=1")]
    [InlineData("breath -1")]
    [InlineData("sing 4")]
    public void What_settles_nothing_is_refused(string text) =>
        Assert.Throws<FormatException>(() => PieceChoices.Parse(text, slide: false));
}
