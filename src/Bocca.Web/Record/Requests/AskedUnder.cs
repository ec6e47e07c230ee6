using System.Text.Json;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record.Requests;

/// <summary>What holds for a take whatever it is: what it is played on, and what the teacher wants, as both stood at its start.</summary>
/// <param name="On">The instrument as it was measured.</param>
/// <param name="Stage">How far the pupil had come: the name of the stage.</param>
/// <param name="Approach">The teacher's approach, as it is stored.</param>
public abstract record AskedUnder(StoredInstrument On, string Stage, string Approach) : StoredShape
{
    /// <summary>What the teacher had set otherwise than it ships, bands and cues among it, as it is stored; null for nothing.</summary>
    public string? Own { get; init; }

    /// <summary>How far the pupil had come.</summary>
    /// <exception cref="InvalidDataException">There is no such stage.</exception>
    public LearningStage ReadStage() => StoredNames.LearningStages.Read(Stage);

    /// <summary>What the teacher had set otherwise.</summary>
    /// <exception cref="InvalidDataException">It is no such list.</exception>
    public OwnSettings ReadOwn()
    {
        try
        {
            return StoredOwn.Read(Own ?? "");
        }
        catch (JsonException)
        {
            throw new InvalidDataException("The teacher's own numbers of a request cannot be read.");
        }
    }

    /// <summary>Who plays it: the instrument of then, with what is known of the pupil's hands and misses today.</summary>
    /// <exception cref="ArgumentException">The catalogue has no such instrument any more.</exception>
    public PlayerSituation PlayerAs(PlayerSituation today) =>
        On.Read() with
        {
            Misses = today.Misses,
            Weights = today.Weights,
            Hand = today.Hand,
        };
}
