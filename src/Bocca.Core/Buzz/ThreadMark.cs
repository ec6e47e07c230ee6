using Bocca.Core.Buzz.Measures;

namespace Bocca.Core.Buzz;

/// <summary>What a mark on a thread shows.</summary>
public enum MarkKind
{
    /// <summary>Where the start slid into the pitch.</summary>
    Scoop,

    /// <summary>The straight line that the pitch drifted along.</summary>
    Drift,

    /// <summary>Where it swung to and fro.</summary>
    Wobble,

    /// <summary>A hole or a leap.</summary>
    Break,

    /// <summary>How it ended.</summary>
    End,
}

/// <summary>Where on a thread a measure was found.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Try">The try, from 1.</param>
/// <param name="From">Seconds from the try's start.</param>
/// <param name="To">Seconds from the try's start; the same for a moment.</param>
/// <param name="Outside">Whether it lies outside its band.</param>
/// <param name="Words">What it says, with its number.</param>
public sealed record ThreadMark(MarkKind Kind, int Try, double From, double To, bool Outside, string Words)
{
    private const double EdgeSeconds = 0.15;
    private const double FallCents = 150;

    /// <summary>The marks of a take.</summary>
    public static IReadOnlyList<ThreadMark> Of(TakeMeasures take, StageBands bands) =>
        [.. take.Spoken.Where(attempt => attempt.IsLevel).SelectMany(attempt => Of(attempt, bands))];

    private static IEnumerable<ThreadMark> Of(AttemptMeasures attempt, StageBands bands)
    {
        var length = attempt.EndSeconds!.Value - attempt.StartSeconds!.Value;
        ThreadMark Mark(MarkKind kind, double from, double to, bool outside, string words) =>
            new(kind, attempt.Number, Math.Round(from, 2), Math.Round(to, 2), outside, words);
        // A tone that fell to another has no one pitch to slide into, drift along or swing about.
        var fell = Math.Abs(attempt.EndCents ?? 0) >= FallCents;
        if (!fell && attempt.ScoopCents is { } scoop && Math.Abs(scoop) > bands.ScoopCents / 2)
            yield return Mark(MarkKind.Scoop, 0.03, 0.08, Math.Abs(scoop) > bands.ScoopCents, $"scoop {scoop:+0;−0;0}");
        if (!fell && attempt.DriftCentsPerSecond is { } drift && Math.Abs(drift) > bands.DriftCentsPerSecond)
            yield return Mark(MarkKind.Drift, EdgeSeconds, length - EdgeSeconds, true, $"{drift:+0;−0;0} a second");
        if (!fell && bands.Wobble(attempt) is { } swing && swing > bands.WobbleCents)
            yield return Mark(MarkKind.Wobble, EdgeSeconds, length - EdgeSeconds, true, $"swings {swing:0}, {attempt.WobbleHz:0.0} Hz");
        foreach (var hole in attempt.BreakSeconds)
            yield return Mark(
                MarkKind.Break,
                hole,
                hole,
                fell || attempt.Breaks > bands.Breaks,
                fell ? $"falls at {hole:0.0} s" : $"break at {hole:0.0} s"
            );
        if (attempt.Ending is { } ending)
            yield return Mark(
                MarkKind.End,
                length,
                length,
                !fell && ending == Ending.TrailingOff,
                fell
                    ? "ends lower"
                    : ending switch
                    {
                        Ending.Closed => "closed",
                        Ending.Tapered => "tapered",
                        Ending.TrailingOff => "trails off",
                        _ => "ends",
                    }
            );
    }
}
