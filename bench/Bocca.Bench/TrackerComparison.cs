using System.Diagnostics;
using System.Numerics;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using MathNet.Numerics;
using MathNet.Numerics.IntegralTransforms;
using MathNet.Numerics.Statistics;

namespace Bocca.Bench;

/// <summary>
/// Bocca's pitch tracker beside Praat's autocorrelation method and aubio's yinfft, on the same files in one run.
/// A gross error is a frame of a note's steady part more than 50 cents off, or taken for unvoiced. The cents are
/// measured against the exact pitch of made tones, and for sampled notes against
/// a reference read off spectra, every 50 ms.
/// </summary>
public static class TrackerComparison
{
    private const string PraatScript = """
        form Track
          sentence in
          sentence out
        endform
        Read from file: in$
        To Pitch (ac): 0.01, 28, 15, "no", 0.03, 0.45, 0.01, 0.35, 0.14, 1200
        n = Get number of frames
        writeFile: out$, ""
        for i to n
          t = Get time from frame number: i
          f = Get value in frame: i, "Hertz"
          if f = undefined
            f = 0
          endif
          appendFileLine: out$, fixed$ (t, 6), " ", fixed$ (f, 6)
        endfor
        """;

    public static int Run(string folder)
    {
        var sounds = TestSounds.Make(folder);
        var script = WritePraatScript(folder);
        PitchTrack.Of(Read(sounds[0].Path));
        Console.WriteLine("| group | tracker | gross errors | median error, cents | seconds of sound a second |");
        Console.WriteLine("| --- | --- | --- | --- | --- |");
        foreach (var sound in sounds)
        {
            var wave = Read(sound.Path);
            var notes = sound.Notes.SelectMany(note => note.Exact ? [note] : Reference(wave, note)).ToList();
            Report(
                sound.Group,
                "Bocca",
                wave,
                notes,
                () => [.. PitchTrack.Of(wave).Frames.Select(frame => (frame.TimeSeconds, frame.Voiced ? frame.FrequencyHz : 0))]
            );
            Report(sound.Group, "Praat (ac)", wave, notes, () => Praat(script, sound.Path));
            Report(sound.Group, "aubio (yinfft)", wave, notes, () => Aubio(sound.Path));
        }

        Console.WriteLine();
        CompareBuzzes(folder, script);
        return 0;
    }

    /// <summary>
    /// The same three on made buzzes, by frames: gross errors over 50 cents and octave errors among frames that sound and
    /// are taken for voiced; recall is the share of sounding frames taken for voiced, false alarms that of silent ones.
    /// </summary>
    private static void CompareBuzzes(string folder, string script)
    {
        Console.WriteLine("| buzz | tracker | gross errors | octave errors | median, cents | recall | false alarms |");
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
        foreach (var buzz in BuzzSounds.Make(folder))
        {
            var wave = Read(buzz.Path);
            Report(
                buzz,
                "Bocca",
                [.. PitchTrack.Of(wave).Frames.Select(frame => (frame.TimeSeconds, frame.Voiced ? frame.FrequencyHz : 0))]
            );
            Report(buzz, "Praat (ac)", Praat(script, buzz.Path));
            Report(buzz, "aubio (yinfft)", Aubio(buzz.Path));
        }
    }

    /// <summary>Leaves the script that has Praat write a file's pitches.</summary>
    internal static string WritePraatScript(string folder)
    {
        var script = Path.Combine(folder, "track.praat");
        File.WriteAllText(script, PraatScript);
        return script;
    }

    /// <summary>Bocca's tracker beside other methods written from their papers, on the made buzzes.</summary>
    public static int RunMethods(string folder)
    {
        Directory.CreateDirectory(folder);
        Console.WriteLine("| buzz | method | gross errors | octave errors | median, cents | recall | false alarms |");
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
        foreach (var buzz in BuzzSounds.Make(folder))
        {
            var wave = Read(buzz.Path);
            Report(
                buzz,
                "Bocca: difference, likeness, path",
                [.. PitchTrack.Of(wave).Frames.Select(frame => (frame.TimeSeconds, frame.Voiced ? frame.FrequencyHz : 0))]
            );
            foreach (var (name, track) in OtherMethods.All)
                Report(buzz, name, track(wave));
        }

        return 0;
    }

