using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

/// <summary>What rings when it is struck, and what is blown for as short a time.</summary>
public sealed class StruckSoundsTests
{
    private const int Rate = 44100;
    private static readonly Partials Eightfold = Partials.Falling(8);

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

    /// <summary>A mute that falls, a stand that is kicked: modes that are no multiples of each other, each dying away by itself.</summary>
    [Theory]
    [InlineData(203, 0.10)]
    [InlineData(611, 0.07)]
    [InlineData(340, 0.14)]
    [InlineData(455, 0.05)]
    [InlineData(268, 0.18)]
    public void What_rings_after_a_blow_is_no_tone(double hertz, double decay)
    {
        double Mode(double t, double of, double size) => size * Math.Exp(-of * t / decay) * Math.Sin(2 * Math.PI * of * hertz * t);
        var track = PitchTrack.Of(Rendered(t => Mode(t, 1, 1) + Mode(t, 2.33, 0.7) + Mode(t, 3.66, 0.5), 1));
        Assert.InRange(track.Frames.Count(frame => frame.Voiced), 0, track.Frames.Count / 50);
        Assert.Equal(4, track.StruckSeconds.Count);
    }

    /// <summary>A short note goes on in its room: reverberation times of 0.3 to 1.2 s.</summary>
    [Theory]
    [InlineData(0.3)]
    [InlineData(0.45)]
    [InlineData(0.6)]
    [InlineData(1.2)]
    public void A_short_note_that_rings_on_in_its_room_is_a_tone(double reverberation)
    {
        var track = PitchTrack.Of(
            Rendered(
                t => Math.Min(1, t / 0.01) * Math.Exp(-6.9 * Math.Max(0, t - 0.075) / reverberation) * Eightfold.At(2 * Math.PI * 233 * t),
                1
            )
        );
        Assert.Empty(track.StruckSeconds);
        Assert.Equal(4, AttemptFinder.Find(track, 0.05, 0.02).Count);
    }

    /// <summary>A note begun with a strong accent falls as a ring does, and is held (decibels of the accent, seconds).</summary>
    [Theory]
    [InlineData(8, 0.75)]
    [InlineData(12, 0.5)]
    [InlineData(7, 0.35)]
    [InlineData(10, 0.3)]
    public void A_note_begun_with_an_accent_is_a_tone(double accentDb, double held)
    {
        var accent = Math.Pow(10, accentDb / 20);
        var track = PitchTrack.Of(
            Rendered(
                t =>
                    Math.Clamp(Math.Min(t / 0.01, (held - t) / 0.02), 0, 1)
                    * (1 + ((accent - 1) * Math.Exp(-t / 0.04)))
                    / accent
                    * Eightfold.At(2 * Math.PI * 233 * t),
                1
            )
        );
        Assert.Empty(track.StruckSeconds);
        Assert.Equal(4, AttemptFinder.Find(track, 0.05, 0.02).Count);
    }

    /// <summary>A note of 75 ms has a start, a level it holds, and an end.</summary>
    [Theory]
    [InlineData(233)]
    [InlineData(116.5)]
    public void A_short_note_is_a_tone(double hertz)
    {
        var track = PitchTrack.Of(
            Rendered(t => Math.Clamp(Math.Min(t / 0.01, (0.075 - t) / 0.02), 0, 1) * Eightfold.At(2 * Math.PI * hertz * t))
        );
        Assert.Empty(track.StruckSeconds);
        Assert.Equal(8, AttemptFinder.Find(track, 0.05, 0.02).Count);
    }

    /// <summary>Some of them in four seconds, half a second apart or so, in a quiet room.</summary>
    private static MonoSound Rendered(Func<double, double> shape, double apart = 0.5)
    {
        var random = new Random(3);
        var samples = new float[4 * Rate];
        for (var i = 0; i < samples.Length; i++)
        {
            var since = (i % (int)(apart * Rate) / (double)Rate) - 0.1;
            samples[i] = (float)((since < 0 ? 0 : 0.3 * shape(since)) + (0.0005 * ((2 * random.NextDouble()) - 1)));
        }

        return new MonoSound(samples, Rate);
    }
}
