using System.Text;
using Bocca.Cli;

namespace Bocca.Stress.Suites;

/// <summary>
/// Runs command lines in this process, also several at once: what each prints and complains is its own, whatever else is written meanwhile.
/// Who asks for a hundred of them need not start a hundred times.
/// </summary>
public static class CommandLines
{
    private static readonly ThisCommands Out = new(Console.Out),
        Error = new(Console.Error);

    /// <summary>Takes the console over: from now on a command's words are kept apart.</summary>
    public static void Listen()
    {
        Console.SetOut(Out);
        Console.SetError(Error);
    }

    /// <summary>Runs one and waits for its end.</summary>
    public static Answered Run(string[] arguments)
    {
        var (printed, complained) = (Out.Begin(), Error.Begin());
        return new Answered(CommandLine.Run(arguments), printed.ToString(), complained.ToString());
    }

    /// <summary>How a command line ended: its exit code, what it printed and what it complained.</summary>
    public sealed record Answered(int Code, string Printed, string Complained);

    /// <summary>Writes what comes out of a command into a text of its own, and everything else where it went before.</summary>
    private sealed class ThisCommands(TextWriter usual) : TextWriter
    {
        private readonly AsyncLocal<StringWriter?> _current = new();

        public override Encoding Encoding => usual.Encoding;

        private TextWriter Current => _current.Value ?? usual;

        /// <summary>The text of the command that begins here.</summary>
        public StringWriter Begin() => _current.Value = new StringWriter();

        public override void Write(char value) => Current.Write(value);

        public override void Write(string? value) => Current.Write(value);

        public override void Write(char[] buffer, int index, int count) => Current.Write(buffer, index, count);

        public override void Flush() => Current.Flush();
    }
}
