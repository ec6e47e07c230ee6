using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Counting;

/// <summary>
/// How long a machine takes from a sound that it is to make until it hears it: out through the loudspeaker, in through the microphone. What
/// is clapped to a count comes that much late, and nobody is to be blamed for it.
/// </summary>
/// <param name="Milliseconds">The median.</param>
/// <param name="SpreadMs">How far single ones lie from it: the median of their distances.</param>
/// <param name="Count">How many were found.</param>
public sealed record MachineDelay(double Milliseconds, double SpreadMs, int Count)
{
    /// <summary>So many of the clicks have to be found (ours).</summary>
    private const double LeastShare = 0.6;

    /// <summary>A machine takes no longer than this, seconds; nobody taps further from a click.</summary>
    private const double Longest = 0.6,
        FurthestTap = 0.25;

    /// <summary>A machine that is not the same each time by more than this cannot be reckoned with, milliseconds (ours).</summary>
    private const double WidestMs = 25;

    /// <summary>The delay from clicks that were played and what the microphone heard of them.</summary>
    /// <param name="sound">What was heard.</param>
    /// <param name="clickSeconds">When each click was to sound, seconds into it.</param>
    /// <exception cref="ArgumentException">Too few were heard, or they do not agree; the message says what to do.</exception>
    public static MachineDelay OfClicks(MonoSound sound, IReadOnlyList<double> clickSeconds)
    {
        var heard = ClapFinder.Find(sound).Select(clap => clap.Seconds).ToList();
        var delays = clickSeconds
            .Select(click => heard.Select(at => at - click).Where(late => late is > -0.01 and < Longest).DefaultIfEmpty(double.NaN).Min())
            .Where(late => !double.IsNaN(late))
            .ToList();
        return delays.Count < LeastShare * clickSeconds.Count
            ? throw new ArgumentException(
                $"Only {delays.Count} of {clickSeconds.Count} clicks were heard. "
                    + "Turn the loudspeaker up, take headphones off, and try again."
            )
            : Of(delays, "The clicks were not heard alike each time. In a quieter room, try again.");
    }

    /// <summary>The delay from taps against a click: the machine's way out and the tapper's own habit together.</summary>
    /// <param name="clickSeconds">When each click was to sound.</param>
    /// <param name="tapSeconds">When taps came, by the same clock.</param>
    /// <exception cref="ArgumentException">Too few taps came, or they do not agree.</exception>
    public static MachineDelay OfTaps(IReadOnlyList<double> clickSeconds, IReadOnlyList<double> tapSeconds)
    {
        var delays = clickSeconds
            .Select(click => tapSeconds.Select(tap => tap - click).DefaultIfEmpty(double.NaN).MinBy(Math.Abs))
            .Where(late => Math.Abs(late) <= FurthestTap)
            .ToList();
        return delays.Count < LeastShare * clickSeconds.Count
            ? throw new ArgumentException(
                $"Only {delays.Count} of {clickSeconds.Count} clicks were tapped to. Tap with every click, and try again."
            )
            : Of(delays, "The taps lie too far apart to tell a delay from them. Tap with the clicks, and try again.");
    }

    /// <summary>
    /// What is the tapper's own: taps less the machine's way out. Most people tap some hundredths of a second before a click (published:
    /// Aschersleben 2002, doi:10.1006/brcg.2001.1304).
    /// </summary>
    /// <param name="outMs">The machine's way out, milliseconds.</param>
    public double HabitMs(double outMs) => Milliseconds - outMs;

    private static MachineDelay Of(List<double> delays, string otherwise)
    {
        var median = delays.Median();
        var spread = delays.Select(late => Math.Abs(late - median)).Median();
        return 1000 * spread > WidestMs
            ? throw new ArgumentException(otherwise)
            : new MachineDelay(1000 * median, 1000 * spread, delays.Count);
    }
}
