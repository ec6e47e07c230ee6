using MathNet.Numerics.Statistics;

namespace Bocca.Core.Fingering.Trainer;

/// <summary>A way from one setting to another, and how fast the hand goes it.</summary>
/// <param name="From">From which.</param>
/// <param name="To">To which.</param>
/// <param name="Seconds">Median time of right answers, seconds.</param>
/// <param name="Times">How often it was gone.</param>
/// <param name="Missed">How often it was missed.</param>
public sealed record HandChange(string From, string To, double Seconds, int Times, int Missed)
{
    /// <summary>A change this many times slower than the usual one is slow (ours, editable).</summary>
    public const double SlowTimes = 1.3;

    /// <summary>In words, such as <c>1-2 to 2-3: 1.4 s, missed 1 of 5</c>.</summary>
    public string Words => $"{From} to {To}: {Seconds:0.0} s{(Missed > 0 ? $", missed {Missed} of {Times}" : "")}";
}

/// <summary>What a drill of the hand came to.</summary>
/// <param name="Right">Right answers.</param>
/// <param name="Asked">All answers.</param>
/// <param name="TotalSeconds">Time for all of them.</param>
/// <param name="MedianSeconds">Median time of a right answer; 0 where none was right.</param>
/// <param name="Weakest">The changes to work on, the weakest first.</param>
/// <param name="Passed">Whether its gate is passed.</param>
/// <param name="Summary">What was done, in a sentence.</param>
/// <param name="Next">What to do next, in a sentence.</param>
public sealed record HandOutcome(
    int Right,
    int Asked,
    double TotalSeconds,
    double MedianSeconds,
    IReadOnlyList<HandChange> Weakest,
    bool Passed,
    string Summary,
    string Next
)
{
    /// <summary>The gate of the settings in order: seven in so many seconds (common practice).</summary>
    public const double SecondsForSeven = 20;

    /// <summary>The gate of everything else: this share right (ours, editable).</summary>
    private const double EnoughShare = 0.9;

    private const int MostWeak = 4;

    /// <summary>Judges the answers of a drill.</summary>
    public static HandOutcome Of(HandDrill drill, IReadOnlyList<HandMark> marks)
    {
        var (right, total) = (marks.Count(mark => mark.Right), marks.Sum(mark => mark.Seconds));
        var median = Median(marks.Where(mark => mark.Right).Select(mark => mark.Seconds));
        var weakest = Changes(marks)
            .Where(change => change.Missed > 0 || (median > 0 && change.Seconds > HandChange.SlowTimes * median))
            .Take(MostWeak)
            .ToList();
        var timed = drill.Task is HandTask.InOrder or HandTask.Backward;
        var seven = marks.Count == 0 ? 0 : 7 * total / marks.Count;
        var passed = marks.Count > 0 && (timed ? right == marks.Count && seven <= SecondsForSeven : right >= EnoughShare * marks.Count);
        var summary =
            $"{right} of {marks.Count} right, {median:0.0} s each{(timed && marks.Count > 0 ? $"; seven take {seven:0} s" : "")}.";
        var next =
            weakest is [var first, ..]
                ? $"Slowest: {first.From} to {first.To}. "
                    + $"{(first.Missed > 0 ? "Say it aloud, set it, look." : "Go that one way back and forth, slowly, four times.")}"
            : passed ? $"{drill.Name} is safe: go on."
            : "The same once more.";
        return new HandOutcome(right, marks.Count, total, median, weakest, passed, summary, next);
    }

    /// <summary>The changes of setting in a list of answers, the weakest first: missed ones, then slow ones.</summary>
    public static IReadOnlyList<HandChange> Changes(IEnumerable<HandMark> marks) =>
        [
            .. marks
                .Where(mark => mark.From != "" && mark.From != mark.Answer)
                .GroupBy(mark => (mark.From, mark.Answer))
                .Select(group => new HandChange(
                    group.Key.From,
                    group.Key.Answer,
                    Median(group.Where(mark => mark.Right).Select(mark => mark.Seconds)),
                    group.Count(),
                    group.Count(mark => !mark.Right)
                ))
                .OrderByDescending(change => (double)change.Missed / change.Times)
                .ThenByDescending(change => change.Seconds),
        ];

    /// <summary>The median of some times; 0 where there are none.</summary>
    public static double Median(IEnumerable<double> values)
    {
        var all = values.ToList();
        return all.Count == 0 ? 0 : all.Median();
    }
}
