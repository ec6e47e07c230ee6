using Bocca.Core.Buzz.Measures;
using Bocca.Core.Fingering;
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

/// <summary>Drills on the instrument: laid out, played by the practice player, held against what they are for.</summary>
public class ToneDrillTests
{
    [Fact]
    public void Every_drill_is_laid_out_for_every_instrument_and_approach()
    {
        foreach (var instrument in Catalogue.All)
        foreach (var preset in Enum.GetValues<ApproachPreset>())
        foreach (var drill in ToneDrill.All)
        {
            var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
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
        Assert.Contains(
            "clean up to D5",
            Drill("joined-repeats", [], []).Asked.Single(aim => aim.What == "upward").Heard,
            StringComparison.Ordinal
        );
    }

    /// <summary>Eight eighths on each of five middle notes and back: G4 A4 B4 C5 D5 on a trumpet (common practice).</summary>
    [Theory]
    [InlineData("trumpet-bb", "G4 A4 B4 C5 D5 C5 B4 A4 G4")]
    [InlineData("trombone", "F3 G3 A3 Bb3 C4 Bb3 A3 G3 F3")]
    [InlineData("horn-f", "C4 D4 E4 F4 G4 F4 E4 D4 C4")]
    [InlineData("tuba-eb-3v", "F2 G2 A2 Bb2 C3 Bb2 A2 G2 F2")]
    public void Joined_repeats_go_up_five_middle_notes_and_back(string id, string notes)
    {
        var plan = ToneDrill.Get("joined-repeats").Plan(Player(id), Approach.Of(ApproachPreset.MouthpieceFirst), 60);
        Assert.Equal(notes, string.Join(' ', plan.Notes.Where((_, i) => i % 8 == 0).Select(note => note.Meant.Written)));
        Assert.All(plan.Notes, note => Assert.Equal(0.5, note.Beats));
    }

    /// <summary>From the concert B flat: above, below and back, up at most a fourth (common practice).</summary>
    [Theory]
    [InlineData("trumpet-bb", "C4 D4 C4 C4 B3 C4 C4 E4 C4 C4 F4 C4")]
    [InlineData("euphonium-3v", "Bb2 C3 Bb2 Bb2 A2 Bb2 Bb2 D3 Bb2 Bb2 Eb3 Bb2")]
    public void The_warm_up_stays_close_to_home(string id, string notes) =>
        Assert.Equal(
            notes,
            string.Join(
                ' ',
                ToneDrill
                    .Get("warm-up")
                    .Plan(Player(id), Approach.Of(ApproachPreset.MouthpieceFirst), 60)
                    .Notes.Select(note => note.Meant.Written)
            )
        );

    /// <summary>As many as exist: six on a trumpet and a trombone, thirteen on an E flat tuba (computed).</summary>
    [Theory]
    [InlineData("trumpet-bb", 6)]
    [InlineData("trombone", 6)]
    [InlineData("tuba-eb-3v", 13)]
    public void Neighbours_go_down_as_far_as_the_instrument(string id, int fit)
    {
        var plan = ToneDrill.Get("neighbours").Plan(Player(id), Approach.Of(ApproachPreset.MouthpieceFirst), 60);
        Assert.Equal(fit, plan.Phrases.Count);
        // Half, half, whole: eight counts each, 48 s for six at 60 (computed).
        Assert.Equal(8 * fit, plan.Notes.Sum(note => note.Beats));
    }

    /// <summary>Eight patterns on the notes learnt last, in the end on mi, and eight on do once all five are learnt.</summary>
    [Fact]
    public void Patterns_come_one_by_one_on_mi_and_on_do()
    {
        List<string> Patterns(int learnt) =>
            [
                .. Enumerable
                    .Range(0, 16)
                    .Select(clean => Player("trumpet-bb") with { Clean = clean, Learnt = learnt })
                    .Select(player => ToneDrill.Get("patterns").Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 72))
                    .Select(plan => string.Join(' ', plan.Notes.Take(3).Select(note => note.Meant.Written))),
            ];
        Assert.Equal(8, Patterns(3).Distinct().Count());
        Assert.All(Patterns(3), pattern => Assert.DoesNotContain("F4", pattern, StringComparison.Ordinal));
        Assert.Equal(16, Patterns(5).Distinct().Count());
        Assert.All(Patterns(5).Skip(8), pattern => Assert.DoesNotContain("G4", pattern, StringComparison.Ordinal));
    }

