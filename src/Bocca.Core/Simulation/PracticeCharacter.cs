namespace Bocca.Core.Simulation;

/// <summary>A way the practice player can be asked to play: a name and the faults that make it.</summary>
/// <param name="Id">Its name in requests.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Faults">What goes wrong.</param>
public sealed record PracticeCharacter(string Id, string Name, IReadOnlyList<Fault> Faults)
{
    /// <summary>All of them, the good take first.</summary>
    public static IReadOnlyList<PracticeCharacter> All { get; } =
    [
        new("good", "plays it well", []),
        Of("air-first", "air first on two tries", "air-first=700@2,3"),
        Of("wobble", "wobbles", "wobble=55"),
        Of("sinks", "sinks", "drift=-35"),
        Of("falls", "falls to a lower note", "partial-below=0.6@2,4"),
        Of("short", "stops early", "short=0.4"),
        Of("uneven", "a different height each time", "uneven=160"),
        Of("half", "two tries do not speak", "silent=0.5@1,3"),
    ];

    /// <summary>The character with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static PracticeCharacter Get(string id) =>
        All.FirstOrDefault(character => character.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is not something the practice player can do; it can do {string.Join(", ", All.Select(character => character.Id))}."
        );

    private static PracticeCharacter Of(string id, string name, params string[] faults) => new(id, name, [.. faults.Select(Fault.Parse)]);
}
