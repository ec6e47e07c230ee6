using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Simulation;

public sealed class SimulatedPlayerTests
{
    private static readonly CuePlan Short = new(120, 2, 2, 2);

    [Fact]
    public void The_same_seed_gives_the_same_samples_and_another_gives_others()
    {
        MonoSoundSamples(3, out var first);
        MonoSoundSamples(3, out var again);
        MonoSoundSamples(4, out var other);
        Assert.Equal(first, again);
        Assert.NotEqual(first, other);
    }

    [Theory]
    [InlineData("trumpet-bb", 233.08)]
    [InlineData("horn-f", 174.61)]
    [InlineData("trombone", 116.54)]
    [InlineData("tuba-bb-3v", 58.27)]
    public void Starts_on_the_first_note_of_its_instrument(string id, double hertz) =>
        Assert.Equal(hertz, SimulatedPlayer.StartHz(Catalogue.Get(id), Tuning.Standard), 0.005);

    [Fact]
    public void Never_leaves_full_scale_and_silence_means_no_tone()
    {
        foreach (var kind in Enum.GetValues<FaultKind>())
        {
            var most = Fault.Bounds[kind].Most;
            var take = SimulatedPlayer.Play(
                Catalogue.Get("horn-f"),
                SoundStage.Instrument,
                Short,
                [new Fault(kind, most)],
                2,
                Tuning.Standard
            );
            Assert.All(take.Sound.Samples, sample => Assert.InRange(sample, -1f, 1f));
            Assert.True(
                take.Tones.Count == 2
                    || kind
                        is FaultKind.Silent
                            or FaultKind.AirFirst
                            or FaultKind.Late
                            or FaultKind.SlowStart
                            or FaultKind.Break
                            or FaultKind.Short,
                $"{kind}"
            );
        }
    }

    [Theory]
    [InlineData("air-first=400", FaultKind.AirFirst, 400)]
    [InlineData("drift=-12.5", FaultKind.Drift, -12.5)]
    public void Reads_a_fault(string text, FaultKind kind, double amount) => Assert.Equal(new Fault(kind, amount), Fault.Parse(text));

    [Fact]
    public void Reads_a_fault_of_some_tries()
    {
        var fault = Fault.Parse("wobble=40@2,4");
        Assert.Equal([false, true, false, true], Enumerable.Range(1, 4).Select(fault.Befalls));
    }

    [Theory]
    [InlineData("sneeze=1")]
    [InlineData("wobble")]
    [InlineData("wobble=lots")]
    [InlineData("wobble=9999")]
    [InlineData("wobble=NaN")]
    [InlineData("wobble=10@0")]
    [InlineData("wobble=10@2,2")]
    public void Refuses_what_is_no_fault_and_names_it(string text) =>
        Assert.Contains(text.Split('=')[0], Assert.Throws<FormatException>(() => Fault.Parse(text)).Message);

    private static void MonoSoundSamples(int seed, out float[] samples) =>
        samples = SimulatedPlayer.Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, Short, [], seed, Tuning.Standard).Sound.Samples;
}
