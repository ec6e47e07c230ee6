using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

public class SpectrumTests
{
    private const int Rate = 44100;

    /// <summary>The centroid of sines is the mean of their frequencies by power (definition).</summary>
    [Theory]
    [InlineData(new[] { 1000.0 }, new[] { 1.0 }, 1000)]
    [InlineData(new[] { 500.0, 1500 }, new[] { 1.0, 1 }, 1000)]
    [InlineData(new[] { 500.0, 1500 }, new[] { 1.0, 0.5 }, 700)]
    [InlineData(new[] { 500.0, 9000 }, new[] { 1.0, 1 }, 500)]
    public void The_centroid_is_the_mean_by_power_up_to_six_kilohertz(double[] hertz, double[] amplitudes, double centroid) =>
        Assert.Equal(centroid, Spectrum.CentroidHz(Sines(hertz, amplitudes), 0, 1), 0.01 * centroid);

    [Fact]
    public void Two_pitches_at_once_are_heard_as_two_and_one_with_its_harmonics_as_one()
    {
        double[] falling = [1, 0.7, 0.5, 0.4, 0.3, 0.2];
        double[] Harmonics(double hertz) => [.. Enumerable.Range(1, falling.Length).Select(i => i * hertz)];
        SoundedNote[] note = [Note(233)];
        Assert.False(TwoPitches.Heard(Sines(Harmonics(233), falling), note));
        Assert.True(TwoPitches.Heard(Sines([.. Harmonics(233), .. Harmonics(311)], [.. falling, .. falling]), note));
    }

    private static SoundedNote Note(double hertz) =>
        NoteFinder.Find(
            Sines([hertz, 2 * hertz, 3 * hertz], [1, 0.6, 0.4]),
            PitchTrack.Of(Sines([hertz, 2 * hertz, 3 * hertz], [1, 0.6, 0.4]))
        )[0];

    private static MonoSound Sines(double[] hertz, double[] amplitudes) =>
        new(
            [
                .. Enumerable
                    .Range(0, Rate)
                    .Select(i => (float)(0.1 * hertz.Zip(amplitudes, (hz, a) => a * Math.Sin((2 * Math.PI * hz * i / Rate) + hz)).Sum())),
            ],
            Rate
        );
}
