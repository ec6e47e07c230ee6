using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Tone;

/// <summary>Rows played by the practice player, on every family, heard and held against what was meant.</summary>
public class RowListenerTests
{
    [Theory]
    [InlineData("trumpet-bb", "C4 D4 E4 F4 G4")]
    [InlineData("horn-f", "C4 D4 E4 F4 G4")]
    [InlineData("trombone", "Bb2 C3 D3 Eb3 F3")]
    [InlineData("euphonium-4v-comp", "Bb2 C3 D3 Eb3 F3")]
    [InlineData("tuba-bb-3v", "Bb1 C2 D2 Eb2 F2")]
    public void A_row_played_as_meant_comes(string id, string notes)
    {
        var (row, asked) = Hear(id, notes);

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.Empty(row.Extra);
        Assert.Null(row.Doubt);
        Assert.Equal(Outcome.Passed, RowJudge.Judge(row, asked, SoundingPupil.Unknown).Outcome);
    }

    [Theory]
    [InlineData("G4 G4", "", HeardAs.Came)]
    [InlineData("G4 G4", "partial=-1@2", HeardAs.Lower)]
    [InlineData("G4 C4", "partial=1@1", HeardAs.Higher)]
    [InlineData("G4 G4", "silent=1@1", null)]
    public void What_a_pupil_can_guess_is_which_way_the_first_miss_went(string notes, string miss, HeardAs? was)
    {
        var silent = miss.StartsWith("silent", StringComparison.Ordinal);
        var (row, _) = Hear("trumpet-bb", notes, misses: miss == "" || silent ? null : [miss], faults: silent ? [miss] : null);

        Assert.Equal(was, RowJudge.HeardAsOf(row));
    }

    [Fact]
    public void The_partial_below_is_named_and_a_cue_of_the_approach_offered()
    {
        var (row, asked) = Hear("trumpet-bb", "D4", misses: ["partial=-1"]);
        var verdict = RowJudge.Judge(row, asked, SoundingPupil.Unknown);

        Assert.Equal(NoteOutcome.PartialLow, row.Notes[0].Judged.Outcome);
        Assert.Contains("one partial low", verdict.Summary, StringComparison.Ordinal);
        Assert.Equal("oneLow", verdict.Findings[0].Symptom.Id);
        Assert.Equal("Sing it, then play it.", verdict.Next.Cue);
        // A tense pupil is never told to tighten: once singing and the vowel have brought nothing, the cue that firms is left out.
        var tried = SoundingPupil.Unknown with
        {
            Cues = new CueHistory([
                .. Enumerable.Repeat(new CueTry("oneLow.ee", false), 3),
                .. Enumerable.Repeat(new CueTry("oneLow.sing", false), 3),
            ]),
        };
        Assert.Equal("Same again, quicker air.", RowJudge.Judge(row, asked, tried).Next.Cue);
        Assert.Equal("Let the air lift it.", RowJudge.Judge(row, asked, tried with { Tense = true }).Next.Cue);
    }

    [Theory]
    [InlineData(3)]
    [InlineData(-5)]
    public void A_slide_that_is_off_is_told_in_centimetres(double cm)
    {
        var (row, _) = Hear("trombone", "C3", misses: [$"slide-in={cm}"]);

        Assert.Equal(NoteOutcome.SlideOff, row.Notes[0].Judged.Outcome);
        Assert.InRange(row.Notes[0].Judged.Cm!.Value, cm - 1, cm + 1);
    }

    [Fact]
    public void A_slur_is_one_tone_with_its_change_found()
    {
        var (row, _) = Hear("trumpet-bb", "G4~C5~G4");

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.False(row.Notes[1].Sound!.Tongued);
        Assert.Empty(RowArticulation.Of(row).OtherStarts);
    }

