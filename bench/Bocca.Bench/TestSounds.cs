using System.Diagnostics;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Bench;

/// <summary>A note of a test sound.</summary>
/// <param name="From">Start of its steady part, seconds.</param>
/// <param name="To">End of its steady part.</param>
/// <param name="Hz">Its pitch: exact for made tones, tempered for sampled ones.</param>
/// <param name="Exact">Whether that is exact.</param>
public sealed record TestNote(double From, double To, double Hz, bool Exact);

/// <summary>A WAV whose notes are known.</summary>
public sealed record TestSound(string Group, string Path, IReadOnlyList<TestNote> Notes);

/// <summary>Sounds that Bocca's own player did not make: sampled brass from a soundfont, and plain sums of sines.</summary>
public static class TestSounds
{
    private const double NoteSeconds = 1.5;
    private const double SpacingSeconds = 2.0;
    private const string SoundFont = "/usr/share/sounds/sf2/FluidR3_GM.sf2";

    /// <summary>Instrument, its General MIDI program, counted from 0.</summary>
    internal static readonly (string Id, int Program)[] Sampled =
    [
        ("trumpet-bb", 56),
        ("horn-f", 60),
        ("trombone", 57),
        ("tuba-bb-3v", 58),
    ];

    public static List<TestSound> Make(string folder)
    {
        Directory.CreateDirectory(folder);
        var sounds = Sampled.Select(item => Render(folder, item.Id, item.Program)).ToList();
        sounds.Add(Sines(folder, "sines", noiseDb: null));
        sounds.Add(Sines(folder, "sines, noise at 10 dB", noiseDb: 10));
        return sounds;
    }

    private static TestSound Render(string folder, string id, int program)
    {
        var instrument = Catalogue.Get(id);
        var pitches = Enumerable
            .Range(instrument.Range.Lowest.Midi, instrument.Range.Highest.Midi - instrument.Range.Lowest.Midi + 1)
            .ToList();
        var notes = pitches
            .Concat(pitches)
            .Select((note, i) => (Start: i * SpacingSeconds, NoteSeconds, note, Velocity: i < pitches.Count ? 55 : 100))
            .ToList();
        var midi = Path.Combine(folder, $"{id}.mid");
        var wav = Path.Combine(folder, $"{id}.wav");
        MidiScale.Write(midi, program, notes);
        Synthesise(midi, wav);
        return new TestSound(
            id,
            wav,
            [.. notes.Select(note => new TestNote(note.Start + 0.3, note.Start + 1.3, Tuning.Standard.Frequency((double)note.note), false))]
        );
    }

    /// <summary>Renders a MIDI file with the sampled soundfont, unless that was done before.</summary>
    internal static void Synthesise(string midi, string wav)
    {
        if (!File.Exists(wav))
            Run("fluidsynth", "-ni", "-q", "-R", "0", "-C", "0", "-g", "0.8", "-r", "44100", "-O", "s16", "-F", wav, SoundFont, midi);
    }

    /// <summary>
    /// When a sampled note is there: seconds from its MIDI start until, sounding alone, it first comes to a tenth of the peak of its
    /// first half second, read sample by sample. Samples begin softly; a MIDI time is no sound yet.
    /// </summary>
    internal static double OwnStart(string folder, int program, int note)
    {
        const double Lead = 0.5;
        var (midi, wav) = (Path.Combine(folder, $"alone-{program}-{note}.mid"), Path.Combine(folder, $"alone-{program}-{note}.wav"));
        MidiScale.Write(midi, program, [(Lead, 1.0, note, 90)]);
        Synthesise(midi, wav);
        using var stream = File.OpenRead(wav);
        var sound = WavFile.Read(stream, wav);
        var first = (int)(Lead * sound.SampleRate);
        var samples = sound.Samples.AsSpan(first, sound.SampleRate / 2);
        var peak = 0f;
        foreach (var sample in samples)
            peak = Math.Max(peak, Math.Abs(sample));
        var at = 0;
        while (Math.Abs(samples[at]) < peak / 10)
            at++;
        return (double)at / sound.SampleRate;
    }

    private static TestSound Sines(string folder, string name, double? noiseDb)
    {
        const int Rate = 44100;
        var random = new Random(7);
        var hertz = Enumerable.Range(0, 62).Select(i => 29.5 * Math.Pow(2, i / 12.0) * 1.003).ToList();
        var samples = new float[(int)(hertz.Count * SpacingSeconds * Rate)];
        for (var note = 0; note < hertz.Count; note++)
        {
            for (var i = 0; i < NoteSeconds * Rate; i++)
            {
                var value = 0.0;
                for (var harmonic = 1; harmonic <= 12 && harmonic * hertz[note] < 8000; harmonic++)
                    value += Math.Sin((2 * Math.PI * harmonic * hertz[note] * i / Rate) + harmonic) / harmonic;
                samples[(int)(note * SpacingSeconds * Rate) + i] = (float)(0.15 * value);
            }
        }

        if (noiseDb is { } db)
        {
            var deviation = 0.15 * Math.Sqrt(0.5 * Enumerable.Range(1, 12).Sum(h => 1.0 / (h * h))) * Math.Pow(10, -db / 20);
            for (var i = 0; i < samples.Length; i++)
                samples[i] += (float)(deviation * Math.Sqrt(3) * ((2 * random.NextDouble()) - 1));
        }

        var path = Path.Combine(folder, $"{name.Replace(", ", "-").Replace(' ', '-')}.wav");
        using (var stream = File.Create(path))
            WavFile.Write(stream, new MonoSound(samples, Rate));
        return new TestSound(
            name,
            path,
            [.. hertz.Select((hz, i) => new TestNote((i * SpacingSeconds) + 0.3, (i * SpacingSeconds) + 1.3, hz, true))]
        );
    }

    public static string Run(string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{program} did not start.");
        var errors = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return process.ExitCode == 0 ? output : throw new InvalidOperationException($"{program}: {errors.Result}");
    }
}
