using Bocca.Core.Advice;
using Bocca.Core.Practice;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>Who is judged, and by whose school.</summary>
/// <param name="Approach">The teacher's approach.</param>
/// <param name="Own">What is usual for this pupil.</param>
/// <param name="Tense">Whether the teacher has ticked tension: then no cue firms.</param>
public sealed record JudgedPupil(Approach Approach, OwnSound Own, bool Tense = false)
{
    /// <summary>Somebody nobody knows anything about yet.</summary>
    public static JudgedPupil Unknown { get; } = new(Approach.Of(ApproachPreset.MouthpieceFirst), OwnSound.Unknown);

    /// <summary>The pupil's own scale from tight to open; null where no samples were made.</summary>
    public OwnScale? Scale { get; init; }

    /// <summary>What else is known just now: what was seen, answered, placed.</summary>
    public IReadOnlyList<Evidence> Known { get; init; } = [];

    /// <summary>Earlier takes on the mouthpiece, for its gate; null where the gate is not asked.</summary>
    public IReadOnlyList<GateTake>? Earlier { get; init; }

    /// <summary>The day of the take.</summary>
    public DateOnly Day { get; init; }

    /// <summary>
    /// The pitch that a buzz is held against where the approach holds it against a model or the last one, hertz; null for none.
    /// </summary>
    public double? HeldAgainstHz { get; init; }
}

/// <summary>Judges a take of a drill: what was heard, and the one next step with its reason.</summary>
public static class TakeJudge
{
    /// <summary>A symptom this far past its limit matters even in a single try (ours, editable).</summary>
    private const double SevereInOneTry = 2;

    /// <summary>A take that cannot be judged: why, and what to do about it.</summary>
    internal static TakeVerdict Unreadable(TakeMeasures take, StageBands bands, BuzzDrill drill, Disturbance problem) =>
        new(
            TakeOutcome.CannotTell,
            $"Cannot tell: {problem.Why}",
            HeardNumbers.In(take, bands),
            [],
            new NextStep(NextPlace.Buzz, drill.Id, problem.Remedy, problem.Why)
        );

    /// <summary>Judges.</summary>
    /// <param name="take">The measures.</param>
    /// <param name="bands">What is good enough.</param>
    /// <param name="drill">What was asked.</param>
    /// <param name="aims">What the drill is for, beside what was heard.</param>
    /// <param name="pupil">Who played.</param>
    internal static TakeVerdict Judge(
        TakeMeasures take,
        StageBands bands,
        BuzzDrill drill,
        IReadOnlyList<AskedHeard> aims,
        JudgedPupil pupil
    )
    {
        if (take.Attempts.Count == 0)
            return Unreadable(
                take,
                bands,
                drill,
                new Disturbance(DisturbanceKind.Silence, "no tone of 150 ms or more was found.", "Play one try close to the microphone.")
            );
        var all = SymptomFinder.Find(take, bands, drill.Minds, pupil);
        var tense = pupil.Tense || Adviser.IsTense(all.Select(Evidence.Heard).Concat(pupil.Known));
        var findings = all.Where(finding => Matters(finding, take))
            .OrderBy(finding => finding.Symptom.Order)
            .ThenByDescending(finding => finding.Severity * finding.Tries.Count)
            .ToList();
        IReadOnlyList<AskedHeard> asked = PitchAim.Of(take, bands, pupil) is { } pitch ? [pitch, .. aims] : aims;
        var outcome = Outcome(take, findings, asked);
        var places = pupil.Scale is { } scale ? take.Spoken.Select(scale.Place).OfType<double>().ToList() : [];
        return new TakeVerdict(
            outcome,
            Summary(take, findings, asked),
            HeardNumbers.In(take, bands),
            findings,
            Next(outcome, findings, asked, drill, pupil, tense, take)
        )
        {
            Asked = asked,
            NotJudged =
                pupil.Scale is null && drill.Aim != DrillAim.Reference
                    ? "Tight or open is not judged: there are no samples of your own yet."
                    : null,
            OnOwnScale = places.Count == 0 ? null : places.Median(),
        };
    }

    /// <summary>
    /// One stray try is not a symptom, unless it did not sound or lies far outside; a sound near one's own tight or open one only counts
    /// when it repeats.
    /// </summary>
    private static bool Matters(Finding finding, TakeMeasures take) =>
        finding.Symptom.Order == 1
        || (finding.Severity >= SevereInOneTry && finding.Symptom.Id is not ("airy" or "pinched"))
        || finding.Tries.Count * 2 >= take.Asked.Count();

