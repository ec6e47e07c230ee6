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
        var reach = CommandLine.ReachOption();
        var file = new Option<string?>("--out") { Description = "A file to write: .csv, .json or .musicxml." };
        var command = new Command("chart", "Show the best fingering of each note.") { instrument, from, to, reading, reach, file, json };
        command.SetAction(parsed =>
        {
            var player = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var notes = FingeringChart.Of(
                player.Instrument,
                player.Reading,
                CommandLine.PitchOrNull(parsed.GetValue(from)),
                CommandLine.PitchOrNull(parsed.GetValue(to)),
                hand: new Hand { ReachCm = parsed.GetValue(reach) }
            );
            if (parsed.GetValue(file) is { } path)
            {
                File.WriteAllText(
                    path,
                    Path.GetExtension(path).ToLowerInvariant() switch
                    {
                        ".csv" => ChartFile.Csv(notes),
                        ".json" => CommandLine.ToJson(ChartFile.Shape(player.Instrument, player.Reading, notes)),
                        ".musicxml" => ChartFile.MusicXml(player.Instrument.Name, player.Reading, notes),
                        _ => throw new ArgumentException($"'{path}' ends in none of .csv, .json and .musicxml."),
                    }
                );
                if (!parsed.GetValue(json))
                    return CommandLine.Done;
            }

            if (parsed.GetValue(json))
            {
                CommandLine.PrintJson(ChartFile.Shape(player.Instrument, player.Reading, notes));
                return CommandLine.Done;
            }

            foreach (var note in notes)
                Console.WriteLine(
                    $"{note.Written, -4} {note.Ways[0].Setting, -9} partial {note.Ways[0].Partial, 2}  "
                        + $"{note.Ways[0].Cents, 6:+0.0;-0.0;0.0} cents   or "
                        + $"{string.Join(", ", note.Ways.Skip(1).Select(way => way.Setting))}"
                );
            return CommandLine.Done;
        });
        return command;
    }
}
