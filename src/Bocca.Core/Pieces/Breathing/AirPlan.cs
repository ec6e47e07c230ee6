namespace Bocca.Core.Pieces.Breathing;

/// <summary>Where a line is breathed in.</summary>
/// <param name="Breaths">The breaths in order; empty where none is needed, or where there is no plan.</param>
/// <param name="Spans">What is played in one breath each.</param>
/// <param name="Cost">What the plan costs, points.</param>
/// <param name="LowerBound">What no plan costs less than, points.</param>
public sealed record AirPlan(IReadOnlyList<PlannedBreath> Breaths, IReadOnlyList<BreathSpan> Spans, double Cost, double LowerBound)
{
    /// <summary>Whether there is a plan at all.</summary>
    public bool IsPossible => Why is null;

    /// <summary>Whether no cheaper plan exists.</summary>
    public bool IsProven => IsPossible && Cost <= LowerBound;

    /// <summary>Why there is none, and the smallest change that would mend it; null where there is one.</summary>
    public string? Why { get; init; }

    /// <summary>The note before which the air runs out; null where it does not.</summary>
    public int? OutOfAirAt { get; init; }

    /// <summary>The slowest tempo, beats of the piece, that would mend it; null where there is a plan, or none would.</summary>
    public double? MendingTempo { get; init; }

    /// <summary>Notes which, left out, would give a breath its time; empty where there is a plan, or that does not help.</summary>
    public IReadOnlyList<int> MendingNotes { get; init; } = [];

    /// <summary>What is to be known beside the plan, such as a repeat without a breath.</summary>
    public IReadOnlyList<string> Remarks { get; init; } = [];
}
