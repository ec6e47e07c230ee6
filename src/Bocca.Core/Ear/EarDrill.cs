using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Core.Ear;

/// <summary>What a drill for the ear asks.</summary>
public enum EarKind
{
    /// <summary>Which of some open notes is the lowest.</summary>
    Lowest,

    /// <summary>Open notes heard, tapped in order, played back.</summary>
    Copy,

    /// <summary>The voice slid as far as it goes.</summary>
    Siren,

    /// <summary>One note found and sung.</summary>
    Find,

    /// <summary>A note, one some semitones from it, and back: sung, then played.</summary>
    Intervals,

    /// <summary>Two to five notes by semitones, the last one named, then played.</summary>
    Run,

    /// <summary>A written line, sung.</summary>
    Line,

    /// <summary>A small tune by ear.</summary>
    Tune,

    /// <summary>Whether a line moves by steps or leaps.</summary>
    Steps,

    /// <summary>Whether beats go in two or in three.</summary>
    Metre,

    /// <summary>A new written line, played once.</summary>
    Sight,

    /// <summary>A note played into a chord, then without it.</summary>
    Drone,
}

/// <summary>A drill for the ear, as data (<c>ear-drills.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Kind">What it asks.</param>
/// <param name="Ask">What to do.</param>
/// <param name="From">The stage from which on it is offered.</param>
/// <param name="Hardest">The hardest level of its staircase.</param>
/// <param name="Tempo">Its tempo, beats a minute.</param>
/// <param name="Sings">Whether it is sung.</param>
/// <param name="Plays">Whether it is played.</param>
/// <param name="Basis">Where it comes from.</param>
public sealed record EarDrill(
    string Id,
    string Name,
    EarKind Kind,
    string Ask,
    LearningStage From,
    int Hardest,
    double Tempo,
    bool Sings,
    bool Plays,
    string Basis
)
{
    private static readonly Lazy<IReadOnlyList<EarDrill>> Shipped = new(() => EmbeddedData.Read<List<EarDrill>>("ear-drills.json"));

    /// <summary>All of them, in the order in which they are offered.</summary>
    public static IReadOnlyList<EarDrill> All => Shipped.Value;

    /// <summary>Where the ear is trained.</summary>
    public static Place Place { get; } = new("ear");

    /// <summary>The drill in which a line is read and sung.</summary>
    public static EarDrill OfLine => All.First(drill => drill.Kind == EarKind.Line);

    /// <summary>The drill of an id.</summary>
    /// <exception cref="ArgumentException">There is none such.</exception>
    public static EarDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id) ?? throw new ArgumentException($"There is no drill '{id}' for the ear.");

    /// <summary>
    /// The drills for a stage under an approach: where nobody is asked to sing, those that are only sung are left out, and what is sung and
    /// played is played alone.
    /// </summary>
    public static IReadOnlyList<EarDrill> For(LearningStage stage, Approach approach)
    {
        var sings = approach.Of(Points.Singing) != Singing.Off;
        return
        [
            .. All.Where(drill => drill.From <= stage && (sings || !drill.Sings || drill.Plays))
                .Select(drill =>
                    sings ? drill : drill with { Sings = false, Ask = drill.Ask.Replace(", sing it", "", StringComparison.Ordinal) }
                ),
        ];
    }
}
