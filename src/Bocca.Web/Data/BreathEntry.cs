using System.ComponentModel.DataAnnotations;
using Bocca.Core.Breath;
using Bocca.Core.Practice;

namespace Bocca.Web.Data;

/// <summary>A breath drill that was done, whole or stopped.</summary>
public sealed class BreathEntry : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    /// <summary>Made by the page, so that the same drill sent twice is one entry.</summary>
    public Guid Key { get; set; }

    [MaxLength(40)]
    public required string DrillId { get; set; }

    public int Rung { get; set; }

    public double Tempo { get; set; }

    /// <summary>Counts of the longest out-breath asked.</summary>
    public double AskedCounts { get; set; }

    public double AskedSeconds { get; set; }

    /// <summary>Seconds of the shortest unbroken out-breath, where a microphone heard it.</summary>
    public double? HeardSeconds { get; set; }

    public double? VariationPercent { get; set; }

    public bool Even { get; set; }

    public bool Stopped { get; set; }

    /// <summary>How it was judged: heard, or tapped by somebody.</summary>
    public bool Measured { get; set; }

    /// <summary>Seconds that count towards the day.</summary>
    public double DrilledSeconds { get; set; }

    public int HeldBreaths { get; set; }

    [MaxLength(400)]
    public string Summary { get; set; } = "";

    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public DateTime At { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>A drill done to its end, as judged.</summary>
    public static BreathEntry Of(
        Pupil pupil,
        BreathPlan plan,
        int rung,
        BreathVerdict verdict,
        bool measured,
        Approach approach,
        Guid key,
        DateTime now
    ) =>
        new()
        {
            PupilId = pupil.Id,
            Key = key,
            DrillId = plan.Drill.Id,
            Rung = rung,
            Tempo = plan.Tempo,
            AskedCounts = plan.OutBreaths.Max(phase => phase.Counts),
            AskedSeconds = plan.OutBreaths.Max(phase => phase.Seconds),
            HeardSeconds = verdict.HeardSeconds,
            VariationPercent = verdict.VariationPercent,
            Even = verdict.Even,
            Measured = measured,
            DrilledSeconds = plan.DrilledSeconds,
            HeldBreaths = plan.HeldBreaths,
            Summary = verdict.Summary,
            ApproachText = approach.ToString(),
            At = now,
        };

    public BreathPass Pass => new(DrillId, Rung, Tempo, HeardSeconds ?? AskedSeconds, Even, Measured, At);
}
