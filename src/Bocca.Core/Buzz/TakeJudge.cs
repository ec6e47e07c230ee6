using Bocca.Core.Advice;
using Bocca.Core.Practice;

namespace Bocca.Core.Buzz;

/// <summary>Who is judged, and by whose school.</summary>
/// <param name="Approach">The teacher's approach.</param>
/// <param name="Own">What is usual for this pupil.</param>
/// <param name="Tense">Whether the teacher has ticked tension: then no cue firms.</param>
public sealed record JudgedPupil(Approach Approach, OwnSound Own, bool Tense = false)
{
    /// <summary>Somebody nobody knows anything about yet.</summary>
    public static JudgedPupil Unknown { get; } = new(Approach.Of(ApproachPreset.MouthpieceFirst), OwnSound.Unknown);
}

/// <summary>Judges a take of a drill: what was heard, and the one next step with its reason.</summary>
public static class TakeJudge
{
    /// <summary>More of the sound than this cut off at full scale, and nothing is judged (ours, editable).</summary>
    private const double MostClipped = 0.001;

    /// <summary>A take whose loudest sample is softer than this says nothing (dB; ours, editable).</summary>
    private const double SoftestPeakDb = -55;

    /// <summary>A symptom this far past its limit matters even in a single try (ours, editable).</summary>
    private const double SevereInOneTry = 2;

    /// <summary>Judges.</summary>
    /// <param name="take">The measures.</param>
    /// <param name="bands">What is good enough.</param>
    /// <param name="drill">What was asked.</param>
    /// <param name="askedSeconds">How long each try should have sounded.</param>
    /// <param name="pupil">Who played.</param>
    public static TakeVerdict Judge(TakeMeasures take, StageBands bands, BuzzDrill drill, double askedSeconds, JudgedPupil pupil)
    {
        var heard = HeardIn(take, bands);
        if (Unreadable(take) is { } problem)
            return new TakeVerdict(TakeOutcome.CannotTell, $"Cannot tell: {problem.Why}", heard, [], new NextStep(NextPlace.Buzz, drill.Id, problem.Do, problem.Why));
        var all = SymptomFinder.Find(take, bands, askedSeconds, pupil);
        var tense = pupil.Tense || Adviser.IsTense(all.Select(Evidence.Heard));
        var findings = all.Where(finding => Matters(finding, take)).OrderBy(finding => finding.Symptom.Order).ThenByDescending(finding => finding.Severity * finding.Tries.Count).ToList();
        var outcome = Outcome(take, findings);
        var summary = findings.Count == 0 ? $"{Spoke(take)}, and every one stayed inside the gate." : string.Join(' ', new[] { $"{Spoke(take)}." }.Concat(findings.Take(1).Select(finding => finding.Heard)));
        return new TakeVerdict(outcome, summary, heard, findings, Next(outcome, findings, drill, pupil.Approach, tense, take));
    }

    private static (string Why, string Do)? Unreadable(TakeMeasures take)
    {
        if (take.ClippedShare > MostClipped)
            return ($"{100 * take.ClippedShare:0.0} % of the sound was cut off at full scale.", "Move the microphone further away or turn its level down, and play it again.");
        if (take.PeakDb < SoftestPeakDb)
            return ($"nothing louder than {take.PeakDb:0} dB was heard: silence.", "Check that the right microphone is on, or go nearer to it, and play it again.");
        if (take.Attempts.Count == 0)
            return ("no tone of 150 ms or more was found.", "Play one try close to the microphone.");
        return null;
    }

    /// <summary>One stray try is not a symptom, unless it did not sound or lies far outside.</summary>
    private static bool Matters(Finding finding, TakeMeasures take) =>
        finding.Symptom.Order == 1 || finding.Severity >= SevereInOneTry || finding.Tries.Count * 2 >= take.Attempts.Count;

    private static TakeOutcome Outcome(TakeMeasures take, List<Finding> findings)
    {
        if (take.Spoken.Count() * 2 <= take.Attempts.Count)
            return TakeOutcome.StepBack;
        return findings.Count == 0 ? TakeOutcome.Passed : TakeOutcome.Repeat;
    }

    private static NextStep Next(TakeOutcome outcome, List<Finding> findings, BuzzDrill drill, Approach approach, bool tense, TakeMeasures take)
    {
        if (outcome == TakeOutcome.Passed)
            return new NextStep(NextPlace.Notes, null, "Go to the first written note.", $"{Spoke(take)}, straight and alike: the sound is ready to be a note.");
        var first = findings[0];
        var fix = first.Symptom.FixFor(approach, tense);
        var drillId = outcome == TakeOutcome.StepBack ? drill.Easier : drill.Id;
        return new NextStep(NextPlace.Buzz, drillId, fix.Cue, $"{first.Symptom.Cause} {Numbers(first)}".TrimEnd());
    }

    /// <summary>The number that led to a step, beside its limit; where tries were counted, the sentence heard says it all.</summary>
    private static string Numbers(Finding finding) => finding.Limit == 0
        ? finding.Heard
        : $"Measured {Math.Abs(finding.Measured):0.#} {finding.Unit}; {Math.Abs(finding.Limit):0.#} is the limit for now.";

    private static string Spoke(TakeMeasures take)
    {
        var spoken = take.Spoken.Count();
        return spoken == 0 ? "No try spoke" : $"{Words.Of(spoken, take.Attempts.Count)} spoke";
    }

    private static List<HeardNumber> HeardIn(TakeMeasures take, StageBands bands)
    {
        var heard = new List<HeardNumber>();
        if (take.Median(attempt => attempt.SteadinessCents) is { } steady)
            heard.Add(new HeardNumber("steadiness", $"{steady:0} cents", steady <= bands.SteadyCents ? $"inside the gate of {bands.SteadyCents:0}" : $"outside the gate of {bands.SteadyCents:0}", steady <= bands.SteadyCents));
        if (take.Median(attempt => attempt.DriftCentsPerSecond) is { } drift)
            heard.Add(new HeardNumber("drift", $"{drift:+0;-0;0} cents a second", Direction(drift, bands), Math.Abs(drift) <= bands.DriftCentsPerSecond));
        if (take.Median(attempt => attempt.OnsetDelayMs) is { } delay)
            heard.Add(new HeardNumber("start", $"{delay:+0;-0;0} ms", delay <= bands.OnsetDelayMs ? "with the beat" : "after the beat", delay <= bands.OnsetDelayMs));
        if (take.Median(attempt => attempt.AirBeforeToneMs) is { } air)
            heard.Add(new HeardNumber("air before tone", $"{air:0} ms", air <= bands.AirBeforeToneMs ? "speaks soon" : "air first", air <= bands.AirBeforeToneMs));
        if (take.Sameness is { } same)
            heard.Add(new HeardNumber("alike", $"{same.Score:0} of 100", $"furthest apart in {same.Worst.Item}", same.Score >= 50));
        return [.. heard.OrderBy(number => number.InBand == false ? 0 : 1)];
    }

    private static string Direction(double drift, StageBands bands) => (Math.Abs(drift) / bands.DriftCentsPerSecond) switch
    {
        < 0.25 => "staying level",
        <= 1 => drift > 0 ? "rising slowly" : "sinking slowly",
        _ => drift > 0 ? "rising" : "sinking",
    };
}
