using Bocca.Core.Health;
using Bocca.Core.Teaching;

namespace Bocca.Core.Practice.Week;

/// <summary>How much of something is done: counts, what of them sounds, how long it takes. It is added up, never said by heart.</summary>
/// <param name="Counts">Counts of the whole, rests included.</param>
/// <param name="Sounding">Counts that sound.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="PlayedSeconds">Seconds that count as playing.</param>
public sealed record Amount(double Counts, double Sounding, double Tempo, double PlayedSeconds)
{
    /// <summary>How often it is done, one after the other; the numbers are those of all of them.</summary>
    public int Times { get; init; } = 1;

    /// <summary>The same so many times over.</summary>
    public Amount Repeated(int times) => new(Counts * times, Sounding * times, Tempo, PlayedSeconds * times) { Times = Times * times };

    /// <summary>Seconds of the whole.</summary>
    public double Seconds => Counts * 60 / Tempo;

    /// <summary>The amount of a plan.</summary>
    public static Amount Of(CuePlan plan) =>
        new(plan.TotalBeats, plan.Tries.Sum(cue => cue.SoundBeats), plan.Tempo, PlayingClock.PlayedSeconds(plan));

    /// <summary>The amount of so many counts on and off, so many times.</summary>
    public static Amount Of(double on, double off, int times, double tempo) =>
        Of(new CuePlan(tempo, [.. Enumerable.Range(0, times).Select(time => new Cue(time * (on + off), on, off, "", Cue.Level))]));

    /// <summary>In words, such as <c>32 counts at 80, three times; 1 min 12 s</c>.</summary>
    public string Words =>
        $"{Counts / Times:0.#} counts at {Tempo:0}"
        + Times switch
        {
            1 => "",
            2 => ", twice",
            _ => $", {Judging.Words.Of(Times)} times",
        }
        + $"; {PlayingClock.Minutes(Seconds)}";

    /// <summary>The same where there is little room, such as <c>3 × 32 at 80, 1:12</c>.</summary>
    public string Short => $"{(Times > 1 ? $"{Times} × " : "")}{Counts / Times:0.#} at {Tempo:0}, {PlayingClock.Clock(Seconds)}";

    /// <summary>
    /// Whether an amount adds up to the minutes that somebody gave it; a sentence that says what it does come to, or null.
    /// </summary>
    /// <param name="minutes">The minutes given.</param>
    public string? DoesNotAddUpTo(double minutes)
    {
        if (Math.Abs((minutes * 60) - Seconds) <= Math.Max(15, 0.25 * Seconds))
            return null;
        var rounds = Math.Max(1, Math.Round(minutes * 60 / Seconds));
        return $"That takes {PlayingClock.Minutes(Seconds)}, not {PlayingClock.Minutes(minutes * 60)}"
            + (rounds > 1 ? $": {rounds:0} rounds would." : ".");
    }
}
