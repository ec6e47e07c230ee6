using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Advice;

/// <summary>Situations of a lesson as a top teacher meets them: what is heard, said first, said next, and done then.</summary>
public sealed class SituationsTests(ITestOutputHelper output)
{
    private static readonly Approach Usual = Approach.Of(ApproachPreset.MouthpieceFirst);

    private static Verdict Row(
        string id,
        string notes,
        string[] misses,
        LearningStage stage,
        SoundingPupil pupil,
        string[]? faults = null,
        double share = 0.9,
        string? settings = null
    )
    {
        var instrument = Catalogue.Get(id);
        var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var meant = MeantNote.Row(instrument, instrument.Readings[0], notes, settings);
        var plan = RowPlan.Even(meant, 60, 1);
        var played = PlayedNote.Row(meant, player, 2, share, [.. misses.Select(RowMiss.Parse)]);
        var sound = SimulatedPlayer.PlayRow(instrument, played, 60, [.. (faults ?? []).Select(Fault.Parse)], 3).Sound;
        var asked = new AskedRow(plan with { Tempo = 30 }, player, stage) { UsesMarks = false };
        var row = RowListener.Hear(sound, asked);
        return RowJudge.Judge(row, asked, pupil);
    }

    private static Verdict Buzz(string id, SoundStage on, string faults, SoundingPupil pupil)
    {
        var drill = BuzzDrill.Get("sound4-rest4");
        var take = SimulatedPlayer.Play(
            Catalogue.Get(id),
            on,
            drill.Plan,
            [.. faults.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)],
            3,
            Tuning.Standard
        );
        return TakeListener.Hear(take.Sound, new AskedTake(drill, drill.Plan, on, LearningStage.FirstNotes, null), pupil).Verdict;
    }

    /// <summary>What a top teacher would hear, say first and next, and which drill follows (common practice).</summary>
    /// <param name="Name">The situation.</param>
    /// <param name="Play">Plays it for a pupil, and says what Bocca says.</param>
    /// <param name="Heard">What is heard.</param>
    /// <param name="Cues">What is said first, and after three tries without gain.</param>
    /// <param name="Then">The drill that mends it, first and next.</param>
    public sealed record Situation(string Name, Func<SoundingPupil, Verdict> Play, string Heard, string[] Cues, string[] Then)
    {
        public override string ToString() => Name;
    }

    private static Verdict Slur(SoundingPupil pupil)
    {
        var instrument = Catalogue.Get("trumpet-bb");
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Pieces, Usual);
        var slur = SlurWriter.Sheet(player, SlurShape.Get("pair"), 3).Slurs[0];
        var situation = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var asked = new AskedSlur(slur, 80, 1, situation, LearningStage.FirstNotes);
        var how = SlurCharacter.Get("breaks");
        var sound = SimulatedPlayer.PlayRow(instrument, how.Play(asked), 80, how.Faults, 3).Sound;
        return SlurJudge.Judge(HeardSlur.Hear(sound, asked), asked, pupil, null);
    }

    private static readonly Evidence[] CheeksAndAir =
    [
        new("seen.cheeks", "Seen: cheeks puff out."),
        new("yes.airHeard", "Is there air in the tone? Yes."),
    ];

    public static TheoryData<Situation> Played =>
        [
            new Situation(
                "trumpet, week 2: D4 falls to G3",
                pupil => Row("trumpet-bb", "D4", ["partial=-1"], LearningStage.FirstNotes, pupil),
                "D4 came out as G3: one partial low. Valves right.",
                ["Sing it, then play it.", "Start on ee."],
                ["tone:new-note", "tone:open-pair"]
            ),
            new Situation(
                "mouthpiece: airy, cheeks out",
                pupil => Buzz("trumpet-bb", SoundStage.Mouthpiece, "airy=16", pupil with { Known = CheeksAndAir }),
                "There is air in the tone",
                ["A hand on the cheek: keep it flat.", "Say m, keep that mouth, buzz."],
                ["buzz:face-shape", "buzz:face-shape"]
            ),
            new Situation(
                "horn: A4 comes as B4",
                pupil => Row("horn-f", "A4", ["partial=1"], LearningStage.FirstNotes, pupil),
                "A4 came out as B4: one partial high",
                ["Sing it, hear it, then play it.", "Softer start, easier air."],
                ["tone:open-pair", "tone:open-pair"]
            ),
            new Situation(
                "trombone: 4th, 4 cm in",
                pupil =>
                    Row(
                        "trombone",
                        "D3",
                        ["slide-in=4"],
                        LearningStage.Second,
                        pupil with
                        {
                            Approach = pupil.Approach.With(Approach.Points("slide.find=c")),
                        }
                    ),
                "D3 is 43 cents sharp: the slide is 4.0 cm too far in",
                ["Move until it rings.", "Look at the landmark as you move."],
                ["tone:slide-stations", "tone:slide-stations"]
            ),
            new Situation(
                "tuba: Bb1 late",
                pupil => Buzz("tuba-bb-3v", SoundStage.Instrument, "late=300", pupil),
                "300 ms after the beat",
                ["Breathe in on the last two counts of the rest.", "Let the air move first."],
                ["tone:first-sound", "buzz:air-first-note"]
            ),
            new Situation(
                "the tongue closes notes",
                pupil => Row("trumpet-bb", "C4 D4 E4 F4", [], LearningStage.FirstNotes, pupil, ["closed-end=1@1,2,3"], 0.6),
                "Three of four were closed by the tongue.",
                ["Let the air end the note.", "Doo-doo-doo on one breath."],
                ["tone:joined-repeats", "tone:joined-repeats"]
            ),
            new Situation(
                "slur with a gap of air",
                Slur,
                "ms between, no tongue.",
                ["Blow through the change.", "Two notes, one long breath."],
                ["slurs", "slurs"]
            ),
        ];

    [Theory]
    [MemberData(nameof(Played))]
    public void One_sentence_one_action_the_right_drill_and_the_next_rung_after_three_tries_without_gain(Situation situation)
    {
        var pupil = new SoundingPupil(Usual, OwnSound.Unknown);
        var first = situation.Play(pupil);
        output.WriteLine($"{situation.Name}: {first.Summary} / {first.Next.Cue} / {first.Next.Mends}");
        Assert.Contains(situation.Heard, first.Summary, StringComparison.Ordinal);
        Assert.Equal((situation.Cues[0], situation.Then[0]), (first.Next.Cue, first.Next.Mends));
        Assert.InRange(first.Next.Cue.Split(' ').Length, 1, Fix.MostWords);

        var given = first.Next.Given!;
        var stuck = situation.Play(
            pupil with
            {
                Cues = new CueHistory([.. Enumerable.Repeat(new CueTry(given, false), CueHistory.Patience)]),
            }
        );
        Assert.Equal((situation.Cues[1], situation.Then[1]), (stuck.Next.Cue, stuck.Next.Mends));
        Assert.Equal(
            situation.Cues[0],
            situation.Play(pupil with { Cues = new CueHistory([new(given, false), new(given, false)]) }).Next.Cue
        );

        // What helped this pupil comes first the next time.
        var helped = situation.Play(pupil with { Cues = new CueHistory([new CueTry(stuck.Next.Given!, true), new CueTry(given, false)]) });
        Assert.Equal(situation.Cues[1], helped.Next.Cue);
    }

    /// <summary>
    /// A euphonium's 1-3 is sharp by its tubes: 4 is used where there is one, else the third slide is set once; in the first stage a
    /// right note is that, and nothing more.
    /// </summary>
    [Theory]
    [InlineData("euphonium-4v-comp", LearningStage.Second, "cents sharp: 1-3 is always sharp on this instrument. Use 4.")]
    [InlineData("euphonium-3v", LearningStage.Second, "third slide")]
    [InlineData("euphonium-3v", LearningStage.FirstNotes, "C3 came.")]
    public void A_combination_that_is_sharp_on_this_instrument_is_not_the_childs_fault(string id, LearningStage stage, string heard)
    {
        var verdict = Row(id, "C3", ["cents=33"], stage, new SoundingPupil(Usual, OwnSound.Unknown), settings: "1-3");
        output.WriteLine(verdict.Summary);
        Assert.Contains(heard, verdict.Summary, StringComparison.Ordinal);
        Assert.DoesNotContain("lips", verdict.Next.Cue, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("dizzy", "Stop. Sit down. Breathe as usual. Tell an adult.")]
    [InlineData("lipsSore", "That is enough for today. Tomorrow half as long, soft and low.")]
    [InlineData("newBraces", "New braces: short and soft for now.")]
    public void What_is_said_where_a_body_complains(string id, string words) => Assert.StartsWith(words, Complaint.Find(id)!.Say);

    [Fact]
    public void After_the_minutes_of_the_stage_the_instrument_goes_down()
    {
        var now = new DateTime(2026, 11, 3, 16, 0, 0, DateTimeKind.Utc);
        var clock = PlayingClock.Of([new(now, 600, 600, 0)], PlayingLimits.For(LearningStage.Second, 200), now);
        Assert.Equal("Instrument down: you have played 10 minutes. Rest for 2 minutes.", clock.Refusal(30, 0, now)!.Value.Sentence);
    }

    /// <summary>With the ear first where nobody sings, and nothing that firms while a pupil is tense.</summary>
    [Fact]
    public void Who_does_not_sing_hears_it_inside_and_who_is_tense_is_never_told_to_firm()
    {
        var silent = new SoundingPupil(Usual.With(Approach.Points("sing=c")), OwnSound.Unknown);
        Assert.Equal("Hear it inside, then play it.", Row("horn-f", "A4", ["partial=1"], LearningStage.FirstNotes, silent).Next.Cue);
        var symptom = SymptomTable.Shipped.Get("oneLow");
        Assert.DoesNotContain(symptom.Ladder(Usual, tense: true), fix => fix.Pull == Pull.Firm);
        foreach (var aim in new AskedHeard[] { new("higher", "", "", false, "Quicker.") { Pull = Pull.Firm } })
            Assert.Equal(Fix.Rest.Cue, aim.CueFor(Usual, tense: true));
    }
}
