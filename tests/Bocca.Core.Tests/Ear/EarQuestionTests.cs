using Bocca.Core.Ear;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using CsCheck;

namespace Bocca.Core.Tests.Ear;

public sealed class EarQuestionTests
{
    private static readonly Approach Sings = Approach.Of(ApproachPreset.LipsFirst);

    private static EarPlayer Player(string id, LearningStage stage = LearningStage.Second)
    {
        var instrument = Catalogue.Get(id);
        return new EarPlayer(instrument, instrument.Readings[0], LearnersRange.Of(instrument, stage, Sings));
    }

    private static EarQuestion Ask(string drill, int level, int seed, EarPlayer player) =>
        EarWriter.Write(EarDrill.Get(drill), level, seed, player, Tuning.Standard);

    /// <summary>Whatever is asked, every instrument: notes in range, an answer among the choices, the same again by its seed.</summary>
    [Fact]
    public void Every_question_can_be_answered()
    {
        var asked = 0;
        Gen.Select(Gen.OneOfConst([.. Catalogue.All]), Gen.OneOfConst([.. EarDrill.All]), Gen.Int[0, 14], Gen.Int[0, 99])
            .Sample(
                (instrument, drill, level, seed) =>
                {
                    var player = Player(instrument.Id);
                    EarQuestion question;
                    try
                    {
                        question = EarWriter.Write(drill, level, seed, player, Tuning.Standard);
                    }
                    catch (ArgumentException problem)
                    {
                        // Said in a sentence, and only where there is no room for it.
                        Assert.EndsWith("Choose another drill, or a later stage.", problem.Message, StringComparison.Ordinal);
                        return;
                    }

                    Interlocked.Increment(ref asked);
                    Assert.InRange(question.Level, 0, drill.Hardest);
                    Assert.All(question.Answer, answer => Assert.Contains(answer, question.Choices.Select(choice => choice.Id)));
                    Assert.All(
                        question.Played,
                        note => Assert.True(player.Holds(player.Reading.ToSounding(note)), $"{note} on {instrument.Id}")
                    );
                    Assert.True(question.Heard.Count + question.Cues.Times > 0);
                    var again = EarWriter.Write(drill, level, seed, player, Tuning.Standard);
                    Assert.Equal(question.Heard, again.Heard);
                    Assert.Equal(question.Answer, again.Answer);
                    Assert.InRange(question.Item.Length, 1, 60);
                },
                iter: 1500,
                threads: 1
            );
        Assert.InRange(asked, 1200, 1500);
    }

    [Fact]
    public void Sing_then_play_widens_from_the_start_note_down_then_up()
    {
        var player = Player("trombone");
        // From F3 down by one to five semitones (common practice), then up.
        Assert.Equal(
            ["F3 E3 F3", "F3 Eb3 F3", "F3 D3 F3", "F3 Db3 F3", "F3 C3 F3", "F3 Gb3 F3", "F3 G3 F3"],
            Enumerable.Range(0, 7).Select(level => string.Join(' ', Ask("sing-intervals", level, 1, player).Sung))
        );
    }

    [Fact]
    public void Tapped_right_and_played_wrong_are_two_things()
    {
        var player = Player("trumpet-bb", LearningStage.FirstNotes);
        var question = new EarQuestion(EarDrill.Get("copy-back"), 1, 0)
        {
            Answer = ["C4", "G4"],
            Played = [Pitch.Parse("C4"), Pitch.Parse("G4")],
        };
        var situation = new PlayerSituation(player.Instrument, player.Reading, Tuning.Standard);
        // G4 G4 comes for C4 G4 (worked example: the first note one partial high).
        var sound = EarCharacter.Get("partial").Answer(question, player, situation, 3);
        var heard = EarHearing.Hear(question, ["C4", "G4"], sound, 0, player, Tuning.Standard);
        Assert.True(heard.EarRight);
        var verdict = EarJudge.Judge(heard, new JudgedPupil(Sings));
        Assert.Equal("Ear right; first note one partial high. Work on the instrument: the ear has it.", verdict.Summary);
        Assert.Equal("playedOff", verdict.Findings[0].Symptom.Id);
    }

    [Theory]
    [InlineData("right", "Sung right; played right.")]
    [InlineData("octave", "Sung right; played right.")]
    [InlineData("glides", "Sung right; played right.")]
    public void A_voice_an_octave_above_and_one_that_glides_up_are_right(string character, string summary)
    {
        foreach (var id in new[] { "trombone", "horn-f", "tuba-bb-4v", "trumpet-bb" })
        {
            var player = Player(id);
            var question = Ask("sing-intervals", 2, 1, player);
            var sound = EarCharacter
                .Get(character)
                .Answer(question, player, new PlayerSituation(player.Instrument, player.Reading, Tuning.Standard), 5);
            var heard = EarHearing.Hear(question, [], sound, 0, player, Tuning.Standard);
            Assert.Equal(summary, EarJudge.Summary(heard));
            Assert.All(heard.Sung, note => Assert.InRange(note.Cents!.Value, -12, 12));
        }
    }

