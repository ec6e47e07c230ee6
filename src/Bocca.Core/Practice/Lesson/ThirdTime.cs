namespace Bocca.Core.Practice.Lesson;

/// <summary>What is proposed after the third time through.</summary>
public enum ThirdProposal
{
    /// <summary>Go on to the next thing.</summary>
    On,

    /// <summary>Once more.</summary>
    Again,

    /// <summary>Something easier first.</summary>
    StepBack,
}

/// <summary>How a time through went.</summary>
/// <param name="Share">The share of its tries, notes or changes that came, 0 to 1.</param>
/// <param name="Clean">Whether it passed.</param>
public readonly record struct TimeThrough(double Share, bool Clean);

/// <summary>The mood that a teacher sees.</summary>
public enum LessonMood
{
    /// <summary>At work.</summary>
    Fine,

    /// <summary>Tense or cross.</summary>
    Tense,

    /// <summary>Tired.</summary>
    Tired,
}

/// <summary>
/// What a teacher does after the third time through the same (common practice; the numbers are ours, editable in the code): on where it is
/// clean, again where it gains, a step back where it does not.
/// </summary>
/// <param name="What">What is proposed.</param>
/// <param name="Sentence">Why.</param>
public sealed record ThirdTime(ThirdProposal What, string Sentence)
{
    /// <summary>From so many times through on something is proposed, and so many clean ones are enough.</summary>
    public const int Times = 3,
        CleanEnough = 2;

    /// <summary>Less than this more of a share is no gain.</summary>
    private const double Gain = 0.1;

    /// <summary>What to propose; null before the third time.</summary>
    /// <param name="times">The times through of this drill in this lesson, the oldest first.</param>
    /// <param name="minutesLeft">Minutes left of this part of the lesson; below 0 where it is over.</param>
    /// <param name="mood">The mood.</param>
    public static ThirdTime? Of(IReadOnlyList<TimeThrough> times, double minutesLeft, LessonMood mood)
    {
        if (times.Count < Times)
            return null;
        var last = times.TakeLast(Times).ToList();
        var clean = last.Count(each => each.Clean);
        if (clean >= CleanEnough)
            return new(ThirdProposal.On, $"{clean} of the last {Times} were clean: on to the next.");
        var gained = last[^1].Share - last[0].Share;
        if (mood != LessonMood.Fine)
            return new(
                ThirdProposal.StepBack,
                mood == LessonMood.Tired
                    ? "The third time, and tired: something easier, and a rest."
                    : "The third time, and tense: something that comes, then this again another day."
            );
        if (gained >= Gain && minutesLeft > 0)
            return new(ThirdProposal.Again, $"Getting better ({Percent(last[0].Share)} to {Percent(last[^1].Share)}). Once more.");
        if (gained >= Gain)
            return new(
                ThirdProposal.On,
                $"Getting better ({Percent(last[0].Share)} to {Percent(last[^1].Share)}), but its minutes are over: next."
            );
        return minutesLeft > 0
            ? new(ThirdProposal.StepBack, "The third time without gain: a step back, slower or shorter, then this again.")
            : new(ThirdProposal.On, "The third time without gain and its minutes are over: leave it for the week, and on.");
    }

    private static string Percent(double share) => $"{100 * share:0} %";
}
