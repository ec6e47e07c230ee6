using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz;

/// <summary>How long the free lips may buzz in a day: a limit that no setting lifts.</summary>
public static class LipTime
{
    /// <summary>Seconds a day of buzzing without a mouthpiece (ours, editable downward only).</summary>
    public const double MostSecondsADay = 300;

    /// <summary>Whether a drill still fits into the day; a sentence that says why not, or null.</summary>
    /// <param name="plan">What is to be played.</param>
    /// <param name="on">On what.</param>
    /// <param name="secondsToday">Seconds of drills on the lips alone today.</param>
    /// <param name="own">The teacher's own limit, which only lowers it.</param>
    public static string? Refusal(CuePlan plan, SoundStage on, double secondsToday, OwnSettings? own = null)
    {
        var most = Math.Min(MostSecondsADay, (own ?? OwnSettings.None).Number(Setting.Path) ?? MostSecondsADay);
        return on == SoundStage.Lips && secondsToday + plan.TotalSeconds > most
            ? $"The lips alone have buzzed for {secondsToday / 60:0.0} minutes today; with this drill it would be over "
                + $"{most / 60:0.#}. Rest them, or take the mouthpiece."
            : null;
    }

    /// <summary>What a teacher may set lower.</summary>
    public static NumberSetting Setting { get; } =
        new(
            "limits.lipsSeconds",
            "playing",
            "lips alone, a day",
            "s",
            "buzzing without a mouthpiece",
            MostSecondsADay,
            0,
            MostSecondsADay,
            IsWhole: true
        );
}