    [Fact]
    public void Sung_flat_and_played_right_names_the_ear_with_its_cents()
    {
        var player = Player("trombone");
        var question = Ask("sing-intervals", 2, 1, player);
        var sound = EarCharacter
            .Get("flat")
            .Answer(question, player, new PlayerSituation(player.Instrument, player.Reading, Tuning.Standard), 5);
        var heard = EarHearing.Hear(question, [], sound, 0, player, Tuning.Standard);
        Assert.All(heard.Sung, note => Assert.InRange(note.Cents!.Value, -64, -56));
        Assert.All(heard.Played, note => Assert.InRange(Math.Abs(note.Cents!.Value), 0, 15));
        Assert.EndsWith("Work on the ear: the instrument found it.", EarJudge.Summary(heard), StringComparison.Ordinal);
    }

    [Fact]
    public void Played_sharp_on_a_slide_says_how_far_out()
    {
        var player = Player("trombone");
        var question = Ask("sing-intervals", 3, 1, player);
        var sound = EarCharacter
            .Get("played-high")
            .Answer(question, player, new PlayerSituation(player.Instrument, player.Reading, Tuning.Standard), 5);
        var heard = EarHearing.Hear(question, [], sound, 0, player, Tuning.Standard);
        // F3 to Db3: 5th position; a cent there is a tenth of a millimetre and more (computed: 8.9 to 12.6 cents a centimetre).
        var low = heard.Played[1];
        Assert.Equal(Pitch.Parse("Db3"), low.Target);
        Assert.InRange(low.Cm!.Value, 60 / 11.0, 60 / 9.0);
        Assert.Contains("Work on the instrument: the ear has it.", EarJudge.Summary(heard), StringComparison.Ordinal);
    }

    [Fact]
    public void A_voice_is_found_by_its_siren_and_models_are_sung_where_it_is()
    {
        var player = Player("tuba-bb-4v");
        var question = Ask("voice-siren", 0, 1, player);
        var sound = EarCharacter
            .Get("right")
            .Answer(question, player, new PlayerSituation(player.Instrument, player.Reading, Tuning.Standard), 2);
        var heard = EarHearing.Hear(question, [], sound, 0, player, Tuning.Standard);
        // It slid from 220 to 523 Hz and back.
        Assert.InRange(heard.Voice!.LowestHz, 215, 240);
        Assert.InRange(heard.Voice.HighestHz, 490, 530);
        Assert.Equal(Outcome.Passed, EarJudge.Judge(heard, new JudgedPupil(Sings)).Outcome);
        // F2 of a tuba lies two octaves below that voice; what spans more than it in no octave.
        Assert.Equal(2, heard.Voice.Octaves([87.3, 82.4]));
        Assert.Equal(0, heard.Voice.Octaves([261.6, 392]));
        Assert.Null(heard.Voice.Octaves([100, 400]));
        var silent = EarHearing.Hear(
            question,
            [],
            new Core.Sound.MonoSound([.. sound.Samples.Select(_ => 0.0005f)], 44100),
            0,
            player,
            Tuning.Standard
        );
        Assert.Equal(Outcome.CannotTell, EarJudge.Judge(silent, new JudgedPupil(Sings)).Outcome);
    }

    [Fact]
    public void Another_name_of_the_same_note_is_the_same_answer()
    {
        var question = new EarQuestion(EarDrill.Get("growing-run"), 2, 0) { Answer = ["Db3"] };
        Assert.True(EarHearing.IsRight(question, ["C#3"]));
        Assert.False(EarHearing.IsRight(question, ["D3"]));
        Assert.False(EarHearing.IsRight(question, []));
    }

    [Fact]
    public void Coming_closer_while_it_sounds_counts()
    {
        var note = new EarHeard(Pitch.Parse("F3"), 180, -58, 0, null, 20, EarOutcome.Flat, "F3: 58 cents flat.")
        {
            BeginCents = -75,
            EndCents = -30,
        };
        Assert.True(EarJudge.Came(note));
        Assert.False(EarJudge.Came(note with { EndCents = -70 }));
    }

    [Fact]
    public void Who_is_not_asked_to_sing_is_asked_nothing_that_is_only_sung()
    {
        var silent = Sings.With("sing", "c");
        var offered = EarDrill.For(LearningStage.Pieces, silent);
        Assert.DoesNotContain(offered, drill => drill.Sings);
        Assert.DoesNotContain(offered, drill => drill.Id is "sing-target" or "sing-line" or "echo" or "voice-siren");
        Assert.Contains(offered, drill => drill.Id == "sing-intervals");
        Assert.All(offered, drill => Assert.DoesNotContain("sing", drill.Ask, StringComparison.OrdinalIgnoreCase));
        Assert.Equal(EarDrill.All.Count, EarDrill.For(LearningStage.Pieces, Sings).Count);
    }

    /// <summary>
    /// Pure intervals (published: Helmholtz): a third of 5:4 lies 13.69 cents below the tempered one, a fifth of 3:2 1.96 above.
    /// </summary>
    [Fact]
    public void A_chord_has_its_own_note()
    {
        var player = Player("horn-f");
        Assert.Equal(0, Ask("drone", 0, 1, player).AsideCents, 2);
        Assert.Equal(1.955, Ask("drone", 2, 1, player).AsideCents, 2);
        Assert.Equal(-13.686, Ask("drone", 4, 1, player).AsideCents, 2);
        var third = Ask("drone", 5, 1, player);
        var note = Tuning.Standard.Frequency(player.Reading.ToSounding(third.Played[0])) * Math.Pow(2, third.AsideCents / 1200);
        Assert.Equal(1.25, note / third.Drone[0], 6);
    }
}
