using Bocca.Core.Instruments;

namespace Bocca.Web.Drawings;

/// <summary>The slide from the side, to scale in centimetres.</summary>
public sealed class SlideDrawing
{
    public const double Width = 700;
    public const double Height = 170;
    private const double Left = 40;
    private readonly double _perCm;

    /// <param name="instrument">An instrument with a slide.</param>
    /// <param name="tube">The position it stands at.</param>
    /// <param name="reachCm">How far the arm takes it; null where nobody measured.</param>
    public SlideDrawing(Instrument instrument, Tube tube, double? reachCm = null)
    {
        ReachCm = reachCm;
        _perCm = (Width - Left - 60) / instrument.Slide!.TravelCm;
        OutCm = tube.SlideOutCm;
        Positions =
        [
            .. instrument
                .Tubes.Where(other => other.Setting.Attachment == tube.Setting.Attachment)
                .Select(other => ($"{other.Setting}", X(other.SlideOutCm), other.SlideOutCm, other.Setting == tube.Setting)),
        ];
    }

    public double OutCm { get; }

    /// <summary>How far the arm reaches, centimetres; null where nobody measured.</summary>
    public double? ReachCm { get; }

    /// <summary>Where that is.</summary>
    public double ReachX => X(ReachCm ?? 0);

    /// <summary>Where the slide ends.</summary>
    public double EndX => Width - 30;

    public double Closed => Left;

    public double Now => X(OutCm);

    public IReadOnlyList<(string Name, double X, double Cm, bool Wanted)> Positions { get; }

    private double X(double cm) => Left + 30 + (cm * _perCm);
}
