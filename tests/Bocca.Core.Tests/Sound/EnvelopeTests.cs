using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

public class EnvelopeTests
{
    private const int Rate = 8000;

    /// <summary>A sine of amplitude a has a mean square of a²/2: 20 log10(a) - 3.01 dB.</summary>
    [Theory]
    [InlineData(1, -3.01)]
    [InlineData(0.1, -23.01)]
    public void A_sine_is_three_decibels_under_its_peak(double amplitude, double db) =>
        Assert.Equal(db, new Envelope(Sine(amplitude)).LevelDb(0.5, 0.5), 0.02);

    [Fact]
    public void Outside_the_sound_there_is_silence()
    {
        var envelope = new Envelope(Sine(1));
        Assert.Equal(-120, envelope.LevelDb(-1, 0.1));
        Assert.Equal(-120, envelope.LevelDb(5, 0.1));
        Assert.Equal(1, envelope.Seconds, 1e-9);
    }

    /// <summary>A file of floats may hold samples of any size: 20 decibels for each tenfold.</summary>
    [Fact]
    public void Samples_of_any_size_have_a_level()
    {
        var envelope = new Envelope(new MonoSound([.. Enumerable.Repeat(1e30f, Rate)], Rate));
        Assert.Equal(600, envelope.LevelDb(0.2, 0.1), 0.01);
        Assert.Equal(600, envelope.LevelDb(0.8, 0.1), 0.01);
    }

    [Fact]
    public void A_height_is_found_where_it_is_passed_forwards_and_backwards()
    {
        var samples = new float[Rate];
        Array.Copy(Sine(0.5).Samples, 0, samples, Rate / 2, Rate / 2);
        var envelope = new Envelope(new MonoSound(samples, Rate));
        Assert.Equal(0.5, envelope.First(0, 1, -30, above: true, 0.01)!.Value, 0.01);
        Assert.Equal(0.5, envelope.First(1, 0, -30, above: false, 0.01)!.Value, 0.01);
        Assert.Null(envelope.First(0, 0.4, -30, above: true, 0.01));
    }

    private static MonoSound Sine(double amplitude) =>
        new([.. Enumerable.Range(0, Rate).Select(i => (float)(amplitude * Math.Sin(2 * Math.PI * 200 * i / Rate)))], Rate);
}
