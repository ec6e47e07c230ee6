using Bocca.Core.Instruments;
using Bocca.Core.Music;
using CsCheck;

namespace Bocca.Core.Tests.Instruments;

/// <summary>Every value is computed from tube lengths, and was worked out apart from this code.</summary>
public sealed class TubingTests
{
    [Theory]
    [InlineData(3, 1.96)]
    [InlineData(5, -13.69)]
    [InlineData(7, -31.17)]
    [InlineData(9, 3.91)]
    [InlineData(11, -48.68)]
    [InlineData(13, 40.53)]
    public void Partials_lie_beside_equal_temperament(int partial, double cents) =>
        Assert.Equal(cents, HarmonicSeries.CentsFromEqualTemperament(partial), 0.005);

    [Fact]
    public void Partials_lie_these_semitones_above_the_first() =>
        Assert.Equal([12, 19, 24, 28, 31, 34, 36, 38, 40, 42, 43], Enumerable.Range(2, 11).Select(HarmonicSeries.Semitones));

    [Theory]
    [InlineData("euphonium-4v", "3", 0)]
    [InlineData("euphonium-4v", "1-2", 10.6)]
    [InlineData("euphonium-4v", "2-3", 15.5)]
    [InlineData("euphonium-4v", "1-3", 30.3)]
    [InlineData("euphonium-4v", "1-2-3", 53.6)]
    [InlineData("euphonium-4v", "2-4", 24.5)]
    [InlineData("euphonium-4v", "1-4", 48.0)]
    [InlineData("euphonium-4v", "3-4", 70.5)]
    [InlineData("euphonium-4v-comp", "2-4", 0)]
    [InlineData("euphonium-4v-comp", "1-4", 0)]
    [InlineData("euphonium-4v-comp", "1-2-4", 10.6)]
    [InlineData("euphonium-4v-comp", "2-3-4", 15.5)]
    [InlineData("euphonium-4v-comp", "1-3-4", 30.3)]
    [InlineData("euphonium-4v-comp", "1-2-3-4", 53.6)]
    public void Valves_together_come_out_sharp(string id, string setting, double cents) =>
        Assert.Equal(cents, Tube(id, setting).CentsSharp, 0.05);

    // The nearest note that a tube too short for it can be pulled to: 2-3-4 is 104 cents sharp of nine semitones, 4 of eight.
    [Theory]
    [InlineData("1-4", 7, 48.0)]
    [InlineData("2-3-4", 8, 4.2)]
    [InlineData("1-3-4", 9, 36.7)]
    [InlineData("1-2-3-4", 10, 75.3)]
    public void Four_plain_valves_together_are_named_by_their_real_length(string setting, int semitones, double cents)
    {
        Assert.Equal(semitones, Tube("tuba-bb-4v", setting).Semitones);
        Assert.Equal(cents, Tube("tuba-bb-4v", setting).CentsSharp, 0.05);
    }

    [Theory]
    [InlineData("3", -16.3)]
    [InlineData("2-3", 0)]
    [InlineData("1-3", 15.5)]
    [InlineData("1-2-3", 39.4)]
    public void A_third_valve_drawn_for_2_3_makes_that_true(string setting, double cents)
    {
        var drawn = Catalogue.Read(
            """[{"id":"x","partialOne":"Bb2","valves":[2,1,3],"thirdTunedForTwoThree":true"""
                + """, "readings":[{"id":"treble","clef":"treble"}],"range":["C4","C5"],"firstNotes":["C4"]}]"""
        )[0];
        Setting.TryParse(setting, slide: false, out var parsed);
        Assert.Equal(cents, drawn.TubeOf(parsed)!.Value.CentsSharp, 0.05);
    }

    [Theory]
    [InlineData("3", 0)]
    [InlineData("1-2", 10.6)]
    [InlineData("2-3", 0)]
    [InlineData("1-3", 0)]
    [InlineData("1-2-3", 10.6)]
    public void Three_compensating_valves_lengthen_for_the_third(string setting, double cents)
    {
        var baritone = Catalogue.Read(
            """[{"id":"x","partialOne":"Bb1","valves":[2,1,3],"compensation":"fromThird","""
                + """ "readings":[{"id":"bass","clef":"bass"}],"range":["E2","C4"],"firstNotes":["C3"]}]"""
        )[0];
        Setting.TryParse(setting, slide: false, out var parsed);
        Assert.Equal(cents, baritone.TubeOf(parsed)!.Value.CentsSharp, 0.05);
    }

