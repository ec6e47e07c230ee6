using System.Globalization;

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

    /// <summary>Values by their paths.</summary>
    public static OwnSettings Of(IEnumerable<KeyValuePair<string, string>> values) => new(values);

    /// <summary>What is set, by path, in order.</summary>
    public IReadOnlyDictionary<string, string> Values => _values;

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

    /// <summary>Something that ships, with the numbers that are set in it.</summary>
    /// <typeparam name="T">What ships.</typeparam>
    /// <param name="shipped">As it ships.</param>
    /// <param name="numbers">The numbers of it that may be set; what is set elsewhere is passed over.</param>
    public T In<T>(T shipped, IEnumerable<NumberIn<T>> numbers) =>
        _values.Count == 0
            ? shipped
            : numbers.Aggregate(shipped, (it, number) => Number(number.Setting.Path) is { } value ? number.Put(it, value) : it);
}
