using Bocca.Core.Advice;

namespace Bocca.Core.Buzz;

/// <summary>What a take comes to.</summary>
public enum TakeOutcome
{
    /// <summary>Inside the gate: go on.</summary>
    Passed,

    /// <summary>Nearly: the same again with one thing changed.</summary>
    Repeat,

    /// <summary>Too much at once: something easier first.</summary>
    StepBack,

    /// <summary>The recording does not say.</summary>
    CannotTell,
}

/// <summary>Where the next step is taken.</summary>
public enum NextPlace
{
    /// <summary>Another take of a drill.</summary>
    Buzz,

    /// <summary>A first written note.</summary>
    Notes,

    /// <summary>Another take on the instrument.</summary>
    Tone,

    /// <summary>Another slur.</summary>
    Slurs,
}

/// <summary>The one thing to do next.</summary>
/// <param name="Place">Where.</param>
/// <param name="DrillId">The drill, where it is one.</param>
/// <param name="Cue">What to do or try, in one sentence.</param>
/// <param name="Reason">Why, with the number that led there.</param>
public sealed record NextStep(NextPlace Place, string? DrillId, string Cue, string Reason)
{
    /// <summary>The tempo to do it at, beats a minute; null for the drill's own or the same again.</summary>
    public double? Tempo { get; init; }
}

/// <summary>A number that was heard, with its meaning.</summary>
/// <param name="Name">What was measured.</param>
/// <param name="Value">The number with its unit.</param>
/// <param name="Meaning">What it means.</param>
/// <param name="InBand">Whether it lies inside the band; null where no band applies.</param>
public sealed record HeardNumber(string Name, string Value, string Meaning, bool? InBand);

/// <summary>The judgement of a take, with everything that led to it.</summary>
/// <param name="Outcome">What it comes to.</param>
/// <param name="Summary">What was heard, in one or two sentences.</param>
/// <param name="Heard">The numbers, most telling first.</param>
/// <param name="Findings">The symptoms, what to mend first first.</param>
/// <param name="Next">The one next step.</param>
public sealed record TakeVerdict(
    TakeOutcome Outcome,
    string Summary,
    IReadOnlyList<HeardNumber> Heard,
    IReadOnlyList<Finding> Findings,
    NextStep Next
)
{
    /// <summary>What the drill asked for beside what was heard; empty where it only asks for tries alike.</summary>
    public IReadOnlyList<AskedHeard> Asked { get; init; } = [];

    /// <summary>What could not be judged and why; null for nothing.</summary>
    public string? NotJudged { get; init; }

    /// <summary>Where the take lies on the pupil's own scale, -1 tight, 0 centred, 1 open; null without one.</summary>
    public double? OnOwnScale { get; init; }
}
