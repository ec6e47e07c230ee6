using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Bench;

/// <summary>
/// Slurs that Bocca's own player did not make, from a sampled soundfont: pairs of partials slurred (the old note ends 30 ms into
/// the new one) and tongued (60 ms apart): told apart, and when each change came. Then the physical lips, made to fall a partial
/// short or go one too far: which partial was heard.
/// </summary>
public static class SampledSlurs
{
    private const double LeadSeconds = 1,
        Beat = 0.8,
        OverlapSeconds = 0.03,
        GapSeconds = 0.06;

    public static void Run(string folder)
    {
        Directory.CreateDirectory(folder);
        Console.WriteLine(
            "| instrument | pairs slurred | heard as slurred | pairs tongued | heard as tongued | change off its MIDI time, median "
                + "(95th, most) ms | off the new note's own start |"
        );
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
        foreach (var (id, program) in TestSounds.Sampled.Append(("euphonium-3v", 57)))
            Pairs(folder, Catalogue.Get(id), program);
        Console.WriteLine();
        Console.WriteLine("| instrument | slurs with a miss | partial named right |");
        Console.WriteLine("| --- | --- | --- |");
        foreach (var id in new[] { "trumpet-bb", "horn-f", "trombone", "euphonium-3v", "tuba-bb-3v" })
            Cracks(Catalogue.Get(id));
    }

    private static void Pairs(string folder, Instrument instrument, int program)
    {
        int[] partials = instrument.Family == "horn" ? [4, 5, 4, 6, 5, 6, 4, 5, 8, 6, 8] : [2, 3, 2, 3, 4, 3, 4, 5, 4, 3, 5];
        var (slurred, asSlurred, tongued, asTongued) = (0, 0, 0, 0);
        var (off, own) = (new List<double>(), new List<double>());
        foreach (
            var tube in instrument
                .Tubes.Where(tube => tube.Setting.Attachment == "" && tube.Semitones <= 4 && Math.Abs(tube.CentsSharp) < 20)
                .Take(5)
        )
        {
            foreach (var slur in new[] { true, false })
            {
                var pitches = partials
                    .Select(partial => instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial) - tube.Semitones)
                    .ToList();
                var notes = pitches
                    .Select(
                        (midi, i) =>
                            (
                                Start: LeadSeconds + (i * Beat),
                                Seconds: slur ? Beat + OverlapSeconds : Beat - GapSeconds,
                                Note: midi,
                                Velocity: 90
                            )
                    )
                    .ToList();
                var (midi, wav) = (
                    Path.Combine(folder, $"{instrument.Id}-{tube.Setting}-{(slur ? "slur" : "tongue")}.mid"),
                    Path.Combine(folder, $"{instrument.Id}-{tube.Setting}-{(slur ? "slur" : "tongue")}.wav")
                );
                MidiScale.Write(midi, program, notes);
                TestSounds.Synthesise(midi, wav);
                using var stream = File.OpenRead(wav);
                var reading = instrument.Readings[0];
                var meant = pitches
                    .Select(
                        (pitch, i) =>
                            MeantNote.On(instrument, reading, reading.ToWritten(Pitch.FromMidi(pitch)), tube.Setting) with
                            {
                                SlurredToNext = i + 1 < pitches.Count,
                            }
                    )
                    .ToList();
                var row = RowListener.Hear(
                    WavFile.Read(stream, wav),
                    new AskedRow(
                        RowPlan.Even(meant, 75, 1),
                        new PlayerSituation(instrument, reading, Tuning.Standard),
                        LearningStage.Second
                    )
                );
                foreach (var note in row.Notes.Skip(1).Where(note => note.Sound is not null))
                {
                    _ = slur ? slurred++ : tongued++;
                    if (slur && !note.Sound!.Tongued)
                        asSlurred++;
                    if (!slur && note.Sound!.Tongued)
                        asTongued++;
                    if (!slur)
                        continue;
                    off.Add(1000 * (note.Sound!.StartSeconds - notes[note.Number - 1].Start));
                    own.Add(off[^1] - (1000 * TestSounds.OwnStart(folder, program, notes[note.Number - 1].Note)));
                }
            }
        }

        Console.WriteLine(
            $"| {instrument.Id} | {slurred} | {100.0 * asSlurred / slurred:0.0} % | {tongued} | {100.0 * asTongued / tongued:0.0} % | "
                + $"{Off(off)} | {Off(own)} |"
        );
    }

    private static string Off(List<double> ms)
    {
        var away = ms.Select(Math.Abs).Order().ToList();
        return $"{ms.Median():0} ({away[(int)(0.95 * (away.Count - 1))]:0}, {away[^1]:0})";
    }

    private static void Cracks(Instrument instrument)
    {
        var player = SlurPlayer.Of(instrument, instrument.Readings[0], LearningStage.Second, Approach.Of(ApproachPreset.MouthpieceFirst));
        var situation = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var (all, right) = (0, 0);
        foreach (
            var slur in SlurWriter
                .All(player)
                .Where(slur => slur.Shape.Id is "pair" or "pair-under" && slur.Notes.Max(note => note.Partial) <= 8)
        )
        {
            foreach (var by in new[] { -1, 1 })
            {
                var asked = new AskedSlur(slur, 90, 1, situation, LearningStage.Second);
                var wanted = slur.Notes[1].Partial + by;
                if (wanted is < 2 or 7 || wanted == slur.Notes[0].Partial)
                    continue;
                var how = new RowCharacter("x", "x", [new RowMiss(RowMissKind.Partial, $"{by}", new HashSet<int> { 2 })], []);
                var sound = SimulatedPlayer
                    .PlayRow(instrument, PlayedNote.Row(asked.Plan, situation, how), asked.Tempo, how.Faults, all)
                    .Sound;
                var judged = HeardSlur.Hear(sound, asked).Row.Notes[1].Judged;
                // What the lips really did, read from the sound alone: they do not always go where they are sent.
                var (from, to) = (asked.Plan.Starts[1] + (0.5 * 60 / 90), asked.Plan.Starts[2] - (0.2 * 60 / 90));
                var frames = PitchTrack
                    .Of(sound)
                    .Frames.Where(frame =>
                        frame.Voiced && frame.TimeSeconds - sound.CueSeconds![0] > from && frame.TimeSeconds - sound.CueSeconds[0] < to
                    )
                    .Select(frame => frame.FrequencyHz)
                    .ToList();
                if (frames.Count == 0)
                    continue;
                wanted = Enumerable
                    .Range(1, 16)
                    .MinBy(partial => Math.Abs(Tuning.Cents(situation.Hertz(slur.Notes[1].Tube, partial), frames.Median())));
                all++;
                if (judged.Partial == wanted)
                    right++;
                else if (Environment.GetEnvironmentVariable("EXTRA") is not null)
                    Console.Error.WriteLine(
                        $"{instrument.Id} {slur.Text} {slur.Settings} by {by}: {judged.Outcome} {judged.Partial} {judged.Sentence}"
                    );
            }
        }

        Console.WriteLine($"| {instrument.Id} | {all} | {100.0 * right / Math.Max(1, all):0.0} % |");
    }
}
