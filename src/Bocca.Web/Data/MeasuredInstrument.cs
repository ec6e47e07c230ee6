using System.ComponentModel.DataAnnotations;
using Bocca.Core.Instruments;

namespace Bocca.Web.Data;

/// <summary>What somebody measured on a pupil's very instrument, on a day: its slides and its valves.</summary>
public sealed class MeasuredInstrument : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    public DateTime At { get; set; }

    /// <summary>Length of the tube with the trombone's slide closed; null where it was not calibrated.</summary>
    public double? SlideTubeMetres { get; set; }

    public double? SlideTravelCm { get; set; }

    public bool ThirdForTwoThree { get; set; }

    /// <summary>Cents by which each valve alone lies above its place.</summary>
    [MaxLength(300)]
    public string ValveCentsJson { get; set; } = "{}";

    [MaxLength(300)]
    public string Remark { get; set; } = "";

    public DateTime? DeletedAt { get; set; }

    public IReadOnlyDictionary<int, double> ValveCents => Stored.Read<Dictionary<int, double>>(ValveCentsJson);

    public Slide? Slide => SlideTubeMetres is { } metres && SlideTravelCm is { } travel ? new Slide(metres, travel) : null;
}
