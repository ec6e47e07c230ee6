using System.ComponentModel.DataAnnotations;
using Bocca.Core.Buzz;

namespace Bocca.Web.Data;

/// <summary>A next step that was accepted, and stands until it is done.</summary>
public sealed class AcceptedStep
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    public int? TakeId { get; set; }

    public NextPlace Place { get; set; }

    [MaxLength(40)]
    public string? DrillId { get; set; }

    [MaxLength(300)]
    public required string Cue { get; set; }

    [MaxLength(600)]
    public required string Reason { get; set; }

    public DateTime AcceptedAt { get; set; }

    public DateTime? DoneAt { get; set; }
}
