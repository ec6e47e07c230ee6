using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Cli;

/// <summary><c>bocca analyse --expect</c>: recordings held against the notes that were meant.</summary>
internal static class RowAnalysis
{
    /// <summary>Hears every file against the row, writes frames where asked, prints.</summary>
    public static int Run(string[] paths, AskedRow asked, string? frames, bool json)
    {
        var heard = AnalyseCommand.OnAllCores(
            paths,
            path =>
            {
                var sound = AnalyseCommand.Read(path);
                var (row, verdict) = Judged(sound, asked);
                return (Path: path, Row: row, Verdict: verdict, Shape: json ? Shape(path, sound, row, verdict) : null);
            }
        );
        if (frames is not null)
            foreach (var (path, row, _, _) in heard)
                AnalyseCommand.WriteFrames(AnalyseCommand.FrameFile(frames, path, paths.Length), row.Track);
        if (json)
            CommandLine.PrintJson(paths.Length == 1 ? heard[0].Shape! : heard.Select(file => file.Shape));
        else
            heard.ForEach(file => Print(file.Path, file.Row, file.Verdict));

        return CommandLine.Done;
    }

    /// <summary>Notes slurred along one tube are judged as the slur that they are, all others as a row.</summary>
    private static (HeardRow Row, Verdict Verdict) Judged(MonoSound sound, AskedRow asked)
    {
        if (Slur.Of(asked.Plan) is not { } slur)
        {
            var row = RowTake.Hear(sound, asked, SoundingPupil.Unknown);
            return (row.Heard, row.Verdict);
        }

        var slurred = new AskedSlur(slur, asked.Plan.Tempo, 1, asked.Player, asked.Pupil);
        var take = SlurTake.Hear(sound, slurred, SoundingPupil.Unknown, onward: null, asked.FirstCueSeconds);
        return (take.Heard.Row, take.Verdict);
    }

    private static void Print(string path, HeardRow row, Verdict verdict)
    {
        Console.WriteLine($"{path}: {verdict.Summary}");
        foreach (var note in row.Notes)
            Console.WriteLine(
                $"{note.Number, 3} {note.Judged.Meant.Written, -4} {note.Judged.Meant.Setting, -9} {note.Sound?.StartSeconds, 7:0.00} "
                    + $"{note.Judged.HeardHz, 8:0.00} Hz  {note.Judged.Sentence}"
            );
        if (row.Extra.Count > 0)
            Console.WriteLine(
                $"beside these: {row.Extra.Count} sounds that nobody meant, at "
                    + $"{string.Join(", ", row.Extra.Select(sound => $"{sound.StartSeconds:0.00}"))} s"
            );
        Console.WriteLine($"next: {verdict.Next.Cue} {verdict.Next.Reason}");
    }

    private static object Shape(string path, MonoSound sound, HeardRow row, Verdict verdict)
    {
        var articulation = RowArticulation.Of(row);
        return new
        {
            File = path,
            sound.SampleRate,
            DurationSeconds = Math.Round(sound.Seconds, 4),
            Attempts = row.Notes.Select(note => note.Measures).OfType<AttemptMeasures>().Select(AnalyseCommand.Rounded),
            Take = new
            {
                Notes = row.Notes.Count,
                Came = row.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right),
                Extra = row.Extra.Count,
                Doubt = row.Doubt?.Sentence,
                MainSlideMm = Round(row.MainSlide?.Mm, 1),
                DriftCentsPerMinute = Round(row.DriftCentsPerMinute, 1),
                RoomDecaySeconds = Round(row.RoomDecaySeconds, 2),
                Articulation = articulation,
            },
            Notes = row.Notes.Select((note, i) => Shape(note, i + 1 < row.Notes.Count ? row.Notes[i + 1] : null)),
            Verdict = AnalyseCommand.Shape(verdict),
        };
    }

    private static object Shape(RowNote note, RowNote? next) =>
        new
        {
            Written = note.Judged.Meant.Written.ToString(),
            Setting = note.Judged.Meant.Setting.ToString(),
            StartSeconds = Round(note.Sound?.StartSeconds, 3),
            EndSeconds = Round(note.Sound?.EndSeconds, 3),
            Articulation = note.Sound is null ? null
            : note.Sound.Tongued ? "tongued"
            : "slurred",
            Duty = note.Sound is { } sound && next?.Sound is { } after ? Round(RowArticulation.DutyOf(sound, after), 3) : null,
            HeardHz = Round(note.Judged.HeardHz, 3),
            Heard = note.Judged.HeardWritten?.ToString(),
            note.Judged.Partial,
            Cents = Round(note.Judged.Cents, 1),
            note.Judged.Outcome,
            note.Judged.By,
            Cm = Round(note.Judged.Cm, 1),
            OtherSetting = note.Judged.OtherSetting?.ToString(),
            Remedy = Shape(note.Judged),
            note.Judged.Sentence,
            Readings = note.Judged.Readings.Select(reading => new
            {
                reading.Outcome,
                Setting = reading.Setting.ToString(),
                reading.Partial,
                reading.By,
                OffCents = Math.Round(reading.OffCents, 1),
                Probability = Math.Round(reading.Probability, 3),
            }),
        };

    /// <summary>What mends a note: a valve's slide in millimetres, the trombone's in centimetres, the hand, the lips.</summary>
    private static object? Shape(JudgedNote judged) =>
        judged.Cm is { } cm ? new { Kind = "slide", Cm = Math.Round(cm, 1) }
        : judged.Remedy is not { } remedy ? null
        : remedy.What == "slide" ? new { Kind = "slide", Cm = Math.Round(remedy.Cm, 1) }
        : remedy.Cm == 0 ? new { Kind = remedy.What }
        : new { Kind = $"{remedy.What.Split(' ')[0]}Slide", Mm = Math.Round(10 * remedy.Cm) };

    private static double? Round(double? value, int digits) => value is { } number ? Math.Round(number, digits) : null;
}
