using Bocca.Core.Teaching;

namespace Bocca.Core.Breath;

/// <summary>A phase of a plan in time.</summary>
/// <param name="Kind">What the breath does.</param>
/// <param name="StartSeconds">When it starts, from the first in-breath.</param>
/// <param name="Seconds">How long it lasts.</param>
/// <param name="Counts">The same in counts.</param>
/// <param name="Cycle">Which cycle it belongs to, from 1.</param>
/// <param name="Air">How quickly the air goes out.</param>
public readonly record struct TimedPhase(
    BreathPhaseKind Kind,
    double StartSeconds,
    double Seconds,
    double Counts,
    int Cycle,
    AirSpeed Air = AirSpeed.Usual
)
{
    /// <summary>When it ends.</summary>
    public double EndSeconds => StartSeconds + Seconds;
}

/// <summary>A plan, or the sentence that says why there is none.</summary>
/// <param name="Plan">The plan; null if it was refused.</param>
/// <param name="Refusal">Why; null if there is a plan.</param>
public sealed record BreathAnswer(BreathPlan? Plan, string? Refusal);

/// <summary>
/// A breath drill worked out in seconds. Only <see cref="Make"/> makes one, and it refuses what exceeds the pupil's
/// <see cref="BreathLimits"/>: no plan beyond them exists.
/// </summary>
public sealed record BreathPlan
{
    /// <summary>A breath in and out of no more than this is a fast one (s; ours, editable upward only).</summary>
    private const double FastBreathSeconds = 2;

    private BreathPlan(BreathDrill drill, BreathPattern pattern, double tempo, BreathingPupil pupil)
    {
        (Drill, Pattern, Tempo, Caution) = (drill, pattern, tempo, pupil.Caution);
        Phases = [.. Timed(pattern, tempo)];
    }

    /// <summary>The drill.</summary>
    public BreathDrill Drill { get; }

    /// <summary>Its pattern.</summary>
    public BreathPattern Pattern { get; }

    /// <summary>Beats a minute.</summary>
    public double Tempo { get; }

    /// <summary>The phases in order, a rest after every held breath included.</summary>
    public IReadOnlyList<TimedPhase> Phases { get; }

    /// <summary>What to heed; null where there is nothing.</summary>
    public string? Caution { get; }

    /// <summary>Seconds from the first in-breath to the end.</summary>
    public double TotalSeconds => Phases[^1].EndSeconds;

    /// <summary>Seconds in which something is asked of the breath.</summary>
    public double DrilledSeconds => Phases.Where(phase => phase.Kind != BreathPhaseKind.Rest).Sum(phase => phase.Seconds);

    /// <summary>The phases parted into breaths, each from one in-breath to the next.</summary>
    public IReadOnlyList<IReadOnlyList<TimedPhase>> Breaths
    {
        get
        {
            var breaths = new List<List<TimedPhase>>();
            foreach (var phase in Phases)
            {
                if (breaths.Count == 0 || phase.Kind == BreathPhaseKind.In)
                    breaths.Add([]);
                breaths[^1].Add(phase);
            }

            return breaths;
        }
    }

    /// <summary>Breaths that are held.</summary>
    public int HeldBreaths => Breaths.Count(breath => breath.Any(phase => phase.Kind == BreathPhaseKind.Hold));

    /// <summary>The out-breaths.</summary>
    public IEnumerable<TimedPhase> OutBreaths => Phases.Where(phase => phase.Kind == BreathPhaseKind.Out);

    /// <summary>Makes a plan, or says in one sentence why it may not be.</summary>
    /// <param name="drill">The drill.</param>
    /// <param name="pattern">One of its patterns, or one like them.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="pupil">Who breathes.</param>
    /// <param name="day">What was done today.</param>
    public static BreathAnswer Make(BreathDrill drill, BreathPattern pattern, double tempo, BreathingPupil pupil, BreathDay day)
    {
        if (Malformed(pattern, tempo) is { } problem)
            return new BreathAnswer(null, problem);
        var plan = new BreathPlan(drill, pattern, tempo, pupil);
        var refusal = TooMuch(plan, BreathLimits.For(pupil)) ?? TooMuchToday(plan, BreathLimits.For(pupil), day);
        return refusal is null ? new BreathAnswer(plan, null) : new BreathAnswer(null, refusal);
    }

    private static string? Malformed(BreathPattern pattern, double tempo)
    {
        var (slowest, fastest) = CuePlan.TempoRange;
        if (!(tempo >= slowest && tempo <= fastest))
            return $"A tempo of {tempo:0.#} is outside {slowest} to {fastest} beats a minute.";
        if (
            pattern.Phases.Count(phase => phase.Kind == BreathPhaseKind.In) > 1
            && pattern.Phases.Any(phase => phase.Kind == BreathPhaseKind.Hold)
        )
            return "A pattern with a hold has one breath a cycle; the rest between them goes in by itself.";
        return pattern.Phases.Count == 0 || pattern.Cycles is < 1 or > 40 || pattern.Phases.Any(phase => !(phase.Counts is > 0 and <= 64))
            ? "A breath pattern needs one phase or more, each over 0 and at most 64 counts, and 1 to 40 cycles."
            : null;
    }

