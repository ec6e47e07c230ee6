using System.CommandLine;
using Bocca.Core.Buzz;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;

namespace Bocca.Cli;

/// <summary><c>bocca simulate</c>: the stand-in player.</summary>
public static class SimulateCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var instrument = CommandLine.InstrumentOption();
        var stage = CommandLine.StageOption(required: true);
        var faults = new Option<string[]>("--fault") { Description = "NAME=AMOUNT, or NAME=AMOUNT@2,3 for some tries; may be repeated." };
        var seed = new Option<int>("--seed") { Description = "Same seed, same samples.", DefaultValueFactory = _ => 1 };
        var drill = CommandLine.DrillOption();
        var tempo = CommandLine.TempoOption();
        var pitch = new Option<string?>("--pitch") { Description = "Sounding pitch, such as Bb3; the beginner's first note by default." };
        var output = new Option<FileInfo>("--out") { Description = "The WAV to write; every try is marked in it.", Required = true };
        var command = new Command("simulate", "Let the practice player play a drill into a WAV file.") { instrument, stage, faults, seed, drill, tempo, pitch, output };
        command.SetAction(parsed =>
        {
            var asked = CommandLine.PlanOf(BuzzDrill.Get(parsed.GetValue(drill)!), parsed.GetValue(tempo));
            var hertz = CommandLine.PitchOrNull(parsed.GetValue(pitch)) is { } sounding ? Tuning.Standard.Frequency(sounding) : (double?)null;
            var take = SimulatedPlayer.Play(
                Catalogue.Get(parsed.GetValue(instrument)!),
                CommandLine.StageOf(parsed.GetValue(stage)!),
                asked,
                [.. (parsed.GetValue(faults) ?? []).Select(Fault.Parse)],
                parsed.GetValue(seed),
                hertz);
            var file = parsed.GetValue(output)!;
            using (var stream = file.Create())
                WavFile.Write(stream, take.Sound);
            Console.WriteLine($"{file.Name}: {take.Sound.Seconds:0.0} s, {take.Tones.Count} of {asked.Times} tries sound.");
            return CommandLine.Done;
        });
        return command;
    }
}
