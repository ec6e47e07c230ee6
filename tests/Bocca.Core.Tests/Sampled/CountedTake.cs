using System.Diagnostics;
using System.Globalization;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sampled;

/// <summary>How a counted take is made.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Lag">Claps come so much after the syllables, seconds; earlier below 0.</param>
/// <param name="NoiseDb">Pink noise below what sounds, decibels; null for none.</param>
/// <param name="Room">Reverberation of <c>sox</c>, 0 to 100; 0 for none.</param>
/// <param name="Voice">The synthesizer's voice.</param>
/// <param name="ClapDb">How much louder than the voice at its loudest the claps are.</param>
public sealed record CountedHow(double Tempo, double Lag, double? NoiseDb, int Room, string Voice, double ClapDb = 0)
{
    /// <summary>What is said on each beat, or null, in halves of a beat.</summary>
    public IReadOnlyList<string?> Said { get; init; } = ["one", null, "two", "and", "three", null, "four", null];

    /// <summary>Whether there is a clap on each of them.</summary>
    public IReadOnlyList<bool> Clapped { get; init; } = [true, false, true, true, true, false, true, false];

    /// <summary>The spread of what a person does, seconds.</summary>
    public double Jitter { get; init; } = 0.015;

    /// <summary>How many bars.</summary>
    public int Bars { get; init; } = 2;
}

/// <summary>
/// A counted bar as others make it: words by libespeak-ng laid with their vowels on the beat, claps as bursts of noise shaped, reverberated
/// and mixed by sox. Nothing of it is a model of ours.
/// </summary>
/// <param name="Sound">The take.</param>
/// <param name="Vowels">When each vowel begins, seconds.</param>
/// <param name="Claps">When each clap begins, seconds.</param>
public sealed record CountedTake(MonoSound Sound, IReadOnlyList<double> Vowels, IReadOnlyList<double> Claps)
{
    private const int Rate = 44100;

    /// <summary>Seconds before the first beat.</summary>
    public const double LeadSeconds = 1;

    /// <summary>Makes one.</summary>
    /// <param name="how">How.</param>
    /// <param name="seed">Another seed, another take.</param>
    /// <param name="folder">Where the pieces go meanwhile.</param>
    public static CountedTake Make(CountedHow how, int seed, string folder)
    {
        var random = new Random(seed);
        var half = 30 / how.Tempo;
        var length = LeadSeconds + (how.Bars * how.Said.Count * half) + 0.8;
        var (speech, vowels) = Speak(how, half, length, random);
        var (claps, times) = Clap(how, half, length, random, folder);
        string File(string name) => Path.Combine(folder, name);
        Write(File("speech.wav"), speech);
        Write(File("claps.wav"), claps);
        Sox(["-m", "-v", "0.5", File("speech.wav")], ["-v", Text(0.5 * Math.Pow(10, how.ClapDb / 20)), File("claps.wav"), File("dry.wav")]);
        var wet = how.Room > 0 ? File("wet.wav") : File("dry.wav");
        if (how.Room > 0)
            Sox([File("dry.wav"), wet, "reverb", Text(how.Room), "50", "60"]);
        if (how.NoiseDb is { } noise)
        {
            // Over the voiced part of what is said, whatever is clapped.
            var loud = 10 * Math.Log10(speech.Where(sample => Math.Abs(sample) > 0.02).Average(sample => sample * sample * 0.25));
            Sox(["-n", "-r", Text(Rate), File("noise.wav"), "synth", Text(length), "pinknoise"]);
            var floor = 10 * Math.Log10(Read(File("noise.wav")).Average(sample => sample * sample));
            Sox(["-m", "-v", "1", wet, "-v", Text(Math.Pow(10, (loud - noise - floor) / 20)), File("noise.wav"), File("mix.wav")]);
            wet = File("mix.wav");
        }

        return new CountedTake(new MonoSound(Read(wet), Rate), vowels, times);
    }