    private static string? TooMuch(BreathPlan plan, BreathLimits limits)
    {
        const double Hair = 1e-9;
        double Sum(IEnumerable<TimedPhase> breath, params BreathPhaseKind[] kinds) =>
            breath.Where(phase => kinds.Contains(phase.Kind)).Sum(phase => phase.Seconds);
        foreach (var breath in plan.Breaths)
        {
            var held = breath.Any(phase => phase.Kind is BreathPhaseKind.Hold or BreathPhaseKind.Sip);
            if (held && limits.HoldSeconds == 0)
                return "Holding the breath is not for this pupil.";
            if (
                held
                && breath
                    .SkipWhile(phase => phase.Kind == BreathPhaseKind.Rest)
                    .TakeWhile(phase => phase.Kind != BreathPhaseKind.Out)
                    .Any(phase => phase.Kind == BreathPhaseKind.Rest)
            )
                return "No rest can stand inside a held breath.";
            if (LongestHold(breath) is var hold && hold > limits.HoldSeconds + Hair)
                return $"A hold of {hold:0.#} s is refused: {limits.HoldSeconds:0.#} s is the most.";
            if (Sum(breath, BreathPhaseKind.Hold, BreathPhaseKind.Sip) > limits.HeldSecondsPerBreath + Hair)
                return $"Held for more than {limits.HeldSecondsPerBreath:0.#} s in one breath: refused.";
            if (breath.Count(phase => phase.Kind == BreathPhaseKind.Sip) > limits.Sips)
                return limits.Sips == 0
                    ? "Topping up a held breath is not for this pupil."
                    : $"More than {limits.Sips} sips in one breath: refused.";
            var outSeconds = Sum(breath, BreathPhaseKind.Out);
            if (
                outSeconds > limits.OutSeconds + Hair
                || outSeconds > Breath.Counts.Seconds(limits.OutCounts, plan.Tempo) + Hair
                || Sum(breath, BreathPhaseKind.In) > limits.OutSeconds + Hair
            )
                return $"Out for {outSeconds:0.#} s is refused: {limits.OutSeconds:0} s and {limits.OutCounts:0} counts are the most.";
        }

        if (plan.HeldBreaths > limits.HoldRounds)
            return $"{plan.HeldBreaths} held breaths are refused: {limits.HoldRounds} is the most.";
        return TooFast(plan, limits);
    }

    /// <summary>Whatever a drill calls itself, breath after breath of a second each way is over-breathing.</summary>
    private static string? TooFast(BreathPlan plan, BreathLimits limits)
    {
        var fast = plan.Breaths.Count(breath =>
            breath.Sum(phase => phase.Seconds) <= FastBreathSeconds
            && breath.Any(phase => phase.Kind == BreathPhaseKind.In)
            && breath.Any(phase => phase.Kind == BreathPhaseKind.Out)
        );
        if (plan.Drill.Kind == BreathKind.Exchange || fast > 0)
        {
            if (limits.ExchangesPerDay == 0)
                return "Fast exchange is not for this pupil.";
            if (plan.Tempo > limits.FastTempo)
                return $"Fast exchange at {plan.Tempo:0} is refused: {limits.FastTempo:0} beats a minute is the most.";
        }

        return fast > limits.FastCycles ? $"{fast} fast cycles are refused: {limits.FastCycles} is the most." : null;
    }

    /// <summary>The longest hold, parts that follow each other taken as one.</summary>
    private static double LongestHold(IReadOnlyList<TimedPhase> breath)
    {
        double longest = 0,
            running = 0;
        foreach (var phase in breath)
        {
            running = phase.Kind == BreathPhaseKind.Hold ? running + phase.Seconds : 0;
            longest = Math.Max(longest, running);
        }

        return longest;
    }

    private static string? TooMuchToday(BreathPlan plan, BreathLimits limits, BreathDay day)
    {
        if (day.Dizzy)
            return "Somebody felt dizzy today: no more breath drills until tomorrow. If it comes back, ask a doctor.";
        if (day.Seconds + plan.DrilledSeconds > limits.SecondsPerDay)
            return $"That would make {(day.Seconds + plan.DrilledSeconds) / 60:0.0} minutes of breath drills today; "
                + $"{limits.SecondsPerDay / 60:0} is the most.";
        if (plan.HeldBreaths > 0 && day.HoldRounds + plan.HeldBreaths > limits.HoldRounds)
            return $"{limits.HoldRounds} held breaths a day are the most; today has {day.HoldRounds} already.";
        if (plan.HeldBreaths > 0 && day.SecondsSinceHold < limits.RestAfterHoldSeconds)
            return $"Breathe plainly for {limits.RestAfterHoldSeconds - day.SecondsSinceHold:0} s more before the next held breath.";
        if (plan.Drill.Kind == BreathKind.Exchange && day.Exchanges >= limits.ExchangesPerDay)
            return "Fast exchange was done today already; once is enough.";
        if (plan.Drill.Kind == BreathKind.Quick && day.QuickTries + plan.Pattern.Cycles > limits.QuickTriesPerDay)
            return limits.QuickTriesPerDay == 0
                ? "Quick breaths are not for this pupil."
                : $"{limits.QuickTriesPerDay} quick breaths a day are the most; today has {day.QuickTries} already.";
        return null;
    }

    private static IEnumerable<TimedPhase> Timed(BreathPattern pattern, double tempo)
    {
        var at = 0.0;
        for (var cycle = 1; cycle <= pattern.Cycles; cycle++)
        {
            foreach (var phase in pattern.Phases)
            {
                var seconds = Breath.Counts.Seconds(phase.Counts, tempo);
                yield return new TimedPhase(phase.Kind, at, seconds, phase.Counts, cycle, phase.Air);
                at += seconds;
            }

            if (cycle < pattern.Cycles && pattern.Phases.Any(phase => phase.Kind == BreathPhaseKind.Hold))
            {
                var beats = Math.Ceiling(BreathLimits.Ceiling.RestAfterHoldSeconds * tempo / 60);
                var rest = Breath.Counts.Seconds(beats, tempo);
                yield return new TimedPhase(BreathPhaseKind.Rest, at, rest, beats, cycle);
                at += rest;
            }
        }
    }
}
