using System.Diagnostics;
using System.Globalization;
using System.Text;
using Bocca.Core.Ear;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Bench;

/// <summary>
/// Sung notes by a formant synthesizer that is not ours (Debian: Praat's KlattGrid) at known pitches, some with breath, some gliding up to
/// the note, clean and in pink noise by sox: Bocca's held part beside Praat's own pitch and aubio's, in one run.
/// </summary>
public static class SungTable
{
    private const double HeldFrom = 0.35,
        HeldTo = 0.95;

    private static readonly string[] Vowels =
    [
        "800, 80, 1200, 80, 2500, 120, 3300",
        "500, 70, 1900, 90, 2500, 120, 3500",
        "300, 60, 2400, 100, 3100, 140, 3700",
        "500, 70, 900, 80, 2400, 120, 3300",
        "320, 60, 750, 80, 2300, 120, 3300",
        "1000, 90, 1400, 90, 3100, 140, 3700",
    ];

    private sealed record Sung(string File, double Hertz);

    /// <summary>Makes and hears them, and prints the table.</summary>
    public static int Run()
    {
        var folder = Directory.CreateTempSubdirectory("bocca-sung").FullName;
        var sung = Make(folder);
        Console.WriteLine("| noise | who | found | octave right | median error, cents | 95th percentile | within 5 cents |");
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
        foreach (var noise in new double?[] { null, 20, 10 })
        {
            var takes = noise is { } db ? [.. sung.Select(each => Noisy(each, db))] : sung;
            Report(noise, "Bocca", takes, Bocca);
            var praat = Praat(folder, takes);
            Report(noise, "Praat (ac)", takes, take => praat[take.File]);
            Report(noise, "aubio (yinfft)", takes, Aubio);
        }

        return 0;
    }

    private static List<Sung> Make(string folder)
    {
        var random = new Random(5);
        var script = new StringBuilder();
        var sung = new List<Sung>();
        foreach (var vowel in Vowels)
            for (var midi = 43; midi <= 81; midi += 2)
            {
                var hertz = 440 * Math.Pow(2, (midi + random.NextDouble() - 69) / 12);
                var (from, breath) = (random.Next(3) == 0 ? hertz * Math.Pow(2, -2.0 / 12) : hertz, random.Next(3) == 0);
                var file = Path.Combine(folder, $"sung-{sung.Count}.wav");
                string Text(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);
                script.AppendLine(
                    CultureInfo.InvariantCulture,
                    $"Create KlattGrid from vowel: \"a\", 1.1, {Text(hertz)}, {vowel}, 0.05, 1000"
                );
                script.AppendLine("Remove pitch points: 0, 2");
                script.AppendLine(CultureInfo.InvariantCulture, $"Add pitch point: 0, {Text(from)}");
                script.AppendLine(CultureInfo.InvariantCulture, $"Add pitch point: 0.2, {Text(hertz)}");
                script.AppendLine(CultureInfo.InvariantCulture, $"Add pitch point: 1.1, {Text(hertz)}");
                if (breath)
                    script.AppendLine("Add breathiness amplitude point: 0.5, 45");
                script.AppendLine("To Sound");
                script.AppendLine("Scale peak: 0.5");
                script.AppendLine(CultureInfo.InvariantCulture, $"Save as WAV file: \"{file}\"");
                script.AppendLine("select all");
                script.AppendLine("Remove");
                sung.Add(new Sung(file, hertz));
            }

        Process(folder, "praat", ["--run", Written(folder, "make.praat", script.ToString())]);
        foreach (var each in sung)
            Process(folder, "sox", [each.File, $"{each.File}.pad.wav", "pad", "0.3", "0.3"]);
        return [.. sung.Select(each => each with { File = $"{each.File}.pad.wav" })];
    }

    private static Sung Noisy(Sung sung, double db)
    {
        var (noise, mixed) = ($"{sung.File}.noise.wav", $"{sung.File}.{db:0}.wav");
        Process("", "sox", ["-R", "-n", "-r", "44100", noise, "synth", "1.7", "pinknoise"]);
        var level = Level(Read(sung.File).Samples.Where(sample => sample != 0)) - Level(Read(noise).Samples) - db;
        Process(
            "",
            "sox",
            ["-m", "-v", "1", sung.File, "-v", Math.Pow(10, level / 20).ToString("0.######", CultureInfo.InvariantCulture), noise, mixed]
        );
        return sung with { File = mixed };
    }

