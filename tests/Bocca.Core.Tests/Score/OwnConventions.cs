using System.Text.Json;

namespace Bocca.Core.Tests.Score;

/// <summary>
/// Scores as programs write them, made by hand from the rules of the format (published: MusicXML 1.0 to 4.0), each with what trips a reader
/// that knows one program alone: <c>tests/scores</c>. Its index says which notes the chosen line plays, tied ones once.
/// </summary>
internal static class OwnConventions
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    private static string Folder => Path.Combine(AppContext.BaseDirectory, "scores");

    /// <summary>Every score by the name of its file.</summary>
    public static IReadOnlyDictionary<string, (string Xml, string Notes, string? Part)> All { get; } =
        JsonSerializer
            .Deserialize<Dictionary<string, Entry>>(File.ReadAllText(Path.Combine(Folder, "index.json")), Options)!
            .ToDictionary(
                each => each.Key,
                each => (File.ReadAllText(Path.Combine(Folder, $"{each.Key}.musicxml")), each.Value.Notes, each.Value.Part)
            );

    private sealed record Entry(string Notes, string? Part);
}
