namespace Bocca.Core.Judging;

/// <summary>The one thing to do next.</summary>
/// <param name="Place">Where.</param>
/// <param name="DrillId">The drill, where it is one.</param>
/// <param name="Cue">What to do or try, in one sentence.</param>
/// <param name="Reason">Why, with the number that led there.</param>
public sealed record NextStep(Place Place, string? DrillId, string Cue, string Reason)
{
    /// <summary>The cue given against a symptom, as <see cref="CueHistory.NameOf"/> names it; null for a step that is none.</summary>
    public string? Given { get; init; }

    /// <summary>The drill that mends it, as <c>stop:drill</c> or a stop alone; null for none.</summary>
    public string? Mends { get; init; }

    /// <summary>The tempo to do it at, beats a minute; null for the drill's own or the same again.</summary>
    public double? Tempo { get; init; }
}
