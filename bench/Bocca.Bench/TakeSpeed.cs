using System.Diagnostics;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Bench;

/// <summary>How fast a whole take is heard, stage by stage, one take and thirty, beside the plain difference function.</summary>
internal static class TakeSpeed
{
    private const int Takes = 30;

    public static void Run()
    {
        var player = new PlayerSituation(Catalogue.Get("trumpet-bb"), Catalogue.Get("trumpet-bb").Readings[0], Tuning.Standard);
        var meant = MeantNote.Row(player.Instrument, player.Reading, "C4 D4 E4 F4 G4 F4 E4 D4");
        var plan = new RowPlan(
            60,
            [.. Enumerable.Range(0, 64).Select(i => new AskedNote(meant[i % 8], i + (i / 8), 1, i % 8 == 7 ? 1 : 0))]
        );
        var how = new RowCharacter("x", "x", [], []);
        var sound = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, [], 1).Sound;
        var asked = new AskedRow(plan, player, LearningStage.Second);
        RowJudge.Judge(RowListener.Hear(sound, asked), asked, Core.Buzz.Measures.SoundingPupil.Unknown);

        var track = PitchSlips.Mended(sound, PitchTrack.Of(sound));
        var row = RowListener.Hear(sound, asked);
        Console.WriteLine($"take of {sound.Seconds:0} s at {sound.SampleRate} Hz, median of five");
        Console.WriteLine("| stage | ms | times real time |");
        Console.WriteLine("| --- | --- | --- |");
        Print("plain difference function of every lag", sound, () => new CoreBenchmarks().PlainDifference(), 8 / sound.Seconds);
        Print("pitch track", sound, () => PitchTrack.Of(sound));
        Print("slips mended", sound, () => PitchSlips.Mended(sound, track));
        Print("disturbances", sound, () => Disturbance.Find(sound, track, [], false, joined: true));
        Print("notes", sound, () => NoteFinder.Find(sound, track));
        Print("the room", sound, () => RoomDecay.SecondsOf(sound, [.. row.Notes.Select(note => note.Sound).OfType<SoundedNote>()]));
        Print("two pitches", sound, () => TwoPitches.Heard(sound, [.. row.Notes.Select(note => note.Sound).OfType<SoundedNote>()]));
        Print("the whole row", sound, () => RowListener.Hear(sound, asked));
        Print("verdict", sound, () => RowJudge.Judge(row, asked, Core.Buzz.Measures.SoundingPupil.Unknown));
        var watch = Stopwatch.StartNew();
        Parallel.For(0, Takes, _ => RowJudge.Judge(RowListener.Hear(sound, asked), asked, Core.Buzz.Measures.SoundingPupil.Unknown));
        Console.WriteLine(
            $"| {Takes} takes on {Environment.ProcessorCount} cores | {watch.ElapsedMilliseconds} | "
                + $"{1000 * Takes * sound.Seconds / watch.ElapsedMilliseconds:0} |"
        );
    }

    /// <param name="stage">What is timed.</param>
    /// <param name="sound">The take.</param>
    /// <param name="work">What does it.</param>
    /// <param name="share">How much of the take the work goes through.</param>
    private static void Print(string stage, MonoSound sound, Func<object?> work, double share = 1)
    {
        var times = new List<double>();
        for (var i = 0; i < 5; i++)
        {
            var watch = Stopwatch.StartNew();
            GC.KeepAlive(work());
            times.Add(watch.Elapsed.TotalMilliseconds / share);
        }

        var ms = times.Order().ElementAt(2);
        Console.WriteLine($"| {stage} | {ms:0.0} | {1000 * sound.Seconds / ms:0} |");
    }
}
