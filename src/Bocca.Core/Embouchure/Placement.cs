namespace Bocca.Core.Embouchure;

/// <summary>Marks on a picture of the mouth from the front.</summary>
/// <param name="RingEdge">Points of the rim's outer edge, three or more.</param>
/// <param name="LipLeft">Where the lips meet, at the picture's left.</param>
/// <param name="LipRight">Where they meet, at its right.</param>
/// <param name="MiddleTop">The middle of the face above the lips: the tip of the nose.</param>
/// <param name="MiddleBottom">The middle of the face below: the chin.</param>
/// <param name="Mirrored">Whether the picture is a mirror's: the pupil's left at its left.</param>
public sealed record FrontMarks(
    IReadOnlyList<PicturePoint> RingEdge,
    PicturePoint LipLeft,
    PicturePoint LipRight,
    PicturePoint MiddleTop,
    PicturePoint MiddleBottom,
    bool Mirrored
);

/// <summary>Where a mouthpiece sits, seen from the front. Formulas: METHODS.</summary>
/// <param name="ShareAbove">Share of the rim's diameter above the line of the lips, 0 to 1.</param>
/// <param name="ShareError">One standard error of that, for marks two pixels off.</param>
/// <param name="OffsetMm">Distance from the middle of the face, mm; positive to the pupil's left.</param>
/// <param name="OffsetErrorMm">One standard error of that.</param>
/// <param name="TiltDegrees">Slope of the line of the lips against the face; positive when the pupil's left is higher.</param>
/// <param name="HeadTiltDegrees">Slope of the face against the picture's upright; positive when the head leans to the pupil's left.</param>
/// <param name="MillimetresPerPixel">The scale, from the rim.</param>
public sealed record Placement(
    double ShareAbove,
    double ShareError,
    double OffsetMm,
    double OffsetErrorMm,
    double TiltDegrees,
    double HeadTiltDegrees,
    double MillimetresPerPixel
)
{
    /// <summary>How far off a mark is, pixels, one standard deviation (ours, editable).</summary>
    private const double MarkPixels = 2;

    /// <summary>Measures a placement.</summary>
    /// <param name="marks">The marks.</param>
    /// <param name="rimMm">Outer diameter of the rim, mm, which gives the scale.</param>
    /// <exception cref="ArgumentException">The marks can be no mouth with a ring; the message says why.</exception>
    public static Placement Measure(FrontMarks marks, double rimMm)
    {
        if (!(rimMm is >= 10 and <= 80))
            throw new ArgumentException($"A rim of {rimMm:0.#} mm is no mouthpiece's: 10 to 80 mm.");
        var ring = Ring.Fit(marks.RingEdge);
        var (left, right) = marks.LipLeft.X <= marks.LipRight.X ? (marks.LipLeft, marks.LipRight) : (marks.LipRight, marks.LipLeft);
        if (!(left.To(right) >= ring.Radius / 2))
            throw new ArgumentException("The two marks on the line of the lips lie too close together.");
        var (top, bottom) =
            marks.MiddleTop.Y <= marks.MiddleBottom.Y ? (marks.MiddleTop, marks.MiddleBottom) : (marks.MiddleBottom, marks.MiddleTop);
        if (!(top.To(bottom) >= ring.Radius))
            throw new ArgumentException("The two marks on the middle of the face lie too close together.");
        var above = DistanceFromLine(ring.Centre, left, right);
        if (Math.Abs(above) > ring.Radius)
            throw new ArgumentException("The line of the lips does not cross the ring.");
        // From the chin to the nose, the pupil's left lies to the left of a mirror's picture and to the right of a photograph.
        var aside = DistanceFromLine(ring.Centre, bottom, top) * (marks.Mirrored ? 1 : -1);
        var scale = rimMm / (2 * ring.Radius);
        var lipSlope = Degrees(Math.Atan2(left.Y - right.Y, right.X - left.X));
        var faceSlope = Degrees(Math.Atan2(top.X - bottom.X, bottom.Y - top.Y));
        var hand = marks.Mirrored ? -1 : 1;
        var error = MarkPixels * Math.Sqrt((2.0 / marks.RingEdge.Count) + 0.5);
        return new Placement(
            (ring.Radius + above) / (2 * ring.Radius),
            error / (2 * ring.Radius),
            aside * scale,
            error * scale,
            hand * (lipSlope + faceSlope),
            hand * faceSlope,
            scale
        );
    }

    /// <summary>Pixels from a line to a point, positive to the left of somebody going along it with the picture upright.</summary>
    private static double DistanceFromLine(PicturePoint point, PicturePoint from, PicturePoint to) =>
        -(((to.X - from.X) * (point.Y - from.Y)) - ((to.Y - from.Y) * (point.X - from.X))) / from.To(to);

    internal static double Degrees(double radians) => radians * 180 / Math.PI;
}
