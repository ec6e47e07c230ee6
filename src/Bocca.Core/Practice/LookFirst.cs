namespace Bocca.Core.Practice;

/// <summary>Why a pupil needs a look before others, the most pressing first (common practice).</summary>
public enum LookReason
{
    /// <summary>Something hurt.</summary>
    Hurt,

    /// <summary>The lips were tired or sore last time.</summary>
    Lips,

    /// <summary>The open step was tried and does not come.</summary>
    Stuck,

    /// <summary>A week was handed over, and nothing was kept.</summary>
    Silent,
}

/// <summary>What the record knows of a pupil, as far as it asks for a look.</summary>
/// <param name="HurtOn">The day on which something hurt, in words; null for none of late.</param>
/// <param name="Lips">What was last said of the lips; empty for nothing.</param>
/// <param name="Tried">How often the open step was tried.</param>
/// <param name="Step">The open step.</param>
/// <param name="DaysSilent">Days since something was kept, where a week was handed over; null for else.</param>
public sealed record LookFacts(string? HurtOn, string Lips, int Tried, string Step, int? DaysSilent);

/// <summary>A pupil who needs a look, and why. Nobody is ranked by amount.</summary>
/// <param name="Reason">Why.</param>
/// <param name="Words">The same in words.</param>
public sealed record LookFirst(LookReason Reason, string Words)
{
    /// <summary>Tries without its coming, and days without anything kept, from which on a look is needed (ours, editable).</summary>
    public const int StuckAfter = 3,
        SilentAfter = 10;

    /// <summary>Why a pupil needs a look; null where nothing says so.</summary>
    public static LookFirst? Of(LookFacts facts) =>
        facts switch
        {
            { HurtOn: { } day } => new(LookReason.Hurt, $"Something hurt {day}: ask first."),
            { Lips: "tired" or "sore" } => new(LookReason.Lips, $"Lips were {facts.Lips} last time."),
            { Tried: >= StuckAfter } => new(LookReason.Stuck, $"Tried {facts.Tried} times, not there yet: {facts.Step}"),
            { DaysSilent: >= SilentAfter and var days } => new(LookReason.Silent, $"Nothing kept for {days} days."),
            _ => null,
        };
}
