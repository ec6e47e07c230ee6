using Bocca.Core.Embouchure;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Setup;

/// <summary>A point of a picture, pixels from its upper left corner.</summary>
public sealed record StoredPoint(double X, double Y) : StoredShape
{
    public static StoredPoint Of(PicturePoint point) => new(point.X, point.Y);

    public PicturePoint Read() => new(X, Y);
}

/// <summary>The marks on a picture from the front.</summary>
/// <param name="RingEdge">Points on the edge of the rim.</param>
/// <param name="LipLeft">The line of the lips, left.</param>
/// <param name="LipRight">Right.</param>
/// <param name="MiddleTop">The middle of the face, above.</param>
/// <param name="MiddleBottom">Below.</param>
/// <param name="Mirrored">Whether the picture is a mirror's.</param>
public sealed record StoredFrontMarks(
    IReadOnlyList<StoredPoint> RingEdge,
    StoredPoint LipLeft,
    StoredPoint LipRight,
    StoredPoint MiddleTop,
    StoredPoint MiddleBottom,
    bool Mirrored
) : StoredShape
{
    public static StoredFrontMarks Of(FrontMarks marks) =>
        new(
            [.. marks.RingEdge.Select(StoredPoint.Of)],
            StoredPoint.Of(marks.LipLeft),
            StoredPoint.Of(marks.LipRight),
            StoredPoint.Of(marks.MiddleTop),
            StoredPoint.Of(marks.MiddleBottom),
            marks.Mirrored
        );

    public FrontMarks Read() =>
        new([.. RingEdge.Select(each => each.Read())], LipLeft.Read(), LipRight.Read(), MiddleTop.Read(), MiddleBottom.Read(), Mirrored);
}

/// <summary>What the marks came to.</summary>
/// <param name="ShareAbove">Share of the ring above the line of the lips, 0 to 1.</param>
/// <param name="ShareError">Its standard error.</param>
/// <param name="OffsetMm">Millimetres from the middle, to the pupil's left.</param>
/// <param name="OffsetErrorMm">Its standard error.</param>
/// <param name="TiltDegrees">How far the lips tilt against the face.</param>
/// <param name="HeadTiltDegrees">How far the head tilts.</param>
/// <param name="MillimetresPerPixel">The scale of the picture.</param>
public sealed record StoredPlacementMeasures(
    double ShareAbove,
    double ShareError,
    double OffsetMm,
    double OffsetErrorMm,
    double TiltDegrees,
    double HeadTiltDegrees,
    double MillimetresPerPixel
) : StoredShape
{
    public static StoredPlacementMeasures Of(Placement placed) =>
        new(
            placed.ShareAbove,
            placed.ShareError,
            placed.OffsetMm,
            placed.OffsetErrorMm,
            placed.TiltDegrees,
            placed.HeadTiltDegrees,
            placed.MillimetresPerPixel
        );

    public Placement Read() => new(ShareAbove, ShareError, OffsetMm, OffsetErrorMm, TiltDegrees, HeadTiltDegrees, MillimetresPerPixel);
}

/// <summary>A placement as the record holds it.</summary>
/// <param name="RimMm">The rim's outer diameter, millimetres.</param>
/// <param name="Marks">The marks.</param>
/// <param name="Measures">What they came to.</param>
public sealed record StoredPlacement(double RimMm, StoredFrontMarks Marks, StoredPlacementMeasures Measures) : StoredShape
{
    public static PayloadShape<PlacementPayload, StoredPlacement> Shape { get; } =
        new(
            placed => new StoredPlacement(placed.RimMm, StoredFrontMarks.Of(placed.Marks), StoredPlacementMeasures.Of(placed.Measures)),
            stored => new PlacementPayload(stored.RimMm, stored.Marks.Read(), stored.Measures.Read())
        );
}
