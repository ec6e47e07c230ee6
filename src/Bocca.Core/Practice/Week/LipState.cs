namespace Bocca.Core.Practice.Week;

/// <summary>A day of playing, as far as it tells how the lips are.</summary>
/// <param name="Day">The day, as a day number.</param>
/// <param name="Shares">What came of each take, 0 to 1, the first take first.</param>
/// <param name="HighSeconds">Seconds above the ceiling.</param>
public sealed record LipDay(int Day, IReadOnlyList<double> Shares, double HighSeconds);

/// <summary>
/// How tired the lips are, from what was said and what was heard: each sign is a step (common practice for the signs; the numbers are ours,
/// editable in the code).
/// </summary>
/// <param name="Tired">0 fresh to 3 very.</param>
/// <param name="Signs">Why, in sentences.</param>
public sealed record LipState(int Tired, IReadOnlyList<string> Signs)
{
    /// <summary>The most there is.</summary>
    public const int Most = 3;

    /// <summary>A third of a day has so many takes at least, and this much less of it comes, before that is a sign.</summary>
    private const int FewestOfThird = 2;

    private const double Falls = 0.15;

    /// <summary>So many days in a row that fall are a sign, and so many on which the ceiling's minutes were used up.</summary>
    private const int FallingDays = 3,
        HighDays = 2;

    /// <summary>Reads the state.</summary>
    /// <param name="said">What the pupil last said: <c>fresh</c>, <c>tired</c>, <c>sore</c>; empty for nothing.</param>
    /// <param name="days">The days of the last week on which something was played, the oldest first.</param>
    /// <param name="highSecondsADay">Seconds above the ceiling that a day may have.</param>
    public static LipState Of(string said, IReadOnlyList<LipDay> days, double highSecondsADay)
    {
        var signs = new List<string>();
        var tired = said switch
        {
            "sore" => 2,
            "tired" => 1,
            _ => 0,
        };
        if (tired > 0)
            signs.Add($"Lips were {said} last time.");
        if (days.Count > 0 && LastThirdFalls(days[^1].Shares))
            signs.Add("On the last day less came in the last third.");
        if (
            days.TakeLast(FallingDays).Select(day => day.Shares.DefaultIfEmpty(0).Average()).ToList() is { Count: FallingDays } means
            && Fall(means)
        )
            signs.Add("Three weaker days in a row.");
        if (days.Count(day => day.HighSeconds >= highSecondsADay) >= HighDays)
            signs.Add("The minutes above the ceiling were used up on two days.");
        return new LipState(Math.Min(Most, tired + signs.Count - (tired > 0 ? 1 : 0)), signs);
    }

    private static bool LastThirdFalls(IReadOnlyList<double> shares)
    {
        var third = shares.Count / 3;
        return third >= FewestOfThird && shares.TakeLast(third).Average() <= shares.SkipLast(third).Average() - Falls;
    }

    /// <summary>Whether each is less than the one before, and all of it more than chance would have it.</summary>
    private static bool Fall(List<double> means) =>
        means.Zip(means.Skip(1)).All(pair => pair.Second < pair.First) && means[0] - means[^1] >= Falls;
}
