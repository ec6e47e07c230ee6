using System.Text.RegularExpressions;
using Bocca.Core.Judging;

namespace Bocca.Core.Tests.Architecture;

/// <summary>What the compiler leaves no trace of: read from the sources themselves.</summary>
public sealed partial class SourceTests
{
    private const int LongestLine = 140;

    private static readonly string Top = FindTop();

    private static IEnumerable<(string Path, string Text)> Sources(params string[] folders) =>
        folders
            .SelectMany(folder => Directory.EnumerateFiles(Path.Combine(Top, folder), "*.cs", SearchOption.AllDirectories))
            .Where(path => !Generated().IsMatch(path))
            .Select(path => (Path.GetRelativePath(Top, path), File.ReadAllText(path)));

    [Fact]
    public void Lines_stay_within_their_width() =>
        Nothing(
            Sources("src", "tests", "bench")
                .SelectMany(source => source.Text.Split('\n').Select((line, i) => (source.Path, Number: i + 1, line.Length)))
                .Where(line => line.Length > LongestLine)
                .Select(line => $"{line.Path}:{line.Number} has {line.Length} columns")
        );

    [Fact]
    public void A_namespace_is_its_folder() =>
        Nothing(
            Sources("src")
                .Where(source => NamespaceOf(source.Text) is { } name && name != Folder(source.Path))
                .Select(source => $"{source.Path} is in {NamespaceOf(source.Text)}")
        );

    /// <summary>The room's A and its warmth are arguments: nothing outside Music assumes 440.</summary>
    [Fact]
    public void Nothing_outside_music_assumes_a_tuning() =>
        Nothing(
            Sources("src")
                .Where(source => !source.Path.StartsWith(Path.Combine("src", "Bocca.Core", "Music"), StringComparison.Ordinal))
                .Where(source => source.Text.Contains("Tuning.Standard", StringComparison.Ordinal))
                .Select(source => source.Path)
        );

    /// <summary>What is stored and sent is shaped where that is done: the core reads its own data, and writes nothing.</summary>
    [Fact]
    public void Nothing_in_the_core_is_serialized_but_its_data() =>
        Nothing(
            Sources("src/Bocca.Core")
                .Where(source => Path.GetFileName(source.Path) != "EmbeddedData.cs")
                .Where(source => source.Text.Contains("System.Text.Json", StringComparison.Ordinal))
                .Select(source => source.Path)
        );

    /// <summary>An approach is asked by its points, never by letters in quotes.</summary>
    [Fact]
    public void An_approach_is_asked_by_typed_points() =>
        Nothing(Sources("src").Where(source => Quoted().IsMatch(source.Text)).Select(source => source.Path));

    /// <summary>What a drill's aims say is heard while playing: one action, twelve words at most.</summary>
    [Fact]
    public void What_aims_say_is_one_action_of_twelve_words() =>
        Nothing(
            Sources("src/Bocca.Core/Buzz/Aims", "src/Bocca.Core/Tone/Aims")
                .SelectMany(source => Cue().Matches(source.Text).Select(cue => (source.Path, Words: cue.Groups[1].Value)))
                .Where(cue => cue.Words.Split(' ').Length > Fix.MostWords || cue.Words.Contains(';') || cue.Words.Contains(". "))
                .Select(cue => $"{cue.Path}: {cue.Words}")
        );

    private static string? NamespaceOf(string text) => Namespace().Match(text) is { Success: true } match ? match.Groups[1].Value : null;

    private static string Folder(string path) =>
        Path.GetDirectoryName(path)!.Replace("src/", "", StringComparison.Ordinal).Replace('/', '.');

    private static void Nothing(IEnumerable<string> wrong)
    {
        var all = wrong.Order().ToList();
        Assert.True(all.Count == 0, string.Join('\n', all));
    }

    private static string FindTop()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Bocca.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("The sources are not above the tests.");
    }

    [GeneratedRegex(@"/(obj|bin|node_modules)/|Migrations/(2\d+|BoccaDbModelSnapshot)")]
    private static partial Regex Generated();

    [GeneratedRegex(@"^namespace ([\w.]+);", RegexOptions.Multiline)]
    private static partial Regex Namespace();

    [GeneratedRegex("[aA]pproach\\[\"")]
    private static partial Regex Quoted();

    /// <summary>A sentence in quotes, that is a cue.</summary>
    [GeneratedRegex("\"([A-Z][^\"{}]* [^\"{}]*\\.)\"")]
    private static partial Regex Cue();
}
