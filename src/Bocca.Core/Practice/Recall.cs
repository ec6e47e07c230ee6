namespace Bocca.Core.Practice;

/// <summary>How an answer went, in the four grades of the recall schedule.</summary>
public enum RecallGrade
{
    /// <summary>Not known.</summary>
    Again = 1,

    /// <summary>Known, but slowly.</summary>
    Hard = 2,

    /// <summary>Known.</summary>
    Good = 3,

    /// <summary>Known at once.</summary>
    Easy = 4,
}

/// <summary>
/// How firmly something is remembered, by the Free Spaced Repetition Scheduler, version 6, with its published default
/// parameters (published: open-spaced-repetition, "The Algorithm", FSRS-6; after Ye, Su and Cao 2022, doi:10.1145/3534678.3539081).
/// </summary>
/// <param name="StabilityDays">Days after which it is recalled with 90 % likelihood.</param>
/// <param name="Difficulty">1, easy, to 10, hard.</param>
public readonly record struct Recall(double StabilityDays, double Difficulty)
{
    /// <summary>The likelihood of recall at which it is due again.</summary>
    public const double DueAt = 0.9;

    private const double ShortestStability = 0.001,
        LongestStability = 36500;

    /// <summary>The default parameters w0 to w20.</summary>
    private static readonly double[] W =
    [
        0.212,
        1.2931,
        2.3065,
        8.2956,
        6.4133,
        0.8334,
        3.0194,
        0.001,
        1.8722,
        0.1666,
        0.796,
        1.4835,
        0.0614,
        0.2629,
        1.6483,
        0.6014,
        1.8729,
        0.5425,
        0.0912,
        0.0658,
        0.1542,
    ];

    private static double Factor => Math.Pow(0.9, -1 / W[20]) - 1;

    /// <summary>What is remembered after a first answer.</summary>
    public static Recall First(RecallGrade grade) => new(W[(int)grade - 1], Math.Clamp(FirstDifficulty(grade), 1, 10));

    /// <summary>What is remembered after an answer, and the day on which it is due again.</summary>
    /// <param name="before">What was remembered before; null for the first answer.</param>
    /// <param name="seen">The day of the answer before.</param>
    /// <param name="today">The day of this one; a clock set back counts as the same day.</param>
    /// <param name="grade">How it went.</param>
    public static (Recall Recall, DateOnly Due) Answered(Recall? before, DateOnly seen, DateOnly today, RecallGrade grade)
    {
        var recall = before?.After(Math.Max(0, today.DayNumber - seen.DayNumber), grade) ?? First(grade);
        return (recall, today.AddDays(recall.DaysUntilDue));
    }

    /// <summary>Likelihood that it is recalled after so many days, 0 to 1: (1 + F t / S)^-w20.</summary>
    public double LikelihoodAfter(double days) => Math.Pow(1 + (Factor * days / StabilityDays), -W[20]);

    /// <summary>Whole days until it is due, at least 1.</summary>
    public int DaysUntilDue => (int)Math.Clamp(Math.Round(StabilityDays / Factor * (Math.Pow(DueAt, -1 / W[20]) - 1)), 1, LongestStability);

    /// <summary>What is remembered after another answer.</summary>
    /// <param name="days">Whole days since the answer before; 0 for the same day.</param>
    /// <param name="grade">How it went.</param>
    /// <exception cref="ArgumentOutOfRangeException">The days are below 0.</exception>
    public Recall After(int days, RecallGrade grade)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(days);
        var stability =
            days == 0 ? SameDay(grade)
            : grade == RecallGrade.Again ? Forgotten(days)
            : Recalled(days, grade);
        return new Recall(Math.Clamp(stability, ShortestStability, LongestStability), NextDifficulty(grade));
    }

    private static double FirstDifficulty(RecallGrade grade) => W[4] - Math.Exp(W[5] * ((int)grade - 1)) + 1;

    private double NextDifficulty(RecallGrade grade)
    {
        var change = -W[6] * ((int)grade - 3);
        var damped = Difficulty + (change * (10 - Difficulty) / 9);
        return Math.Clamp((W[7] * FirstDifficulty(RecallGrade.Easy)) + ((1 - W[7]) * damped), 1, 10);
    }

    private double SameDay(RecallGrade grade)
    {
        var growth = Math.Pow(StabilityDays, -W[19]) * Math.Exp(W[17] * ((int)grade - 3 + W[18]));
        return StabilityDays * (grade >= RecallGrade.Hard ? Math.Max(growth, 1) : growth);
    }

    private double Recalled(double days, RecallGrade grade) =>
        StabilityDays
        * (
            1
            + (
                Math.Exp(W[8])
                * (11 - Difficulty)
                * Math.Pow(StabilityDays, -W[9])
                * (Math.Exp((1 - LikelihoodAfter(days)) * W[10]) - 1)
                * (grade == RecallGrade.Hard ? W[15] : 1)
                * (grade == RecallGrade.Easy ? W[16] : 1)
            )
        );

    /// <summary>After forgetting it is never firmer than before.</summary>
    private double Forgotten(double days) =>
        Math.Min(
            W[11] * Math.Pow(Difficulty, -W[12]) * (Math.Pow(StabilityDays + 1, W[13]) - 1) * Math.Exp((1 - LikelihoodAfter(days)) * W[14]),
            StabilityDays / Math.Exp(W[17] * W[18])
        );
}
