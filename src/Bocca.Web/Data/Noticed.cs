using System.ComponentModel.DataAnnotations;

namespace Bocca.Web.Data;

/// <summary>Something seen in a lesson, or an answer of the pupil, as a signal for advice.</summary>
public sealed class Noticed
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(60)]
    public required string Signal { get; set; }

    public DateTime At { get; set; }

    public DateTime? DeletedAt { get; set; }
}