    private static TakeOutcome Outcome(TakeMeasures take, List<Finding> findings, IReadOnlyList<AskedHeard> asked)
    {
        if (take.Spoken.Count() * 2 <= take.Asked.Count())
            return TakeOutcome.StepBack;
        var unmet = asked.Count(aim => aim.Met == false);
        if (unmet >= 2 && 3 * unmet > 2 * asked.Count(aim => aim.Met is not null))
            return TakeOutcome.StepBack;
        return findings.Count == 0 && unmet == 0 ? TakeOutcome.Passed : TakeOutcome.Repeat;
    }

    private static string Summary(TakeMeasures take, List<Finding> findings, IReadOnlyList<AskedHeard> asked)
    {
        if (findings.Count > 0)
            return $"{Spoke(take)}. {findings[0].Heard}";
        return asked.FirstOrDefault(aim => aim.Met == false) is { } missed
            ? $"{Spoke(take)}. {Capital(missed.What)}: {missed.Heard}; asked were {missed.Asked}."
            : $"{Spoke(take)}, and every one stayed inside the gate.";
    }

    private static NextStep Next(
        TakeOutcome outcome,
        List<Finding> findings,
        IReadOnlyList<AskedHeard> asked,
        BuzzDrill drill,
        JudgedPupil pupil,
        bool tense,
        TakeMeasures take
    )
    {
        if (outcome == TakeOutcome.Passed)
            return Onward(drill, pupil, take);
        var drillId = outcome == TakeOutcome.StepBack ? drill.Easier : drill.Id;
        if (findings.Count == 0)
        {
            var missed = asked.First(aim => aim.Met == false);
            return new NextStep(
                NextPlace.Buzz,
                drillId,
                missed.Cue,
                $"{Capital(missed.What)}: asked {missed.Asked}, heard {missed.Heard}."
            );
        }

        var first = findings[0];
        var evidence = pupil
            .Known.Where(item => !item.Signal.StartsWith("heard.", StringComparison.Ordinal))
            .Concat(findings.Select(Evidence.Heard))
            .ToList();
        // What was seen may bear out or explain what was heard: then the advice is what mends that.
        var advice = Adviser.Advise(evidence, pupil.Approach, tense);
        if (
            advice is not null
            && advice.Found.For.Any(item => item.Signal == $"heard.{first.Symptom.Id}")
            && advice.Found.For.Any(item =>
                item.Signal.StartsWith("seen.", StringComparison.Ordinal) || item.Signal.StartsWith("placed.", StringComparison.Ordinal)
            )
        )
            return new NextStep(NextPlace.Buzz, drillId, advice.Fix.Cue, $"{advice.Why} {Numbers(first)}".TrimEnd());
        return new NextStep(
            NextPlace.Buzz,
            drillId,
            first.Symptom.FixFor(pupil.Approach, tense).Cue,
            $"{first.Symptom.Cause} {Numbers(first)}".TrimEnd()
        );
    }

    /// <summary>Where a take that passed leads: to its next use, to another round, or off the mouthpiece.</summary>
    private static NextStep Onward(BuzzDrill drill, JudgedPupil pupil, TakeMeasures take)
    {
        if (drill.Aim == DrillAim.Reference)
            return new NextStep(
                NextPlace.Buzz,
                BuzzDrill.All[0].Id,
                "Now four on, four off: it will be placed between your own samples.",
                "Tight, centred and open can be told apart."
            );
        if (pupil.Earlier is { } earlier)
        {
            var gate = MouthpieceGate.Of(pupil.Approach, [.. earlier, GateTake.Of(take, [], pupil.Day, TakeOutcome.Passed)], pupil.Day);
            if (!gate.Open)
                return new NextStep(NextPlace.Buzz, drill.Id, gate.Next, gate.Reason);
        }

        return new NextStep(
            NextPlace.Notes,
            null,
            "Go to the first written note.",
            $"{Spoke(take)}, straight and alike: the sound is ready to be a note."
        );
    }

    /// <summary>The number that led to a step, beside its limit; where tries were counted, the sentence heard says it all.</summary>
    private static string Numbers(Finding finding) =>
        finding.Limit == 0
            ? finding.Heard
            : $"Measured {Math.Abs(finding.Measured):0.#} {finding.Unit}; {Math.Abs(finding.Limit):0.#} is the limit for now.";

    private static string Spoke(TakeMeasures take)
    {
        var spoken = take.Spoken.Count();
        return spoken == 0 ? "No try spoke" : $"{Words.Of(spoken, take.Asked.Count())} spoke";
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
