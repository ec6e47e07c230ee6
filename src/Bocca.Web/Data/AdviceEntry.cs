using System.ComponentModel.DataAnnotations;

namespace Bocca.Web.Data;

/// <summary>Advice that a teacher took, or overruled.</summary>
public sealed class AdviceEntry
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string SymptomId { get; set; }

    /// <summary>What the evidence pointed to; another than <see cref="SymptomId"/> where the teacher overruled it.</summary>
    [MaxLength(40)]
    public required string SuggestedId { get; set; }

    [MaxLength(300)]
    public required string Cue { get; set; }

    [MaxLength(1200)]
    public required string Why { get; set; }

    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public DateTime At { get; set; }
}
