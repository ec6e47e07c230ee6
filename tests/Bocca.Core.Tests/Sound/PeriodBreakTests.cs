using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

/// <summary>
/// Made sounds whose joints are known to the sample: where one tone gives way to another, and what two of them together look like.
/// </summary>
public sealed class PeriodBreakTests
{
    private const int Rate = 44100;

    [Theory]
    [InlineData(58.27, 0)]
    [InlineData(116.5, 12)]
    [InlineData(233.1, -25)]
    [InlineData(466.2, 25)]
    public void A_second_start_is_found_within_5_ms_while_the_tone_drifts(double hertz, double driftCents)
    {
        // The drift is over the whole second; the second tone starts at 0.6 s out of step with the first.
        var sound = Sum(1, (hertz, driftCents, 0, 0.6, 0), (hertz, 0, 0.6, 1, 2.1));
        var at = new PeriodBreak(sound).First(0.41, 0.51, 0.62, hertz);
        Assert.NotNull(at);
        Assert.InRange(at.Value, 0.595, 0.605);
    }

    [Fact]
    public void A_tone_that_only_drifts_and_swells_is_not_broken()
    {
        var sound = Sum(1, (233.1, -40, 0, 1, 0));
        for (var i = 0; i < sound.Samples.Length; i++)
            sound.Samples[i] *= (float)(0.3 + (0.7 * i / sound.Samples.Length));
        Assert.Null(new PeriodBreak(sound).First(0.41, 0.51, 0.62, 233.1));
    }

    [Theory]
    [InlineData(233.1, 0)]
    [InlineData(233.1 * 1.5, 1)]
    public void What_repeats_leaves_nothing_and_what_does_not_leaves_its_power(double tried, double least)
    {
        var left = new PeriodBreak(Sum(1, (233.1, 0, 0, 1, 0))).ResidualShare(0.2, 0.6, tried);
        Assert.InRange(left, least == 0 ? 0 : 0.5, least == 0 ? 0.01 : 2);
    }

    [Fact]
    public void Two_notes_ringing_together_for_a_moment_are_the_notes_and_not_their_common_period()
    {
        // A slur from the fourth to the third partial with 80 ms of both: together they repeat at the first.
        var sound = Sum(1.2, (466.2, 0, 0, 0.6, 0), (349.6, 0, 0.52, 1.2, 1));
        var slipped = PitchTrack.Of(sound);
        Assert.Contains(slipped.Frames, frame => frame.Voiced && frame.FrequencyHz < 150);
        var mended = PitchSlips.Mended(sound, slipped);
        Assert.All(
            mended.Frames.Where(frame => frame.Voiced && frame.TimeSeconds is > 0.05 and < 1.15),
            frame =>
                Assert.True(
                    Math.Min(Math.Abs(Tuning.Cents(466.2, frame.FrequencyHz)), Math.Abs(Tuning.Cents(349.6, frame.FrequencyHz))) < 60,
                    $"{frame}"
                )
        );
    }

    [Fact]
    public void An_octave_that_was_played_stays_however_short()
    {
        var sound = Sum(1.2, (466.2, 0, 0, 0.5, 0), (233.1, 0, 0.5, 0.7, 0), (466.2, 0, 0.7, 1.2, 0));
        var track = PitchTrack.Of(sound);
        var mended = PitchSlips.Mended(sound, track);
        Assert.InRange(mended.Frames.Count(frame => frame.Voiced && Math.Abs(Tuning.Cents(233.1, frame.FrequencyHz)) < 50), 15, 25);
    }

    /// <summary>Tones of ten harmonics, each with its drift in cents a second, from and to in seconds, and phase.</summary>
    private static MonoSound Sum(double seconds, params (double Hertz, double Drift, double From, double To, double Phase)[] tones)
    {
        var samples = new float[(int)(seconds * Rate)];
        foreach (var tone in tones)
        {
            var phase = tone.Phase;
            for (var i = (int)(tone.From * Rate); i < (int)(tone.To * Rate); i++)
            {
                var (since, left) = ((i - (tone.From * Rate)) / Rate, ((tone.To * Rate) - i) / Rate);
                phase += 2 * Math.PI * tone.Hertz * Math.Pow(2, tone.Drift * since / 1200) / Rate;
                for (var harmonic = 1; harmonic <= 10; harmonic++)
                    samples[i] += (float)(
                        0.1 / harmonic * Math.Min(1, Math.Min(since, left) / 0.003) * Math.Sin((harmonic * phase) + harmonic)
                    );
            }
        }

        return new MonoSound(samples, Rate);
    }
}
