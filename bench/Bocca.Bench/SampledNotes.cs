using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Bench;

/// <summary>
/// Notes that Bocca's own player did not make, from a sampled soundfont: what was heard of the row, when each note began,
/// how long it sounded. Repeats at three lengths, and slurs between partials.
/// </summary>
public static class SampledNotes
{
    private const double LeadSeconds = 1;

    /// <summary>How much of a beat sounds, and how many seconds a beat is.</summary>
    private static readonly (double Duty, double Beat)[] Lengths = [(1, 1), (1, 0.5), (0.6, 1), (0.6, 0.5), (0.3, 1), (0.3, 0.5)];

    public static void Run(string folder)
    {
        Directory.CreateDirectory(folder);
        Console.WriteLine(
            "| instrument | row | notes found | judged right | start off its MIDI time, median (most) ms | off its own start, median "
                + "(most) ms | duty meant | duty heard, median (from to) |"
        );
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- | --- |");
        foreach (var (id, program) in TestSounds.Sampled.Append(("euphonium-3v", 57)))
        {
            var instrument = Catalogue.Get(id);
            foreach (var (duty, beat) in Lengths)
                Repeats(folder, instrument, program, duty, beat);
            Slurs(folder, instrument, program);
        }
    }

    private static void Repeats(string folder, Instrument instrument, int program, double duty, double beat)
    {
        var reading = instrument.Readings[0];
        var pitches = instrument.FirstNotes.SelectMany(note => Enumerable.Repeat(note, 4)).ToList();
        var notes = pitches
            .Select((pitch, i) => (Start: LeadSeconds + (i * beat), Seconds: beat * duty, pitch.Midi, Velocity: 90))
            .ToList();
        var sound = Render(folder, $"{instrument.Id}-repeats-{100 * duty:0}-{60 / beat:0}", program, notes);
        Print(
            folder,
            program,
            instrument,
            $"repeats at {60 / beat:0}",
            sound,
            [.. pitches.Select(pitch => MeantNote.Of(instrument, reading, reading.ToWritten(pitch)))],
            [.. notes.Select(note => note.Start)],
            duty
        );
    }

    /// <summary>From each partial to the next and back on the open tube, a note's end a little over the next one's start.</summary>
    private static void Slurs(string folder, Instrument instrument, int program)
    {
        const double Beat = 0.8;
        var reading = instrument.Readings[0];
        int[] partials = instrument.Family == "horn" ? [4, 5, 6, 5, 4, 6, 4] : [3, 4, 5, 4, 3, 2, 3];
        var pitches = partials.Select(partial => instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial)).ToList();
        var notes = pitches.Select((midi, i) => (Start: LeadSeconds + (i * Beat), Seconds: Beat + 0.03, Note: midi, Velocity: 90)).ToList();
        var sound = Render(folder, $"{instrument.Id}-slurs", program, notes);
        Print(
            folder,
            program,
            instrument,
            "partial slurs",
            sound,
            [
                .. pitches.Select(midi =>
                    MeantNote.On(instrument, reading, reading.ToWritten(Pitch.FromMidi(midi)), instrument.Tubes[0].Setting)
                ),
            ],
            [.. notes.Select(note => note.Start)],
            null
        );
    }

    private static MonoSound Render(
        string folder,
        string name,
        int program,
        List<(double Start, double Seconds, int Note, int Velocity)> notes
    )
    {
        var (midi, wav) = (Path.Combine(folder, $"{name}.mid"), Path.Combine(folder, $"{name}.wav"));
        MidiScale.Write(midi, program, notes);
        TestSounds.Synthesise(midi, wav);
        using var stream = File.OpenRead(wav);
        return WavFile.Read(stream, wav);
    }

    private static void Print(
        string folder,
        int program,
        Instrument instrument,
        string row,
        MonoSound sound,
        IReadOnlyList<MeantNote> meant,
        IReadOnlyList<double> starts,
        double? duty
    )
    {
        var heard = RowListener.Hear(
            sound,
            new AskedRow(
                RowPlan.Even(meant, 60, 1),
                new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard),
                LearningStage.Second
            )
        );
        if (heard.Problem is { } problem)
            Console.Error.WriteLine(problem);
        if (heard.Doubt is { } doubt)
            Console.Error.WriteLine(doubt.Sentence);
        var right = heard.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right);
        var off = heard
            .Notes.Where(note => note.Sound is not null)
            .Select(note => 1000 * (note.Sound!.StartSeconds - starts[note.Number - 1]))
            .ToList();
        var own = heard
            .Notes.Where(note => note.Sound is not null)
            .Select(note =>
                1000
                * (
                    note.Sound!.StartSeconds
                    - starts[note.Number - 1]
                    - TestSounds.OwnStart(folder, program, note.Asked.Meant.Sounding.Midi)
                )
            )
            .ToList();
        var duties = heard
            .Notes.Zip(heard.Notes.Skip(1))
            .Where(pair => pair.First.Sound is not null && pair.Second.Sound is not null)
            .Select(pair => 100 * pair.First.Sound!.HalfToHalfSeconds / (pair.Second.Sound!.StartSeconds - pair.First.Sound.StartSeconds))
            .ToList();
        if (Environment.GetEnvironmentVariable("EXTRA") is not null)
            Console.Error.WriteLine(
                $"{instrument.Id} {row} {duty}: "
                    + string.Join(
                        " ",
                        heard
                            .Notes.Where(note => note.Sound is not null)
                            .Select(note => $"{1000 * (note.Sound!.StartSeconds - starts[note.Number - 1]):0}({note.Sound.DipDb:0})")
                    )
            );
        if (Environment.GetEnvironmentVariable("EXTRA") is not null)
            foreach (var note in heard.Extra)
                Console.Error.WriteLine(
                    $"{note.StartSeconds:0.000} {note.EndSeconds:0.000} {note.MedianHz:0.0} {note.LevelDb:0.0} dip {note.DipDb:0.0} "
                        + $"tongued {note.Tongued}"
                );
        Console.WriteLine(
            $"| {instrument.Id} | {row} | {heard.Notes.Count(note => note.Sound is not null)} + {heard.Extra.Count} of {meant.Count} "
                + $"| {right} | {Off(off)} | {Off(own)} | {(duty is { } share ? $"{100 * share:0} %" : "–")} | "
                + $"{(duties.Count == 0 ? 0 : duties.Median()):0} % ({duties.DefaultIfEmpty(0).Min():0} "
                + $"{duties.DefaultIfEmpty(0).Max():0}) |"
        );
    }

    private static string Off(List<double> ms) => ms.Count == 0 ? "–" : $"{ms.Median():0} ({ms.MaxBy(Math.Abs):0})";
}
