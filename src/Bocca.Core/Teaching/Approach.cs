namespace Bocca.Core.Teaching;

/// <summary>
/// The school a pupil is taught by: a preset, and the points that the teacher settled otherwise. A pupil sees only
/// what it says. Written as text, <c>AirFirst mp.share=a valve4=c</c>, it goes into every record made under it.
/// </summary>
public sealed record Approach
{
    /// <summary>The ids of presets in records; they stay.</summary>
    private static readonly IReadOnlyDictionary<ApproachPreset, string> PresetIds = new Dictionary<ApproachPreset, string>
    {
        [ApproachPreset.LipsFirst] = "LipsFirst",
        [ApproachPreset.MouthpieceFirst] = "MouthpieceFirst",
        [ApproachPreset.AirFirst] = "AirFirst",
    };

    private readonly SortedDictionary<string, string> _changed;

    private Approach(ApproachPreset preset, SortedDictionary<string, string> changed) => (Preset, _changed) = (preset, changed);

    /// <summary>The preset it starts from.</summary>
    public ApproachPreset Preset { get; }

    /// <summary>The points settled otherwise than in the preset, by id.</summary>
    public IReadOnlyDictionary<string, string> Changed => _changed;

    /// <summary>A preset as it is.</summary>
    public static Approach Of(ApproachPreset preset) => new(preset, []);

    /// <summary>The option in force at a point.</summary>
    /// <exception cref="ArgumentException">There is no such point.</exception>
    public string this[string point] => _changed.TryGetValue(point, out var option) ? option : ApproachPoint.Get(point).Of(Preset);

    /// <summary>The option in force at a point, typed.</summary>
    public T Of<T>(Point<T> point)
        where T : struct, Enum => point.OptionOf(this[point.Id]);

    /// <summary>The same approach with one point settled.</summary>
    public Approach With<T>(Point<T> point, T option)
        where T : struct, Enum => With(point.Id, point.IdOf(option));

    /// <summary>The same approach with one point settled.</summary>
    /// <exception cref="ArgumentException">There is no such point, or it has no such option.</exception>
    public Approach With(string point, string option)
    {
        var settled = ApproachPoint.Get(point);
        var changed = new SortedDictionary<string, string>(_changed, StringComparer.Ordinal);
        if (settled.Option(option).Id == settled.Of(Preset))
            changed.Remove(point);
        else
            changed[point] = option;
        return new Approach(Preset, changed);
    }

    /// <summary>This approach with the points of another person settled on top of it.</summary>
    public Approach With(IReadOnlyDictionary<string, string> points) =>
        points.Aggregate(this, (approach, point) => approach.With(point.Key, point.Value));

    /// <summary>Whether any of some conditions, each <c>point=option</c>, holds; none at all always hold.</summary>
    /// <exception cref="ArgumentException">A condition names no point or option.</exception>
    public bool Meets(IReadOnlyList<string>? conditions) => conditions is not { Count: > 0 } || conditions.Any(Is);

    /// <summary>Reads what <see cref="ToString"/> writes.</summary>
    /// <exception cref="FormatException">It is no approach.</exception>
    public static Approach Parse(string text)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 0 || !PresetIds.Values.Contains(words[0]))
            throw new FormatException($"'{text}' is not an approach.");
        return Of(PresetIds.First(preset => preset.Value == words[0]).Key).With(Points(string.Join(' ', words.Skip(1))));
    }

    /// <summary>Reads settled points alone, <c>mp.share=a valve4=c</c>.</summary>
    /// <exception cref="FormatException">It is not that.</exception>
    public static IReadOnlyDictionary<string, string> Points(string text)
    {
        var points = new SortedDictionary<string, string>(StringComparer.Ordinal);
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var parts = word.Split('=');
            if (parts.Length != 2)
                throw new FormatException($"'{word}' does not settle a point.");
            points[parts[0]] = parts[1];
        }

        return points;
    }

    /// <summary>Settled points as text, <c>mp.share=a valve4=c</c>.</summary>
    public static string Write(IReadOnlyDictionary<string, string> points) =>
        string.Join(' ', points.Select(point => $"{point.Key}={point.Value}"));

    /// <inheritdoc/>
    public override string ToString() => $"{PresetIds[Preset]} {Write(_changed)}".TrimEnd();

    /// <summary>Alike when every point is settled alike from the same preset.</summary>
    public bool Equals(Approach? other) => other is not null && ToString() == other.ToString();

    /// <inheritdoc/>
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);

    private bool Is(string condition)
    {
        var parts = condition.Split('=');
        return parts.Length == 2 && this[parts[0]] == ApproachPoint.Get(parts[0]).Option(parts[1]).Id;
    }
}
