using Bocca.Core.Judging;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Practice;

/// <summary>The step that stands open before a lesson, or that came since the last one.</summary>
/// <param name="Cue">What was to be tried.</param>
/// <param name="Address">Its drill as <c>stop:drill</c>, or a stop alone.</param>
/// <param name="Tried">How often it was tried.</param>
/// <param name="Came">Whether it came.</param>
public sealed record StepBefore(string Cue, string Address, int Tried, bool Came);

/// <summary>The last take, where it did not come as meant.</summary>
/// <param name="Heard">What was heard.</param>
/// <param name="Address">The drill that mends it, or the same once more, as <c>stop:drill</c>.</param>
/// <param name="SinceStep">Whether it came after the open step was agreed on, at another drill.</param>
public sealed record LastSlip(string Heard, string Address, bool SinceStep);

/// <summary>What a teacher hears first in a lesson, and why (common practice for the order).</summary>
/// <param name="What">What to hear.</param>
/// <param name="Why">Why that.</param>
/// <param name="Address">Where it is, as <c>stop:drill</c> or a stop alone; null for nowhere.</param>
public sealed record HearFirst(string What, string Why, string? Address)
{
    /// <summary>
    /// What went otherwise since the open step was agreed on comes first. Then the step: one that came is shown, one that was tried is
    /// heard, one that was not is done together. Then what went otherwise last, what has moved beyond the pupil's own spread, what is due,
    /// one long note.
    /// </summary>
    /// <param name="step">The step; null for none.</param>
    /// <param name="slip">The last take, where it did not come as meant; null for one that did.</param>
    /// <param name="moved">The figures that changed beyond the pupil's own spread.</param>
    /// <param name="due">What is due, in words, with its address.</param>
    /// <param name="takes">Takes since the last lesson.</param>
    public static HearFirst Of(
        StepBefore? step,
        LastSlip? slip,
        IReadOnlyList<(FigureHistory Figure, string Address)> moved,
        IReadOnlyList<(string Words, string Address)> due,
        int takes
    ) =>
        step switch
        {
            _ when slip is { SinceStep: true } => new(slip.Heard, "That was heard last: hear it once more.", slip.Address),
            { Came: true } => new(step.Cue, "It came since last time: let it be shown first.", step.Address),
            { Tried: > 0 } => new(step.Cue, $"Tried {Times(step.Tried)}: hear where it goes wrong.", step.Address),
            not null => new(step.Cue, "Not tried since last time: do it together first.", step.Address),
            _ when slip is not null => new(slip.Heard, "That was heard last: hear it once more.", slip.Address),
            _ when moved.Count > 0 => new($"The {moved[0].Figure.Kind.Name}", moved[0].Figure.Sentence, moved[0].Address),
            _ when due.Count > 0 => new(due[0].Words, "It is due before it is forgotten.", due[0].Address),
            _ when takes == 0 => new("One long note", "Nothing was kept since last time: hear how the sound is.", "tone:long-notes"),
            _ => new("One long note", "Nothing outstanding: begin with the sound.", "tone:long-notes"),
        };

    /// <summary>Where the misses of the last weeks came from; null where there are too few, or both alike.</summary>
    public static string? Bottleneck(RecentMisses misses)
    {
        const int Fewest = 4;
        var all = misses.Partials + misses.Settings;
        if (all < Fewest || Math.Abs(misses.Partials - misses.Settings) < 0.4 * all)
            return null;
        return misses.Partials > misses.Settings
            ? $"The lips: {misses.Partials} of the last {all} misses were another partial on the right tube."
            : $"The hand: {misses.Settings} of the last {all} misses were another combination or position.";
    }

    private static string Times(int times) =>
        times switch
        {
            1 => "once",
            2 => "twice",
            _ => $"{times} times",
        };
}