    /// <summary>Concert B flat where its octave fits, else F; semitones go in two breaths.</summary>
    [Theory]
    [InlineData("trumpet-bb", "C4", "C5")]
    [InlineData("horn-f", "C4", "C5")]
    [InlineData("euphonium-3v", "Bb2", "Bb3")]
    [InlineData("tuba-eb-3v", "F2", "F3")]
    public void Scales_lie_in_range(string id, string low, string high)
    {
        foreach (var drill in (string[])["major-scale", "chromatic"])
        {
            var notes = ToneDrill.Get(drill).Plan(Player(id), Approach.Of(ApproachPreset.MouthpieceFirst), 72).Notes;
            Assert.Equal(low, notes.MinBy(note => note.Meant.Sounding.Midi)!.Meant.Written.ToString());
            Assert.Equal(high, notes.MaxBy(note => note.Meant.Sounding.Midi)!.Meant.Written.ToString());
        }
    }

    /// <summary>Every one counted, played, heard and judged: played well, nothing that was asked is missed.</summary>
    [Theory]
    [InlineData("neighbours", "trumpet-bb")]
    [InlineData("patterns", "trumpet-bb")]
    [InlineData("major-scale", "euphonium-3v")]
    [InlineData("chromatic", "trumpet-bb")]
    [InlineData("second-try", "horn-f")]
    [InlineData("one-steady-note", "trumpet-bb")]
    [InlineData("level-by-position", "trombone")]
    [InlineData("too-starts", "tuba-bb-3v")]
    [InlineData("leadpipe-held", "trumpet-bb")]
    [InlineData("warm-up", "trumpet-bb")]
    [InlineData("joined-repeats", "trombone")]
    [InlineData("slide-stations", "trombone")]
    [InlineData("far-stations", "trombone")]
    [InlineData("cavity-contrast", "horn-f")]
    [InlineData("first-tunes", "tuba-eb-3v")]
    [InlineData("fastest-tongue", "trumpet-bb")]
    public void Each_is_heard_and_judged_from_end_to_end(string id, string instrument)
    {
        var verdict = Drill(id, [], [], instrument: instrument);
        Assert.NotEqual(Outcome.CannotTell, verdict.Outcome);
        Assert.NotEmpty(verdict.Asked);
        Assert.All(verdict.Asked, aim => Assert.True(aim.Met != false, $"{aim.What}: {aim.Asked}, heard {aim.Heard}"));
    }

    /// <summary>Steps before leaps, and few changes of partial before many (common practice: do mi so is hard).</summary>
    [Theory]
    [InlineData("trumpet-bb")]
    [InlineData("horn-f")]
    [InlineData("euphonium-3v")]
    [InlineData("trombone-f")]
    public void First_tunes_come_in_the_order_of_their_changes_of_partial(string id)
    {
        var drill = ToneDrill.Get("first-tunes");
        List<RowPlan> tunes =
        [
            .. Enumerable
                .Range(0, drill.Sets.Count)
                .Select(clean => drill.Plan(Player(id) with { Clean = clean }, Approach.Of(ApproachPreset.MouthpieceFirst), 72)),
        ];
        int Changes(RowPlan tune) =>
            tune.Meant.Take(11).Zip(tune.Meant.Skip(1).Take(10)).Count(step => step.First.Partial != step.Second.Partial);
        Assert.Equal(drill.Sets.Count, tunes.Select(tune => tune.Notes[0].Label).Distinct().Count());
        Assert.Equal(tunes.Select(Changes).Order(), tunes.Select(Changes));
        // Eleven notes, four bars of four, twice.
        Assert.All(tunes, tune => Assert.Equal((22, 32.0), (tune.Notes.Count, tune.Notes.Sum(note => note.Beats))));
        if (id == "trumpet-bb")
            Assert.Equal("Gull on a Post", tunes[0].Notes[0].Label);
    }

    [Fact]
    public void A_tune_asks_for_learnt_notes_alone()
    {
        var player = Player("trumpet-bb") with { Learnt = 3 };
        var approach = Approach.Of(ApproachPreset.AirFirst);
        var learnt = FirstNotes.Of(player.Instrument, player.Reading, approach).Take(3).ToList();
        var tune = ToneDrill.Get("first-tunes").Plan(player, approach, 72);
        Assert.All(tune.Meant, note => Assert.Contains(note.Written, learnt));
        Assert.False(ToneDrill.Get("first-tunes").IsFor(player with { Learnt = 1 }, approach));
    }

