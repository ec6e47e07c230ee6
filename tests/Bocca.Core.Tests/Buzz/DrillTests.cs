using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Buzz;

public sealed class DrillTests
{
    // Computed: four on, four off, four times is 32 counts, 16 of them sounding; 32 s at 60, 24 s at 80.
    [Theory]
    [InlineData(60, 32)]
    [InlineData(80, 24)]
    public void Four_on_four_off_takes_its_time(double tempo, double seconds)
    {
        var plan = BuzzDrill.Get("sound4-rest4").Plan.At(tempo);
        Assert.Equal(seconds, plan.TotalSeconds, 1e-9);
        Assert.Equal(seconds / 2, plan.SoundSeconds * plan.Times, 1e-9);
        Assert.Equal([0, seconds / 4, seconds / 2, seconds * 3 / 4], plan.Cues);
    }

    [Fact]
    public void A_tempo_stays_within_what_can_be_counted()
    {
        Assert.Equal(160, BuzzDrill.All[0].Plan.At(1000).Tempo);
        Assert.Equal(40, BuzzDrill.All[0].Plan.At(1).Tempo);
    }

    [Fact]
    public void Every_drill_steps_back_to_one_that_exists() => Assert.All(BuzzDrill.All, drill => BuzzDrill.Get(drill.Easier));

    [Fact]
    public void Every_symptom_has_something_to_say_to_every_approach_and_to_a_tense_pupil_nothing_that_firms()
    {
        foreach (var symptom in SymptomTable.Shipped.All)
        {
            Assert.False(string.IsNullOrWhiteSpace(symptom.Basis));
            foreach (var approach in Enum.GetValues<ApproachPreset>().Select(Approach.Of))
            {
                Assert.NotNull(symptom.FixFor(approach, tense: false));
                Assert.NotEqual(Pull.Firm, symptom.FixFor(approach, tense: true).Pull);
            }
        }
    }

    [Fact]
    public void Bands_narrow_as_a_pupil_comes_on()
    {
        var lips = BandTable.Shipped.For(SoundStage.Lips, LearningStage.Lips);
        var mouthpiece = BandTable.Shipped.For(SoundStage.Mouthpiece, LearningStage.Lips);
        var notes = BandTable.Shipped.For(SoundStage.Instrument, LearningStage.FirstNotes);
        var second = BandTable.Shipped.For(SoundStage.Instrument, LearningStage.Second);
        Assert.Equal([60, 40, 25, 15], new[] { lips, mouthpiece, notes, second }.Select(bands => bands.SteadyCents));
    }
}
