using Bocca.Core.Teaching;

namespace Bocca.Core.Judging;

/// <summary>A symptom that the evidence points to.</summary>
/// <param name="Symptom">The symptom.</param>
/// <param name="Score">Points for it less points against it.</param>
/// <param name="For">What speaks for it.</param>
/// <param name="Against">What speaks against it.</param>
public sealed record Suspect(Symptom Symptom, int Score, IReadOnlyList<Evidence> For, IReadOnlyList<Evidence> Against);

/// <summary>What to try, and why.</summary>
/// <param name="Found">What the evidence points to most.</param>
/// <param name="Fix">The one thing to try.</param>
/// <param name="Why">The evidence and the cause, in sentences.</param>
/// <param name="Others">What else it might be, likeliest first; a teacher may choose one of these instead.</param>
/// <param name="Questions">At most two questions still open that would decide.</param>
/// <param name="Tense">Whether cues that firm were left out.</param>
public sealed record AdviceGiven(
    Suspect Found,
    Fix Fix,
    string Why,
    IReadOnlyList<Suspect> Others,
    IReadOnlyList<SymptomQuestion> Questions,
    bool Tense
);

/// <summary>Weighs evidence into one piece of advice: symptom, cause, fix, and why.</summary>
public static class Adviser
{
    /// <summary>Signals of tension: while one stands, no cue firms.</summary>
    private static readonly HashSet<string> Tension =
    [
        "heard.pinched",
        "heard.forced",
        "seen.squeeze",
        "seen.neck",
        "seen.pressure",
        "seen.chestTight",
    ];

    /// <summary>Points of evidence (ours, editable). What was seen explains what was heard, so it goes before it.</summary>
    private const int Tells = 4,
        Heard = 3,
        Answer = 2,
        Contradicts = 2,
        Supports = 1;

    private const int MostQuestions = 2;

    /// <summary>How long a placement or a take still tells something (ours, editable).</summary>
    public static TimeSpan StillTells { get; } = TimeSpan.FromDays(14);

    /// <summary>Whether something known says that the pupil is tense.</summary>
    public static bool IsTense(IEnumerable<Evidence> evidence) => evidence.Any(item => Tension.Contains(item.Signal));

    /// <summary>Advises; null when the evidence points to nothing.</summary>
    /// <param name="evidence">What is known.</param>
    /// <param name="symptoms">The symptoms and cues that hold.</param>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="tense">Whether the teacher has ticked tension.</param>
    /// <param name="chosen">The symptom a teacher takes it for, against the scores; null for the likeliest.</param>
    /// <param name="cues">What came of earlier cues; null for nothing yet.</param>
    public static AdviceGiven? Advise(
        IReadOnlyCollection<Evidence> evidence,
        SymptomTable symptoms,
        Approach approach,
        bool tense = false,
        string? chosen = null,
        CueHistory? cues = null
    )
    {
        var suspects = symptoms
            .All.Select(symptom => Weigh(symptom, evidence))
            .OfType<Suspect>()
            .OrderBy(suspect => suspect.Symptom.Order == 0 ? 0 : 1)
            .ThenByDescending(suspect => suspect.Score)
            .ThenBy(suspect => suspect.Symptom.Order)
            .ToList();
        if (chosen is not null && Weigh(symptoms.Get(chosen), evidence, force: true) is { } taken)
            suspects = [taken, .. suspects.Where(suspect => suspect.Symptom.Id != chosen)];
        if (suspects.Count == 0)
            return null;
        tense = tense || IsTense(evidence);
        var found = suspects[0];
        var known = string.Join(' ', found.For.Concat(found.Against).Select(item => item.Sentence).Distinct());
        return new AdviceGiven(
            found,
            found.Symptom.FixFor(approach, tense, cues),
            $"{known} {string.Join(' ', found.Symptom.Causes)}".Trim(),
            [.. suspects.Skip(1)],
            Open(suspects, evidence),
            tense
        );
    }

    private static Suspect? Weigh(Symptom symptom, IReadOnlyCollection<Evidence> evidence, bool force = false)
    {
        List<Evidence> pro = [],
            contra = [];
        var (score, shown) = (0, force);
        foreach (var item in evidence)
        {
            // What a take showed and a teacher's ear confirmed is one thing, not two.
            var points =
                IsConfirmed(symptom, item) && evidence.Any(other => other.Signal == $"heard.{symptom.Id}")
                    ? 0
                    : Points(symptom, item.Signal);
            score += points;
            shown |= points >= Heard;
            if (points != 0)
                (points > 0 ? pro : contra).Add(item);
        }

        return shown && (force || score > 0) ? new Suspect(symptom, score, pro, contra) : null;
    }

    private static bool IsConfirmed(Symptom symptom, Evidence item) => symptom.Confirm is { } confirm && item.Signal == $"yes.{confirm.Id}";

    private static int Points(Symptom symptom, string signal)
    {
        if (signal == $"heard.{symptom.Id}")
            return Heard;
        if (symptom.Tells.Contains(signal))
            return Tells;
        if (symptom.Supports.Contains(signal))
            return Supports;
        if (symptom.Contradicts.Contains(signal))
            return -Contradicts;
        if (symptom.Confirm is { } confirm && (signal == $"yes.{confirm.Id}" || signal == $"no.{confirm.Id}"))
            return signal == $"yes.{confirm.Id}" ? Heard : -Answer;
        if (symptom.Ask is { } ask && (signal == $"yes.{ask.Id}" || signal == $"no.{ask.Id}"))
            return signal == $"yes.{ask.Id}" == (ask.Yes == "for") ? Answer : -Answer;
        return 0;
    }

    private static List<SymptomQuestion> Open(List<Suspect> suspects, IReadOnlyCollection<Evidence> evidence) =>
        [
            .. suspects
                .Select(suspect => suspect.Symptom.Ask)
                .OfType<SymptomQuestion>()
                .Where(ask => !evidence.Any(item => item.Signal == $"yes.{ask.Id}" || item.Signal == $"no.{ask.Id}"))
                .Take(MostQuestions),
        ];
}
