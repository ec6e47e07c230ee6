using System.CommandLine;
using Bocca.Core.Instruments;

namespace Bocca.Cli;

/// <summary><c>bocca instruments</c>: what Bocca knows.</summary>
public static class InstrumentsCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var json = CommandLine.JsonOption();
        var command = new Command("instruments", "List the instruments.") { json };
        command.SetAction(parsed =>
        {
            if (parsed.GetValue(json))
                CommandLine.PrintJson(new { Instruments = Catalogue.All.Select(Shape) });
            else
                foreach (var instrument in Catalogue.All)
                    Console.WriteLine(
                        $"{instrument.Id, -18} {instrument.Name, -30} {string.Join(' ', instrument.Readings.Select(reading => reading.Id))}"
                    );
            return CommandLine.Done;
        });
        return command;
    }

    private static object Shape(Instrument instrument) =>
        new
        {
            instrument.Id,
            instrument.Name,
            instrument.Family,
            PartialOne = instrument.PartialOne.ToString(),
            LengthMetres = Math.Round(instrument.OpenMetres, 3),
            Valves = instrument.Valves.Select(valve => new
            {
                valve.Number,
                valve.Semitones,
                AddedShare = Math.Round(valve.AddedShare, 4),
            }),
            instrument.Compensation,
            Slide = instrument.Slide is { } slide ? new { slide.TubeMetres, slide.TravelCm } : null,
            Triggers = instrument.Triggers.Select(trigger => new { trigger.Symbol, trigger.Semitones }),
            Readings = instrument.Readings.Select(reading => new
            {
                reading.Id,
                reading.Clef,
                WrittenAboveSoundingSemitones = reading.WrittenAboveSounding.Semitones,
            }),
            instrument.Basis,
        };
}
