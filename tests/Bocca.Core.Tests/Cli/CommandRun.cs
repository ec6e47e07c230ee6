namespace Bocca.Core.Tests.Cli;

/// <summary>Runs the command line in process; what it prints is caught, so its tests run one after the other (<c>console</c>).</summary>
internal static class CommandRun
{
    public static (int Code, string Output, string Errors) Of(params string[] args)
    {
        var (oldOut, oldError) = (Console.Out, Console.Error);
        using StringWriter printed = new(),
            complained = new();
        Console.SetOut(printed);
        Console.SetError(complained);
        try
        {
            return (Bocca.Cli.CommandLine.Run(args), printed.ToString(), complained.ToString());
        }
        finally
        {
            Console.SetOut(oldOut);
            Console.SetError(oldError);
        }
    }
}
