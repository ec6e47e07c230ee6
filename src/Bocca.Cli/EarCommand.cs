using System.CommandLine;
using Bocca.Core.Ear;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;

namespace Bocca.Cli;

/// <summary><c>bocca ear</c>: sung or played against what was meant.</summary>
public static class EarCommand
{
    private const int MostTargets = 64;

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var take = new Argument<FileInfo>("take") { Description = "A WAV file." };
        var instrument = CommandLine.InstrumentOption();
        var reading = CommandLine.ReadingOption();
        var targets = new Option<string>("--targets")
        {
            Description = "The notes meant, as they are written, such as \"F3 E3 F3\".",
            Required = true,
        };
        var by = new Option<EarBy>("--by") { Description = "Who made them: voice or instrument.", Required = true };
        var a4 = CommandLine.A4Option();
        var json = CommandLine.JsonOption();
        var command = new Command("ear", "Hear sung or played notes against what was meant.")
        {
            take,
            instrument,
            reading,
            targets,
            by,
            a4,
            json,
        };
        command.SetAction(parsed =>
        {
            var who = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var meant = parsed.GetValue(targets)!.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Select(Pitch.Parse).ToList();
            if (meant.Count > MostTargets)
                throw new ArgumentException($"{MostTargets} notes are the most.");
            using var stream = parsed.GetValue(take)!.OpenRead();
            var sound = WavFile.Read(stream, parsed.GetValue(take)!.Name);
            var room = CommandLine.RoomOf(parsed.GetValue(a4), PlayingConditions.Usual.Celsius);
            var heard = EarListener.Hear(sound, meant, who.Instrument, who.Reading, room.Tuning, parsed.GetValue(by));
            if (parsed.GetValue(json))
                CommandLine.PrintJson(
                    new
                    {
                        Notes = heard.Select(note => new
                        {
                            Target = $"{note.Target}",
                            note.HeardHz,
                            note.Cents,
                            note.Octaves,
                            note.Cm,
                            note.SteadinessCents,
                            note.Outcome,
                            note.Sentence,
                        }),
                    }
                );
            else
                foreach (var note in heard)
                    Console.WriteLine(note.Sentence);
            return CommandLine.Done;
        });
        return command;
    }
}
