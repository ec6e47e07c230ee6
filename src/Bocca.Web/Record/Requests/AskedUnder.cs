using System.Text.Json;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record.Requests;

/// <summary>Under what a take is asked, whatever it is: how far its player has come, and how the teacher wants it.</summary>
/// <param name="Stage">How far the player has come.</param>
/// <param name="Approach">The approach.</param>
/// <param name="Own">What the teacher has set otherwise than it ships, bands and cues among it.</param>
public sealed record TakeTerms(LearningStage Stage, Approach Approach, OwnSettings Own)
{
    /// <summary>The stage as it is stored.</summary>
    public string StageName => StoredNames.LearningStages[Stage];

    /// <summary>The approach as it is stored.</summary>
    public string ApproachText => Approach.ToString();

    /// <summary>The own settings as they are stored; null for none.</summary>
    public string? OwnText => StoredOwn.Write(Own) is { Length: > 0 } own ? own : null;
}

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

    /// <summary>The terms of then.</summary>
    /// <exception cref="InvalidDataException">Something in them cannot be read.</exception>
    public TakeTerms Terms() => new(ReadStage(), Core.Teaching.Approach.Parse(Approach), ReadOwn());

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
