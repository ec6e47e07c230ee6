namespace Bocca.Core.Slurs;

/// <summary>The way a slur goes, as data (<c>slur-shapes.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Steps">Partials above the first note's, note by note; semitones where <paramref name="Neighbours"/> is set.</param>
/// <param name="Beats">Beats of every note but the last.</param>
/// <param name="LastBeats">Beats of the last note.</param>
/// <param name="Basis">Where it comes from.</param>
/// <param name="Neighbours">Whether it goes by semitones, changing tubes, instead of along one tube.</param>
public sealed record SlurShape(string Id, string Name, IReadOnlyList<int> Steps, double Beats, double LastBeats, string Basis, bool Neighbours = false)
{
    private static readonly Lazy<IReadOnlyList<SlurShape>> Shipped = new(() => EmbeddedData.Read<List<SlurShape>>("slur-shapes.json"));

    /// <summary>All shapes, in the order in which they are met.</summary>
    public static IReadOnlyList<SlurShape> All => Shipped.Value;

    /// <summary>Beats of the whole.</summary>
    public double TotalBeats => ((Steps.Count - 1) * Beats) + LastBeats;

    /// <summary>The shape with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static SlurShape Get(string id) => All.FirstOrDefault(shape => shape.Id == id)
        ?? throw new ArgumentException($"'{id}' is not a slur Bocca knows; it knows {string.Join(", ", All.Select(shape => shape.Id))}.");
}
