using Bocca.Core.Teaching;

namespace Bocca.Core.Health;

/// <summary>Something that was played today.</summary>
/// <param name="End">When it ended.</param>
/// <param name="Elapsed">Seconds from its beginning to its end.</param>
/// <param name="Played">Seconds of them that count as playing.</param>
/// <param name="High">Seconds of them above the ceiling.</param>
public readonly record struct PlayedSpan(DateTime End, double Elapsed, double Played, double High);

/// <summary>The clock of a day's playing: how long since the last rest, and when the next one is due.</summary>
/// <param name="Limits">The limits that hold.</param>
/// <param name="OnSeconds">Seconds played since the last rest that was long enough.</param>
/// <param name="HighSeconds">Seconds played above the ceiling today.</param>
/// <param name="LastEnd">When the last of it ended; null where nothing was played since the last rest.</param>
public sealed record PlayingClock(PlayingLimits Limits, double OnSeconds, double HighSeconds, DateTime? LastEnd)
{
    /// <summary>Nobody has played yet.</summary>
    public static PlayingClock Fresh(PlayingLimits limits) => new(limits, 0, 0, null);

    /// <summary>Reads the clock.</summary>
    /// <param name="today">What was played today, kept or not.</param>
    /// <param name="limits">The limits that hold.</param>
    /// <param name="now">The moment.</param>
    public static PlayingClock Of(IEnumerable<PlayedSpan> today, PlayingLimits limits, DateTime now)
    {
        var clock = Fresh(limits);
        foreach (var span in today.OrderBy(each => each.End))
        {
            var rested = clock.Rested(span.End.AddSeconds(-span.Elapsed));
            clock = clock with
            {
                OnSeconds = (rested ? 0 : clock.OnSeconds) + span.Played,
                HighSeconds = clock.HighSeconds + span.High,
                LastEnd = span.End,
            };
        }

        return clock.Rested(now) ? clock with { OnSeconds = 0, LastEnd = null } : clock;
    }

    /// <summary>Seconds of rest still to come before the next playing; 0 where there is time left.</summary>
    /// <param name="now">The moment.</param>
    public double RestLeft(DateTime now) => OnSeconds >= Limits.OnSeconds ? RestFrom(now) : 0;

    /// <summary>Why something may not be played now, and the seconds of rest that would allow it; null where it may.</summary>
    /// <param name="played">Seconds of playing that it would be.</param>
    /// <param name="high">Seconds of them above the ceiling.</param>
    /// <param name="now">The moment.</param>
    public (string Sentence, double RestSeconds)? Refusal(double played, double high, DateTime now)
    {
        if (high > 0 && HighSeconds + high > Limits.HighSecondsADay)
            return (
                $"The notes above the ceiling have had their {Minutes(Limits.HighSecondsADay)} for today. Play in the middle, or rest.",
                0
            );
        if (played > Limits.OnSeconds)
            return ($"This is {Minutes(played)} of playing; {Minutes(Limits.OnSeconds)} at a time is the most. Shorten it.", 0);
        if (OnSeconds + played <= Limits.OnSeconds)
            return null;
        var rest = RestFrom(now);
        return ($"Instrument down: you have played {Minutes(OnSeconds)}. Rest for {Minutes(rest)}.", rest);
    }

    /// <summary>A time as people say it: <c>40 seconds</c>, <c>one minute</c>, <c>1 min 32 s</c>.</summary>
    public static string Minutes(double seconds) =>
        Math.Ceiling(seconds) is var whole && whole < 60 ? $"{whole:0} seconds"
        : whole % 60 == 0
            ? whole == 60 ? "one minute"
                : $"{whole / 60:0} minutes"
        : $"{Math.Floor(whole / 60):0} min {whole % 60:0} s";

    /// <summary>A time as a clock shows it, such as <c>2:05</c>.</summary>
    public static string Clock(double seconds) => $"{Math.Floor(Math.Ceiling(seconds) / 60):0}:{Math.Ceiling(seconds) % 60:00}";

    /// <summary>Seconds of a plan that count as playing: what sounds, and rests shorter than the sound before them.</summary>
    public static double PlayedSeconds(CuePlan plan) =>
        plan.BeatSeconds
        * plan.Tries.Where(cue => cue is { Silent: false, Voice: false })
            .Sum(cue => cue.SoundBeats + (cue.RestBeats < cue.SoundBeats ? cue.RestBeats : 0));

    private bool Rested(DateTime by) => LastEnd is { } end && (by - end).TotalSeconds >= Limits.OffSeconds;

    private double RestFrom(DateTime now) => LastEnd is { } end ? Math.Max(0, Limits.OffSeconds - (now - end).TotalSeconds) : 0;
}
