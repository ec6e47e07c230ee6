using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tests.Sound;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Tone;

/// <summary>
/// Rows of plain sums of sines at the pitches that the tubes themselves give (lengths of valves added up: common practice), as they are or
/// all moved: what the tube does is told of the tube, and the main slide is named where all of it has moved.
/// </summary>
public sealed class IntonationTests
{
    private const int Rate = 44100;
    private static readonly Partials Sixfold = Partials.Falling(6);

    [Theory]
    [InlineData("trumpet-bb", "D4 C#4 D4 C#4", "1-3 1-2-3 1-3 1-2-3")]
    [InlineData("tuba-bb-3v", "C2 B1 C2 E1", "1-3 1-2-3 1-3 1-2-3")]
    [InlineData("euphonium-3v", "C3 B2 C3 B2", "1-3 1-2-3 1-3 1-2-3")]
    public void A_tube_that_is_sharp_is_told_as_such_and_no_main_slide_is_moved(string id, string notes, string settings)
    {
        var row = Heard(id, notes, settings, 0);
        Assert.Null(row.Doubt);
        Assert.All(row.Notes, note => Assert.Equal(NoteOutcome.Right, note.Judged.Outcome));
        Assert.All(row.Notes, note => Assert.Contains(" is always sharp on this instrument.", note.Judged.Sentence));
        Assert.InRange(row.DriftCentsPerMinute!.Value, -30, 30);
    }

    [Fact]
    public void What_mends_a_sharp_tube_is_named()
    {
        Assert.Matches(
            @"^D4 came, 32 cents sharp: 1-3 is always sharp on this instrument\. Pull the third slide \d+ mm",
            Heard("trumpet-bb", "D4 C#4 D4 C#4", "1-3 1-2-3 1-3 1-2-3", 0).Notes[0].Judged.Sentence
        );
        // Whoever does not pull slides yet is told of the lips.
        Assert.Contains(
            "The lips bring it down",
            Heard("trumpet-bb", "D4 C#4 D4 C#4", "1-3 1-2-3 1-3 1-2-3", 0, new Hand { PullsSlides = false }).Notes[0].Judged.Sentence
        );
    }

    [Fact]
    public void Where_there_is_a_fourth_valve_it_is_named()
    {
        var judged = Heard("euphonium-4v", "C3 B2 C3 B2", "1-3 1-2-3 1-3 1-2-3", 0).Notes[0].Judged;
        Assert.Equal("valve4", judged.Remedy?.What);
        Assert.Contains("always sharp on this instrument. Use 4.", judged.Sentence);
    }

    [Fact]
    public void In_the_first_stage_a_note_that_came_came()
    {
        var row = Heard("trumpet-bb", "D4 C#4 D4 C#4", "1-3 1-2-3 1-3 1-2-3", 0, stage: LearningStage.FirstNotes);
        Assert.All(row.Notes, note => Assert.Equal($"{note.Judged.Meant.Written} came.", note.Judged.Sentence));
        Assert.All(row.Notes, note => Assert.NotNull(note.Judged.Cents));
    }

    /// <summary>Ten cents a second, as lips that tire or squeeze: a drift, and nothing for the main slide.</summary>
    [Fact]
    public void A_row_that_climbs_drifts_and_moves_no_slide()
    {
        var row = Heard("trumpet-bb", "C4 D4 E4 F4 G4 F4 E4 D4", "0 1-3 1-2 1 0 1 1-2 1-3", 0, climbs: 10);
        Assert.Null(row.Doubt);
        Assert.InRange(row.DriftCentsPerMinute!.Value, 500, 700);
    }

    /// <summary>Half the length that is missing: 1.48 m of trumpet want 20 mm more 45 cents sharp, 19 less 45 flat (computed).</summary>
    [Theory]
    [InlineData(45, "out 20 mm")]
    [InlineData(-45, "in 19 mm")]
    public void A_row_that_lies_off_as_a_whole_names_the_main_slide_its_way_and_how_far(double cents, string told)
    {
        var row = Heard("trumpet-bb", "C4 D4 E4 F4 G4", "0 1-3 1-2 1 0", cents);
        Assert.Equal(RowDoubtKind.OtherTuning, row.Doubt?.Kind);
        Assert.True(row.Doubt!.Sentence.Contains(told), row.Doubt.Sentence);
    }