    [Theory]
    [InlineData(1.0)]
    [InlineData(0.6)]
    [InlineData(0.3)]
    public void Duty_is_within_five_points(double share)
    {
        var player = Player("euphonium-4v-comp");
        var meant = MeantNote.Row(player.Instrument, player.Reading, "Bb2 Bb2 Bb2 Bb2 F3 F3 F3 F3");
        var take = SimulatedPlayer.PlayRow(
            player.Instrument,
            PlayedNote.Row(meant, player, 2, share, []),
            120,
            [new Fault(FaultKind.ClosedEnd, 1)],
            1
        );
        // What really sounded: the lips take a moment to speak.
        var played = take
            .Tones.Zip(take.Tones.Skip(1))
            .Average(pair => (pair.First.EndSeconds - pair.First.StartSeconds) / (pair.Second.StartSeconds - pair.First.StartSeconds));

        var row = RowListener.Hear(take.Sound, new AskedRow(RowPlan.Even(meant, 120, 2, share), player, LearningStage.FirstNotes));

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.InRange(RowArticulation.Of(row).Duty!.Value, played - 0.05, played + 0.05);
        Assert.All(
            row.Notes.Zip(take.Tones),
            pair => Assert.InRange(pair.First.Sound!.StartSeconds - pair.Second.BegunSeconds, -0.015, 0.015)
        );
    }

    [Fact]
    public void An_ending_that_the_tongue_closes_is_told_from_one_that_the_air_ends()
    {
        var closed = RowArticulation.Of(Hear("trumpet-bb", "C4 C4 C4 C4", share: 0.6, faults: ["closed-end=1"]).Row);
        var open = RowArticulation.Of(Hear("trumpet-bb", "C4 C4 C4 C4", share: 0.6).Row);

        Assert.Equal(1, closed.ClosedShare);
        Assert.Equal(0, open.ClosedShare);
    }

    [Fact]
    public void Closed_endings_are_a_matter_of_the_approach()
    {
        var (row, asked) = Hear("trumpet-bb", "C4 C4 C4 C4", share: 0.6, faults: ["closed-end=1"]);
        Verdict Under(string option) =>
            RowJudge.Judge(
                row,
                asked,
                SoundingPupil.Unknown with
                {
                    Approach = Approach.Of(ApproachPreset.MouthpieceFirst).With("note.end", option),
                }
            );

        Assert.Contains(Under("a").Findings, finding => finding.Symptom.Id == "cutOff");
        Assert.DoesNotContain(Under("b").Findings, finding => finding.Symptom.Id == "cutOff");
    }

    [Fact]
    public void A_missing_note_does_not_shift_the_others()
    {
        var (row, _) = Hear("trumpet-bb", "C4 D4 E4 F4", faults: ["silent=1@2"]);

        Assert.Equal(
            [NoteOutcome.Right, NoteOutcome.NoTone, NoteOutcome.Right, NoteOutcome.Right],
            row.Notes.Select(note => note.Judged.Outcome)
        );
    }

    [Fact]
    public void Air_without_a_tone_is_told_from_nothing()
    {
        var (row, _) = Hear("trumpet-bb", "C4 D4 E4", faults: ["silent=0.5@2"]);

        Assert.Equal(NoteOutcome.AirOnly, row.Notes[1].Judged.Outcome);
    }

    [Theory]
    [InlineData("cents=-80", RowDoubtKind.OtherTuning)]
    [InlineData("cents=-1200", RowDoubtKind.OtherOctave)]
    [InlineData("cents=-500", RowDoubtKind.OtherInstrument)]
    public void A_take_that_is_off_as_a_whole_is_doubted_not_judged(string miss, RowDoubtKind kind)
    {
        var (row, asked) = Hear("trumpet-bb", "C4 D4 E4 F4 G4", misses: [miss]);

        Assert.Equal(kind, row.Doubt?.Kind);
        Assert.Equal(Outcome.CannotTell, RowJudge.Judge(row, asked, SoundingPupil.Unknown).Outcome);
        if (kind == RowDoubtKind.OtherInstrument)
            Assert.Equal("horn", Catalogue.Get(row.Doubt!.InstrumentId!).Family);
    }

    [Fact]
    public void A_row_longer_than_the_take_says_so_and_keeps_what_is_there()
    {
        var player = Player("trumpet-bb");
        var played = MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4");
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(played, player, 2, 1, []), 120, [], 1).Sound;

