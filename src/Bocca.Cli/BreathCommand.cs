using System.CommandLine;
using Bocca.Core.Breath;

namespace Bocca.Cli;

/// <summary><c>bocca breath</c>: measures a stream of air in a WAV file.</summary>
public static class BreathCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var files = new Argument<string[]>("FILE.wav")
        {
            Description = "WAV files, each with the in-breath before the stream.",
            Arity = ArgumentArity.OneOrMore,
        };
        var json = CommandLine.JsonOption();
        var command = new Command("breath", "Measure a stream of air: how long unbroken, how even, where it sagged.") { files, json };
        command.SetAction(parsed =>
        {
            var heard = parsed.GetValue(files)!.Select(path => (Path: path, Stream: StreamHeard.Of(AnalyseCommand.Read(path)))).ToList();
            if (parsed.GetValue(json))
            {
                var shapes = heard.ConvertAll(file => Shape(file.Path, file.Stream));
                CommandLine.PrintJson(shapes.Count == 1 ? shapes[0] : shapes);
            }
            else
            {
                foreach (var (path, stream) in heard)
                    Console.WriteLine(
                        stream.StartSeconds is { } start
                            ? $"{path}: from {start:0.00} s, {stream.UnbrokenSeconds:0.0} s unbroken, varying by "
                                + $"{stream.VariationPercent:0} "
                                + $"%{string.Concat(stream.Sags.Select(InWords))}."
                            : $"{path}: no stream was heard."
                    );
            }

            return CommandLine.Done;
        });
        return command;
    }

    private static string InWords(StreamSag sag) => $", sagging by {sag.DropDb:0} dB from {sag.FromSeconds:0.0} to {sag.ToSeconds:0.0} s";

    private static object Shape(string path, StreamHeard stream) =>
        new
        {
            File = path,
            StartSeconds = stream.StartSeconds is { } start ? Math.Round(start, 2) : (double?)null,
            UnbrokenSeconds = Math.Round(stream.UnbrokenSeconds, 2),
            VariationPercent = stream.VariationPercent is { } percent ? Math.Round(percent, 1) : (double?)null,
            Sags = stream.Sags.Select(sag => new
            {
                FromSeconds = Math.Round(sag.FromSeconds, 2),
                ToSeconds = Math.Round(sag.ToSeconds, 2),
                DropDb = Math.Round(sag.DropDb, 1),
            }),
            stream.LevelDb,
        };
}