    private static double Level(IEnumerable<float> samples) => 10 * Math.Log10(samples.Average(sample => (double)sample * sample));

    private static double? Bocca(Sung sung)
    {
        var instrument = Catalogue.Get("trombone");
        var target = Pitch.FromMidi((int)Math.Round(69 + (12 * Math.Log2(sung.Hertz / 440))));
        return EarListener.Hear(Read(sung.File), [target], instrument, instrument.Readings[0], Tuning.Standard, EarBy.Voice)[0].HeardHz;
    }

    private static Dictionary<string, double?> Praat(string folder, List<Sung> takes)
    {
        var script = new StringBuilder();
        var found = Path.Combine(folder, "found.txt");
        script.AppendLine(CultureInfo.InvariantCulture, $"writeFile: \"{found}\", \"\"");
        foreach (var take in takes)
        {
            script.AppendLine(CultureInfo.InvariantCulture, $"Read from file: \"{take.File}\"");
            script.AppendLine("To Pitch (ac): 0.01, 75, 15, \"no\", 0.03, 0.45, 0.01, 0.35, 0.14, 1100");
            script.AppendLine(CultureInfo.InvariantCulture, $"m = Get quantile: {0.3 + HeldFrom}, {0.3 + HeldTo}, 0.5, \"Hertz\"");
            script.AppendLine(CultureInfo.InvariantCulture, $"appendFileLine: \"{found}\", \"{take.File} \", m");
            script.AppendLine("select all");
            script.AppendLine("Remove");
        }

        Process(folder, "praat", ["--run", Written(folder, "hear.praat", script.ToString())]);
        return File.ReadLines(found)
            .Select(line => line.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .ToDictionary(
                parts => parts[0],
                parts => double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var hertz) ? hertz : (double?)null
            );
    }

    private static double? Aubio(Sung sung)
    {
        var held = Process("", "aubiopitch", ["-i", sung.File, "-p", "yinfft", "-u", "hertz"])
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => line.Split(' ').Select(part => double.Parse(part, CultureInfo.InvariantCulture)).ToArray())
            .Where(frame => frame[0] > 0.3 + HeldFrom && frame[0] < 0.3 + HeldTo && frame[1] > 0)
            .Select(frame => frame[1])
            .ToList();
        return held.Count == 0 ? null : held.Median();
    }

    private static void Report(double? noise, string who, List<Sung> takes, Func<Sung, double?> hear)
    {
        var errors = takes.Select(take => hear(take) is { } hertz ? 1200 * Math.Log2(hertz / take.Hertz) : (double?)null).ToList();
        var found = errors.OfType<double>().ToList();
        var octave = found.Where(cents => Math.Abs(cents) < 600).Select(Math.Abs).Order().ToList();
        Console.WriteLine(
            $"| {(noise is { } db ? $"{db:0} dB" : "none")} | {who} | {100.0 * found.Count / takes.Count:0.0} % | "
                + $"{100.0 * octave.Count / Math.Max(1, found.Count):0.0} % | {octave.Median():0.00} | "
                + $"{octave[(int)(0.95 * (octave.Count - 1))]:0.00} | "
                + $"{100.0 * octave.Count(cents => cents <= 5) / takes.Count:0.0} % |"
        );
    }

    private static MonoSound Read(string file)
    {
        using var stream = File.OpenRead(file);
        return WavFile.Read(stream, file);
    }

    private static string Written(string folder, string name, string text)
    {
        var path = Path.Combine(folder, name);
        File.WriteAllText(path, text);
        return path;
    }

    private static string Process(string folder, string program, IReadOnlyList<string> arguments)
    {
        using var process = System.Diagnostics.Process.Start(
            new ProcessStartInfo(program, arguments)
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                WorkingDirectory = folder,
            }
        )!;
        var said = process.StandardOutput.ReadToEnd();
        var problem = process.StandardError.ReadToEnd();
        process.WaitForExit();
        return process.ExitCode == 0 ? said : throw new InvalidOperationException($"{program}: {problem}");
    }
}
