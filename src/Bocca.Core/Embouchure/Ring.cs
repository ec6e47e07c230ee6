using MathNet.Numerics.LinearAlgebra;

namespace Bocca.Core.Embouchure;

/// <summary>A point of a picture, in pixels from its upper left corner.</summary>
/// <param name="X">To the right.</param>
/// <param name="Y">Downwards.</param>
public readonly record struct PicturePoint(double X, double Y)
{
    /// <summary>Pixels to another point.</summary>
    public double To(PicturePoint other) => Math.Sqrt(((X - other.X) * (X - other.X)) + ((Y - other.Y) * (Y - other.Y)));

    /// <summary>The point half way to another.</summary>
    public PicturePoint Midway(PicturePoint other) => new((X + other.X) / 2, (Y + other.Y) / 2);
}

/// <summary>The mouthpiece's rim as seen from the front: a circle through points of its edge.</summary>
/// <param name="Centre">Its centre.</param>
/// <param name="Radius">Its radius, pixels.</param>
/// <param name="MissPixels">How far the points lie off it, root mean square.</param>
public sealed record Ring(PicturePoint Centre, double Radius, double MissPixels)
{
    /// <summary>The smallest radius that can be measured, pixels (ours, editable).</summary>
    private const double LeastRadius = 12;

    /// <summary>Points this far off, as a share of the radius, make no ring (ours, editable).</summary>
    private const double MostMiss = 0.12;

    /// <summary>The circle of least squares through points (published: Kasa 1976).</summary>
    /// <param name="edge">Three points of the edge or more.</param>
    /// <exception cref="ArgumentException">The points can be no ring; the message says why.</exception>
    public static Ring Fit(IReadOnlyList<PicturePoint> edge)
    {
        if (edge.Count < 3 || edge.Any(point => !double.IsFinite(point.X) || !double.IsFinite(point.Y)))
            throw new ArgumentException("A ring needs three marks on its edge or more.");
        var (meanX, meanY) = (edge.Average(point => point.X), edge.Average(point => point.Y));
        // x^2 + y^2 = 2 a x + 2 b y + c, with the mean taken out so that large pictures lose no digits.
        var rows = Matrix<double>.Build.Dense(
            edge.Count,
            3,
            (row, column) =>
                column switch
                {
                    0 => edge[row].X - meanX,
                    1 => edge[row].Y - meanY,
                    _ => 1,
                }
        );
        var squares = Vector<double>.Build.Dense(edge.Count, row => Math.Pow(edge[row].X - meanX, 2) + Math.Pow(edge[row].Y - meanY, 2));
        var normal = rows.TransposeThisAndMultiply(rows);
        if (Math.Abs(normal.Determinant()) < 1e-3 * Math.Pow(normal.Diagonal().Take(2).Average(), 2))
            throw new ArgumentException("The marks of the ring lie on one line: put them round its edge.");
        var solved = normal.Solve(rows.TransposeThisAndMultiply(squares));
        var (a, b) = (solved[0] / 2, solved[1] / 2);
        var radius = Math.Sqrt(solved[2] + (a * a) + (b * b));
        var centre = new PicturePoint(meanX + a, meanY + b);
        var miss = Math.Sqrt(edge.Average(point => Math.Pow(point.To(centre) - radius, 2)));
        if (!(radius >= LeastRadius))
            throw new ArgumentException($"The ring is {2 * radius:0} pixels wide: come closer, {2 * LeastRadius:0} are needed.");
        return miss <= MostMiss * radius
            ? new Ring(centre, radius, miss)
            : throw new ArgumentException(
                "The marks of the ring lie on no circle: put them on its outer edge, seen straight from the front."
            );
    }
}
