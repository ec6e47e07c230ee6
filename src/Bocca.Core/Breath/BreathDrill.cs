using Bocca.Core.Teaching;

namespace Bocca.Core.Breath;

/// <summary>What kind of breath drill it is; limits go by it.</summary>
public enum BreathKind
{
    /// <summary>Breathing in and out to counts.</summary>
    Paced,

    /// <summary>A stream that is listened to: cool air, air through the mouthpiece, a hiss.</summary>
    Stream,

    /// <summary>With the breath held.</summary>
    Hold,

    /// <summary>Equal, ever shorter breaths.</summary>
    Exchange,

    /// <summary>A full breath in a short rest.</summary>
    Quick,
}

/// <summary>A breath drill as data (<c>breaths.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What to do, in one or two sentences.</param>
/// <param name="Kind">What kind it is.</param>
/// <param name="Tempo">Beats a minute where the teacher set none.</param>
/// <param name="Seated">Whether it is done sitting down.</param>
/// <param name="When">Points of an approach, any of which offers it; null for always.</param>
/// <param name="Rungs">Its patterns, the easiest first.</param>
/// <param name="Basis">Where the numbers come from.</param>
public sealed record BreathDrill(
    string Id,
    string Name,
    string Ask,
    BreathKind Kind,
    double Tempo,
    bool Seated,
    IReadOnlyList<string>? When,
    IReadOnlyList<BreathPattern> Rungs,
    string Basis
)
{
    private static readonly Lazy<IReadOnlyList<BreathDrill>> Shipped = new(() => EmbeddedData.Read<List<BreathDrill>>("breaths.json"));

    /// <summary>All drills, the usual one first.</summary>
    public static IReadOnlyList<BreathDrill> All => Shipped.Value;

    /// <summary>The drill with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static BreathDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is not a breath drill Bocca knows; it knows {string.Join(", ", All.Select(drill => drill.Id))}."
        );

    /// <summary>
    /// The drills that an approach has and that are open to a pupil: those of which the easiest pattern may be done on a fresh day.
    /// </summary>
    public static IReadOnlyList<BreathDrill> OfferedTo(BreathingPupil pupil, Approach approach) =>
        [
            .. All.Where(drill =>
                approach.Meets(drill.When) && BreathPlan.Make(drill, drill.Rungs[0], drill.Tempo, pupil, BreathDay.Fresh).Plan is not null
            ),
        ];
}
