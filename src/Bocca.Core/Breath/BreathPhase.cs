namespace Bocca.Core.Breath;

/// <summary>What the breath does.</summary>
public enum BreathPhaseKind
{
    /// <summary>Breathing in.</summary>
    In,

    /// <summary>Held, with the throat open.</summary>
    Hold,

    /// <summary>A small breath more on top of a full one.</summary>
    Sip,

    /// <summary>Breathing out: a stream, a hiss, or a tone.</summary>
    Out,

    /// <summary>Plain breathing, nothing asked.</summary>
    Rest,
}

/// <summary>How quickly the air goes out.</summary>
public enum AirSpeed
{
    /// <summary>As it comes.</summary>
    Usual,

    /// <summary>Slow, warm air.</summary>
    Slow,

    /// <summary>Fast, cool air.</summary>
    Fast,
}

/// <summary>One part of a breath pattern.</summary>
/// <param name="Kind">What the breath does.</param>
/// <param name="Counts">How many counts it lasts, above 0; fractions for short rests.</param>
/// <param name="Air">How quickly the air goes out.</param>
public readonly record struct BreathPhase(BreathPhaseKind Kind, double Counts, AirSpeed Air = AirSpeed.Usual);

/// <summary>A breath pattern: its phases, repeated.</summary>
/// <param name="Name">Its name for people, such as <c>in 4, out 8</c>.</param>
/// <param name="Phases">The phases of one cycle.</param>
/// <param name="Cycles">How many cycles make a set.</param>
public sealed record BreathPattern(string Name, IReadOnlyList<BreathPhase> Phases, int Cycles)
{
    /// <summary>Breaths of it that are held: a pattern with a hold has one breath a cycle.</summary>
    public int HeldBreaths => Phases.Any(phase => phase.Kind == BreathPhaseKind.Hold) ? Cycles : 0;
}

/// <summary>Counts and seconds.</summary>
public static class Counts
{
    /// <summary>Seconds that some counts last: counts x 60 / tempo (computed).</summary>
    public static double Seconds(double counts, double tempo) => counts * 60 / tempo;
}
