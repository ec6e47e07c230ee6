using System.CommandLine;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;

namespace Bocca.Cli;

/// <summary><c>bocca slurs</c>: slurs of a level, as a score.</summary>
public static class SlursCommand
{
    private const int Most = 24;
    private const double UsualTempo = 72;

    /// <summary>How far a slur's difficulty may lie under the level asked (points).</summary>
    private const double Below = 2;

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var instrument = CommandLine.InstrumentOption();
        var reading = CommandLine.ReadingOption();
        var level = new Option<double>("--level") { Description = "Difficulty in points, from about 2 up.", Required = true };
        var stage = new Option<LearningStage>("--stage")
        {
            Description = "How far the pupil is: FirstNotes, Second or Pieces.",
            DefaultValueFactory = _ => LearningStage.Second,
        };
        var tempo = CommandLine.TempoOption();
        var file = new Option<string>("--out") { Description = "A .musicxml or .mid file to write.", Required = true };
        var json = CommandLine.JsonOption();
        var command = new Command("slurs", "Write lip slurs of a level.") { instrument, reading, level, stage, tempo, file, json };
        command.SetAction(parsed =>
        {
            var who = CommandLine.Player(parsed.GetValue(instrument)!, parsed.GetValue(reading));
            var player = SlurPlayer.Of(who.Instrument, who.Reading, parsed.GetValue(stage), Approach.Of(ApproachPreset.MouthpieceFirst));
            var beats = CommandLine.TempoOf(parsed.GetValue(tempo) ?? UsualTempo);
            var asked = parsed.GetValue(level);
            var slurs = SlurWriter
                .All(player)
                .Select(slur => (Slur: slur, Difficulty: SlurDifficulty.Of(slur, player, beats)))
                .Where(each => each.Difficulty.Points <= asked && each.Difficulty.Points > asked - Below)
                .OrderBy(each => each.Difficulty.Points)
                .Take(Most)
                .ToList();
            if (slurs.Count == 0)
                throw new ArgumentException(
                    $"No slur of the {who.Instrument.Name} lies at level {asked:0.#}; they run from {Levels(player, beats)}."
                );
            var score = SlurScore.Of($"Slurs, level {asked:0.#}", player, [.. slurs.Select(each => each.Slur)], beats);
            var path = parsed.GetValue(file)!;
            File.WriteAllBytes(
                path,
                Path.GetExtension(path).ToLowerInvariant() switch
                {
                    ".musicxml" or ".xml" => System.Text.Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score)),
                    ".mid" => MidiWriter.Write(score),
                    _ => throw new ArgumentException($"'{path}' ends in neither .musicxml nor .mid."),
                }
            );
            if (parsed.GetValue(json))
                CommandLine.PrintJson(
                    new
                    {
                        Instrument = who.Instrument.Id,
                        Reading = who.Reading.Id,
                        Level = asked,
                        Slurs = slurs.Select(each => new
                        {
                            each.Slur.Id,
                            each.Slur.Text,
                            Sounding = each.Slur.Notes.Select(note => note.Sounding.ToString()),
                            Settings = each.Slur.Notes.Select(note => note.Tube.Setting.ToString()),
                            Partials = each.Slur.Notes.Select(note => note.Partial),
                            Difficulty = Math.Round(each.Difficulty.Points, 2),
                            Parts = each.Difficulty.Parts,
                        }),
                    }
                );
            else
                foreach (var (slur, difficulty) in slurs)
                    Console.WriteLine(
                        $"{difficulty.Points, 5:0.0}  {slur.Setting, -6} {slur.Text}   "
                            + $"{string.Join("; ", difficulty.Parts.Select(part => $"{part.Words} {part.Points:0.#}"))}"
                    );
            return CommandLine.Done;
        });
        return command;
    }

    private static string Levels(SlurPlayer player, double tempo)
    {
        var all = SlurWriter.All(player).Select(slur => SlurDifficulty.Of(slur, player, tempo).Points).ToList();
        return all.Count == 0 ? "nowhere" : $"{all.Min():0.0} to {all.Max():0.0}";
    }
}
