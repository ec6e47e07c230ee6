using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

/// <summary>Tones in as much breath noise as tone or nearly so, steady noise and noise that swells with each cycle of the lips.</summary>
public sealed class WholeTonesTests
{
    private const int Rate = 44100;
    private const double Seconds = 0.6;

    /// <summary>
    /// The bars: errors of more than 50 cents, shares of the frames taken for voiced; of an octave, never more than one in a thousand.
    /// </summary>
    [Theory]
    [InlineData(5, 0.94, 0.001)]
    [InlineData(0, 0.67, 0.005)]
    public void Tones_in_noise_are_read_at_their_pitch(double snrDb, double least, double most)
    {
        var random = new Random(11);
        var (all, voiced, octaves) = (0, 0, 0);
        var gross = new List<double>();
        foreach (var swells in (bool[])[false, true])
        foreach (var rolloff in (double[])[1, 1.5, 2])
            for (var hertz = 40.0; hertz < 1000; hertz *= Math.Pow(2, 0.1))
                foreach (var frame in PitchTrack.Of(InNoise(hertz, rolloff, snrDb, swells, random)).Frames.Skip(4).SkipLast(4))
                {
                    all++;
                    if (!frame.Voiced)
                        continue;
                    voiced++;
                    var cents = Math.Abs(Tuning.Cents(hertz, frame.FrequencyHz));
                    octaves += Math.Abs(cents - 1200) < 60 ? 1 : 0;
                    if (cents > 50)
                        gross.Add(hertz);
                }

        var told = string.Join(", ", gross.CountBy(hertz => hertz).Select(each => $"{each.Value} at {each.Key:0} Hz"));
        Assert.True(voiced >= least * all, $"{voiced} of {all} voiced");
        Assert.True(gross.Count <= most * voiced, $"{gross.Count} of {voiced} more than 50 cents off: {told}");
        Assert.True(octaves <= 0.001 * voiced, $"{octaves} of {voiced} an octave off");
    }

    [Fact]
    public void A_wobble_in_noise_stays_one()
    {
        var random = new Random(4);
        var (clean, noisy) = (Wobble(null), Wobble(5));
        var pairs = clean.Zip(noisy).Skip(8).SkipLast(8).Where(pair => pair.Second.Voiced).ToList();
        Assert.True(pairs.Count > 80);
        Assert.True(pairs.Average(pair => Math.Abs(Tuning.Cents(pair.First.FrequencyHz, pair.Second.FrequencyHz))) < 12);

        IReadOnlyList<PitchFrame> Wobble(double? snrDb)
        {
            var samples = Tone(at => 233 * Math.Pow(2, 60 * Math.Sin(2 * Math.PI * 5 * at) / 1200), 1, 1.2, out _);
            return PitchTrack.Of(new MonoSound(snrDb is { } snr ? Noisy(samples, snr, null, random) : samples, Rate)).Frames;
        }
    }

    [Fact]
    public void A_slur_down_an_octave_in_noise_is_no_slip()
    {
        var samples = Tone(at => at < 0.4 ? 466 : 233, 1, 0.8, out _);
        var frames = PitchTrack.Of(new MonoSound(Noisy(samples, 5, null, new Random(2)), Rate)).Frames;
        Assert.All(frames.Skip(10).Take(25), frame => Assert.InRange(Tuning.Cents(466, frame.FrequencyHz), -50, 50));
        Assert.All(frames.Skip(46).Take(28), frame => Assert.InRange(Tuning.Cents(233, frame.FrequencyHz), -50, 50));
    }

    private static MonoSound InNoise(double hertz, double rolloff, double snrDb, bool swells, Random random)
    {
        var samples = Tone(_ => hertz, rolloff, Seconds, out var phases);
        return new MonoSound(Noisy(samples, snrDb, swells ? phases : null, random), Rate);
    }

    /// <summary>Partials that fall off as a power of their number, to 8 kHz, each at a phase of its own.</summary>
    private static float[] Tone(Func<double, double> hertz, double rolloff, double seconds, out double[] phases)
    {
        var samples = new float[(int)(seconds * Rate)];
        phases = new double[samples.Length];
        var partials = new Partials(30, k => Math.Pow(k, -rolloff), k => k * k);
        var phase = 0.0;
        for (var i = 0; i < samples.Length; i++)
        {
            var now = hertz((double)i / Rate);
            phase += 2 * Math.PI * now / Rate;
            phases[i] = phase;
            samples[i] = (float)partials.At(phase, (int)Math.Ceiling(8000 / now) - 1);
        }

        return samples;
    }

    /// <summary>With noise to 8 kHz at so many decibels under the tone; with phases, swelling once a cycle.</summary>
    private static float[] Noisy(float[] tone, double snrDb, double[]? phases, Random random)
    {
        var noise = new double[tone.Length];
        double low = 0,
            lower = 0;
        // Two poles at 8 kHz.
        var pull = 1 - Math.Exp(-2 * Math.PI * 8000 / Rate);
        for (var i = 0; i < noise.Length; i++)
        {
            low += pull * ((2 * random.NextDouble()) - 1 - low);
            lower += pull * (low - lower);
            var open = phases is null ? 0 : 0.5 + (0.5 * Math.Cos(phases[i]));
            noise[i] = lower * (phases is null ? 1 : 0.15 + (open * open * open));
        }

        var gain =
            Math.Sqrt(tone.Sum(sample => (double)sample * sample) / noise.Sum(sample => sample * sample)) * Math.Pow(10, -snrDb / 20);
        var loudness = 0.1 / Math.Sqrt(tone.Average(sample => (double)sample * sample));
        return [.. tone.Zip(noise, (t, n) => (float)(loudness * (t + (gain * n))))];
    }
}
