using System.Numerics;
using Bocca.Core.Sound;
using CsCheck;
using MathNet.Numerics;
using MathNet.Numerics.IntegralTransforms;

namespace Bocca.Core.Tests.Sound;

public class PowerSpectrumTests
{
    /// <summary>A general-purpose library's complex transform of the same windowed samples is the reference.</summary>
    [Theory]
    [InlineData(4)]
    [InlineData(8)]
    [InlineData(16)]
    [InlineData(64)]
    [InlineData(2048)]
    [InlineData(8192)]
    public void Any_sound_has_the_power_that_a_reference_library_gives_it(int length) =>
        Gen.Float[-1, 1]
            .Array[length]
            .Sample(
                samples =>
                {
                    var window = Window.Hann(length);
                    var bins = samples.Select((sample, i) => new Complex(sample * window[i], 0)).ToArray();
                    Fourier.Forward(bins, FourierOptions.NoScaling);

                    var power = new PowerSpectrum(length).Of(samples, 0);

                    Assert.Equal((length / 2) + 1, power.Length);
                    for (var bin = 0; bin < power.Length; bin++)
                        Assert.Equal(bins[bin].Magnitude * bins[bin].Magnitude, power[bin], 1e-7 * length);
                },
                iter: 20
            );

    [Fact]
    public void What_lies_outside_the_sound_counts_as_silence()
    {
        var tone = Enumerable.Range(0, 64).Select(i => MathF.Sin(i)).ToArray();
        var padded = new float[128];
        tone.CopyTo(padded, 32);

        Assert.Equal(new PowerSpectrum(128).Of(padded, 0).ToArray(), new PowerSpectrum(128).Of(tone, -32).ToArray());
    }

    [Theory]
    [InlineData(-1000)]
    [InlineData(-128)]
    [InlineData(64)]
    [InlineData(int.MaxValue)]
    public void A_window_beside_the_sound_is_silent(int start) =>
        Assert.All(
            new PowerSpectrum(128)
                .Of(
                    new float[64]
                        .Select(_ => 1f)
                        .ToArray(),
                    start
                )
                .ToArray(),
            power => Assert.Equal(0, power)
        );

    [Theory]
    [InlineData(0)]
    [InlineData(2)]
    [InlineData(100)]
    public void Only_powers_of_two_are_taken(int length) => Assert.Throws<ArgumentOutOfRangeException>(() => new PowerSpectrum(length));
}
