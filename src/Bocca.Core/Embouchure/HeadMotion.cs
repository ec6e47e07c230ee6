namespace Bocca.Core.Embouchure;

/// <summary>Where a head stood in a picture of the camera, against the first, in shares of the picture's width.</summary>
/// <param name="X">To the right.</param>
/// <param name="Y">Down.</param>
public readonly record struct HeadShift(double X, double Y);

/// <summary>
/// How far a head moved while the eyes stayed on a mark. The browser says how far each picture lies from the first and keeps the pictures;
/// limits ours, editable.
/// </summary>
/// <param name="SpreadShare">How far the head lay from its own middle, root of the mean square, share of the picture's width.</param>
/// <param name="DriftShare">How far it came from the first fifth of the time to the last.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record HeadMotion(double SpreadShare, double DriftShare, string Sentence)
{
    /// <summary>A head that moves and drifts no more than this is still.</summary>
    private const double StillShare = 0.01,
        DriftedShare = 0.03;

    /// <summary>Pictures from which on a motion is told, and how far one can be from the first.</summary>
    public const int FewestPictures = 20;

    private const double MostShift = 1;

    /// <summary>Whether it was still.</summary>
    public bool IsStill => SpreadShare <= StillShare && DriftShare <= DriftedShare;

    /// <summary>The motion over some pictures.</summary>
    /// <exception cref="ArgumentException">There are too few, or one is no place in a picture.</exception>
    public static HeadMotion Of(IReadOnlyList<HeadShift> shifts)
    {
        if (shifts.Count < FewestPictures)
            throw new ArgumentException($"{shifts.Count} pictures say too little: let the camera look for some seconds.");
        if (shifts.Any(shift => !(Math.Abs(shift.X) <= MostShift && Math.Abs(shift.Y) <= MostShift)))
            throw new ArgumentException("A head stood outside the picture.");
        var middle = Middle(shifts);
        var spread = Math.Sqrt(shifts.Average(shift => Squared(shift, middle)));
        var fifth = shifts.Count / 5;
        var drift = Math.Sqrt(Squared(Middle([.. shifts.Take(fifth)]), Middle([.. shifts.TakeLast(fifth)])));
        return new HeadMotion(spread, drift, Words(spread, drift));
    }

    private static string Words(double spread, double drift) =>
        drift > DriftedShare
            ? $"The head wandered off by {100 * drift:0.0} % of the picture's width: eyes on the mark, instrument to the face."
        : spread > StillShare ? $"The head moved to and fro by {100 * spread:0.0} % of the picture's width: eyes on the mark."
        : $"The head stayed within {100 * spread:0.0} % of the picture's width.";

    private static HeadShift Middle(IReadOnlyList<HeadShift> shifts) =>
        new(shifts.Average(shift => shift.X), shifts.Average(shift => shift.Y));

    private static double Squared(HeadShift from, HeadShift to) => Math.Pow(from.X - to.X, 2) + Math.Pow(from.Y - to.Y, 2);
}
