using Bocca.Core.Teaching;

namespace Bocca.Core.Embouchure;

/// <summary>Marks on a picture of the player from the side.</summary>
/// <param name="Rim">Where the mouthpiece meets the lips.</param>
/// <param name="Shank">The mouthpiece's far end.</param>
/// <param name="Brow">Between the eyes.</param>
/// <param name="Chin">The chin.</param>
/// <param name="Shoulder">The shoulder joint.</param>
/// <param name="Elbow">The elbow.</param>
/// <param name="Wrist">The wrist.</param>
/// <param name="Hip">The hip.</param>
public sealed record SideMarks(
    PicturePoint Rim,
    PicturePoint Shank,
    PicturePoint Brow,
    PicturePoint Chin,
    PicturePoint Shoulder,
    PicturePoint Elbow,
    PicturePoint Wrist,
    PicturePoint Hip
);

/// <summary>Angles of a player seen from the side, in degrees.</summary>
/// <param name="MouthpieceDegrees">Mouthpiece against the perpendicular of the face; positive pointing down.</param>
/// <param name="ElbowDegrees">Angle in the elbow; 180 is a straight arm.</param>
/// <param name="ArmFromBodyDegrees">Upper arm against the body; 0 hangs down.</param>
public sealed record SideView(double MouthpieceDegrees, double ElbowDegrees, double ArmFromBodyDegrees)
{
    /// <summary>Measures the angles.</summary>
    /// <exception cref="ArgumentException">Two marks of a line lie on each other.</exception>
    public static SideView Measure(SideMarks marks)
    {
        foreach (
            var (a, b) in new[]
            {
                (marks.Rim, marks.Shank),
                (marks.Brow, marks.Chin),
                (marks.Shoulder, marks.Elbow),
                (marks.Elbow, marks.Wrist),
                (marks.Shoulder, marks.Hip),
            }
        )
            if (!(a.To(b) >= 5))
                throw new ArgumentException("Two marks of the side picture lie on each other.");
        var downTheFace = new PicturePoint(marks.Rim.X + marks.Chin.X - marks.Brow.X, marks.Rim.Y + marks.Chin.Y - marks.Brow.Y);
        return new SideView(
            90 - AngleAt(marks.Rim, marks.Shank, downTheFace),
            AngleAt(marks.Elbow, marks.Shoulder, marks.Wrist),
            AngleAt(marks.Shoulder, marks.Elbow, marks.Hip)
        );
    }

    /// <summary>
    /// How the mouthpiece points, degrees down from straight out of the face: level or a little down, a horn's further down (common
    /// practice; limits ours, editable).
    /// </summary>
    private static (double Least, double Most) Pointing(string family) => family == "horn" ? (5, 35) : (-5, 20);

    /// <summary>What the angles say under an approach: each sentence with whether it lies inside.</summary>
    /// <param name="approach">The approach.</param>
    /// <param name="family">The instrument's family.</param>
    public IReadOnlyList<(bool Inside, string Sentence)> Judge(Approach approach, string family)
    {
        var pointing = Pointing(family);
        var (least, most) = approach.Of(Points.Arms) == Arms.FortyFiveDegrees ? (30.0, 60.0) : (20.0, 110.0);
        var inside = ArmFromBodyDegrees >= least && ArmFromBodyDegrees <= most;
        return
        [
            (inside, $"Upper arm {ArmFromBodyDegrees:0} degrees from the body; {least:0} to {most:0} is the aim."),
            (true, $"Elbow {ElbowDegrees:0} degrees."),
            (
                MouthpieceDegrees >= pointing.Least && MouthpieceDegrees <= pointing.Most,
                $"Mouthpiece {Math.Abs(MouthpieceDegrees):0} degrees {(MouthpieceDegrees >= 0 ? "down" : "up")} from straight out of "
                    + $"the face; "
                    + $"{(pointing.Least < 0 ? $"{-pointing.Least:0} up" : $"{pointing.Least:0}")} to {pointing.Most:0} down is the aim."
            ),
        ];
    }

    private static double AngleAt(PicturePoint corner, PicturePoint a, PicturePoint b)
    {
        double ax = a.X - corner.X,
            ay = a.Y - corner.Y,
            bx = b.X - corner.X,
            by = b.Y - corner.Y;
        return Placement.Degrees(Math.Abs(Math.Atan2((ax * by) - (ay * bx), (ax * bx) + (ay * by))));
    }
}
