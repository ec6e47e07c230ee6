using System.Diagnostics;

namespace Bocca.Stress.Mutations;

/// <summary>
/// Puts one mistake after the other into a copy of the source, builds that, and lets hostile requests at it: each has to be found. Prints a
/// table; ends with 1 where one was not.
/// </summary>
public static class MutationRun
{
    /// <summary>What a copy needs to be built.</summary>
    private static readonly string[] Needed = ["src", "bench"];

    /// <summary>A build that nobody reads: without the analyzers, which take most of it.</summary>
    private static readonly string[] Quickly =
    [
        "-c",
        "Release",
        "-v",
        "quiet",
        "-nologo",
        "-p:RunAnalyzers=false",
        "-p:EnforceCodeStyleInBuild=false",
        "-p:TreatWarningsAsErrors=false",
    ];

    private static readonly string[] LeftOut = ["bin", "obj", "artifacts", "data"];

    public static async Task<int> RunAsync(int requests, IReadOnlyList<int> numbers)
    {
        var folder = Directory.CreateTempSubdirectory("bocca-mutations").FullName;
        try
        {
            Copy(Sources.Root, folder);
            Console.WriteLine("| mistake | found | by |");
            Console.WriteLine("| --- | --- | --- |");
            var missed = 0;
            var chosen = numbers.Count == 0 ? Mutation.All : [.. numbers.Select(number => Mutation.All[number])];
            foreach (var mutation in chosen)
            {
                var found = await FoundAsync(folder, mutation, requests);
                missed += found is null ? 1 : 0;
                Console.WriteLine($"| {mutation.Name} | {(found is null ? "NO" : "yes")} | {found} |");
            }

            Console.WriteLine($"{chosen.Count} mistakes, {missed} not found.");
            return missed == 0 ? 0 : 1;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>The same, of a mistake that can be built; one that cannot is nobody's, and told of at once.</summary>
    private static async Task<string?> FoundAsync(string folder, Mutation mutation, int requests)
    {
        try
        {
            return await TryAsync(folder, mutation, requests);
        }
        catch (InvalidDataException problem)
        {
            Console.Error.WriteLine(problem.Message);
            return null;
        }
    }

    /// <summary>The fault that told of a mistake; null where none did.</summary>
    private static async Task<string?> TryAsync(string folder, Mutation mutation, int requests)
    {
        var file = Path.Combine(folder, mutation.File);
        var was = await File.ReadAllTextAsync(file);
        if (was.Split(mutation.Was).Length != 2)
            throw new InvalidDataException($"{mutation.File} does not hold once: {mutation.Was}");
        await File.WriteAllTextAsync(file, was.Replace(mutation.Was, mutation.Becomes, StringComparison.Ordinal));
        try
        {
            var (built, told) = await RunAsync(folder, ["build", "bench/Bocca.Stress", .. Quickly]);
            if (built != 0)
                throw new InvalidDataException($"'{mutation.Name}' does not build: {Short(told)}");
            var (code, report) = await RunAsync(folder, "artifacts/bin/Bocca.Stress/release/Bocca.Stress.dll", "hostile", $"{requests}");
            return code == 0 ? null
                : report.Split('\n').FirstOrDefault(line => line.StartsWith("FAULT ", StringComparison.Ordinal)) is { } fault
                    ? Short(fault[6..])
                : Short(report);
        }
        finally
        {
            await File.WriteAllTextAsync(file, was);
        }
    }

    private static string Short(string text) =>
        text.Replace('|', '/').Replace('\n', ' ') is var line && line.Length > 110 ? $"{line[..110]}…" : line;

    private static async Task<(int Code, string Told)> RunAsync(string folder, params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet", arguments)
        {
            WorkingDirectory = folder,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        // A compiler that stays would take the source of one copy for that of another.
        start.Environment["UseSharedCompilation"] = "false";
        start.Environment["MSBUILDDISABLENODEREUSE"] = "1";
        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEndAsync();
        var told = await process.StandardOutput.ReadToEndAsync();
        await errors;
        await process.WaitForExitAsync();
        return (process.ExitCode, told);
    }

    private static void Copy(string from, string to)
    {
        foreach (var file in Directory.EnumerateFiles(from))
            File.Copy(file, Path.Combine(to, Path.GetFileName(file)));
        foreach (var folder in Needed)
            CopyAll(Path.Combine(from, folder), Path.Combine(to, folder));
    }

    private static void CopyAll(string from, string to)
    {
        Directory.CreateDirectory(to);
        foreach (var file in Directory.EnumerateFiles(from))
            File.Copy(file, Path.Combine(to, Path.GetFileName(file)));
        foreach (var folder in Directory.EnumerateDirectories(from).Where(each => !LeftOut.Contains(Path.GetFileName(each))))
            CopyAll(folder, Path.Combine(to, Path.GetFileName(folder)));
    }
}