    [Fact]
    public void Drills_of_first_notes_are_offered_from_the_beginning_and_later_ones_from_their_stage_on()
    {
        var (player, approach) = (Player("trumpet-bb"), Approach.Of(ApproachPreset.AirFirst));
        var drills = ToneDrill.All.Where(drill => drill.IsFor(player, approach)).ToList();
        Assert.Contains(drills, drill => drill.From > LearningStage.FirstNotes);
        foreach (var drill in drills)
        foreach (var stage in Enum.GetValues<LearningStage>())
            Assert.Equal(drill.From <= LearningStage.FirstNotes || stage >= drill.From, drill.IsOffered(player, approach, stage));
        Assert.DoesNotContain(
            ToneDrill.All,
            drill => !drill.IsFor(player, approach) && drill.IsOffered(player, approach, LearningStage.Second)
        );
    }

    /// <summary>Three centimetres short at 9 to 12 cents a centimetre (computed from the tube's length).</summary>
    [Fact]
    public void Stations_are_told_in_centimetres()
    {
        var asked = Drill("slide-stations", ["slide-in=3@3"], [], instrument: "trombone").Asked;
        Assert.Equal([true, true, false, true], asked.Select(aim => aim.Met));
        Assert.Matches(@"^(2\.[5-9]|3\.[0-5]) cm too far in$", asked[2].Heard);
    }