    /// <summary>20 cents sharp: half of 1.2 % of the open tube, a trombone's with its slide closed (computed).</summary>
    [Theory]
    [InlineData("trumpet-bb", "C4 D4 E4 F4 G4", "0 1-3 1-2 1 0", 9)]
    [InlineData("horn-f", "C4 D4 E4 F4 G4", "0 1 0 1 0", 23)]
    [InlineData("trombone", "F3 Eb3 D3 Eb3 F3", "1 3 4 3 1", 16)]
    [InlineData("euphonium-3v", "Bb2 C3 D3 Eb3 F3", "0 1-3 1-2 1 0", 17)]
    [InlineData("tuba-bb-3v", "Bb1 C2 D2 Eb2 F2", "0 1-3 1-2 1 0", 34)]
    public void Twenty_cents_are_named_with_their_millimetres_and_are_no_doubt(string id, string notes, string settings, double mm)
    {
        var row = Heard(id, notes, settings, 20);
        Assert.Null(row.Doubt);
        Assert.Equal(mm, row.MainSlide!.Mm, 0.6);
        Assert.Equal($"The whole row is 20 cents sharp: main slide out {mm:0} mm.", row.MainSlide.Sentence);
        Assert.Equal(-mm, Heard(id, notes, settings, -20).MainSlide!.Mm, 0.6);
    }

    /// <summary>
    /// Fifty rows of eight notes over ten instruments, at the pitches of their own tubes: as they are, all moved up or down, and drifting.
    /// </summary>
    [Theory]
    [InlineData(0, 0)]
    [InlineData(25, 0)]
    [InlineData(-20, 0)]
    [InlineData(60, 0)]
    [InlineData(0, 6)]
    public void The_main_slide_is_named_where_all_has_moved_and_nowhere_else(double cents, double climbs)
    {
        string[] ids =
        [
            "trumpet-bb",
            "cornet-bb",
            "tenor-horn-eb",
            "horn-f",
            "horn-double",
            "trombone",
            "euphonium-3v",
            "euphonium-4v-comp",
            "tuba-bb-4v",
            "tuba-eb-3v",
        ];
        foreach (var (i, id) in ids.Index())
        {
            var player = Player(id);
            var random = new Random(i + (int)cents);
            var chart = FingeringChart.Of(player.Instrument, player.Reading).Where(note => note.Ways[0].Partial is 3 or 4 or 6).ToList();
            var row = Enumerable.Range(0, 8).Select(_ => chart[random.Next(chart.Count)]).ToList();
            var heard = Heard(
                id,
                string.Join(' ', row.Select(note => note.Written)),
                string.Join(' ', row.Select(note => note.Ways[0].Setting)),
                cents,
                climbs: climbs
            );
            if (cents == 0)
            {
                Assert.True(heard.MainSlide is null, $"{id}: {heard.MainSlide?.Sentence}");
                continue;
            }

            Assert.True(heard.MainSlide is not null, $"{id}: no main slide for {cents} cents");
            Assert.Equal(player.Instrument.MainSlideMm(cents), heard.MainSlide.Mm, 2.0);
        }
    }

    /// <summary>Slides that are set once: 17 mm on a euphonium make 2-3 true and leave 1-3 half of its 30 cents (computed).</summary>
    [Fact]
    public void Where_the_third_slide_does_not_move_its_setting_is_proposed()
    {
        var remedy = Heard("euphonium-3v", "C3 B2 C3 B2", "1-3 1-2-3 1-3 1-2-3", 0).Notes[0].Judged.Remedy!;
        Assert.Equal("third slide set", remedy.What);
        Assert.Equal(1.7, remedy.Cm, 0.05);
        Assert.Equal("The lips bring it down; the third slide, set once 17 mm out for 2-3, leaves 17 cents of it.", remedy.Sentence);
        Assert.NotEqual("third slide set", Heard("euphonium-4v-comp", "D3 Eb3 D3 Eb3", "1-2 1 1-2 1", 0).Notes[0].Judged.Remedy?.What);
    }

    /// <summary>A slur to and fro where one note was meant, slowly or eight times a second; faster the two sound as at once.</summary>
    [Theory]
    [InlineData(0.25)]
    [InlineData(0.12)]
    public void A_tone_between_two_partials_is_that_and_not_right(double seconds)
    {
        var player = Player("trumpet-bb");
        var judged = Flipping(player, "D4", seconds, 2, 3).Notes[0].Judged;
        Assert.Equal("The sound jumped between G3 and D4, partials 2 and 3.", judged.Sentence);
        Assert.Equal(NoteOutcome.NoClearTone, judged.Outcome);
        Assert.NotEqual(NoteOutcome.Right, Flipping(player, "D4", 0.08, 2, 3).Notes[0].Judged.Outcome);
        // One slip at the start is a slip.
        Assert.Equal(NoteOutcome.Right, Flipping(player, "D4", 0.08, 2, 3, times: 1).Notes[0].Judged.Outcome);
    }

