using Bocca.Core.Embouchure;

namespace Bocca.Core.Simulation;

/// <summary>A drawn mouth with a ring on it: a stand-in for a pupil and a camera, with a known placement.</summary>
/// <param name="ShareAbove">Share of the ring above the lip line, 0.1 to 0.9.</param>
/// <param name="OffsetMm">Distance from the middle of the face, mm, to the pupil's left.</param>
/// <param name="TiltDegrees">Slope of the lips, degrees, the pupil's left higher.</param>
/// <param name="RimMm">Outer diameter of the rim, mm.</param>
public sealed record DrawnFace(double ShareAbove, double OffsetMm, double TiltDegrees, double RimMm)
{
    /// <summary>Width of the picture, pixels.</summary>
    public const int Width = 640;

    /// <summary>Height of the picture, pixels.</summary>
    public const int Height = 480;

    /// <summary>Pixels a millimetre.</summary>
    public const double PixelsPerMm = 5;

    private const double MouthHalfMm = 25;

    /// <summary>The same face with everything inside what can be drawn.</summary>
    public DrawnFace Bounded() =>
        new(Math.Clamp(ShareAbove, 0.1, 0.9), Math.Clamp(OffsetMm, -15, 15), Math.Clamp(TiltDegrees, -20, 20), Math.Clamp(RimMm, 15, 55));

    /// <summary>The marks that a careful hand would put on it, as in a mirror.</summary>
    public FrontMarks Marks()
    {
        var slope = Math.Tan(TiltDegrees * Math.PI / 180);
        var centreUp = (((2 * ShareAbove) - 1) * RimMm / 2 * Math.Sqrt(1 + (slope * slope))) + (OffsetMm * slope);
        return new FrontMarks(
            [
                .. Enumerable
                    .Range(0, 4)
                    .Select(i => i * Math.PI / 2)
                    .Select(angle => At(OffsetMm + (RimMm / 2 * Math.Cos(angle)), centreUp + (RimMm / 2 * Math.Sin(angle)))),
            ],
            At(MouthHalfMm, MouthHalfMm * slope),
            At(-MouthHalfMm, -MouthHalfMm * slope),
            At(0, 34),
            At(0, -38),
            Mirrored: true
        );
    }

    private static PicturePoint At(double leftMm, double upMm) =>
        new(Math.Round((Width / 2) - (leftMm * PixelsPerMm), 1), Math.Round((Height / 2) - (upMm * PixelsPerMm), 1));
}
