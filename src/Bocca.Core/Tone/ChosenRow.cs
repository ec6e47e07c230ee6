using Bocca.Core.Judging;

namespace Bocca.Core.Tone;

/// <summary>A row as it was chosen: the drill, and what was chosen for it.</summary>
/// <param name="DrillId">The drill; null for whatever the stop begins with.</param>
/// <param name="Notes">The written notes; null for those that the drill and the way of first notes give.</param>
/// <param name="Settings">A setting for each; null for those that come first.</param>
/// <param name="Tempo">Beats a minute; null for the drill's own.</param>
public sealed record ChosenRow(string? DrillId, string? Notes, string? Settings, double? Tempo)
{
    /// <summary>The row that a step leads to: a note that came makes way for the next one; one that did not is tried again.</summary>
    /// <param name="outcome">What came of this one.</param>
    /// <param name="next">The step.</param>
    public ChosenRow Then(Outcome? outcome, NextStep next)
    {
        var tempo = next.Tempo ?? (next.DrillId == DrillId ? Tempo : null);
        return next.DrillId == DrillId && outcome != Outcome.Passed
            ? this with
            {
                Tempo = tempo,
            }
            : new ChosenRow(next.DrillId, null, null, tempo);
    }
}
