using Bocca.Core.Buzz;
using Bocca.Core.Instruments;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Tone;

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
        Assert.Equal(TakeOutcome.Passed, RowJudge.Judge(row, asked, JudgedPupil.Unknown).Outcome);
    }

    [Fact]
    public void The_partial_below_is_named_and_a_cue_of_the_approach_offered()
    {
        var (row, asked) = Hear("trumpet-bb", "D4", misses: ["partial=-1"]);
        var verdict = RowJudge.Judge(row, asked, JudgedPupil.Unknown);

        Assert.Equal(NoteOutcome.PartialLow, row.Notes[0].Judged.Outcome);
        Assert.Contains("one partial low", verdict.Summary, StringComparison.Ordinal);
        Assert.Equal("oneLow", verdict.Findings[0].Symptom.Id);
        // A tense pupil is never told to tighten: the cue that firms is left out.
        var tense = RowJudge.Judge(row, asked, JudgedPupil.Unknown with { Tense = true });
        Assert.NotEqual(verdict.Next.Cue, tense.Next.Cue);
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
        var take = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(meant, player, 2, share, []), 120, [new Fault(FaultKind.ClosedEnd, 1)], 1);
        // What really sounded: the lips take a moment to speak.
        var played = take.Tones.Zip(take.Tones.Skip(1)).Average(pair => (pair.First.EndSeconds - pair.First.StartSeconds) / (pair.Second.StartSeconds - pair.First.StartSeconds));

        var row = RowListener.Hear(take.Sound, new AskedRow(RowPlan.Even(meant, 120, 2, share), player, LearningStage.FirstNotes));

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.InRange(RowArticulation.Of(row).Duty!.Value, played - 0.05, played + 0.05);
        Assert.All(row.Notes.Zip(take.Tones), pair => Assert.InRange(pair.First.Sound!.StartSeconds - pair.Second.StartSeconds, -0.015, 0.015));
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
        TakeVerdict Under(string option) => RowJudge.Judge(row, asked, JudgedPupil.Unknown with { Approach = Approach.Of(ApproachPreset.MouthpieceFirst).With("note.end", option) });

        Assert.Contains(Under("a").Findings, finding => finding.Symptom.Id == "cutOff");
        Assert.DoesNotContain(Under("b").Findings, finding => finding.Symptom.Id == "cutOff");
    }

    [Fact]
    public void A_missing_note_does_not_shift_the_others()
    {
        var (row, _) = Hear("trumpet-bb", "C4 D4 E4 F4", faults: ["silent=1@2"]);

        Assert.Equal([NoteOutcome.Right, NoteOutcome.NoTone, NoteOutcome.Right, NoteOutcome.Right], row.Notes.Select(note => note.Judged.Outcome));
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
        Assert.Equal(TakeOutcome.CannotTell, RowJudge.Judge(row, asked, JudgedPupil.Unknown).Outcome);
        if (kind == RowDoubtKind.OtherInstrument)
            Assert.Equal("horn", Catalogue.Get(row.Doubt!.InstrumentId!).Family);
    }

    [Fact]
    public void A_row_longer_than_the_take_says_so_and_keeps_what_is_there()
    {
        var player = Player("trumpet-bb");
        var played = MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4");
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(played, player, 2, 1, []), 120, [], 1).Sound;

        var row = RowListener.Hear(sound, new AskedRow(RowPlan.Even(MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4 F4 G4"), 120, 2), player, LearningStage.FirstNotes) { UsesMarks = false });

        Assert.Equal(RowDoubtKind.TooShort, row.Doubt?.Kind);
        Assert.Equal([NoteOutcome.Right, NoteOutcome.Right, NoteOutcome.Right, NoteOutcome.NoTone, NoteOutcome.NoTone], row.Notes.Select(note => note.Judged.Outcome));
    }

    [Fact]
    public void Two_players_at_once_are_not_judged()
    {
        var player = Player("trumpet-bb");
        MonoSound Play(string notes, int seed) => SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(MeantNote.Row(player.Instrument, player.Reading, notes), player, 4, 1, []), 120, [], seed).Sound;
        var (one, other) = (Play("C4 C4", 1), Play("E4 E4", 2));
        var both = new MonoSound([.. one.Samples.Zip(other.Samples, (a, b) => a + b)], one.SampleRate);

        var row = RowListener.Hear(both, new AskedRow(RowPlan.Even(MeantNote.Row(player.Instrument, player.Reading, "C4 C4"), 120, 4), player, LearningStage.FirstNotes));

        Assert.Equal(RowDoubtKind.TwoPlayers, row.Doubt?.Kind);
    }

    [Fact]
    public void A_passport_measured_from_open_notes_is_where_they_lie()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var offsets = new Dictionary<int, double> { [2] = 8, [3] = 12, [4] = 10, [5] = -6, [6] = 14 };
        var made = new Passport(offsets);
        var open = trumpet.Tubes[0];

        var passport = Passport.Measured(trumpet, Core.Music.Tuning.Standard, offsets.Keys.Select(partial => made.Frequency(trumpet, open, partial, Core.Music.Tuning.Standard)));

        Assert.All(offsets, offset => Assert.Equal(offset.Value, passport.PartialCents[offset.Key], 6));
        Assert.Equal(10, passport.LiesCents, 6);
        // Half the missing length of 1.48 m at 10 cents (computed): 50 x 1.48 x (2^(10/1200) - 1) cm = 4.3 mm.
        Assert.Equal(4.3, passport.MainSlideMm(trumpet), 1);
    }

    [Fact]
    public void Every_drill_is_laid_out_for_every_instrument_and_approach()
    {
        foreach (var instrument in Catalogue.All)
            foreach (var preset in Enum.GetValues<ApproachPreset>())
                foreach (var drill in ToneDrill.All)
                {
                    var player = new PlayerSituation(instrument, instrument.Readings[0]);
                    var plan = drill.Plan(player, Approach.Of(preset), drill.Tempo);
                    Assert.True(plan.TotalSeconds < 180, $"{drill.Id} lasts {plan.TotalSeconds} s.");
                    Assert.Equal(plan.Notes.Count, plan.Phrases.Sum(phrase => phrase.End - phrase.First));
                    Assert.Contains(ToneDrill.All, easier => easier.Id == drill.Easier);
                }
    }

    [Fact]
    public void Repeats_go_up_only_while_they_are_clean()
    {
        var upward = Drill("joined-repeats", [], ["closed-end=1@9,10,11,12,13,14,15,16"], 0.5).Asked.Single(aim => aim.What == "upward");

        Assert.Equal("only while it goes well", upward.Asked);
        Assert.Contains("is not clean yet", upward.Heard, StringComparison.Ordinal);
        Assert.Contains("clean up to E4", Drill("joined-repeats", [], []).Asked.Single(aim => aim.What == "upward").Heard, StringComparison.Ordinal);
    }

    [Fact]
    public void An_experiment_tells_only_differences_beyond_the_spread()
    {
        var verdict = Drill("three-ways", [], ["airy=14@7,8,9"]);

        Assert.Contains("no difference beyond the spread", verdict.Asked.Single(aim => aim.What == "second way").Heard, StringComparison.Ordinal);
        Assert.Contains("airier", verdict.Asked.Single(aim => aim.What == "third way").Heard, StringComparison.Ordinal);
    }

    [Fact]
    public void A_first_sound_may_be_any_partial_where_the_approach_takes_what_speaks()
    {
        var verdict = Drill("first-sound", ["partial=1@2,4"], [], approach: ApproachPreset.AirFirst);

        Assert.Equal(TakeOutcome.Passed, verdict.Outcome);
        Assert.Contains("partial 2 3 times, partial 3 twice", verdict.Asked.Single(aim => aim.What == "which came").Heard, StringComparison.Ordinal);
    }

    [Fact]
    public void The_share_of_short_notes_is_the_teachers()
    {
        var drill = ToneDrill.Get("short-notes");
        RowPlan Plan(double? share) => drill.Plan(Player("trumpet-bb"), Approach.Of(ApproachPreset.MouthpieceFirst), 72, share: share);

        Assert.Equal((0.7, 0.35), (Plan(null).Notes[0].Share, Plan(null).Notes[^1].Share));
        Assert.Equal((0.5, 0.25), (Plan(0.5).Notes[0].Share, Plan(0.5).Notes[^1].Share));
        Assert.Throws<ArgumentException>(() => Plan(1.5));
    }

    [Fact]
    public void Pitch_does_not_count_where_only_the_rhythm_is_asked()
    {
        var player = Player("trumpet-bb");
        var meant = MeantNote.Row(player.Instrument, player.Reading, "C4 C4 C4");
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(meant, player, 2, 1, [RowMiss.Parse("partial=1")]), 120, [], 1).Sound;

        var row = RowListener.Hear(sound, new AskedRow(RowPlan.Even(meant, 120, 2), player, LearningStage.FirstNotes) { IgnoresPitch = true });

        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.Null(row.Doubt);
    }

    [Fact]
    public void A_long_note_with_holes_in_it_is_one_note()
    {
        var player = Player("trombone");
        var plan = ToneDrill.Get("what-came").Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 80, MeantNote.Row(player.Instrument, player.Reading, "C3"));
        var how = new RowCharacter("holes", "", [], [new Fault(FaultKind.Break, 120)]);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), 80, how.Faults, 1).Sound;

        var row = RowListener.Hear(sound, new AskedRow(plan, player, LearningStage.FirstNotes));

        Assert.Empty(row.Extra);
        Assert.All(row.Notes, note => Assert.InRange(note.Sound!.Seconds, 2.5, 3.2));
    }

    [Fact]
    public void Air_begun_by_the_tongue_has_no_tone()
    {
        var verdict = Drill("tongued-air", [], ["silent=0.5"]);

        Assert.StartsWith("4, ", verdict.Asked.Single().Heard, StringComparison.Ordinal);
        Assert.Contains("came", verdict.Summary, StringComparison.Ordinal);
        Assert.Contains("air alone was asked", Drill("tongued-air", [], []).Summary, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(1, "C4 D4 E4")]
    [InlineData(4, "D4 E4 F4")]
    [InlineData(null, "E4 F4 G4")]
    public void Patterns_are_made_of_the_notes_learnt_last(int? learnt, string notes)
    {
        var plan = ToneDrill.Get("patterns").Plan(Player("trumpet-bb") with { Learnt = learnt }, Approach.Of(ApproachPreset.MouthpieceFirst), 72);

        Assert.Equal(notes, string.Join(' ', plan.Meant.Take(3).Select(note => note.Written)));
        Assert.Equal(12, plan.Phrases.Count);
    }

    [Fact]
    public void A_bend_is_told_by_its_depth_and_its_return()
    {
        var verdict = Drill("leadpipe-bend", [], []);

        Assert.True(verdict.Outcome == TakeOutcome.Passed, $"{verdict}");
        Assert.Equal(4, verdict.Asked.Count);
        Assert.All(verdict.Asked, aim => Assert.Matches(@"1[0-9][0-9] cents down, [+-]?\d cents at the end", aim.Heard));
        Assert.Equal(TakeOutcome.Passed, verdict.Outcome);
    }

    [Fact]
    public void A_slide_drawn_in_one_breath_has_no_stop()
    {
        var verdict = Drill("slide-glide", [], [], instrument: "trombone");

        Assert.True(verdict.Outcome == TakeOutcome.Passed, $"{verdict}" + string.Join("; ", verdict.Asked) + string.Join("; ", verdict.Findings));
        Assert.Equal(3, verdict.Asked.Count);
        Assert.All(verdict.Asked, aim => Assert.Matches(@"3\.\d|4\.\d", aim.Heard));
        Assert.Equal(TakeOutcome.Passed, verdict.Outcome);
    }

    [Fact]
    public void Loudnesses_that_are_one_are_not_three()
    {
        Assert.Contains(Drill("own-levels", [], []).Asked, aim => aim is { What: "soft to medium", Met: false });
    }

    [Fact]
    public void A_session_adds_up_tone_and_time()
    {
        TracedNote Note(double level) => new() { Number = 1, Written = "C4", Setting = "0", Partial = 2, Midi = 58, Outcome = NoteOutcome.Right, Sentence = "", StartSeconds = 1, EndSeconds = 4, LevelDb = level };
        var noon = new DateTime(2026, 3, 2, 12, 0, 0, DateTimeKind.Utc);
        RowTrace Trace(double level) => new(30, [.. Enumerable.Repeat(Note(level), 10)], []);

        var session = SessionTone.Of([(noon, Trace(-20)), (noon.AddMinutes(5), Trace(-22)), (noon.AddMinutes(10), Trace(-24))])!;

        Assert.Equal(1.5, session.SoundedMinutes, 6);
        Assert.Equal(10.5, session.ElapsedMinutes, 6);
        Assert.Equal(4, session.FadeDb!.Value, 6);
        Assert.Null(SessionTone.Of([]));
    }

    [Fact]
    public void Short_notes_are_held_against_the_share_asked()
    {
        var verdict = Drill("short-notes", [], [], 0.5);

        Assert.Contains(verdict.Asked, aim => aim is { What: "short", Met: false });
    }

    private static TakeVerdict Drill(string id, string[] misses, string[] faults, double share = 1, ApproachPreset approach = ApproachPreset.MouthpieceFirst, string instrument = "trumpet-bb")
    {
        var (player, drill) = (Player(instrument), ToneDrill.Get(id));
        var plan = drill.Plan(player, Approach.Of(approach), drill.Tempo);
        var how = new RowCharacter(id, id, [.. misses.Select(RowMiss.Parse)], [.. faults.Select(Fault.Parse)], share);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, how.Faults, 4).Sound;
        var asked = new AskedRow(plan, player, LearningStage.FirstNotes) { Drill = drill };
        return RowJudge.Judge(RowListener.Hear(sound, asked), asked, JudgedPupil.Unknown with { Approach = Approach.Of(approach) });
    }

    private static (HeardRow Row, AskedRow Asked) Hear(string id, string notes, string[]? misses = null, string[]? faults = null, double share = 1)
    {
        var player = Player(id);
        var meant = MeantNote.Row(player.Instrument, player.Reading, notes);
        var played = PlayedNote.Row(meant, player, 2, share, [.. (misses ?? []).Select(RowMiss.Parse)]);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, played, 120, [.. (faults ?? []).Select(Fault.Parse)], 1).Sound;
        var asked = new AskedRow(RowPlan.Even(meant, 120, 2, share), player, LearningStage.FirstNotes);
        return (RowListener.Hear(sound, asked), asked);
    }

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0]);
}