    private static void Report(KnownBuzz buzz, string tracker, List<(double Time, double Hz)> frames)
    {
        int sounding = 0,
            recalled = 0,
            silent = 0,
            alarms = 0;
        var errors = new List<double>();
        foreach (var (time, hertz) in frames)
        {
            var at = (int)Math.Floor(time * 100);
            if (at < 0 || at >= buzz.HzAt.Count || double.IsNaN(buzz.HzAt[at]))
                continue;
            if (buzz.HzAt[at] == 0)
            {
                silent++;
                alarms += hertz > 0 ? 1 : 0;
                continue;
            }

            sounding++;
            if (hertz <= 0)
                continue;
            recalled++;
            errors.Add(Tuning.Cents(buzz.HzAt[at], hertz));
        }

        double Share(int count, int of) => of == 0 ? 0 : 100.0 * count / of;
        var gross = errors.Count(error => Math.Abs(error) > 50);
        var octaves = errors.Count(error => Math.Abs(Math.Abs(error) - 1200) < 50);
        Console.WriteLine(
            $"| {buzz.Group} | {tracker} | {Share(gross, errors.Count):0.00} % | {Share(octaves, errors.Count):0.00} % | "
                + $"{errors.Select(Math.Abs).Median():0.00} | {Share(recalled, sounding):0.0} % | {Share(alarms, silent):0.0} % |"
        );
    }

    private static MonoSound Read(string path)
    {
        using var stream = File.OpenRead(path);
        return WavFile.Read(stream, path);
    }

    private static void Report(
        string group,
        string tracker,
        MonoSound wave,
        List<TestNote> notes,
        Func<List<(double Time, double Hz)>> track
    )
    {
        var clock = Stopwatch.StartNew();
        var frames = track();
        var seconds = clock.Elapsed.TotalSeconds;
        var errors = notes
            .SelectMany(note =>
                frames
                    .Where(frame => frame.Time >= note.From && frame.Time < note.To)
                    .Select(frame => frame.Hz > 0 ? Math.Abs(Tuning.Cents(note.Hz, frame.Hz)) : double.PositiveInfinity)
            )
            .ToList();
        var gross = 100.0 * errors.Count(error => error > 50) / errors.Count;
        Console.WriteLine($"| {group} | {tracker} | {gross:0.00} % | {errors.Median():0.000} | {wave.Seconds / seconds:0} |");
    }

    internal static List<(double Time, double Hz)> Praat(string script, string wav)
    {
        var output = Path.ChangeExtension(Path.GetFullPath(wav), ".praat.txt");
        TestSounds.Run("praat", "--run", script, Path.GetFullPath(wav), output);
        return Lines(File.ReadAllText(output));
    }

    // aubio stamps a frame with the start of its hop; its window of 4096 samples ends with that hop.
    internal static List<(double Time, double Hz)> Aubio(string wav) =>
        [
            .. Lines(TestSounds.Run("aubiopitch", "-i", wav, "-p", "yinfft", "-B", "4096", "-H", "441", "-u", "hertz"))
                .Select(frame => (frame.Time - 0.03, frame.Hz)),
        ];

    private static List<(double Time, double Hz)> Lines(string text) =>
        [
            .. text.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(line => line.Split(' ', StringSplitOptions.RemoveEmptyEntries))
                .Where(parts => parts.Length == 2)
                .Select(parts => (double.Parse(parts[0]), double.Parse(parts[1]))),
        ];

    /// <summary>
    /// The pitch of a sampled note, which moves a little: every 50 ms the first harmonics' peaks in a spectrum six
    /// periods or 0.1 s long, weighted by strength.
    /// </summary>
    private static IEnumerable<TestNote> Reference(MonoSound wave, TestNote note)
    {
        const int Length = 1 << 15;
        var count = (int)(Math.Max(0.1, 6 / note.Hz) * wave.SampleRate);
        var window = Window.Hann(count);
        for (var time = note.From; time < note.To; time += 0.05)
        {
            var from = (int)((time + 0.005) * wave.SampleRate) - (count / 2);
            var bins = new Complex[Length];
            for (var i = 0; i < count; i++)
                bins[i] = wave.Samples[from + i] * window[i];
            Fourier.Forward(bins, FourierOptions.NoScaling);
            yield return new TestNote(time, time + 0.01, Fundamental(bins, note.Hz, wave.SampleRate), false);
        }
    }

    private static double Fundamental(Complex[] bins, double hertz, int rate)
    {
        double sum = 0,
            weights = 0;
        for (var harmonic = 1; harmonic <= 8 && harmonic * hertz < 6000; harmonic++)
        {
            var low = (int)(harmonic * hertz * Math.Pow(2, -45 / 1200.0) * bins.Length / rate);
            var high = (int)(harmonic * hertz * Math.Pow(2, 45 / 1200.0) * bins.Length / rate) + 1;
            var peak = Enumerable.Range(low, high - low + 1).MaxBy(bin => bins[bin].Magnitude);
            double before = Math.Log(bins[peak - 1].Magnitude),
                here = Math.Log(bins[peak].Magnitude),
                after = Math.Log(bins[peak + 1].Magnitude);
            var exact = peak + (0.5 * (before - after) / (before - (2 * here) + after));
            var weight = bins[peak].Magnitude * harmonic;
            sum += weight * exact * rate / bins.Length / harmonic;
            weights += weight;
        }

        return sum / weights;
    }
}