        var row = RowListener.Hear(
            sound,
            new AskedRow(
                RowPlan.Even(MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4 F4 G4"), 120, 2),
                player,
                LearningStage.FirstNotes
            )
            {
                UsesMarks = false,
            }
        );

        Assert.Equal(RowDoubtKind.TooShort, row.Doubt?.Kind);
        Assert.Equal(
            [NoteOutcome.Right, NoteOutcome.Right, NoteOutcome.Right, NoteOutcome.NoTone, NoteOutcome.NoTone],
            row.Notes.Select(note => note.Judged.Outcome)
        );
    }

    [Fact]
    public void Two_players_at_once_are_not_judged()
    {
        var player = Player("trumpet-bb");
        MonoSound Play(string notes, int seed) =>
            SimulatedPlayer
                .PlayRow(
                    player.Instrument,
                    PlayedNote.Row(MeantNote.Row(player.Instrument, player.Reading, notes), player, 4, 1, []),
                    120,
                    [],
                    seed
                )
                .Sound;
        var (one, other) = (Play("C4 C4", 1), Play("E4 E4", 2));
        var both = new MonoSound([.. one.Samples.Zip(other.Samples, (a, b) => a + b)], one.SampleRate);

        var row = RowListener.Hear(
            both,
            new AskedRow(RowPlan.Even(MeantNote.Row(player.Instrument, player.Reading, "C4 C4"), 120, 4), player, LearningStage.FirstNotes)
        );

        Assert.Equal(RowDoubtKind.TwoPlayers, row.Doubt?.Kind);
    }

    [Fact]
    public void A_passport_measured_from_open_notes_is_where_they_lie()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var offsets = new Dictionary<int, double>
        {
            [2] = 8,
            [3] = 12,
            [4] = 10,
            [5] = -6,
            [6] = 14,
        };
        var made = new Passport(offsets);
        var open = trumpet.Tubes[0];

        var passport = Passport.Measured(
            trumpet,
            Core.Music.Tuning.Standard,
            offsets.Keys.Select(partial => made.Frequency(trumpet, open, partial, Core.Music.Tuning.Standard))
        );

        Assert.All(offsets, offset => Assert.Equal(offset.Value, passport.PartialCents[offset.Key], 6));
        Assert.Equal(10, passport.LiesCents, 6);
        // Half the missing length of 1.48 m at 10 cents (computed): 50 x 1.48 x (2^(10/1200) - 1) cm = 4.3 mm.
        Assert.Equal(4.3, passport.MainSlideMm(trumpet), 1);
    }

    [Fact]
    public void Pitch_does_not_count_where_only_the_rhythm_is_asked()
    {
        var player = Player("trumpet-bb");
        var meant = MeantNote.Row(player.Instrument, player.Reading, "C4 C4 C4");
        var sound = SimulatedPlayer
            .PlayRow(player.Instrument, PlayedNote.Row(meant, player, 2, 1, [RowMiss.Parse("partial=1")]), 120, [], 1)
            .Sound;

        var row = RowListener.Hear(
            sound,
            new AskedRow(RowPlan.Even(meant, 120, 2), player, LearningStage.FirstNotes) { IgnoresPitch = true }
        );

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.Null(row.Doubt);
    }

    private static (HeardRow Row, AskedRow Asked) Hear(
        string id,
        string notes,
        string[]? misses = null,
        string[]? faults = null,
        double share = 1
    )
    {
        var player = Player(id);
        var meant = MeantNote.Row(player.Instrument, player.Reading, notes);
        var played = PlayedNote.Row(meant, player, 2, share, [.. (misses ?? []).Select(RowMiss.Parse)]);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, played, 120, [.. (faults ?? []).Select(Fault.Parse)], 1).Sound;
        var asked = new AskedRow(RowPlan.Even(meant, 120, 2, share), player, LearningStage.FirstNotes);
        return (RowListener.Hear(sound, asked), asked);
    }

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], Tuning.Standard);
}
