using Bocca.Core.Judging;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record;

/// <summary>Why a step was advised, and by which entry; null where that is not known.</summary>
public sealed record StepPayload(string Reason, long? Because = null) : StoredShape;

/// <summary>
/// A next step that was accepted. It is tried whenever something of its drill is kept, and stands open until that shows it, or another
/// step takes its place. Its place is its subject, its cue its summary; <see cref="Entry.Asked"/> counts how often it was tried, and
/// its outcome says that it came.
/// </summary>
public static class Steps
{
    public static EntryKind<StepPayload> Kind { get; } =
        new("step", "step")
        {
            Shape = PayloadShape.Itself<StepPayload>(),
            Title = step =>
                step.Outcome == Outcome.Passed ? $"Next step: came{(step.Asked > 1 ? $", tried {Tries(step)}" : "")}"
                : step.DoneAt is null ? $"Next step, {(step.Asked > 0 ? $"tried {Tries(step)}" : "open")}"
                : $"Next step, let go{(step.Asked > 0 ? $" after {Tries(step)}" : "")}",
        };

    /// <summary>How often a step was tried, in words.</summary>
    public static string Tries(Entry step) =>
        step.Asked switch
        {
            null or 0 => "not yet",
            1 => "once",
            2 => "twice",
            var times => $"{times} times",
        };

    /// <summary>Takes down that a step was tried, and whether it came.</summary>
    public static void Try(Entry step, Entry with, DateTime now)
    {
        step.Asked = (step.Asked ?? 0) + 1;
        // What has no outcome is done by being there: a measured instrument, a saved note.
        if (with.Outcome is not (null or Outcome.Passed))
            return;
        (step.Outcome, step.DoneAt) = (Outcome.Passed, now);
    }

    /// <summary>Has a step that stood in another record follow from the entry that it followed from there.</summary>
    /// <param name="step">The step, with its payload.</param>
    /// <param name="ids">The numbers of entries here by those there; what is not among them did not come.</param>
    public static void Follow(Entry step, IReadOnlyDictionary<long, long> ids)
    {
        var payload = Kind.Read(step);
        long? because = payload.Because is { } there && ids.TryGetValue(there, out var here) ? here : null;
        Kind.Rewrite(step, payload with { Because = because });
    }

    public static Entry Entry(int pupilId, NextStep next, DateTime at) =>
        new()
        {
            PupilId = pupilId,
            Kind = Kind.Id,
            Subject = next.Place.Id,
            DrillId = next.DrillId,
            Summary = next.Cue,
            At = at,
        };
}
