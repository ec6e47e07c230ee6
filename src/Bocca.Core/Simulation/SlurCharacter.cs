using Bocca.Core.Slurs;

namespace Bocca.Core.Simulation;

/// <summary>A way in which the practice player slurs: well, or with one known fault.</summary>
/// <param name="Id">Its name in requests.</param>
/// <param name="Name">Its name for people.</param>
public sealed record SlurCharacter(string Id, string Name)
{
    private const double TonguedShare = 0.92,
        BrokenShare = 0.8;

    /// <summary>All of them.</summary>
    public static IReadOnlyList<SlurCharacter> All { get; } =
    [
        new("good", "slurs well"),
        new("tongues", "tongues every note"),
        new("breaks", "lets the air stop between the notes"),
        new("stays", "does not change up"),
        new("over", "goes one partial too far"),
    ];

    /// <summary>The character with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static SlurCharacter Get(string id) =>
        All.FirstOrDefault(known => known.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is no way the practice player slurs; there are {string.Join(", ", All.Select(known => known.Id))}."
        );

    /// <summary>The slur as it is played this way.</summary>
    public IReadOnlyList<PlayedNote> Play(AskedSlur asked)
    {
        var upper = asked
            .Plan.Notes.Select((note, i) => (note, Number: i + 1))
            .Where(each => each.note.Meant.Partial > asked.Slur.Notes[0].Partial)
            .Select(each => each.Number)
            .ToHashSet();
        IReadOnlyList<RowMiss> misses = Id switch
        {
            "stays" when upper.Count > 0 => [new RowMiss(RowMissKind.Partial, "-1", upper)],
            "over" when upper.Count > 0 => [new RowMiss(RowMissKind.Partial, "1", upper)],
            _ => [],
        };
        var played = PlayedNote.Row(asked.Plan, asked.Player, new RowCharacter(Id, Name, misses, []));
        return Id is "tongues" or "breaks"
            ?
            [
                .. played.Select(note =>
                    note with
                    {
                        SlurredToNext = false,
                        Share = note.SlurredToNext
                            ? Id == "breaks"
                                ? BrokenShare
                                : TonguedShare
                            : note.Share,
                    }
                ),
            ]
            : played;
    }

    /// <summary>What goes wrong with the sound of it: without the tongue a note swells.</summary>
    public IReadOnlyList<Fault> Faults => Id == "breaks" ? [new Fault(FaultKind.SlowStart, 160)] : [];
}