    [Fact]
    public void Two_players_are_two_players()
    {
        var player = Player("trumpet-bb");
        var meant = MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4 F4");
        double[] others = [247, 277, 208, 330];
        var samples = new List<float>(new float[Rate]);
        foreach (var (note, other) in meant.Zip(others))
            samples.AddRange(
                Tone(player.Tuning.Frequency(note.Sounding), 0.8).Zip(Tone(other, 0.8), (one, two) => one + two).Concat(new float[Rate / 5])
            );
        var row = Judged(player, meant, samples);
        Assert.Equal(RowDoubtKind.TwoPlayers, row.Doubt?.Kind);
        Assert.All(row.Notes, note => Assert.NotEqual(NoteOutcome.Right, note.Judged.Outcome));
    }

    /// <summary>On a slide a note counts within 25 cents: a whole row that far off is told of the main slide, not note by note.</summary>
    [Fact]
    public void A_trombones_whole_row_is_told_as_such()
    {
        var row = Heard("trombone", "F3 Eb3 D3 Eb3 F3", "1 3 4 3 1", -27);
        Assert.Equal(RowDoubtKind.OtherTuning, row.Doubt?.Kind);
        Assert.Contains("main slide in", row.Doubt!.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void One_note_over_and_over_says_nothing_of_the_main_slide() =>
        Assert.Null(Heard("trumpet-bb", "C4 C4 C4 C4 C4", "0 0 0 0 0", 45).Doubt);

    /// <summary>On every instrument, for every note meant and heard: a doubt names two different things, and equals are one.</summary>
    [Fact]
    public void What_shares_an_outcome_is_one_outcome_everywhere()
    {
        foreach (var id in (string[])["trumpet-bb", "horn-double", "euphonium-4v-comp", "tuba-bb-4v", "trombone"])
        {
            var player = Player(id);
            var chart = FingeringChart.Of(player.Instrument, player.Reading);
            foreach (
                var meant in chart.Where((_, i) => i % 3 == 0).Select(note => MeantNote.Of(player.Instrument, player.Reading, note.Written))
            )
            foreach (var heard in chart)
            {
                var judged = NoteDecider.Decide(meant, Tuning.Standard.Frequency(heard.Sounding), player);
                if (judged.Outcome == NoteOutcome.TwoReadings)
                    Assert.Matches("Too close to call: .+, or .+\\. Which (valves|position)\\?", judged.Sentence);
                if (judged.Sentence.Contains("Another combination", StringComparison.Ordinal))
                    Assert.Equal(NoteOutcome.OtherSetting, judged.Outcome);
                if (judged.Outcome == NoteOutcome.Octave)
                    Assert.Equal(0, judged.By);
                if (Math.Abs(heard.Written.Midi - meant.Written.Midi) is 12 or 24)
                    Assert.Contains("octave", judged.Sentence);
            }
        }
    }

    /// <summary>A child of 45 cm of arm reaches 37 cm of slide: C3 in sixth is not among its first notes, nor in any row.</summary>
    [Fact]
    public void What_lies_beyond_the_reach_is_never_asked()
    {
        var near = Player("trombone") with { Hand = new Hand { ReachCm = 37 } };
        var approach = Approach.Of(ApproachPreset.MouthpieceFirst);
        Assert.Contains(FirstNotePath.Of(Player("trombone"), approach, []).Notes, note => note.Note.Written == Pitch.Parse("C3"));
        Assert.DoesNotContain(FirstNotePath.Of(near, approach, []).Notes, note => note.Note.Written == Pitch.Parse("C3"));
        foreach (var drill in ToneDrill.All.Where(drill => drill.IsFor(near, approach)))
            Assert.All(
                drill.Plan(near, approach, drill.Tempo).Notes,
                note => Assert.True(note.Meant.Setting.Position < 6, $"{drill.Id} asks {note.Meant.Written} in {note.Meant.Setting}")
            );
    }

    /// <summary>Lips that bring a tube in tune are in tune, and nothing is the matter.</summary>
    [Fact]
    public void What_is_in_tune_has_no_remedy()
    {
        var player = Player("trumpet-bb");
        var meant = MeantNote.Of(player.Instrument, player.Reading, Pitch.Parse("E4"));
        var judged = NoteDecider.Decide(meant, Tuning.Standard.Frequency(meant.Sounding) * Math.Pow(2, 4 / 1200.0), player);
        Assert.Equal("E4 came, in tune.", judged.Sentence);
        Assert.Null(judged.Remedy);
    }

    /// <summary>Valves alone, pressed twice a second: each rings at some pitch for a moment (sines that die away in 15 ms).</summary>
    [Fact]
    public void Clicks_of_valves_never_come_and_are_said()
    {
        var random = new Random(2);
        var samples = new float[6 * Rate];
        for (var i = 0; i < samples.Length; i++)
        {
            var t = (i % (Rate / 2) / (double)Rate) - 0.2;
            var ring = t < 0 ? 0 : Math.Exp(-t / 0.015) * (Math.Sin(2 * Math.PI * 262 * t) + (0.4 * Math.Sin(2 * Math.PI * 3100 * t)));
            samples[i] = (float)((0.3 * ring) + (0.0005 * ((2 * random.NextDouble()) - 1)));
        }

        var player = Player("trumpet-bb");
        var plan = new RowPlan(
            60,
            [.. MeantNote.Row(player.Instrument, player.Reading, "D4 D4 D4").Select((note, i) => new AskedNote(note, 2 * i, 1, 1))]
        );
        var row = RowListener.Hear(
            new MonoSound(samples, Rate),
            new AskedRow(plan, player, LearningStage.Second) { FirstCueSeconds = 0.5 }
        );
        Assert.All(row.Notes, note => Assert.Equal("A click or a tap was heard, and no tone.", note.Judged.Sentence));
    }

    private static PlayerSituation Player(string id) => new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], Tuning.Standard);

