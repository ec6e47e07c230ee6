using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Buzz;

/// <summary>The practice player's faults are known, so what is heard can be held against what was played.</summary>
public sealed class TakeListenerTests
{
    private static readonly BuzzDrill Drill = BuzzDrill.Get("sound4-rest4");

    [Theory]
    [InlineData("trumpet-bb")]
    [InlineData("horn-f")]
    [InlineData("trombone")]
    [InlineData("euphonium-4v-comp")]
    [InlineData("tuba-bb-3v")]
    public void A_good_take_passes_on_every_instrument(string id)
    {
        var (heard, played) = Hear(id, []);
        Assert.Equal(Outcome.Passed, heard.Verdict.Outcome);
        Assert.Equal(new Place("notes"), heard.Verdict.Next.Place);
        Assert.Empty(heard.Verdict.Findings);
        Assert.All(
            heard.Measures.Attempts.Zip(played.Tones),
            pair =>
            {
                Assert.InRange(pair.First.StartSeconds!.Value, pair.Second.StartSeconds - 0.04, pair.Second.StartSeconds + 0.03);
                Assert.InRange(pair.First.EndSeconds!.Value, pair.Second.EndSeconds - 0.08, pair.Second.EndSeconds + 0.03);
                Assert.InRange(Tuning.Cents(pair.Second.FrequencyHz, pair.First.MedianHz!.Value), -6, 6);
            }
        );
    }

