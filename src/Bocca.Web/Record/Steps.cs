using Bocca.Core.Judging;

namespace Bocca.Web.Record;

/// <summary>Why a step was advised, and by which entry; null where that is not known.</summary>
public sealed record StepPayload(string Reason, long? Because = null);

/// <summary>A next step that was accepted, and stands open until a take shows it. Its place is its subject, its cue its summary.</summary>
public static class Steps
{
    public static EntryKind<StepPayload> Kind { get; } =
        new("step", "step") { Title = step => step.DoneAt is null ? "Next step, open" : "Next step, done" };

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
