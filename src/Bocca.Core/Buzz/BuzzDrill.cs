using Bocca.Core.Practice;

namespace Bocca.Core.Buzz;

/// <summary>A drill for the lips, the mouthpiece or a long note, as data (<c>drills.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What to do, in one or two sentences.</param>
/// <param name="On">What it can be played on.</param>
/// <param name="SoundBeats">Beats that sound.</param>
/// <param name="RestBeats">Beats of rest after them.</param>
/// <param name="Times">How many times.</param>
/// <param name="Tempo">Beats a minute where the teacher set none.</param>
/// <param name="Easier">The drill to step back to.</param>
/// <param name="Basis">Where the numbers come from.</param>
public sealed record BuzzDrill(
    string Id,
    string Name,
    string Ask,
    IReadOnlyList<SoundStage> On,
    int SoundBeats,
    int RestBeats,
    int Times,
    double Tempo,
    string Easier,
    string Basis)
{
    private static readonly Lazy<IReadOnlyList<BuzzDrill>> Shipped = new(() => EmbeddedData.Read<List<BuzzDrill>>("drills.json"));

    /// <summary>All drills, the usual one first.</summary>
    public static IReadOnlyList<BuzzDrill> All => Shipped.Value;

    /// <summary>When each try is due at the drill's own tempo.</summary>
    public CuePlan Plan => new(Tempo, SoundBeats, RestBeats, Times);

    /// <summary>The drill with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static BuzzDrill Get(string id) => All.FirstOrDefault(drill => drill.Id == id)
        ?? throw new ArgumentException($"'{id}' is not a drill Bocca knows; it knows {string.Join(", ", All.Select(drill => drill.Id))}.");
}
