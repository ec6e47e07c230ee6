using Bocca.Core.Instruments;

namespace Bocca.Core.Simulation;

/// <summary>A way the practice player can be asked to play notes.</summary>
/// <param name="Id">Its name in requests.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Misses">How notes are missed.</param>
/// <param name="Faults">What goes wrong with the sound.</param>
/// <param name="Share">How much of what is to sound does.</param>
/// <param name="OnSlide">Whether it needs a slide; null for any instrument.</param>
public sealed record RowCharacter(
    string Id,
    string Name,
    IReadOnlyList<RowMiss> Misses,
    IReadOnlyList<Fault> Faults,
    double Share = 1,
    bool? OnSlide = null
)
{
    /// <summary>All of them, the good take first.</summary>
    public static IReadOnlyList<RowCharacter> All { get; } =
    [
        new("good", "plays it well", [], []),
        Of("one-low", "falls to the partial below", ["partial=-1"]),
        Of("one-high", "overshoots to the partial above", ["partial=1"]),
        Of("valve", "forgets the second valve, or adds it", ["valve=2"]) with
        {
            OnSlide = false,
        },
        Of("slide-in", "stops the slide 3 cm short", ["slide-in=3"]) with
        {
            OnSlide = true,
        },
        Of("closes", "closes each note with the tongue", [], "closed-end=1") with
        {
            Share = 0.55,
        },
        Of("swells", "starts slowly", [], "slow-start=260"),
        Of("blocked", "has every valve turned: only air comes", [], "silent=0.5") with
        {
            OnSlide = false,
        },
        Of("silent", "does not speak the first time", [], "silent=0.5@1"),
    ];

    /// <summary>Those that can be played on an instrument.</summary>
    public static IEnumerable<RowCharacter> For(Instrument instrument) =>
        All.Where(character => character.OnSlide is null || character.OnSlide == instrument.Slide is not null);

    /// <summary>The character with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static RowCharacter Get(string id) =>
        All.FirstOrDefault(character => character.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is not something the practice player can do; it can do {string.Join(", ", All.Select(character => character.Id))}."
        );

    private static RowCharacter Of(string id, string name, string[] misses, params string[] faults) =>
        new(id, name, [.. misses.Select(RowMiss.Parse)], [.. faults.Select(Fault.Parse)]);
}
