using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Buzz;

/// <summary>A pupil's own scale, made from the practice player's samples on purpose.</summary>
public sealed class OwnScaleTests
{
    private static readonly BuzzDrill Samples = BuzzDrill.Get("three-samples");

    [Theory]
    [InlineData("trumpet-bb")]
    [InlineData("horn-f")]
    [InlineData("trombone")]
    public void Later_buzzes_lie_between_the_samples_in_order(string id)
    {
        var scale = Scale(id);
        Assert.True(scale.TellsOpen && scale.TellsTight);
        var places = new[] { "pinched=0.8", "pinched=0.4", "", "airy=7", "airy=14" }.Select(fault => Place(id, scale, fault)).ToList();
        Assert.Equal(places.Order(), places);
        Assert.InRange(places[0], -1.5, -OwnScale.Near);
        Assert.InRange(places[2], -0.4, 0.4);
        Assert.InRange(places[4], OwnScale.Near, 1.5);
    }

    [Fact]
    public void Near_the_own_tight_sample_is_pinched_and_near_the_open_one_airy()
    {
        var pupil = SoundingPupil.Unknown with { Scale = Scale("trumpet-bb") };
        Assert.Equal("pinched", Judge("trumpet-bb", "pinched=0.8", pupil).Findings[0].Symptom.Id);
        Assert.Equal("airy", Judge("trumpet-bb", "airy=14", pupil).Findings[0].Symptom.Id);
        Assert.Equal(Outcome.Passed, Judge("trumpet-bb", "", pupil).Outcome);
    }

    [Fact]
    public void Without_samples_it_says_so_and_judges_neither()
    {
        foreach (var fault in new[] { "pinched=0.8", "airy=14" })
        {
            var verdict = Judge("trumpet-bb", fault, SoundingPupil.Unknown);
            Assert.NotNull(verdict.NotJudged);
            Assert.Null(verdict.OnOwnScale);
            Assert.DoesNotContain(verdict.Findings, finding => finding.Symptom.Id is "pinched" or "airy");
        }
    }

    [Fact]
    public void Samples_that_are_all_alike_are_not_told_apart()
    {
        var take = SimulatedPlayer.Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, Samples.Plan, [], 3, Tuning.Standard);
        var verdict = TakeListener.Hear(
            take.Sound,
            new AskedTake(Samples, Samples.Plan, SoundStage.Mouthpiece, LearningStage.FirstNotes),
            SoundingPupil.Unknown
        );
        Assert.NotEqual(Outcome.Passed, verdict.Verdict.Outcome);
        Assert.False(OwnScale.From(verdict.Measures)!.TellsTight);
    }

    private static OwnScale Scale(string id)
    {
        var take = SimulatedPlayer.Play(
            Catalogue.Get(id),
            SoundStage.Mouthpiece,
            Samples.Plan,
            [.. Samples.Played.Split(' ').Select(Fault.Parse)],
            3,
            Tuning.Standard
        );
        return OwnScale.From(
            TakeListener
                .Hear(
                    take.Sound,
                    new AskedTake(Samples, Samples.Plan, SoundStage.Mouthpiece, LearningStage.FirstNotes),
                    SoundingPupil.Unknown
                )
                .Measures
        )!;
    }

    private static double Place(string id, OwnScale scale, string fault) =>
        Judge(id, fault, SoundingPupil.Unknown with { Scale = scale }).OnOwnScale!.Value;

    private static Verdict Judge(string id, string fault, SoundingPupil pupil)
    {
        var drill = BuzzDrill.Get("sound4-rest4");
        var take = SimulatedPlayer.Play(
            Catalogue.Get(id),
            SoundStage.Mouthpiece,
            drill.Plan.At(120),
            fault == "" ? [] : [Fault.Parse(fault)],
            8,
            Tuning.Standard
        );
        return TakeListener
            .Hear(take.Sound, new AskedTake(drill, drill.Plan.At(120), SoundStage.Mouthpiece, LearningStage.FirstNotes), pupil)
            .Verdict;
    }
}
