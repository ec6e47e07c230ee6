namespace Bocca.Core.Slurs;

/// <summary>The way a slur goes, as data (<c>slur-shapes.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Steps">Partials above the first note's, note by note; semitones where <paramref name="Neighbours"/> is set.</param>
/// <param name="Beats">Beats of every note but the last.</param>
/// <param name="LastBeats">Beats of the last note.</param>
/// <param name="Basis">Where it comes from.</param>
/// <param name="Neighbours">Whether it goes by semitones, changing tubes, instead of along one tube.</param>
public sealed record SlurShape(
    string Id,
    string Name,
    IReadOnlyList<int> Steps,
    double Beats,
    double LastBeats,
    string Basis,
    bool Neighbours = false
)
{
    private const string OwnPrefix = "own_";

    /// <summary>Lengths are told apart by a quarter of a beat.</summary>
    private const int PartsOfABeat = 4;

    /// <summary>The most notes of a shape of one's own, and the beats that one of its notes may last.</summary>
    public const int MostOwnNotes = 12;

    /// <inheritdoc cref="MostOwnNotes"/>
    public const double ShortestBeats = 0.25,
        LongestBeats = 16;

    private static readonly Lazy<IReadOnlyList<SlurShape>> Shipped = new(() => EmbeddedData.Read<List<SlurShape>>("slur-shapes.json"));

    /// <summary>All shapes, in the order in which they are met.</summary>
    public static IReadOnlyList<SlurShape> All => Shipped.Value;

    /// <summary>Those of them that go along one tube: a class can be asked for these.</summary>
    public static IEnumerable<SlurShape> AlongTube => All.Where(shape => !shape.Neighbours);

    /// <summary>Beats of each note where they differ; null where every note but the last is alike.</summary>
    public IReadOnlyList<double>? Lengths { get; init; }

    /// <summary>A shape of the teacher's own; its name in records holds all of it, so that it needs no list.</summary>
    /// <param name="steps">Partials above the first note's, note by note.</param>
    /// <param name="lengths">Beats of each note, to a quarter of a beat.</param>
    public static SlurShape Own(IReadOnlyList<int> steps, IReadOnlyList<double> lengths) =>
        new(
            $"{OwnPrefix}{string.Join('.', steps)}_{string.Join('.', lengths.Select(length => Math.Round(length * PartsOfABeat)))}",
            "From a file",
            steps,
            lengths[0],
            lengths[^1],
            "the teacher's own"
        )
        {
            Lengths = lengths,
        };

    /// <summary>The shape of one's own that a name in records holds; null where it holds none.</summary>
    public static SlurShape? OwnFrom(string id)
    {
        if (!id.StartsWith(OwnPrefix, StringComparison.Ordinal) || id[OwnPrefix.Length..].Split('_') is not [var steps, var lengths])
            return null;
        var (known, beats) = (Numbers(steps), Numbers(lengths));
        return
            known is [0, _, ..]
            && known.Count <= MostOwnNotes
            && beats?.Count == known.Count
            && beats.TrueForAll(length => length is >= (int)(PartsOfABeat * ShortestBeats) and <= (int)(PartsOfABeat * LongestBeats))
            ? Own(known, [.. beats.Select(length => (double)length / PartsOfABeat)])
            : null;
    }

    private static List<int>? Numbers(string text)
    {
        var numbers = text.Split('.')
            .Select(part => int.TryParse(part, System.Globalization.CultureInfo.InvariantCulture, out var number) ? number : (int?)null)
            .ToList();
        return numbers.Contains(null) ? null : [.. numbers.OfType<int>()];
    }

    /// <summary>Beats of a note.</summary>
    public double BeatsOf(int index) => Lengths?[index] ?? (index == Steps.Count - 1 ? LastBeats : Beats);

    /// <summary>Beats of the whole.</summary>
    public double TotalBeats => Lengths?.Sum() ?? ((Steps.Count - 1) * Beats) + LastBeats;

    /// <summary>The shape with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static SlurShape Get(string id) =>
        All.FirstOrDefault(shape => shape.Id == id)
        ?? throw new ArgumentException($"'{id}' is not a slur Bocca knows; it knows {string.Join(", ", All.Select(shape => shape.Id))}.");
}
