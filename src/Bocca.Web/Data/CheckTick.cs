using System.ComponentModel.DataAnnotations;

namespace Bocca.Web.Data;

/// <summary>A set-up check that was ticked.</summary>
public sealed class CheckTick
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string CheckId { get; set; }

    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public DateTime At { get; set; }

    public DateTime? DeletedAt { get; set; }
}