    [Fact]
    public void The_mouth_s_shape_is_compared_by_its_sound()
    {
        Assert.All(Drill("cavity-contrast", [], []).Asked, aim => Assert.Contains("no difference", aim.Heard, StringComparison.Ordinal));
        // The first three notes, the closed ones, through a low-pass of first order at 700 Hz: a darker sound of the same pitch.
        var (player, drill) = (Player("trumpet-bb"), ToneDrill.Get("cavity-contrast"));
        var plan = drill.Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), drill.Tempo);
        var how = new RowCharacter("good", "", [], []);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, [], 4).Sound;
        var samples = sound.Samples.ToArray();
        var last = (int)((sound.CueSeconds![3] - 0.2) * sound.SampleRate);
        for (var i = 1; i < last; i++)
            samples[i] = samples[i - 1] + (0.1f * (samples[i] - samples[i - 1]));
        var asked = new AskedRow(plan, player, LearningStage.FirstNotes) { Drill = drill };
        var heard = RowListener.Hear(new MonoSound(samples, sound.SampleRate, sound.CueSeconds), asked);
        var compared = RowJudge.Judge(heard, asked, SoundingPupil.Unknown).Asked;
        Assert.Equal(2, compared.Count);
        Assert.All(compared, aim => Assert.Contains("brighter", aim.Heard, StringComparison.Ordinal));
    }

    [Fact]
    public void The_quickest_even_tongue_is_the_last_rung_before_one_that_is_not_even()
    {
        Assert.Contains(Drill("fastest-tongue", [], []).Asked, aim => aim is { What: "quickest even", Heard: "5.3 notes a second" });
        // The third rung, notes 17 to 24, limps.
        var limps = Drill("fastest-tongue", [], ["late=110@18,20,22,24"]).Asked;
        Assert.Equal("3.6 notes a second", limps.Single(aim => aim.What == "quickest even").Heard);
        // Twenty seconds that slow down: note n of the last 54 comes n squared half milliseconds late (computed: 14 % slower at its end).
        var tires = Drill("fastest-tongue", [], [.. Enumerable.Range(1, 53).Select(n => $"late={0.5 * n * n:0}@{33 + n}")]).Asked;
        Assert.True(Drill("fastest-tongue", [], []).Asked[^1].Met);
        Assert.Matches("% slower$", tires[^1].Heard);
        Assert.False(tires[^1].Met);
    }

    /// <summary>Five swings a second, twenty cents either way (computed: a sine of half-range 20 has a deviation of 14).</summary>
    [Fact]
    public void A_vibrato_that_is_asked_is_told_by_rate_and_width_and_is_no_wobble()
    {
        Verdict Heard(string vibrato) =>
            Drill("long-notes", [], ["wobble=30"], approach: Approach.Of(ApproachPreset.MouthpieceFirst).With("vibrato", vibrato));
        Assert.Contains(Heard("a").Findings, finding => finding.Symptom.Id == "wobble");
        var asked = Heard("b");
        Assert.DoesNotContain(asked.Findings, finding => finding.Symptom.Id == "wobble");
        var told = asked.Heard.Single(number => number.Name == "vibrato");
        Assert.Matches(@"^(4\.9|5\.0|5\.1) a second$", told.Value);
        Assert.Matches("^(2[5-9]|3[0-3]) cents either way$", told.Meaning);
    }

    [Theory]
    [InlineData("a", "it drops")]
    [InlineData("b", "it draws back")]
    public void Drills_of_the_tongue_say_which_way_it_moves(string way, string said) =>
        Assert.Contains(
            said,
            ToneDrill.Get("tongue-four").AskFor(Approach.Of(ApproachPreset.MouthpieceFirst).With("tongue.way", way)),
            StringComparison.Ordinal
        );

    /// <summary>A note asked short ends with breath to spare, and a lead pipe is no note: neither says what a breath carries.</summary>
    [Theory]
    [InlineData("held-counts", true)]
    [InlineData("warm-up", false)]
    [InlineData("leadpipe-held", false)]
    public void Only_notes_asked_long_say_what_a_breath_carries(string id, bool says)
    {
        var (player, drill) = (Player("trumpet-bb"), ToneDrill.Get(id));
        var plan = drill.Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), drill.Tempo);
        var how = new RowCharacter(id, id, [], []);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, [], 4).Sound;
        var asked = new AskedRow(plan, player, LearningStage.FirstNotes) { Drill = drill };
        var figures = ToneFigures.Of(RowTrace.Of(RowListener.Hear(sound, asked), asked), false, told: true, drill.Aim).ToList();
        Assert.Equal(says, figures.Exists(figure => figure.Kind == ToneFigures.LongestNote));
    }

    [Fact]
    public void What_they_are_for_is_told()
    {
        Assert.False(Drill("chromatic", [], [], 0.6).Asked.Single(aim => aim.What == "full value").Met);
        Assert.False(Drill("major-scale", ["partial=1@4"], []).Asked.Single(aim => aim.What == "clean").Met);
        Assert.Contains("shorter", Drill("second-try", [], ["short=0.5@2"]).Asked.Single().Heard, StringComparison.Ordinal);
        Assert.False(Drill("neighbours", ["partial=-1@2"], []).Asked.Single(aim => aim.What == "down").Met);
    }

    [Fact]
    public void Starts_are_judged_each_by_its_own_band()
    {
        var swelling = Drill("with-the-tongue", [], ["slow-start=240@3,4,5,6"]);
        Assert.False(swelling.Asked.Single(aim => aim.What == "begun by the tongue").Met);
        Assert.True(swelling.Asked.Single(aim => aim.What == "begun by the air").Met);
        Assert.True(Drill("with-the-tongue", [], []).Asked.Single(aim => aim.What == "begun by the tongue").Met);
    }

    [Fact]
    public void An_experiment_tells_only_differences_beyond_the_spread()
    {
        var verdict = Drill("three-ways", [], ["airy=14@7,8,9"]);

        Assert.Contains(
            "no difference beyond the spread",
            verdict.Asked.Single(aim => aim.What == "second way").Heard,
            StringComparison.Ordinal
        );
        Assert.Contains("airier", verdict.Asked.Single(aim => aim.What == "third way").Heard, StringComparison.Ordinal);
    }

    [Fact]
    public void A_first_sound_may_be_any_partial_where_the_approach_takes_what_speaks()
    {
        var verdict = Drill("first-sound", ["partial=1@2,4"], [], approach: ApproachPreset.AirFirst);

        Assert.Equal(Outcome.Passed, verdict.Outcome);
        Assert.Contains(
            "partial 2 3 times, partial 3 twice",
            verdict.Asked.Single(aim => aim.What == "which came").Heard,
            StringComparison.Ordinal
        );
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
    public void A_long_note_with_holes_in_it_is_one_note()
    {
        var player = Player("trombone");
        var plan = ToneDrill
            .Get("what-came")
            .Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 80, MeantNote.Row(player.Instrument, player.Reading, "C3"));
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
        var plan = ToneDrill
            .Get("patterns")
            .Plan(Player("trumpet-bb") with { Learnt = learnt }, Approach.Of(ApproachPreset.MouthpieceFirst), 72);

        Assert.Equal(notes, string.Join(' ', plan.Meant.Take(3).Select(note => note.Written)));
        Assert.Equal(3, plan.Phrases.Count);
    }

    [Fact]
    public void A_bend_is_told_by_its_depth_and_its_return()
    {
        var verdict = Drill("leadpipe-bend", [], []);

        Assert.True(verdict.Outcome == Outcome.Passed, $"{verdict}");
        Assert.Equal(4, verdict.Asked.Count);
        Assert.All(verdict.Asked, aim => Assert.Matches(@"1[0-9][0-9] cents down, [+-]?\d cents at the end", aim.Heard));
        Assert.Equal(Outcome.Passed, verdict.Outcome);
    }

    [Fact]
    public void A_slide_drawn_in_one_breath_has_no_stop()
    {
        var verdict = Drill("slide-glide", [], [], instrument: "trombone");

        Assert.True(
            verdict.Outcome == Outcome.Passed,
            $"{verdict}" + string.Join("; ", verdict.Asked) + string.Join("; ", verdict.Findings)
        );
        Assert.Equal(3, verdict.Asked.Count);
        Assert.All(verdict.Asked, aim => Assert.Matches(@"3\.\d|4\.\d", aim.Heard));
        Assert.Equal(Outcome.Passed, verdict.Outcome);
    }

    [Fact]
    public void Loudnesses_that_are_one_are_not_three()
    {
        Assert.Contains(Drill("own-levels", [], []).Asked, aim => aim is { What: "soft to medium", Met: false });
    }

    [Fact]
    public void A_session_adds_up_tone_and_time()
    {
        var noon = new DateTime(2026, 3, 2, 12, 0, 0, DateTimeKind.Utc);
        SessionTake Take(int minutes, double level) => new(noon.AddMinutes(minutes), 30, 30, 10, level);

        var session = SessionTone.Of([Take(0, -20), Take(5, -22), Take(10, -24)])!;

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

    [Fact]
    public void The_next_pattern_is_laid_out_when_the_one_before_was_clean_three_times()
    {
        var player = Player("trumpet-bb") with { Clean = 1 };
        var plan = ToneDrill.Get("patterns").Plan(player, Approach.Of(ApproachPreset.MouthpieceFirst), 72);

        Assert.Equal("G4 F4 E4", string.Join(' ', plan.Meant.Take(3).Select(note => note.Written)));
        Assert.All(plan.Phrases, phrase => Assert.Equal(3, phrase.End - phrase.First));

        var clean = Drill("patterns", [], []);
        Assert.Equal("patterns", clean.Next.DrillId);
        Assert.Contains("next pattern", clean.Next.Cue, StringComparison.Ordinal);

        var missed = Drill("patterns", ["partial=-1@4"], []);
        Assert.Contains(missed.Asked, aim => aim is { Heard: "2 of 3", Met: false });
        Assert.NotEqual(Outcome.Passed, missed.Outcome);
    }

    private static Verdict Drill(
        string id,
        string[] misses,
        string[] faults,
        double share = 1,
        ApproachPreset approach = ApproachPreset.MouthpieceFirst,
        string instrument = "trumpet-bb"
    ) => Drill(id, misses, faults, Approach.Of(approach), share, instrument);

    private static Verdict Drill(
        string id,
        string[] misses,
        string[] faults,
        Approach approach,
        double share = 1,
        string instrument = "trumpet-bb"
    )
    {
        var (player, drill) = (Player(instrument), ToneDrill.Get(id));
        var plan = drill.Plan(player, approach, drill.Tempo);
        var how = new RowCharacter(id, id, [.. misses.Select(RowMiss.Parse)], [.. faults.Select(Fault.Parse)], share);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, how.Faults, 4).Sound;
        var asked = new AskedRow(plan, player, LearningStage.FirstNotes) { Drill = drill };
        return RowJudge.Judge(RowListener.Hear(sound, asked), asked, SoundingPupil.Unknown with { Approach = approach });
    }

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], Tuning.Standard);
}
