using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

/// <summary>Whether two players sound at once, on sums of harmonics whose pitches are known.</summary>
public sealed class TwoPitchesTests
{
    private const int Rate = 44100;

    [Theory]
    [InlineData(36)]
    [InlineData(116.5)]
    [InlineData(233.1)]
    [InlineData(466.2)]
    public void One_player_is_one_pitch(double hertz) => Assert.False(Heard(hertz, (hertz, 1)));

    [Theory]
    [InlineData(233.1, 293.7)]
    [InlineData(233.1, 370.0)]
    [InlineData(349.2, 440.0)]
    public void A_second_player_lies_between_the_harmonics_of_the_first(double hertz, double other) =>
        Assert.True(Heard(hertz, (hertz, 1), (other, 0.8)));

    /// <summary>A major third has a common period at a quarter of its lower note: a pitch that nobody plays.</summary>
    [Fact]
    public void A_pitch_of_which_only_what_two_notes_share_sounds_is_nobodys() =>
        Assert.True(Heard(233.1 / 4, (233.1, 1), (233.1 * 5 / 4, 1)));

    /// <summary>So have a fifth, a fourth and a sixth: at a half or a third of the lower note.</summary>
    [Theory]
    [InlineData(2, 3)]
    [InlineData(3, 4)]
    [InlineData(3, 5)]
    public void An_intervals_common_period_is_nobodys(int low, int high)
    {
        Assert.True(Heard(116.5, (116.5 * low, 1), (116.5 * high, 0.8)));
        Assert.True(Heard(36, (36.0 * low, 1), (36.0 * high, 0.8)));
    }

    [Fact]
    public void What_is_too_short_or_wanders_is_not_judged()
    {
        var both = Sum((233.1, 1), (293.7, 0.8));
        Assert.False(TwoPitches.Heard(both, [Note(233.1, 0.1, 0.2, 2)]));
        Assert.False(TwoPitches.Heard(both, [Note(233.1, 0.1, 1.9, 60)]));
        Assert.False(TwoPitches.Heard(both, []));
    }

    private static bool Heard(double pitch, params (double Hertz, double Size)[] tones) =>
        TwoPitches.Heard(Sum(tones), [Note(pitch, 0.1, 1.9, 2)]);

    private static SoundedNote Note(double hertz, double from, double to, double spread) =>
        new()
        {
            StartSeconds = from,
            EndSeconds = to,
            HalfSeconds = from,
            MedianHz = hertz,
            SpreadCents = spread,
            LevelDb = -20,
        };

    private static MonoSound Sum(params (double Hertz, double Size)[] tones)
    {
        var samples = new float[2 * Rate];
        for (var i = 0; i < samples.Length; i++)
            foreach (var (hertz, size) in tones)
                for (var harmonic = 1; harmonic <= 10; harmonic++)
                    samples[i] += (float)(0.1 * size / harmonic * Math.Sin((2 * Math.PI * hertz * harmonic * i / Rate) + harmonic));
        return new MonoSound(samples, Rate);
    }
}
