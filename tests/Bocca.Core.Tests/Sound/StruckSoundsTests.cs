using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

/// <summary>What rings when it is struck, and what is blown for as short a time.</summary>
public sealed class StruckSoundsTests
{
    private const int Rate = 44100;

    /// <summary>A body's lowest mode, how fast it dies away (seconds to a third), and a click over it.</summary>
    [Theory]
    [InlineData(180, 0.02)]
    [InlineData(250, 0.015)]
    [InlineData(420, 0.015)]
    [InlineData(120, 0.03)]
    [InlineData(900, 0.01)]
    public void Clicks_and_taps_are_no_tones(double hertz, double decay)
    {
        var track = PitchTrack.Of(
            Rendered(t => Math.Exp(-t / decay) * (Math.Sin(2 * Math.PI * hertz * t) + (0.4 * Math.Sin(2 * Math.PI * 3100 * t))))
        );
        Assert.InRange(track.Frames.Count(frame => frame.Voiced), 0, track.Frames.Count / 50);
        Assert.Empty(AttemptFinder.Find(track, shortestSeconds: 0.02));
        Assert.NotEmpty(track.StruckSeconds);
    }

    /// <summary>A note of 75 ms has a start, a level it holds, and an end.</summary>
    [Theory]
    [InlineData(233)]
    [InlineData(116.5)]
    public void A_short_note_is_a_tone(double hertz)
    {
        var track = PitchTrack.Of(
            Rendered(t =>
                Math.Clamp(Math.Min(t / 0.01, (0.075 - t) / 0.02), 0, 1)
                * Enumerable.Range(1, 8).Sum(k => Math.Sin(2 * Math.PI * k * hertz * t) / k)
            )
        );
        Assert.Empty(track.StruckSeconds);
        Assert.Equal(8, AttemptFinder.Find(track, 0.05, 0.02).Count);
    }

    /// <summary>Eight of them, half a second apart, in a quiet room.</summary>
    private static MonoSound Rendered(Func<double, double> shape)
    {
        var random = new Random(3);
        var samples = new float[4 * Rate];
        for (var i = 0; i < samples.Length; i++)
        {
            var since = (i % (Rate / 2) / (double)Rate) - 0.1;
            samples[i] = (float)((since < 0 ? 0 : 0.3 * shape(since)) + (0.0005 * ((2 * random.NextDouble()) - 1)));
        }

        return new MonoSound(samples, Rate);
    }
}
