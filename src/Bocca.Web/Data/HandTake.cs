using System.ComponentModel.DataAnnotations;
using Bocca.Core.Fingering;

namespace Bocca.Web.Data;

/// <summary>A silent drill of the hand, with every answer.</summary>
public sealed class HandTake : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string DrillId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    public DateTime At { get; set; }

    public int Right { get; set; }

    public int Asked { get; set; }

    public double MedianSeconds { get; set; }

    public bool Passed { get; set; }

    [MaxLength(300)]
    public required string Summary { get; set; }

    public required string MarksJson { get; set; }

    public DateTime? DeletedAt { get; set; }

    public IReadOnlyList<HandMark> Marks => Stored.Read<List<HandMark>>(MarksJson);
}