    private static (float[] Speech, List<double> Vowels) Speak(CountedHow how, double half, double length, Random random)
    {
        var speech = new float[(int)(length * Rate)];
        var vowels = new List<double>();
        var pitch = random.Next(30, 80);
        // As fast as the shortest room for a word asks.
        var speed = Math.Clamp((int)(60 / half), 150, 330);
        for (var at = 0; at < how.Bars * how.Said.Count; at++)
        {
            if (how.Said[at % how.Said.Count] is not { } word)
                continue;
            var said = Speaker.Say(how.Voice, word, speed, pitch);
            var vowel = LeadSeconds + (at * half) + (how.Jitter * Normal(random));
            vowels.Add(vowel);
            Add(speech, said.Samples, Speaker.SampleRate, vowel - said.VowelSeconds, 1, 1.8 * half);
        }

        return (speech, vowels);
    }

    private static (float[] Claps, List<double> Times) Clap(CountedHow how, double half, double length, Random random, string folder)
    {
        var claps = new float[(int)(length * Rate)];
        var times = new List<double>();
        var (noise, hands) = (Path.Combine(folder, "white.wav"), Path.Combine(folder, "hand.wav"));
        // One pair of hands: noise through a broad hump of its own, decaying in its own time.
        var (low, high, decay) = (random.Next(350, 900), random.Next(6000, 12000), 0.02 + (0.04 * random.NextDouble()));
        for (var at = 0; at < how.Bars * how.Said.Count; at++)
        {
            if (!how.Clapped[at % how.Said.Count])
                continue;
            Write(noise, [.. Enumerable.Range(0, (int)(0.12 * Rate)).Select(_ => (float)(0.2 * Normal(random)))]);
            Sox(
                [noise, hands, "sinc", $"{low}-{high}", "equalizer", Text(random.Next(900, 2200)), "1.2q", "9"],
                ["fade", "l", "0.0007", Text(decay), Text(decay - 0.001), "pad", "0", "0.02"]
            );
            var time = LeadSeconds + (at * half) + how.Lag + (how.Jitter * Normal(random));
            times.Add(time);
            Add(claps, Read(hands), Rate, time, 0.8 + (0.4 * random.NextDouble()), 1);
        }

        return (claps, times);
    }

    /// <summary>Adds a sound at a time, its loudest at the gain given, faded where the next begins.</summary>
    private static void Add(float[] into, float[] sound, int rate, double seconds, double gain, double most)
    {
        var peak = sound.Max(Math.Abs);
        for (var i = (int)Math.Ceiling(seconds * Rate); i < into.Length; i++)
        {
            var at = ((i / (double)Rate) - seconds) * rate;
            if (at >= sound.Length - 1 || at / rate > most || i < 0)
                return;
            var (whole, part) = ((int)at, at - (int)at);
            var fade = Math.Clamp((most - (at / rate)) / 0.02, 0, 1);
            into[i] += (float)(0.6 * gain * fade / peak * (sound[whole] + (part * (sound[whole + 1] - sound[whole]))));
        }
    }

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private static string Text(double number) => number.ToString("0.#####", CultureInfo.InvariantCulture);

    private static void Write(string file, float[] samples)
    {
        using var stream = File.Create(file);
        WavFile.Write(stream, new MonoSound(samples, Rate));
    }

    private static float[] Read(string file)
    {
        using var stream = File.OpenRead(file);
        return WavFile.Read(stream, file).Samples;
    }

    /// <summary>Repeatable: its noise and the dither it adds are the same each time.</summary>
    private static void Sox(params string[][] arguments)
    {
        using var sox = Process.Start(
            new ProcessStartInfo("sox", arguments.Prepend(["-R"]).SelectMany(part => part)) { RedirectStandardError = true }
        )!;
        var said = sox.StandardError.ReadToEnd();
        sox.WaitForExit();
        if (sox.ExitCode != 0)
            throw new InvalidOperationException(said);
    }
}
