using System.CommandLine;
using Bocca.Core.Fingering;

namespace Bocca.Cli;

/// <summary><c>bocca chart</c>: the best fingering of each note.</summary>
public static class ChartCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var instrument = CommandLine.InstrumentOption();
        var from = new Option<string?>("--from") { Description = "Lowest written note." };
        var to = new Option<string?>("--to") { Description = "Highest written note." };
        var reading = CommandLine.ReadingOption();
        var json = CommandLine.JsonOption();
        var command = new Command("chart", "Show the best fingering of each note.") { instrument, from, to, reading, json };
        command.SetAction(parsed =>
        {
            var player = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var notes = FingeringChart.Of(
                player.Instrument,
                player.Reading,
                CommandLine.PitchOrNull(parsed.GetValue(from)),
                CommandLine.PitchOrNull(parsed.GetValue(to)));
            if (parsed.GetValue(json))
            {
                Console.WriteLine(ChartFile.AsJson(player.Instrument, player.Reading, notes));
                return CommandLine.Done;
            }

            foreach (var note in notes)
                Console.WriteLine($"{note.Written,-4} {note.Ways[0].Setting,-9} partial {note.Ways[0].Partial,2}  {note.Ways[0].Cents,6:+0.0;-0.0;0.0} cents   or {string.Join(", ", note.Ways.Skip(1).Select(way => way.Setting))}");
            return CommandLine.Done;
        });
        return command;
    }
}
