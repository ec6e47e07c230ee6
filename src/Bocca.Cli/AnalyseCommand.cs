using System.CommandLine;
using System.Runtime.ExceptionServices;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Cli;

/// <summary><c>bocca analyse</c>: hears WAV files out.</summary>
public static class AnalyseCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var files = new Argument<string[]>("FILE.wav") { Description = "WAV files.", Arity = ArgumentArity.OneOrMore };
        var instrument = CommandLine.InstrumentOption(required: false);
        var stage = CommandLine.StageOption(required: false);
        var drill = CommandLine.DrillOption();
        var tempo = CommandLine.TempoOption();
        var firstCue = new Option<double?>("--first-cue")
        {
            Description = "When the first try was due, in seconds; the file's own marks by default.",
        };
        var frames = new Option<string?>("--frames") { Description = "Write the pitch line as CSV: a file, or for several WAVs a folder." };
        var json = CommandLine.JsonOption();
        var expect = new Option<string?>("--expect")
        {
            Description = "The written notes that were meant, such as \"D4 E4 F4\" or \"G4~C5~G4\"; ~ slurs to the next.",
        };
        var settings = new Option<string?>("--setting")
        {
            Description = "A setting for each of them, such as \"1-3 1-2 1\"; the first choice of each by default.",
        };
        var reading = CommandLine.ReadingOption();
        var learning = new Option<string>("--learning")
        {
            Description = "How far the player is: in the first stage a right note is told without cents.",
            DefaultValueFactory = _ => "second",
        };
        learning.AcceptOnlyFromAmong("first", "second", "pieces");
        var (a4, celsius) = (CommandLine.A4Option(), CommandLine.CelsiusOption());
        var command = new Command("analyse", "Hear a take out: what was heard, and what to try.")
        {
            files,
            instrument,
            stage,
            drill,
            tempo,
            firstCue,
            expect,
            settings,
            reading,
            learning,
            frames,
            json,
            a4,
            celsius,
        };
        command.SetAction(parsed =>
        {
            if (parsed.GetValue(expect) is { } row)
            {
                var player = CommandLine.Player(
                    parsed.GetValue(instrument)
                        ?? throw new ArgumentException("--expect needs --instrument: written notes mean nothing without one."),
                    parsed.GetValue(reading)
                );
                var meant = MeantNote.Row(player.Instrument, player.Reading, row, parsed.GetValue(settings));
                return RowAnalysis.Run(
                    parsed.GetValue(files)!,
                    new AskedRow(
                        RowPlan.Even(meant, CommandLine.TempoOf(parsed.GetValue(tempo) ?? 60), 1),
                        new PlayerSituation(
                            player.Instrument,
                            player.Reading,
                            CommandLine.RoomOf(parsed.GetValue(a4), parsed.GetValue(celsius)).Tuning
                        ),
                        parsed.GetValue(learning) switch
                        {
                            "first" => LearningStage.FirstNotes,
                            "pieces" => LearningStage.Pieces,
                            _ => LearningStage.Second,
                        }
                    )
                    {
                        FirstCueSeconds = parsed.GetValue(firstCue),
                        UsesMarks = false,
                        RoomCelsius = parsed.GetValue(celsius),
                    },
                    parsed.GetValue(frames),
                    parsed.GetValue(json)
                );
            }

            if (parsed.GetValue(settings) is not null)
                throw new ArgumentException("--setting needs --expect: it says how the notes meant were fingered.");
            if (parsed.GetValue(instrument) is { } id)
                CommandLine.Player(id, null);
            var asked = BuzzDrill.Get(parsed.GetValue(drill)!);
            var request = new AskedTake(
                asked,
                CommandLine.PlanOf(asked, parsed.GetValue(tempo)),
                CommandLine.StageOf(parsed.GetValue(stage)!),
                LearningStage.FirstNotes,
                parsed.GetValue(firstCue)
            );
            var paths = parsed.GetValue(files)!;
            var asJson = parsed.GetValue(json);
            // The sounds themselves are let go one by one: many long takes would not fit.
            var heard = OnAllCores(
                paths,
                path =>
                {
                    var sound = Read(path);
                    var take = TakeListener.Hear(sound, request, SoundingPupil.Unknown);
                    return (Path: path, Heard: take, Shape: asJson ? Shape(path, sound, take) : null);
                }
            );
            if (parsed.GetValue(frames) is { } target)
                foreach (var (path, take, _) in heard)
                    WriteFrames(FrameFile(target, path, paths.Length), take.Track);
            if (asJson)
                CommandLine.PrintJson(paths.Length == 1 ? heard[0].Shape! : heard.Select(file => file.Shape));
            else
                heard.ForEach(file => Print(file.Path, file.Heard));

            return CommandLine.Done;
        });
        return command;
    }

    /// <summary>Hears files side by side, in their order; the first that fails ends it.</summary>
    internal static List<T> OnAllCores<T>(string[] paths, Func<string, T> hear)
    {
        try
        {
            return [.. paths.AsParallel().AsOrdered().Select(hear)];
        }
        catch (AggregateException several)
        {
            ExceptionDispatchInfo.Throw(several.InnerExceptions[0]);
            throw;
        }
    }

    /// <summary>Reads a WAV file, or refuses it by name.</summary>
    internal static MonoSound Read(string path)
    {
        if (!File.Exists(path))
            throw new IOException($"{path}: no such file.");
        if (new FileInfo(path).Length > WavFile.MaximumBytes)
            throw new InvalidDataException($"{path}: larger than 60 MB. Cut it into takes of at most 10 minutes.");
        using var stream = File.OpenRead(path);
        return WavFile.Read(stream, path);
    }

    internal static string FrameFile(string target, string path, int count)
    {
        if (count == 1 && !Directory.Exists(target))
            return target;
        Directory.CreateDirectory(target);
        return Path.Combine(target, $"{Path.GetFileNameWithoutExtension(path)}.csv");
    }

    internal static void WriteFrames(string file, PitchTrack track) =>
        File.WriteAllLines(
            file,
            track
                .Frames.Select(frame =>
                    $"{frame.TimeSeconds:0.000},{frame.FrequencyHz:0.000},{(frame.Voiced ? 1 : 0)},{frame.LevelDb:0.00}"
                )
                .Prepend("time_s,f0_hz,voiced,level_db")
        );

    private static void Print(string path, HeardTake heard)
    {
        Console.WriteLine($"{path}: {heard.Verdict.Summary}");
        Console.WriteLine("try   start s    end s   median Hz   delay ms   air ms   steady c   drift c/s   breaks");
        foreach (var attempt in heard.Measures.Attempts)
            Console.WriteLine(
                $"{attempt.Number, 3} {attempt.StartSeconds, 9:0.00} {attempt.EndSeconds, 8:0.00} {attempt.MedianHz, 11:0.00} "
                    + $"{attempt.OnsetDelayMs, 10:0} {attempt.AirBeforeToneMs, 8:0} {attempt.SteadinessCents, 10:0.0} "
                    + $"{attempt.DriftCentsPerSecond, 11:+0.0;-0.0;0.0} {attempt.Breaks, 8}"
            );
        foreach (var number in heard.Verdict.Heard)
            Console.WriteLine($"{number.Name}: {number.Value}, {number.Meaning}");
        Console.WriteLine($"next: {heard.Verdict.Next.Cue} {heard.Verdict.Next.Reason}");
    }

    private static object Shape(string path, MonoSound sound, HeardTake heard) =>
        new
        {
            File = path,
            sound.SampleRate,
            DurationSeconds = Math.Round(sound.Seconds, 4),
            Attempts = heard.Measures.Attempts.Select(Rounded),
            Take = new
            {
                Spoke = heard.Measures.Spoken.Count(),
                Asked = heard.Measures.Attempts.Count,
                RoomDb = Math.Round(heard.Measures.RoomDb, 1),
                PeakDb = Math.Round(heard.Measures.PeakDb, 1),
                ClippedShare = Math.Round(heard.Measures.ClippedShare, 5),
                heard.Measures.Sameness,
            },
            Verdict = Shape(heard.Verdict),
        };

    /// <summary>A verdict in the shape all commands print.</summary>
    internal static object Shape(Verdict verdict) =>
        new
        {
            verdict.Outcome,
            verdict.Summary,
            verdict.Heard,
            Findings = verdict.Findings.Select(finding => new
            {
                Symptom = finding.Symptom.Id,
                finding.Tries,
                Measured = Math.Round(finding.Measured, 2),
                finding.Limit,
                finding.Unit,
                finding.Heard,
            }),
            Next = new
            {
                Place = verdict.Next.Place.Id,
                verdict.Next.DrillId,
                verdict.Next.Cue,
                verdict.Next.Reason,
                verdict.Next.Given,
                verdict.Next.Mends,
                verdict.Next.Tempo,
            },
        };

    internal static AttemptMeasures Rounded(AttemptMeasures attempt) =>
        attempt with
        {
            StartSeconds = Round(attempt.StartSeconds, 3),
            EndSeconds = Round(attempt.EndSeconds, 3),
            SoundingSeconds = Round(attempt.SoundingSeconds, 3),
            MedianHz = Round(attempt.MedianHz, 3),
            OnsetDelayMs = Round(attempt.OnsetDelayMs, 1),
            AirBeforeToneMs = Round(attempt.AirBeforeToneMs, 1),
            RiseMs = Round(attempt.RiseMs, 1),
            ScoopCents = Round(attempt.ScoopCents, 1),
            SteadinessCents = Round(attempt.SteadinessCents, 2),
            DriftCentsPerSecond = Round(attempt.DriftCentsPerSecond, 2),
            DriftDbPerSecond = Round(attempt.DriftDbPerSecond, 2),
            WobbleHz = Round(attempt.WobbleHz, 1),
            WobbleCents = Round(attempt.WobbleCents, 1),
            WobbleDb = Round(attempt.WobbleDb, 1),
            EndCents = Round(attempt.EndCents, 1),
            LevelDb = Round(attempt.LevelDb, 1),
            HarmonicToNoiseDb = Round(attempt.HarmonicToNoiseDb, 1),
            CentroidOverPitch = Round(attempt.CentroidOverPitch, 2),
        };

    private static double? Round(double? value, int digits) => value is { } number ? Math.Round(number, digits) : null;
}