    [Theory]
    [InlineData("trumpet-bb", "1-2", 0.5)]
    [InlineData("trumpet-bb", "1-3", 1.7)]
    [InlineData("trumpet-bb", "1-2-3", 3.2)]
    [InlineData("euphonium-3v", "1-3", 3.4)]
    [InlineData("horn-f", "1-2-3", 8.5)]
    [InlineData("tuba-bb-3v", "1-2-3", 12.8)]
    public void A_slide_pulled_this_far_brings_it_down(string id, string setting, double cm)
    {
        var tube = Tube(id, setting);
        Assert.Equal(cm, Tubing.PullCm(Catalogue.Get(id).OpenMetres, tube.LengthRatio, tube.CentsSharp), 0.05);
    }

    [Theory]
    [InlineData("2", 8.2)]
    [InlineData("4", 26.0)]
    [InlineData("7", 57.0)]
    [InlineData("T2", 10.9)]
    [InlineData("T6", 61.5)]
    public void A_slide_position_is_this_far_out(string setting, double cm) =>
        Assert.Equal(cm, Tube("trombone-f", setting).SlideOutCm, 0.05);

    [Fact]
    public void The_trigger_leaves_no_seventh_position()
    {
        Assert.True(Setting.TryParse("T7", slide: true, out var seventh));
        Assert.Null(Catalogue.Get("trombone-f").TubeOf(seventh));
    }

    [Theory]
    [InlineData(1, 12.6)]
    [InlineData(4, 10.6)]
    [InlineData(7, 8.9)]
    public void A_centimetre_of_slide_is_this_many_cents(int position, double cents) =>
        Assert.Equal(cents, Tubing.CentsPerCm(2.75, position), 0.05);

    [Fact]
    public void A_warmer_tube_is_sharper()
    {
        Assert.Equal(331.3, Tubing.SpeedOfSound(0), 0.05);
        Assert.Equal(343.2, Tubing.SpeedOfSound(20), 0.05);
        Assert.Equal(2.9, 1200 * Math.Log2(Tubing.SpeedOfSound(21) / Tubing.SpeedOfSound(20)), 0.1);
    }

    [Theory]
    [InlineData("1")]
    [InlineData("4")]
    [InlineData("7")]
    public void A_place_of_the_slide_sounds_as_its_position_does(string position)
    {
        var (trombone, tube) = (Catalogue.Get("trombone"), Tube("trombone", position));
        var place = SlidePlace.Of(trombone.Slide!, tube.SlideOutCm);
        Assert.Equal(trombone.Frequency(tube, 3, Tuning.Standard), place.Hertz(trombone, 3, Tuning.Standard), 0.01);
        Assert.Equal($"position {position}", place.Words);
    }

    [Theory]
    [InlineData(1.5, "1.5 cm out from position 1")]
    [InlineData(-1.5, "1.5 cm in from position 4")]
    public void A_place_beside_a_position_is_told_by_it(double off, string words)
    {
        var slide = Catalogue.Get("trombone").Slide!;
        Assert.Equal(words, SlidePlace.Of(slide, Tubing.SlideOutCm(slide.TubeMetres, off > 0 ? 1 : 4) + off).Words);
    }

    [Fact]
    public void Compensating_valves_are_never_sharper_than_plain_ones()
    {
        var plain = Catalogue.Get("euphonium-4v");
        var compensating = Catalogue.Get("euphonium-4v-comp");
        Gen.Int[0, plain.Tubes.Count - 1].Sample(i => Assert.True(compensating.Tubes[i].LengthRatio >= plain.Tubes[i].LengthRatio - 1e-12));
    }

    private static Tube Tube(string id, string setting)
    {
        var instrument = Catalogue.Get(id);
        Assert.True(Setting.TryParse(setting, instrument.Slide is not null, out var parsed));
        return instrument.TubeOf(parsed)!.Value;
    }
}
