namespace Bocca.Core.Breath;

/// <summary>How sure a figure is.</summary>
public enum Sureness
{
    /// <summary>The longest stands alone, or none was measured.</summary>
    Guess,

    /// <summary>Two within 15 % of the longest, one measured.</summary>
    Fair,

    /// <summary>Three or more measured within 15 % of the longest.</summary>
    Sure,
}

/// <summary>A pupil's usable breath: what breath planning reckons with.</summary>
/// <param name="Seconds">Four fifths of the longest even stream (ours, editable).</param>
/// <param name="Longest">The longest even stream, s.</param>
/// <param name="At">The newest of the readings.</param>
/// <param name="Sureness">How sure that is.</param>
public sealed record UsableBreath(double Seconds, double Longest, DateTime At, Sureness Sureness)
{
    private const double Share = 0.8;
    private const double Close = 0.15;

    /// <summary>How long a stream still says something of the breath (ours, editable).</summary>
    public static TimeSpan Fresh { get; } = TimeSpan.FromDays(42);

    /// <summary>From the even passes of the last six weeks; null where there is none.</summary>
    public static UsableBreath? From(IEnumerable<BreathPass> passes, DateTime now)
    {
        var even = passes.Where(pass => pass.Even && now - pass.At <= Fresh).OrderByDescending(pass => pass.Seconds).ToList();
        if (even.Count == 0)
            return null;
        var near = even.TakeWhile(pass => pass.Seconds >= (1 - Close) * even[0].Seconds).ToList();
        var measured = near.Count(pass => pass.Measured);
        var sureness =
            measured >= 3 ? Sureness.Sure
            : near.Count >= 2 && measured > 0 ? Sureness.Fair
            : Sureness.Guess;
        return new UsableBreath(Share * even[0].Seconds, even[0].Seconds, near.Max(pass => pass.At), sureness);
    }
}
