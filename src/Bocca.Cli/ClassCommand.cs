using System.CommandLine;
using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Cli;

/// <summary><c>bocca class</c>: one concert line, and what each of a mixed class reads and sets for it.</summary>
public static class ClassCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var line = new Option<string>("--concert") { Description = "Concert notes, such as \"Bb C D\" or \"F3 E3\".", Required = true };
        var players = new Option<string[]>("--player")
        {
            Description = "An instrument, with its reading behind a colon: tuba-eb-3v:treble-eb. Several may stand.",
            Required = true,
            AllowMultipleArgumentsPerToken = true,
        };
        var stage = new Option<LearningStage>("--level")
        {
            Description = "How far they are: FirstNotes, Second or Pieces.",
            DefaultValueFactory = _ => LearningStage.Second,
        };
        var file = new Option<string?>("--out") { Description = "A .musicxml file to write." };
        var json = CommandLine.JsonOption();
        var command = new Command("class", "Show what each of a mixed class reads and sets for one concert line.")
        {
            line,
            players,
            stage,
            file,
            json,
        };
        command.SetAction(parsed =>
        {
            var concert = ConcertLine.Parse(parsed.GetValue(line)!);
            var parts = parsed
                .GetValue(players)!
                .Select(text => text.Split(':', 2))
                .Select(text => CommandLine.Player(text[0], text.Length > 1 ? text[1] : null))
                .Select(player =>
                    ClassPart.Of(
                        new ClassMember(player.Instrument.Name, player.Instrument, player.Reading, parsed.GetValue(stage))
                        {
                            Approach = Approach.Of(ApproachPreset.MouthpieceFirst),
                        },
                        concert
                    )
                )
                .ToList();
            if (parsed.GetValue(file) is { } path)
            {
                File.WriteAllText(path, MusicXmlWriter.Write([.. parts.Select(part => part.ToRow(part.Member.Name))]));
                return CommandLine.Done;
            }

            if (parsed.GetValue(json))
                CommandLine.PrintJson(
                    new
                    {
                        Line = concert.Words,
                        Parts = parts.Select(part => new
                        {
                            Instrument = part.Member.Instrument.Id,
                            Reading = part.Member.Reading.Id,
                            Notes = part.Notes.Select(note => Shape(note)),
                            part.WhyNot,
                        }),
                    }
                );
            else
                foreach (var part in parts)
                    Console.WriteLine($"{part.Member.Instrument.Id, -16} {part.Called}{(part.WhyNot is { } why ? $"   ({why})" : "")}");
            return CommandLine.Done;
        });
        return command;
    }

    private static object Shape(ClassNote note) =>
        new
        {
            Written = note.Written.ToString(),
            Sounding = note.Concert.ToString(),
            Fingering = note.Way is { } way ? ChartFile.Shape(way) : null,
            note.WhyNot,
        };
}
