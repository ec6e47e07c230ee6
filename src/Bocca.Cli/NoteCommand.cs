using System.CommandLine;
using Bocca.Core.Fingering;
using Bocca.Core.Music;

namespace Bocca.Cli;

/// <summary><c>bocca note</c>: all fingerings of one written note, best first.</summary>
public static class NoteCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var instrument = CommandLine.InstrumentOption();
        var written = new Option<string>("--written") { Description = "The written note, such as F#4.", Required = true };
        var reading = CommandLine.ReadingOption();
        var json = CommandLine.JsonOption();
        var reach = CommandLine.ReachOption();
        var command = new Command("note", "Show every way to play a written note, best first.")
        {
            instrument,
            written,
            reading,
            reach,
            json,
        };
        command.SetAction(parsed =>
        {
            var player = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var pitch = Pitch.Parse(parsed.GetValue(written)!);
            var ways = FingeringFinder.Find(player.Instrument, player.Reading, pitch, null, new Hand { ReachCm = parsed.GetValue(reach) });
            if (parsed.GetValue(json))
            {
                CommandLine.PrintJson(
                    new
                    {
                        Instrument = player.Instrument.Id,
                        Reading = player.Reading.Id,
                        Written = pitch.ToString(),
                        Sounding = player.Reading.ToSounding(pitch).ToString(),
                        Fingerings = ways.Select(ChartFile.Shape),
                    }
                );
                return CommandLine.Done;
            }

            Console.WriteLine($"{pitch} written, {player.Reading.ToSounding(pitch)} sounding, on {player.Instrument.Name}");
            foreach (var way in ways)
                Console.WriteLine($"{way.Setting, -9} partial {way.Partial, 2}  {way.Cents, 6:+0.0;-0.0;0.0} cents  {way.Reason}");
            return CommandLine.Done;
        });
        return command;
    }
}
