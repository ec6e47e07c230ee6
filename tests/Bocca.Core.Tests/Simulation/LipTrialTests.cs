using Bocca.Core.Instruments;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Simulation;

/// <summary>
/// What is known of lips on brass (published: Campbell, Gilbert and Myers 2021; common practice) must come out of the
/// three handles alone: nothing here asks for a fault by name.
/// </summary>
public sealed class LipTrialTests
{
    public static TheoryData<string> Families => ["trumpet-bb", "horn-f", "trombone", "euphonium-4v-comp", "tuba-bb-3v"];

    [Theory, MemberData(nameof(Families))]
    public void Firmer_lips_climb_the_partials_and_slacker_ones_fall_to_the_partial_below(string id)
    {
        var spoken = Enumerable
            .Range(0, 26)
            .Select(step => Play(id, new LipSetting(4 * step, 50, 50)))
            .Where(trial => trial.Outcome == LipOutcome.Speaks)
            .Select(trial => trial.Partial!.Value)
            .ToList();
        Assert.True(spoken.Zip(spoken.Skip(1)).All(pair => pair.Second >= pair.First), string.Join(' ', spoken));
        Assert.Superset(new HashSet<int> { 2, 3, 4 }, spoken.ToHashSet());
    }

    [Theory, MemberData(nameof(Families))]
    public void On_a_tube_it_speaks_near_a_partial_even_when_the_lips_do_not_sit_there(string id)
    {
        var first = id == "horn-f" ? 4 : 2;
        foreach (var partial in new[] { first, first + 1, first + 2 })
        {
            var trial = Play(id, LipSetting.ForPartial(partial));
            Assert.Equal(partial, trial.Partial);
            Assert.InRange(trial.Cents!.Value, -90, 60);
        }
    }

    [Theory, MemberData(nameof(Families))]
    public void Wide_apart_lips_give_air_alone_and_too_little_breath_gives_no_tone(string id)
    {
        Assert.Null(Play(id, LipSetting.ForPartial(2) with { Opening = 100 }, SoundStage.Mouthpiece).Hertz);
        Assert.Null(Play(id, LipSetting.ForPartial(2) with { Air = 1 }).Hertz);
        Assert.Equal(LipOutcome.Silence, Play(id, LipSetting.ForPartial(2) with { Air = 0 }).Outcome);
    }

    [Theory, MemberData(nameof(Families))]
    public void An_open_buzz_is_airier_and_a_tight_one_sharper(string id)
    {
        LipTrial At(double opening) => Play(id, LipSetting.ForPartial(2) with { Opening = opening }, SoundStage.Mouthpiece);
        Assert.True(At(62).NoiseDb < At(50).NoiseDb - 1, $"{At(62).NoiseDb} {At(50).NoiseDb}");
        Assert.True(At(25).Hertz > At(50).Hertz * 1.02);
        Assert.Contains("Pinched", At(25).Sentence);
    }

    [Theory, MemberData(nameof(Families))]
    public void More_breath_is_louder(string id)
    {
        LipTrial At(double air) => Play(id, LipSetting.ForPartial(2) with { Air = air });
        Assert.True(At(70).LevelDb > At(50).LevelDb + 2);
        Assert.True(At(50).LevelDb > At(35).LevelDb + 2);
    }

    [Fact]
    public void A_valve_lowers_what_the_same_lips_find()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var open = LipTrial.Play(trumpet, SoundStage.Instrument, null, LipSetting.ForPartial(3), 1);
        var third = LipTrial.Play(
            trumpet,
            SoundStage.Instrument,
            trumpet.Tubes.First(tube => tube.Setting.ToString() == "1-2-3"),
            LipSetting.ForPartial(3),
            1
        );
        Assert.Equal(3, third.Partial);
        Assert.InRange(12 * Math.Log2(open.Hertz!.Value / third.Hertz!.Value), 5, 6.3);
    }

    [Fact]
    public void The_same_seed_gives_the_same_samples() =>
        Assert.Equal(Play("trombone", LipSetting.ForPartial(3)).Sound.Samples, Play("trombone", LipSetting.ForPartial(3)).Sound.Samples);

    private static LipTrial Play(string id, LipSetting setting, SoundStage on = SoundStage.Instrument) =>
        LipTrial.Play(Catalogue.Get(id), on, null, setting, 7);
}
