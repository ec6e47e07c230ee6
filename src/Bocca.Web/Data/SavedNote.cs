using System.ComponentModel.DataAnnotations;

namespace Bocca.Web.Data;

/// <summary>A written note with the fingering taught for it.</summary>
public sealed class SavedNote : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(8)]
    public required string Written { get; set; }

    [MaxLength(20)]
    public required string ReadingId { get; set; }

    [MaxLength(20)]
    public required string Setting { get; set; }

    public int Partial { get; set; }

    public double Cents { get; set; }

    /// <summary>The approach that ranked it.</summary>
    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public DateTime SavedAt { get; set; }

    public DateTime? DeletedAt { get; set; }
}
