using Bocca.Core.Sound;

namespace Bocca.Bench;

/// <summary>A made buzz whose pitch is known at every moment.</summary>
/// <param name="Group">What is hard about it.</param>
/// <param name="Path">Its WAV.</param>
/// <param name="HzAt">Its pitch at the centre of each hundredth of a second; 0 where nothing sounds, NaN at the edges, which do not
/// count.</param>
public sealed record KnownBuzz(string Group, string Path, IReadOnlyList<double> HzAt);

/// <summary>Buzzes made for the comparison: pulses with noise, jitter, glides, breaks, wobble and repeats from 35 to 1000 Hz.</summary>
public static class BuzzSounds
{
    private const int Rate = 44100;
    private const double ToneSeconds = 1.6;
    private const double GapSeconds = 0.6;
    private const double EdgeSeconds = 0.04;
    private const double ShortSeconds = 0.8;

    /// <summary>Noise is held against the tone up to here (hertz), where breath is.</summary>
    private const double NoiseHz = 8000;

    /// <summary>From 40 to 1000 Hz in tenths of an octave.</summary>
    private static readonly double[] Tenths = [.. Enumerable.Range(0, 47).Select(i => 40 * Math.Pow(2, i / 10.0))];
    private static readonly double[] Pitches = [.. Enumerable.Range(0, 15).Select(i => 35 * Math.Pow(1000.0 / 35, i / 14.0))];

    public static List<KnownBuzz> Make(string folder) =>
        [
            .. from swells in (bool[])[false, true]
            from noiseDb in (double[])[20, 10, 5, 0]
            let name = $"{(swells ? "swelling" : "steady")} noise at {noiseDb} dB"
            select Write(folder, name, noiseDb, 0, [.. Tenths.Select(hz => new Tone(ShortSeconds, _ => hz, 0.3))], swells),
            Steady(folder, "jitter 1 %", 30, 0.01),
            Steady(folder, "jitter 3 %", 30, 0.03),
            Write(folder, "sirens", 25, 0, [.. Pitches.Where(hz => hz < 500).Select(hz => new Tone(2, t => hz * Math.Pow(2, t / 2)))]),
            Write(
                folder,
                "wobble of 60 cents",
                25,
                0,
                [.. Pitches.Select(hz => new Tone(ToneSeconds, t => hz * Math.Pow(2, 60 / 1200.0 * Math.Sin(2 * Math.PI * 5 * t))))]
            ),
            Write(
                folder,
                "breaks of 30 to 200 ms",
                25,
                0,
                [.. Pitches.SelectMany((hz, i) => new[] { new Tone(0.7, _ => hz, 0.03 + (0.17 * i / 14)), new Tone(0.7, _ => hz) })]
            ),
            Write(
                folder,
                "tongued repeats",
                25,
                0,
                [.. Pitches.Where(hz => hz > 60).SelectMany(hz => Enumerable.Range(0, 6).Select(_ => new Tone(0.18, _ => hz, 0.08)))]
            ),
        ];

    private static KnownBuzz Steady(string folder, string group, double noiseDb, double jitter) =>
        Write(folder, group, noiseDb, jitter, [.. Pitches.Select(hz => new Tone(ToneSeconds, _ => hz))]);

    private static KnownBuzz Write(
        string folder,
        string group,
        double noiseDb,
        double jitter,
        IReadOnlyList<Tone> tones,
        bool swells = false
    )
    {
        var random = new Random(11);
        double Normal() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var total = GapSeconds + tones.Sum(tone => tone.Seconds + tone.Gap);
        var samples = new float[(int)(total * Rate)];
        var hertz = new double[(int)(total * 100)];
        var swelling = new float[samples.Length];
        var start = GapSeconds;
        foreach (var tone in tones)
        {
            double phase = 0,
                cycle = 1,
                energy = 0;
            var (from, count) = ((int)(start * Rate), (int)(tone.Seconds * Rate));
            var raw = new double[count];
            for (var i = 0; i < count; i++)
            {
                var t = (double)i / Rate;
                swelling[from + i] = (float)(0.15 + Math.Pow(0.5 + (0.5 * Math.Cos(phase)), 3));
                raw[i] = Math.Exp(5 * (Math.Cos(phase) - 1)) * Math.Min(1, Math.Min(t, tone.Seconds - t) / 0.012);
                phase += 2 * Math.PI * tone.Hz(t) * cycle / Rate;
                if (phase >= 2 * Math.PI)
                {
                    phase -= 2 * Math.PI;
                    cycle = 1 + (jitter * Normal());
                }
            }

            var mean = raw.Average();
            energy = Math.Sqrt(raw.Average(value => (value - mean) * (value - mean)));
            for (var i = 0; i < count; i++)
                samples[from + i] += (float)(0.15 / energy * (raw[i] - mean));
            for (var frame = 0; frame < hertz.Length; frame++)
            {
                var t = ((frame + 0.5) / 100) - start;
                if (t >= EdgeSeconds && t <= tone.Seconds - EdgeSeconds)
                    hertz[frame] = tone.Hz(t);
                else if (t > -EdgeSeconds && t < tone.Seconds + EdgeSeconds)
                    hertz[frame] = double.NaN;
            }

            start += tone.Seconds + tone.Gap;
        }

        // White noise, so loud that what lies under NoiseHz is as many decibels under the tone; swelling, as loud on the whole.
        var loudness = 0.15 * Math.Pow(10, -noiseDb / 20) * Math.Sqrt(Rate / 2.0 / NoiseHz);
        var whole = Math.Sqrt(swelling.Where(now => now > 0).Average(now => now * now));
        for (var i = 0; i < samples.Length; i++)
            samples[i] += (float)((swells ? loudness * Math.Max(0.02, swelling[i] / whole) : loudness) * Normal());
        var path = Path.Combine(folder, $"buzz-{group.Replace(' ', '-').Replace("%", "percent")}.wav");
        using (var stream = File.Create(path))
            WavFile.Write(stream, new MonoSound([.. samples.Select(sample => Math.Clamp(sample, -1f, 1f))], Rate));
        return new KnownBuzz(group, path, hertz);
    }

    private sealed record Tone(double Seconds, Func<double, double> Hz, double Gap = GapSeconds);
}
