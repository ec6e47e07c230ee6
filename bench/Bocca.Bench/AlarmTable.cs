using Bocca.Core.Sound;

namespace Bocca.Bench;

/// <summary>
/// What is no tone and must not be heard as one, made by Debian's sox and espeak-ng: how many of its frames Bocca takes for voiced, what it
/// says of such a take, and Praat and aubio beside it on the same files.
/// </summary>
public static class AlarmTable
{
    private const string Room = "synth 8 pinknoise vol -56dB";

    /// <summary>What each is made of: sox effects for one burst and how often it comes in eight seconds, or words.</summary>
    private static readonly (string Name, Func<string, string> Make)[] Sounds =
    [
        ("clicks", folder => Bursts(folder, "clicks", 0.5, "synth 0.03 noise highpass 900 fade h 0 0.03 0.028 vol 0.5")),
        ("taps on valves", folder => Bursts(folder, "valves", 0.4, "synth 0.05 sine 420 synth 0.05 noise mix vol 0.6 fade l 0 0.05 0.048")),
        ("key noise", folder => Bursts(folder, "keys", 0.3, "synth 0.02 brownnoise highpass 300 fade h 0 0.02 0.018 vol 0.7")),
        ("a tap on the stand", folder => Bursts(folder, "stand", 0.8, "synth 0.09 sine 182 fade l 0 0.09 0.088 vol 0.5")),
        ("mains hum with rumble", folder => Whole(folder, "hum", "synth 8 sine 50 synth 8 sine mix 100 synth 8 brownnoise mix vol 0.3")),
        ("a fan", folder => Whole(folder, "fan", "synth 8 pinknoise lowpass 700 tremolo 23 30 vol 0.4")),
        ("traffic", folder => Whole(folder, "traffic", "synth 8 brownnoise tremolo 0.3 60 vol 0.6")),
        ("breath", folder => Bursts(folder, "breath", 2, "synth 1.4 whitenoise bandpass 1100 900 fade q 0.4 1.4 0.6 vol 0.25")),
        ("paper", folder => Bursts(folder, "paper", 0.6, "synth 0.4 whitenoise tremolo 37 90 highpass 1500 fade h 0.1 0.4 0.2 vol 0.3")),
        ("a chair", folder => Bursts(folder, "chair", 1.5, "synth 0.6 brownnoise tremolo 61 80 highpass 120 fade h 0.05 0.6 0.3 vol 0.8")),
        ("a mute that falls", Mute),
        ("speech", folder => Said(folder, "speech", "en", "Put the mouthpiece on your lips, and play it once more. Do not hurry.")),
        ("a whispered count", folder => Said(folder, "whisper", "en+whisper", "one, two, three, four, one, two, three, four")),
        ("laughter", folder => Said(folder, "laughter", "en+f3", "ha ha ha ha ha! hee hee hee hee! ha ha ha ha!")),
    ];

    /// <summary>Makes and hears them, and prints the table.</summary>
    public static int Run()
    {
        var folder = Directory.CreateTempSubdirectory("bocca-alarms").FullName;
        var script = TrackerComparison.WritePraatScript(folder);
        Console.WriteLine("| sound | Bocca, frames voiced | Praat (ac) | aubio (yinfft) | what is said of the take |");
        Console.WriteLine("| --- | --- | --- | --- | --- |");
        foreach (var (name, make) in Sounds)
        {
            var path = make(folder);
            using var stream = File.OpenRead(path);
            var sound = WavFile.Read(stream, path);
            var track = PitchTrack.Of(sound);
            var said = Disturbance.Find(sound, track, [], voiceAsked: false, joined: true)?.Kind.ToString();
            Console.WriteLine(
                $"| {name} | {Voiced([.. track.Frames.Select(frame => frame.Voiced ? frame.FrequencyHz : 0)])} | "
                    + $"{Voiced([.. TrackerComparison.Praat(script, path).Select(frame => frame.Hz)])} | "
                    + $"{Voiced([.. TrackerComparison.Aubio(path).Select(frame => frame.Hz)])} | {said ?? ""} |"
            );
        }

        Directory.Delete(folder, recursive: true);
        return 0;
    }

    private static string Voiced(List<double> hertz) => $"{100.0 * hertz.Count(each => each > 0) / Math.Max(1, hertz.Count):0.0} %";

    private static string Whole(string folder, string name, string made)
    {
        var path = Path.Combine(folder, $"{name}.wav");
        Sox($"-n -r 44100 -c 1 -b 16 {path} {made}");
        return path;
    }

    /// <summary>Bursts in a quiet room, so many seconds apart.</summary>
    private static string Bursts(string folder, string name, double apart, string burst)
    {
        var (one, path, room) = (Path.Combine(folder, $"{name}-one.wav"), Path.Combine(folder, $"{name}.wav"), RoomOf(folder));
        Sox($"-n -r 44100 -c 1 -b 16 {one} {burst}");
        var (padded, row) = (Path.Combine(folder, $"{name}-padded.wav"), Path.Combine(folder, $"{name}-row.wav"));
        Sox($"{one} {padded} pad 0 {apart}");
        Sox($"{padded} {row} repeat {(int)(8 / apart)} trim 0 7.5 pad 0.5");
        Sox($"-m -v 1 {row} -v 1 {room} -b 16 {path}");
        return path;
    }

    /// <summary>Sheet metal that rings at several pitches, none a multiple of another, each dying away by itself.</summary>
    private static string Mute(string folder)
    {
        var parts = new List<string>();
        foreach (var (hertz, seconds, db) in new[] { (611.0, 1.1, -9.0), (1423, 0.9, -12), (2237, 0.7, -14), (3391, 0.5, -16) })
        {
            var part = Path.Combine(folder, $"mute-{hertz}.wav");
            Sox($"-n -r 44100 -c 1 -b 16 {part} synth {seconds} sine {hertz} fade l 0 {seconds} {seconds * 0.99} vol {db}dB");
            parts.Add(part);
        }

        var one = Path.Combine(folder, "mute-rings.wav");
        Sox($"-m {string.Join(' ', parts.Select(part => $"-v 1 {part}"))} -b 16 {one}");
        var (padded, row, path) = (
            Path.Combine(folder, "mute-p.wav"),
            Path.Combine(folder, "mute-r.wav"),
            Path.Combine(folder, "mute.wav")
        );
        Sox($"{one} {padded} pad 0 1.1");
        Sox($"{padded} {row} repeat 5 trim 0 7.5 pad 0.5");
        Sox($"-m -v 1 {row} -v 1 {RoomOf(folder)} -b 16 {path}");
        return path;
    }

    private static string Said(string folder, string name, string voice, string words)
    {
        var (dry, path) = (Path.Combine(folder, $"{name}-dry.wav"), Path.Combine(folder, $"{name}.wav"));
        TestSounds.Run("espeak-ng", "-v", voice, "-s", "150", "-w", dry, words);
        var wide = Path.Combine(folder, $"{name}-wide.wav");
        Sox($"{dry} -r 44100 {wide}");
        Sox($"-m -v 1 {wide} -v 1 {RoomOf(folder)} -b 16 {path}");
        return path;
    }

    private static string RoomOf(string folder)
    {
        var path = Path.Combine(folder, "room.wav");
        if (!File.Exists(path))
            Sox($"-n -r 44100 -c 1 -b 16 {path} {Room}");
        return path;
    }

    private static void Sox(string arguments) => TestSounds.Run("sox", $"-R {arguments}".Split(' '));
}
