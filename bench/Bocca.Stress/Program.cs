using System.CommandLine;
using System.Globalization;
using Bocca.Stress.Hostile;
using Bocca.Stress.Kills;
using Bocca.Stress.Mutations;
using Bocca.Stress.Suites;

namespace Bocca.Stress;

/// <summary>
/// Tries to break the application as strangers, children and power cuts do, ending with 1 where it came to harm; and serves the browser
/// suites.
/// </summary>
public static class Strain
{
    public static Task<int> Main(string[] args)
    {
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var root = new RootCommand("Tries to break Bocca; ends with 1 where it came to harm.")
        {
            Hostile(),
            Together(),
            Mutate(),
            Kills(),
            Renew(),
            Pages(),
            Large(),
            Suites(),
        };
        return root.Parse(args).InvokeAsync();
    }

    private static Command Hostile()
    {
        var count = new Argument<int>("requests") { Description = "How many requests." };
        var seed = new Option<int>("--seed") { Description = "Same seed, same requests.", DefaultValueFactory = _ => 1 };
        var atOnce = new Option<int>("--at-once") { Description = "How many go side by side.", DefaultValueFactory = _ => 1 };
        var brief = new Option<bool>("--brief") { Description = "Reads the pages once, not again after what was done." };
        var command = new Command("hostile", "Sends what no page sends to everything that answers.") { count, seed, atOnce, brief };
        command.SetAction(parsed =>
            HostileRun.RunAsync(parsed.GetValue(count), parsed.GetValue(seed), parsed.GetValue(atOnce), parsed.GetValue(brief))
        );
        return command;
    }

    private static Command Together()
    {
        var writers = new Option<int>("--writers") { Description = "How many send at once.", DefaultValueFactory = _ => 20 };
        var command = new Command("together", "Sends every form that changes something many times at once, twice.") { writers };
        command.SetAction(parsed => TogetherRun.RunAsync(parsed.GetValue(writers)));
        return command;
    }

    private static Command Mutate()
    {
        var requests = new Option<int>("--requests") { Description = "Requests at each mistake.", DefaultValueFactory = _ => 2500 };
        var only = new Option<int[]>("--only") { Description = "These mistakes alone, from 0.", AllowMultipleArgumentsPerToken = true };
        var command = new Command("mutations", "Puts mistakes into copies of the source; the hostile requests have to find each.")
        {
            requests,
            only,
        };
        command.SetAction(parsed => MutationRun.RunAsync(parsed.GetValue(requests), parsed.GetValue(only) ?? []));
        return command;
    }

    private static Command Renew()
    {
        var entries = new Argument<int>("entries") { Description = "How many entries the older record has." };
        var kills = new Option<int>("--kills") { Description = "How often its update is killed.", DefaultValueFactory = _ => 20 };
        var seed = new Option<int>("--seed") { Description = "Same seed, same moments.", DefaultValueFactory = _ => 1 };
        var command = new Command("renew", "Brings an older record up to date, undisturbed and killed, and compares the rows.")
        {
            entries,
            kills,
            seed,
        };
        command.SetAction(parsed => RenewalRun.RunAsync(parsed.GetValue(entries), parsed.GetValue(kills), parsed.GetValue(seed)));
        return command;
    }

    private static Command Pages()
    {
        var entries = new Argument<int>("entries") { Description = "How many entries the record has." };
        var times = new Option<int>("--times") { Description = "How often each page is opened.", DefaultValueFactory = _ => 100 };
        var record = new Option<string?>("--record") { Description = "A folder whose record is opened, or made and left there." };
        var command = new Command("pages", "Opens the pages of a large record and prints how long they take.") { entries, times, record };
        command.SetAction(parsed => PagesRun.RunAsync(parsed.GetValue(entries), parsed.GetValue(times), parsed.GetValue(record)));
        return command;
    }

    private static Command Large()
    {
        var command = new Command("large", "Sends takes as large as they may be, one and six at once.");
        command.SetAction(_ => LargeTakes.RunAsync());
        return command;
    }

    private static Command Suites()
    {
        var command = new Command(
            "suites",
            "Serves rooms to the browser suites and runs their command lines, one process for all, until its input ends."
        );
        command.SetAction(_ => SuiteHost.RunAsync());
        return command;
    }

    private static Command Kills()
    {
        var count = new Argument<int>("kills") { Description = "How many kills." };
        var seed = new Option<int>("--seed") { Description = "Same seed, same moments.", DefaultValueFactory = _ => 1 };
        var command = new Command("kills", "Kills the application at random moments and looks for what it had acknowledged.")
        {
            count,
            seed,
        };
        command.SetAction(parsed => KillRun.RunAsync(parsed.GetValue(count), parsed.GetValue(seed)));
        return command;
    }
}
