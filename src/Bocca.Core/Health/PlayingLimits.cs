using Bocca.Core.Teaching;

namespace Bocca.Core.Health;

/// <summary>
/// How long a learner plays before the instrument is put down, and for how long (common practice; editable towards less). Buzz, notes
/// and slurs count together.
/// </summary>
/// <param name="OnSeconds">Seconds of playing at a time, at most.</param>
/// <param name="OffSeconds">Seconds of rest after them, at least.</param>
/// <param name="HighSecondsADay">Seconds a day above the ceiling of the stage, at most.</param>
public sealed record PlayingLimits(double OnSeconds, double OffSeconds, double HighSecondsADay)
{
    /// <summary>The first days of a beginner.</summary>
    public const int FirstDays = 7;

    /// <summary>Seconds a day above the ceiling (common practice).</summary>
    private const double High = 120;

    /// <summary>The limits of a pupil.</summary>
    /// <param name="stage">How far the pupil has come.</param>
    /// <param name="daysPlayed">Days since the first lesson.</param>
    public static PlayingLimits For(LearningStage stage, int daysPlayed) =>
        stage switch
        {
            LearningStage.Pieces => new(900, 180, High),
            LearningStage.Second => new(600, 120, High),
            _ when daysPlayed < FirstDays => new(120, 120, High),
            _ => new(240, 60, High),
        };

    /// <summary>What a teacher may set otherwise: less playing, more rest.</summary>
    public static IReadOnlyList<NumberSetting> Settings { get; } =
    [
        new(
            "limits.onSeconds",
            "playing",
            "at a time, at most",
            "s",
            "then the instrument goes down; by stage 120 in the first week, 240, 600, 900",
            900,
            30,
            900,
            IsWhole: true
        ),
        new(
            "limits.offSeconds",
            "playing",
            "rest after it, at least",
            "s",
            "by stage 120 in the first week, 60, 120, 180",
            60,
            60,
            900,
            IsWhole: true
        ),
        new(
            "limits.highSeconds",
            "playing",
            "above the ceiling, a day",
            "s",
            "notes beyond the range of the stage",
            High,
            0,
            High,
            IsWhole: true
        ),
    ];

    /// <summary>The same with a teacher's own limits, which only lower.</summary>
    public PlayingLimits With(OwnSettings own) =>
        Within(
            new(
                own.Number("limits.onSeconds") ?? OnSeconds,
                own.Number("limits.offSeconds") ?? OffSeconds,
                own.Number("limits.highSeconds") ?? HighSecondsADay
            )
        );

    /// <summary>Half as long, with twice the rest.</summary>
    public PlayingLimits Halved => new(OnSeconds / 2, 2 * OffSeconds, HighSecondsADay / 2);

    /// <summary>The stricter of two in everything.</summary>
    public PlayingLimits Within(PlayingLimits other) =>
        new(Math.Min(OnSeconds, other.OnSeconds), Math.Max(OffSeconds, other.OffSeconds), Math.Min(HighSecondsADay, other.HighSecondsADay));
}
