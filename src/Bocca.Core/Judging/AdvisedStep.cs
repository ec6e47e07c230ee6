namespace Bocca.Core.Judging;

/// <summary>The step that the findings of a take lead to: the same for every stop.</summary>
public static class AdvisedStep
{
    /// <summary>What is known of a pupil: what was seen, answered and placed, and what this take showed; no earlier take.</summary>
    public static IReadOnlyList<Evidence> Evidence(JudgedPupil pupil, IEnumerable<Finding> findings) =>
        [.. pupil.Known.Where(item => !item.IsHeard), .. findings.Select(Judging.Evidence.Heard)];

    /// <summary>Whether the pupil is tense: ticked, seen or heard. Then no cue firms.</summary>
    public static bool IsTense(JudgedPupil pupil, IEnumerable<Finding> findings) =>
        pupil.Tense || Adviser.IsTense(Evidence(pupil, findings));

    /// <summary>The one thing to try for the first finding; where what was seen explains it, what mends that.</summary>
    /// <param name="pupil">Who is judged.</param>
    /// <param name="findings">What the take showed, what to mend first first; at least one.</param>
    /// <param name="tense">Whether no cue may firm.</param>
    /// <param name="place">Where it is done.</param>
    /// <param name="drillId">With which drill; null for none.</param>
    public static NextStep Of(JudgedPupil pupil, IReadOnlyList<Finding> findings, bool tense, Place place, string? drillId)
    {
        var first = findings[0];
        var cues = pupil.Before is { } before && CueHistory.Came(before, findings) is { } came ? pupil.Cues.After(came) : pupil.Cues;
        var advice = Adviser.Advise(Evidence(pupil, findings), pupil.Symptoms, pupil.Approach, tense, cues: cues);
        var (symptom, fix, why) =
            advice is not null && Explains(advice, first)
                ? (advice.Found.Symptom, advice.Fix, Why(advice))
                : (first.Symptom, first.Symptom.FixFor(pupil.Approach, tense, cues), first.Symptom.Cause);
        return new NextStep(place, drillId, fix.Cue, $"{why} {first.Passed}".TrimEnd())
        {
            Given = fix == Fix.Rest ? null : CueHistory.NameOf(symptom.Id, fix),
            Mends = fix.Drill,
        };
    }

    /// <summary>What was seen and what causes it; what was heard stands in the summary already.</summary>
    private static string Why(AdviceGiven advice) =>
        string.Join(
            ' ',
            advice
                .Found.For.Concat(advice.Found.Against)
                .Where(item => !item.IsHeard)
                .Select(item => item.Sentence)
                .Distinct()
                .Concat(advice.Found.Symptom.Causes)
        );

    private static bool Explains(AdviceGiven advice, Finding first) =>
        advice.Found.For.Any(item => item.Signal == Judging.Evidence.Heard(first).Signal) && advice.Found.For.Any(item => item.IsSeen);
}
