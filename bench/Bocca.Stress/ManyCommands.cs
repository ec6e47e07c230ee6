using System.Text.Json;
using Bocca.Cli;

namespace Bocca.Stress;

/// <summary>
/// Runs command lines one after another in one process, as they come on standard input: a JSON list of arguments a line, answered by a line
/// with the exit code, what was printed and what was complained. Who asks for a hundred of them need not start a hundred times.
/// </summary>
public static class ManyCommands
{
    /// <summary>Runs until the input ends.</summary>
    public static int Run()
    {
        var answers = Console.Out;
        while (Console.In.ReadLine() is { } line)
            answers.WriteLine(JsonSerializer.Serialize(Answer(JsonSerializer.Deserialize<string[]>(line) ?? [])));
        return 0;
    }

    private static Answered Answer(string[] arguments)
    {
        var (printed, complained) = (new StringWriter(), new StringWriter());
        Console.SetOut(printed);
        Console.SetError(complained);
        return new Answered(CommandLine.Run(arguments), printed.ToString(), complained.ToString());
    }

    private sealed record Answered(int Code, string Printed, string Complained);
}
