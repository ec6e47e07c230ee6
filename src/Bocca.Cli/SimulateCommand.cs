using System.CommandLine;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Instruments;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;

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
        var row = new Option<string?>("--row")
        {
            Description = "Written notes to play on the instrument instead of a drill, such as \"D4 E4 F4\" or \"G4~C5~G4\".",
        };
        var settings = new Option<string?>("--setting")
        {
            Description = "A setting for each note of the row; the first choice of each by default.",
        };
        var reading = CommandLine.ReadingOption();
        var misses = new Option<string[]>("--miss")
        {
            Description = "How notes of the row are missed: partial=-1@2, slide-in=3, setting=1-2@1 or cents=20; may be repeated.",
        };
        var beats = new Option<double>("--beats") { Description = "Beats of each note of the row.", DefaultValueFactory = _ => 2 };
        var share = new Option<double>("--share")
        {
            Description = "How much of each note of the row sounds, 0.1 to 1.",
            DefaultValueFactory = _ => 1,
        };
        var output = new Option<FileInfo>("--out") { Description = "The WAV to write; every try is marked in it.", Required = true };
        var (a4, celsius) = (CommandLine.A4Option(), CommandLine.CelsiusOption());
        var command = new Command("simulate", "Let the practice player play a drill into a WAV file.")
        {
            instrument,
            stage,
            faults,
            seed,
            drill,
            tempo,
            pitch,
            row,
            settings,
            reading,
            misses,
            beats,
            share,
            output,
            a4,
            celsius,
        };
        command.SetAction(parsed =>
        {
            Fault[] befalling = [.. (parsed.GetValue(faults) ?? []).Select(Fault.Parse)];
            if (parsed.GetValue(row) is { } notes)
            {
                var player = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
                var meant = MeantNote.Row(player.Instrument, player.Reading, notes, parsed.GetValue(settings));
                var (each, sounding) = (parsed.GetValue(beats), parsed.GetValue(share));
                if (!(each is >= 0.25 and <= 32) || !(sounding is >= 0.1 and <= 1))
                    throw new ArgumentException("A note lasts 0.25 to 32 beats, and 0.1 to 1 of it sounds.");
                var played = PlayedNote.Row(
                    meant,
                    new PlayerSituation(
                        player.Instrument,
                        player.Reading,
                        CommandLine.RoomOf(parsed.GetValue(a4), parsed.GetValue(celsius)).Tuning
                    ),
                    each,
                    sounding,
                    [.. (parsed.GetValue(misses) ?? []).Select(RowMiss.Parse)]
                );
                var take = SimulatedPlayer.PlayRow(
                    player.Instrument,
                    played,
                    CommandLine.TempoOf(parsed.GetValue(tempo) ?? 60),
                    befalling,
                    parsed.GetValue(seed)
                );
                return Write(parsed.GetValue(output)!, take, $"{meant.Count} notes");
            }

            var asked = CommandLine.PlanOf(BuzzDrill.Get(parsed.GetValue(drill)!), parsed.GetValue(tempo));
            var tuning = CommandLine.RoomOf(parsed.GetValue(a4), parsed.GetValue(celsius)).Tuning;
            var hertz = CommandLine.PitchOrNull(parsed.GetValue(pitch)) is { } concert
                ? tuning.Frequency(concert)
                : SimulatedPlayer.StartHz(Catalogue.Get(parsed.GetValue(instrument)!), tuning);
            return Write(
                parsed.GetValue(output)!,
                SimulatedPlayer.Play(
                    Catalogue.Get(parsed.GetValue(instrument)!),
                    CommandLine.StageOf(parsed.GetValue(stage)!),
                    asked,
                    befalling,
                    parsed.GetValue(seed),
                    hertz
                ),
                $"{asked.Times} tries"
            );
        });
        return command;
    }

    private static int Write(FileInfo file, SimulatedTake take, string of)
    {
        using (var stream = file.Create())
            WavFile.Write(stream, take.Sound);
        Console.WriteLine($"{file.Name}: {take.Sound.Seconds:0.0} s, {take.Tones.Count} tones of {of}.");
        return CommandLine.Done;
    }
}