    [Theory]
    [InlineData("air-first=700", "airFirst", 700, 60)]
    [InlineData("late=600", "late", 600, 60)]
    [InlineData("wobble=60", "wobble", 60, 6)]
    [InlineData("drift=-40", "sags", -40, 4)]
    [InlineData("drift=40", "climbs", 40, 4)]
    [InlineData("scoop=400", "scoop", -200, 80)]
    [InlineData("partial-below=0.5", "fell", -702, 15)]
    [InlineData("fade=6", "fades", -6, 0.6)]
    [InlineData("short=0.5", "short", 1.4, 0.2)]
    [InlineData("uneven=200", "uneven", 200, 150)]
    [InlineData("wander=80", "wanders", 70, 30)]
    [InlineData("silent=0.5@1,2,3", "airOnly", 3, 0)]
    [InlineData("silent=1@1,2", "silence", 2, 0)]
    public void A_fault_is_heard_first_and_measured(string fault, string symptom, double amount, double within)
    {
        var verdict = Hear("trumpet-bb", [Fault.Parse(fault)]).Heard.Verdict;
        var first = verdict.Findings[0];
        Assert.Equal(symptom, first.Symptom.Id);
        Assert.InRange(first.Measured, amount - within, amount + within);
        // The reason says why, and nothing that the summary has said.
        Assert.All(verdict.Summary.Split(". "), said => Assert.DoesNotContain(said.TrimEnd('.'), verdict.Next.Reason));
        Assert.StartsWith(first.Symptom.Cause, verdict.Next.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void Only_the_tries_with_the_fault_are_named()
    {
        var finding = Hear("trombone", [Fault.Parse("air-first=700@2,3")]).Heard.Verdict.Findings[0];
        Assert.Equal([2, 3], finding.Tries);
        Assert.StartsWith("Two of four began with air", finding.Heard);
    }

    [Fact]
    public void More_of_a_fault_measures_as_more() =>
        Gen.Select(Gen.Double[35, 90], Gen.Int[1, 9999])
            .Sample(
                (cents, seed) =>
                {
                    double Wobble(double amount) =>
                        Hear("horn-f", [new Fault(FaultKind.Wobble, amount)], seed)
                            .Heard.Measures.Median(attempt => attempt.WobbleCents)!
                            .Value;
                    Assert.InRange(Wobble(cents * 1.5) / Wobble(cents), 1.3, 1.7);
                },
                iter: 4
            );

    /// <summary>Ten minutes have to fit beside others: what a take costs to hear is about what its samples take.</summary>
    [Fact]
    public void A_long_take_is_heard_in_little_room()
    {
        var once = Hear("trumpet-bb", []).Played.Sound;
        var sound = new MonoSound([.. Enumerable.Range(0, 4).SelectMany(_ => once.Samples)], once.SampleRate);
        var before = GC.GetAllocatedBytesForCurrentThread();
        TakeListener.Hear(sound, Asked(), SoundingPupil.Unknown);
        var used = GC.GetAllocatedBytesForCurrentThread() - before;
        Assert.InRange(used, 1, 2L * sizeof(float) * sound.Samples.Length);
    }

    [Fact]
    public void Holes_are_counted_and_closed_gaps_are_not()
    {
        Assert.All(Hear("trumpet-bb", [Fault.Parse("break=200")]).Heard.Measures.Attempts, attempt => Assert.Equal(1, attempt.Breaks));
        Assert.All(Hear("trumpet-bb", []).Heard.Measures.Attempts, attempt => Assert.Equal(0, attempt.Breaks));
    }

    [Fact]
    public void Half_silent_steps_back_to_something_easier()
    {
        var verdict = Hear("trumpet-bb", [Fault.Parse("silent=1@1,3")]).Heard.Verdict;
        Assert.Equal(Outcome.StepBack, verdict.Outcome);
        Assert.Equal("buzz-bursts", verdict.Next.DrillId);
    }

    [Fact]
    public void A_tense_pupil_is_never_told_to_tighten()
    {
        foreach (var approach in Enum.GetValues<ApproachPreset>().Select(Approach.Of))
        {
            foreach (var fault in new[] { "air-first=700", "partial-below=0.4", "silent=0.5@1,2,3" })
            {
                var tense = Hear(
                    "trumpet-bb",
                    [Fault.Parse(fault)],
                    pupil: new SoundingPupil(approach, OwnSound.Unknown, Tense: true)
                ).Heard.Verdict;
                Assert.DoesNotContain("irm", tense.Next.Cue);
                Assert.DoesNotContain("closer", tense.Next.Cue);
                Assert.DoesNotContain("together", tense.Next.Cue);
            }
        }
    }

    [Fact]
    public void The_approach_words_the_cue()
    {
        string Cue(ApproachPreset preset) =>
            Hear(
                "trumpet-bb",
                [Fault.Parse("silent=0.5@1,2,3")],
                pupil: new SoundingPupil(Approach.Of(preset), OwnSound.Unknown)
            ).Heard.Verdict.Next.Cue;
        Assert.NotEqual(Cue(ApproachPreset.LipsFirst), Cue(ApproachPreset.AirFirst));
    }

    [Fact]
    public void Airy_is_judged_against_the_pupils_own_sound_or_not_at_all()
    {
        var usual = Hear("trumpet-bb", []).Heard.Measures;
        var own = new OwnSound(
            usual.Median(a => a.HarmonicToNoiseDb),
            usual.Median(a => a.CentroidOverPitch),
            usual.Median(a => a.LevelDb)
        );
        var known = Hear(
            "trumpet-bb",
            [Fault.Parse("airy=16")],
            pupil: new SoundingPupil(Approach.Of(ApproachPreset.LipsFirst), own)
        ).Heard.Verdict;
        Assert.Contains("airy", known.Findings.Select(finding => finding.Symptom.Id));
        Assert.DoesNotContain(
            "airy",
            Hear("trumpet-bb", [Fault.Parse("airy=16")]).Heard.Verdict.Findings.Select(finding => finding.Symptom.Id)
        );
    }

    [Fact]
    public void What_cannot_be_heard_is_not_judged()
    {
        var clipped = Hear("trumpet-bb", [Fault.Parse("clipped=20")]).Heard.Verdict;
        Assert.Equal(Outcome.CannotTell, clipped.Outcome);
        Assert.Contains("cut off", clipped.Summary);
        var silent = TakeListener.Hear(new MonoSound(new float[44100 * 5], 44100), Asked(), SoundingPupil.Unknown).Verdict;
        Assert.Equal(Outcome.CannotTell, silent.Outcome);
        Assert.Contains("silence", silent.Summary);
    }

    [Fact]
    public void Without_marks_the_tries_are_taken_as_they_come_and_no_delay_is_claimed()
    {
        var (_, played) = Hear("trumpet-bb", []);
        var heard = TakeListener.Hear(played.Sound with { CueSeconds = null }, Asked(), SoundingPupil.Unknown);
        Assert.Equal(4, heard.Measures.Attempts.Count);
        Assert.All(heard.Measures.Attempts, attempt => Assert.Null(attempt.OnsetDelayMs));
    }

    [Fact]
    public void A_cue_can_be_told_beside_the_sound()
    {
        var (_, played) = Hear("trumpet-bb", []);
        var later = new MonoSound([.. new float[44100], .. played.Sound.Samples], 44100);
        var heard = TakeListener.Hear(later, Asked() with { FirstCueSeconds = 1 }, SoundingPupil.Unknown);
        Assert.All(heard.Measures.Attempts, attempt => Assert.InRange(attempt.OnsetDelayMs!.Value, 0, 120));
    }

    [Fact]
    public void Pieces_that_were_never_recorded_are_not_taken_for_the_room()
    {
        var (_, played) = Hear("trumpet-bb", []);
        var holed = new MonoSound([.. new float[44100 * 6], .. played.Sound.Samples], 44100);
        var heard = TakeListener.Hear(holed, Asked() with { FirstCueSeconds = 6 }, SoundingPupil.Unknown);
        Assert.Equal(Outcome.Passed, heard.Verdict.Outcome);
        Assert.All(heard.Measures.Attempts, attempt => Assert.InRange(attempt.AirBeforeToneMs!.Value, 0, 100));
    }

    private static AskedTake Asked() => new(Drill, Drill.Plan, SoundStage.Mouthpiece, LearningStage.FirstNotes);

    private static (HeardTake Heard, SimulatedTake Played) Hear(
        string id,
        IReadOnlyList<Fault> faults,
        int seed = 11,
        SoundingPupil? pupil = null
    )
    {
        var played = SimulatedPlayer.Play(Catalogue.Get(id), SoundStage.Mouthpiece, Drill.Plan, faults, seed, Tuning.Standard);
        return (TakeListener.Hear(played.Sound, Asked(), pupil ?? SoundingPupil.Unknown), played);
    }
}
