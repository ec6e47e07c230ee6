namespace Bocca.Core.Breath;

/// <summary>A full breath blown into a balloon of one's own, measured with a tape.</summary>
/// <param name="Litres">How much.</param>
/// <param name="At">When.</param>
public sealed record BalloonReading(double Litres, DateTime At);

/// <summary>Balloon readings: a usable breath, never the growth of lungs.</summary>
public static class Balloon
{
    /// <summary>Breaths into a balloon in seven days, at most (ours, editable downward only).</summary>
    public const int MostPerWeek = 3;

    /// <summary>No balloon for younger children: they choke on one (common practice).</summary>
    public const int YoungestYears = 8;

    /// <summary>The smallest and largest circumference that a breath makes, cm (ours, editable).</summary>
    public static (double Least, double Most) CircumferenceCm { get; } = (15, 80);

    /// <summary>Litres in a round balloon of this circumference: C^3 / (6 pi^2) / 1000, C in cm (computed).</summary>
    /// <exception cref="ArgumentOutOfRangeException">No breath makes that circumference.</exception>
    public static double LitresFromCircumference(double cm)
    {
        var (least, most) = CircumferenceCm;
        if (!(cm >= least && cm <= most))
            throw new ArgumentOutOfRangeException(
                nameof(cm),
                $"A balloon of {cm:0.#} cm round is no full breath: measure between {least:0} and {most:0} cm round, or "
                    + $"{least / Math.PI:0} and {most / Math.PI:0} cm across."
            );
        return cm * cm * cm / (6 * Math.PI * Math.PI) / 1000;
    }

    /// <summary>Litres in a round balloon of this diameter, cm.</summary>
    /// <exception cref="ArgumentOutOfRangeException">No breath makes that diameter.</exception>
    public static double LitresFromDiameter(double cm) => LitresFromCircumference(Math.PI * cm);

    /// <summary>Why another breath into the balloon has to wait; null where it may be.</summary>
    public static string? TooSoon(IEnumerable<BalloonReading> readings, BreathingPupil pupil, DateTime now)
    {
        if (pupil.Health != BreathHealth.None && !pupil.DoctorAgrees)
            return "The balloon is left out here. Follow your own doctor's advice.";
        if (pupil.Age < YoungestYears)
            return $"The balloon waits until the age of {YoungestYears}.";
        return readings.Count(reading => now - reading.At < TimeSpan.FromDays(7)) >= MostPerWeek
            ? $"{MostPerWeek} breaths into the balloon in seven days are the most."
            : null;
    }

    /// <summary>What the newest reading says against the three before it; a change counts only beyond their spread.</summary>
    public static string Change(IEnumerable<BalloonReading> readings)
    {
        var ordered = readings.OrderByDescending(reading => reading.At).Select(reading => reading.Litres).ToList();
        if (ordered.Count == 0)
            return "No reading yet.";
        var earlier = ordered.Skip(1).Take(3).ToList();
        if (earlier.Count < 2)
            return $"{ordered[0]:0.0} l. Two earlier readings are needed before a change can be told.";
        var (least, most) = (earlier.Min(), earlier.Max());
        return ordered[0] > most ? $"{ordered[0]:0.0} l: more than the last {earlier.Count}, which lay from {least:0.0} to {most:0.0} l."
            : ordered[0] < least ? $"{ordered[0]:0.0} l: less than the last {earlier.Count}, which lay from {least:0.0} to {most:0.0} l."
            : $"{ordered[0]:0.0} l: within the last {earlier.Count}, {least:0.0} to {most:0.0} l; no change.";
    }
}
