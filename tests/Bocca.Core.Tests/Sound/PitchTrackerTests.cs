using Bocca.Core.Music;
using Bocca.Core.Sound;
using CsCheck;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tests.Sound;

public sealed class PitchTrackerTests
{
    [Theory]
    [InlineData(29.14, 44100)]
    [InlineData(41.2, 48000)]
    [InlineData(58.27, 44100)]
    [InlineData(116.54, 22050)]
    [InlineData(233.08, 44100)]
    [InlineData(466.16, 96000)]
    [InlineData(932.33, 48000)]
    [InlineData(1174.66, 44100)]
    [InlineData(233.08, 8000)]
    [InlineData(233.08, 192000)]
    public void A_steady_tone_is_heard_within_a_cent_and_never_an_octave_off(double hertz, int rate)
    {
        var track = PitchTrack.Of(Tone(hertz, rate, 1.0));
        var middle = track.Frames.Skip(15).SkipLast(15).ToList();
        Assert.All(middle, frame => Assert.True(frame.Voiced));
        Assert.All(middle, frame => Assert.InRange(Tuning.Cents(hertz, frame.FrequencyHz), -20, 20));
        Assert.InRange(middle.Select(frame => Math.Abs(Tuning.Cents(hertz, frame.FrequencyHz))).Median(), 0, 0.5);
    }

    [Fact]
    public void A_missing_fundamental_is_still_heard()
    {
        var track = PitchTrack.Of(Tone(58.27, 44100, 1, harmonics: [0, 0, 1, 0.8, 0.7, 0.6, 0.5]));
        Assert.All(track.Frames.Skip(15).SkipLast(15), frame => Assert.InRange(Tuning.Cents(58.27, frame.FrequencyHz), -30, 30));
    }

    [Fact]
    public void A_stream_gives_the_frames_of_the_whole_file() =>
        Gen.Select(Gen.Int[1, 4000], Gen.OneOfConst(8000, 44100, 48000))
            .Sample(
                (block, rate) =>
                {
                    var sound = Tone(150, rate, 0.6);
                    var streamed = new List<PitchFrame>();
                    var tracker = new PitchTracker(rate);
                    for (var at = 0; at < sound.Samples.Length; at += block)
                        tracker.Push(sound.Samples.AsSpan(at, Math.Min(block, sound.Samples.Length - at)), streamed);
                    tracker.Finish(streamed);
                    Assert.Equal(PitchTrack.Of(sound).Frames, streamed);
                },
                iter: 20
            );

    [Fact]
    public void A_frame_comes_every_hundredth_of_a_second_and_knows_its_centre()
    {
        var frames = PitchTrack.Of(Tone(200, 44100, 1.234)).Frames;
        Assert.Equal(124, frames.Count);
        Assert.All(Enumerable.Range(0, 124), i => Assert.Equal((i + 0.5) / 100, frames[i].TimeSeconds, 1e-9));
    }

    [Fact]
    public void Breath_noise_and_silence_are_not_voiced()
    {
        var random = new Random(5);
        var noise = new MonoSound(
            [.. Enumerable.Range(0, 44100).Select(i => i < 22050 ? 0 : (float)(random.NextDouble() - 0.5) * 0.2f)],
            44100
        );
        var frames = PitchTrack.Of(noise).Frames;
        Assert.InRange(frames.Count(frame => frame.Voiced), 0, 2);
        Assert.All(frames.Take(45), frame => Assert.True(frame.LevelDb <= -100));
    }

    [Fact]
    public void A_glide_is_followed_at_its_own_time()
    {
        const int Rate = 44100;
        var phase = 0.0;
        var samples = new float[Rate];
        for (var i = 0; i < samples.Length; i++)
        {
            phase += 2 * Math.PI * At((double)i / Rate) / Rate;
            samples[i] = (float)(0.3 * (Math.Sin(phase) + (0.5 * Math.Sin(2 * phase)) + (0.3 * Math.Sin(3 * phase))));
        }

        var errors = PitchTrack
            .Of(new MonoSound(samples, Rate))
            .Frames.Skip(10)
            .SkipLast(10)
            .Select(frame => Math.Abs(Tuning.Cents(At(frame.TimeSeconds), frame.FrequencyHz)))
            .ToList();
        Assert.InRange(errors.Median(), 0, 1);
        Assert.InRange(errors.Max(), 0, 10);
        static double At(double seconds) => 150 * Math.Pow(2, seconds);
    }

    [Fact]
    public void Level_is_that_of_the_sound()
    {
        var frames = PitchTrack.Of(Tone(220, 44100, 1, harmonics: [0.5])).Frames;
        Assert.Equal(20 * Math.Log10(0.5 / Math.Sqrt(2)), frames[50].LevelDb, 0.2);
    }

    [Theory]
    [InlineData(4000, 28, 1200)]
    [InlineData(400000, 28, 1200)]
    [InlineData(44100, 10, 1200)]
    [InlineData(44100, 300, 200)]
    public void Refuses_what_it_cannot_follow(int rate, double lowest, double highest) =>
        Assert.Throws<ArgumentOutOfRangeException>(() =>
            new PitchTracker(rate, new PitchTrackerSettings { LowestHz = lowest, HighestHz = highest })
        );

    internal static MonoSound Tone(double hertz, int rate, double seconds, double[]? harmonics = null)
    {
        harmonics ??= [0.3, 0.2, 0.15, 0.1, 0.05];
        return new MonoSound(
            [
                .. Enumerable
                    .Range(0, (int)(seconds * rate))
                    .Select(i =>
                        (float)
                            harmonics
                                .Select(
                                    (strength, h) =>
                                        (h + 1) * hertz < rate / 2.0
                                            ? strength * Math.Sin((2 * Math.PI * (h + 1) * hertz * i / rate) + h)
                                            : 0
                                )
                                .Sum()
                    ),
            ],
            rate
        );
    }
}