    private static IEnumerable<float> Tone(double hertz, double seconds) =>
        Enumerable
            .Range(0, (int)(seconds * Rate))
            .Select(i => (double)i / Rate)
            .Select(t => (float)(0.2 * Math.Clamp(Math.Min(t / 0.02, (seconds - t) / 0.02), 0, 1) * Sixfold.At(2 * Math.PI * hertz * t)));

    /// <summary>A tone whose pitch jumps between two partials without a hole.</summary>
    private static HeardRow Flipping(PlayerSituation player, string note, double seconds, int one, int other, int times = 100)
    {
        var meant = MeantNote.Row(player.Instrument, player.Reading, note);
        var samples = new List<float>(new float[Rate]);
        var phase = 0.0;
        for (var i = 0; i < 2 * Rate; i++)
        {
            var at = (int)(i / (seconds * Rate));
            phase += 2 * Math.PI * player.Hertz(meant[0].Tube, at < times && at % 2 == 0 ? one : other) / Rate;
            var loud = Math.Clamp(Math.Min(i / (0.02 * Rate), ((2 * Rate) - i) / (0.02 * Rate)), 0, 1);
            samples.Add((float)(0.2 * loud * Sixfold.At(phase)));
        }

        samples.AddRange(new float[Rate]);
        return RowListener.Hear(
            new MonoSound([.. samples], Rate),
            new AskedRow(new RowPlan(60, [new AskedNote(meant[0], 0, 2, 1)]), player, LearningStage.Second) { FirstCueSeconds = 1 }
        );
    }

    private static HeardRow Judged(PlayerSituation player, IReadOnlyList<MeantNote> meant, List<float> samples) =>
        RowListener.Hear(
            new MonoSound([.. samples], Rate),
            new AskedRow(new RowPlan(60, [.. meant.Select((note, i) => new AskedNote(note, i, 0.8, 0.2))]), player, LearningStage.Second)
            {
                FirstCueSeconds = 1,
            }
        );

    private static HeardRow Heard(
        string id,
        string notes,
        string settings,
        double cents,
        Hand? hand = null,
        LearningStage stage = LearningStage.Second,
        double climbs = 0
    )
    {
        var player = Player(id) with { Hand = hand ?? Hand.Free };
        var meant = MeantNote.Row(player.Instrument, player.Reading, notes, settings);
        var samples = new List<float>(new float[Rate]);
        foreach (var note in meant)
        {
            var since = (samples.Count / (double)Rate) - 1;
            var hertz = player.Hertz(note.Tube, note.Partial) * Math.Pow(2, (cents + (climbs * since)) / 1200);
            for (var i = 0; i < Rate; i++)
            {
                var t = (double)i / Rate;
                var loud = Math.Clamp(Math.Min(t / 0.03, (0.7 - t) / 0.05), 0, 1);
                samples.Add((float)(0.2 * loud * Sixfold.At(2 * Math.PI * hertz * t)));
            }
        }

        var plan = new RowPlan(60, [.. meant.Select((note, i) => new AskedNote(note, i, 0.7, 0.3))]);
        return RowListener.Hear(new MonoSound([.. samples], Rate), new AskedRow(plan, player, stage) { FirstCueSeconds = 1 });
    }
}
