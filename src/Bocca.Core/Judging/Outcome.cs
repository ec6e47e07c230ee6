namespace Bocca.Core.Judging;

/// <summary>What a take comes to.</summary>
public enum Outcome
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
