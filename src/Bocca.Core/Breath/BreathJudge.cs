using Bocca.Core.Sound;

namespace Bocca.Core.Breath;

/// <summary>How a breath drill went.</summary>
/// <param name="Even">Whether every out-breath was as long and as even as asked.</param>
/// <param name="HeardSeconds">The shortest unbroken out-breath; null if none was heard.</param>
/// <param name="VariationPercent">The largest variation; null if none was measured.</param>
/// <param name="Summary">What was heard, in a sentence or two.</param>
/// <param name="Try">What to try, in a sentence.</param>
public sealed record BreathVerdict(bool Even, double? HeardSeconds, double? VariationPercent, string Summary, string Try)
{
    /// <summary>A drill that nobody heard, tapped as even or not.</summary>
    public static BreathVerdict Tapped(bool even) =>
        even
            ? new(true, null, null, "Tapped: even to the end.", "The same once more, then the next one up.")
            : new(false, null, null, "Tapped: not even to the end.", "The same again, with less at the start and as much at the end.");

    /// <summary>A drill that was stopped after some seconds.</summary>
    public static BreathVerdict Stopped(double seconds) =>
        new(false, null, null, $"Stopped after {seconds:0} s.", "Breathe plainly for a while before going on.");
}

/// <summary>Judges a breath drill by what was heard of its out-breaths.</summary>
public static class BreathJudge
{
    /// <summary>Variation up to which a stream is even, per cent (ours, editable).</summary>
    public const double EvenPercent = 25;

    /// <summary>Counts that an out-breath may miss (ours, editable).</summary>
    private const double WithinCounts = 0.5;

    /// <summary>Slow and fast air are two from this far apart on (dB; common practice).</summary>
    public const double ApartDb = 6;

    /// <summary>The streams of a recording, one an out-breath of the plan.</summary>
    /// <param name="plan">What was asked.</param>
    /// <param name="sound">The recording.</param>
    /// <param name="firstInBreathSeconds">When the plan began, seconds into it.</param>
    public static IReadOnlyList<StreamHeard> Streams(BreathPlan plan, MonoSound sound, double firstInBreathSeconds) =>
        [
            .. plan.OutBreaths.Select(phase =>
                StreamHeard.Of(sound, firstInBreathSeconds + phase.StartSeconds - 0.3, firstInBreathSeconds + phase.EndSeconds + 0.4)
            ),
        ];

    /// <summary>Judges.</summary>
    /// <param name="plan">What was asked.</param>
    /// <param name="streams">One stream an out-breath, in order.</param>
    public static BreathVerdict Judge(BreathPlan plan, IReadOnlyList<StreamHeard> streams)
    {
        var asked = plan.OutBreaths.ToList();
        if (streams.All(stream => stream.StartSeconds is null))
            return new BreathVerdict(
                false,
                null,
                null,
                "No stream was heard.",
                "Bring the microphone a hand's width away, off to the side of the stream, and breathe out again."
            );
        if (asked.Exists(phase => phase.Air != AirSpeed.Usual))
            return Apart([.. streams.Zip(asked)]);
        var worst = streams.Zip(asked).OrderBy(pair => pair.First.UnbrokenSeconds - pair.Second.Seconds).First();
        var missing = worst.Second.Seconds - worst.First.UnbrokenSeconds;
        var variation = streams.Max(stream => stream.VariationPercent);
        var within = Counts.Seconds(WithinCounts, plan.Tempo);
        var lasted =
            $"{worst.First.UnbrokenSeconds:0.0} s unbroken ({worst.First.UnbrokenSeconds * plan.Tempo / 60:0.#} counts) of "
            + $"{worst.Second.Seconds:0.0} s asked";
        var level = variation is { } percent ? $", level varying by {percent:0} %." : ".";
        var sag = streams
            .SelectMany(stream => stream.Sags)
            .OrderByDescending(each => each.DropDb)
            .Select(each => (StreamSag?)each)
            .FirstOrDefault();
        if (missing > within)
            return new BreathVerdict(
                false,
                worst.First.UnbrokenSeconds,
                variation,
                $"{Capital(lasted)}{level}",
                "Let it out more slowly from the very start, and stop before it feels empty."
            );
        if (sag is { } weak)
            return new BreathVerdict(
                false,
                worst.First.UnbrokenSeconds,
                variation,
                $"{Capital(lasted)}{level} It sagged by {weak.DropDb:0} dB from {weak.FromSeconds:0.0} s to {weak.ToSeconds:0.0} s.",
                $"The same stream again, with {Part(weak, worst.First)}."
            );
        if (variation > EvenPercent)
            return new BreathVerdict(
                false,
                worst.First.UnbrokenSeconds,
                variation,
                $"{Capital(lasted)}{level} {EvenPercent:0} % still counts as even.",
                "One level from start to end, as if drawing a straight line."
            );
        return new BreathVerdict(
            true,
            worst.First.UnbrokenSeconds,
            variation,
            $"Even: {lasted}{level}",
            "The same once more, then the next one up."
        );
    }

    /// <summary>Slow and fast air beside each other: how far apart they lie in level.</summary>
    private static BreathVerdict Apart(IReadOnlyList<(StreamHeard Heard, TimedPhase Asked)> streams)
    {
        double? Level(AirSpeed air) =>
            streams.Where(pair => pair.Asked.Air == air).Select(pair => pair.Heard.MedianDb).OfType<double>().ToList() is { Count: > 0 } all
                ? all.Average()
                : null;
        var shortest = streams.Min(pair => pair.Heard.UnbrokenSeconds);
        if (Level(AirSpeed.Slow) is not { } slow || Level(AirSpeed.Fast) is not { } fast)
            return new BreathVerdict(
                false,
                shortest,
                null,
                "Only one of slow and fast air was heard.",
                "Each in turn: slow and warm, then fast and cool."
            );
        var apart = fast - slow;
        var heard =
            apart >= 0
                ? $"Fast air {apart:0} dB over slow; {ApartDb:0} dB is the aim."
                : $"Fast air {-apart:0} dB under slow: the two were changed about.";
        return apart >= ApartDb
            ? new BreathVerdict(true, shortest, null, heard, "Both are yours now: use the fast one for higher notes.")
            : new BreathVerdict(
                false,
                shortest,
                null,
                heard,
                apart < 0 ? "Slow first, then fast." : "Fast as if to put out a candle an arm away."
            );
    }

    private static string Part(StreamSag sag, StreamHeard stream) =>
        ((sag.FromSeconds + sag.ToSeconds) / 2 / stream.UnbrokenSeconds) switch
        {
            < 0.33 => "the start as strong as the rest",
            < 0.67 => "the middle as strong as the start",
            _ => "the end as strong as the start",
        };

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
