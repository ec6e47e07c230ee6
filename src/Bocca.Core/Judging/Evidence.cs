namespace Bocca.Core.Judging;

/// <summary>One thing that is known about a pupil just now.</summary>
/// <param name="Signal">
/// What, as the symptom table names it: <c>heard.</c> a symptom of a take, <c>seen.</c> an observation,
/// <c>placed.</c> a judgement of a placement, <c>yes.</c> or <c>no.</c> an answer.
/// </param>
/// <param name="Sentence">The same in words.</param>
public sealed record Evidence(string Signal, string Sentence)
{
    /// <summary>Whether a take showed it.</summary>
    public bool IsHeard => Signal.StartsWith("heard.", StringComparison.Ordinal);

    /// <summary>Whether somebody saw it, or a placement did.</summary>
    public bool IsSeen => Signal.StartsWith("seen.", StringComparison.Ordinal) || Signal.StartsWith("placed.", StringComparison.Ordinal);

    /// <summary>What a take showed.</summary>
    public static Evidence Heard(Finding finding) => new($"heard.{finding.Symptom.Id}", finding.Heard);

    /// <summary>What the pupil answered.</summary>
    public static Evidence Answered(SymptomQuestion question, bool yes) =>
        new($"{(yes ? "yes" : "no")}.{question.Id}", $"{question.Question} {(yes ? "Yes" : "No")}.");
}
