using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Bocca.Core.Teaching;

/// <summary>
/// What a teacher has set otherwise than it ships: values by their path, such as <c>bands.mouthpiece.steadyCents</c>. It does not change;
/// what is judged by one is judged by it to the end.
/// </summary>
public sealed class OwnSettings
{
    private readonly SortedDictionary<string, string> _values;

    private OwnSettings(IEnumerable<KeyValuePair<string, string>> values) =>
        _values = new SortedDictionary<string, string>(values.ToDictionary(), StringComparer.Ordinal);

    /// <summary>Nothing set otherwise.</summary>
    public static OwnSettings None { get; } = new([]);

    /// <summary>The paths that are set, in order.</summary>
    public IEnumerable<string> Paths => _values.Keys;

    /// <summary>What is set at a path; null for nothing.</summary>
    public string? this[string path] => _values.GetValueOrDefault(path);

    /// <summary>Reads what <see cref="ToString"/> wrote; empty for nothing.</summary>
    /// <exception cref="JsonException">It is none such.</exception>
    public static OwnSettings Parse(string text) =>
        text == "" ? None : new OwnSettings(JsonSerializer.Deserialize<Dictionary<string, string>>(text) ?? []);

    /// <summary>The same as text; empty for nothing.</summary>
    public override string ToString() => _values.Count == 0 ? "" : JsonSerializer.Serialize(_values);

    /// <summary>The same with another value at a path; null takes it out.</summary>
    public OwnSettings With(string path, string? value) =>
        new(_values.Where(each => each.Key != path).Concat(value is null ? [] : [KeyValuePair.Create(path, value)]));

    /// <summary>These over others: where both say something, these do.</summary>
    public OwnSettings Over(OwnSettings others) =>
        others._values.Count == 0 ? this : new(others._values.Where(each => !_values.ContainsKey(each.Key)).Concat(_values));

    /// <summary>The number at a path; null for none.</summary>
    public double? Number(string path) =>
        this[path] is { } text && double.TryParse(text, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
            ? value
            : null;

    /// <summary>Something that ships, with the numbers that are set in it: what lies under a prefix names its parts as JSON does.</summary>
    /// <typeparam name="T">A record that is read from JSON.</typeparam>
    /// <param name="prefix">The path of the whole.</param>
    /// <param name="shipped">As it ships.</param>
    public T In<T>(string prefix, T shipped)
        where T : class
    {
        var set = Paths.Where(path => path.StartsWith($"{prefix}.", StringComparison.Ordinal)).ToList();
        if (set.Count == 0)
            return shipped;
        var tree = EmbeddedData.Tree(shipped);
        foreach (var path in set)
            if (Number(path) is { } value)
                Put(tree, path[(prefix.Length + 1)..].Split('.'), value);
        return EmbeddedData.Of<T>(tree);
    }

    /// <summary>Sets a number where there is one; a path that leads nowhere any more is passed over.</summary>
    private static void Put(JsonNode tree, string[] steps, double value)
    {
        JsonNode? At(JsonNode? node, string step) =>
            node is JsonArray list
                ? int.TryParse(step, out var at) && at >= 0 && at < list.Count
                    ? list[at]
                    : null
                : (node as JsonObject)?[step];
        var parent = steps[..^1].Aggregate((JsonNode?)tree, At);
        if (At(parent, steps[^1]) is JsonValue old && old.GetValueKind() == JsonValueKind.Number)
            ((JsonObject)parent!)[steps[^1]] = value;
    }
}
