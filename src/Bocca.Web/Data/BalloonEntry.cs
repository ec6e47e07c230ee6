namespace Bocca.Web.Data;

/// <summary>A full breath into a balloon.</summary>
public sealed class BalloonEntry
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    /// <summary>As measured: circumference in centimetres.</summary>
    public double CircumferenceCm { get; set; }

    public double Litres { get; set; }

    public DateTime At { get; set; }

    public DateTime? DeletedAt { get; set; }
}
