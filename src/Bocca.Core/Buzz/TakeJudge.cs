using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz;

/// <summary>Judges a take of a drill: what was heard, and the one next step with its reason.</summary>
public static class TakeJudge
{
    /// <summary>Where buzzes are taken.</summary>
    public static Place Place { get; } = new("buzz");

    /// <summary>Where the first written notes are: what follows a buzz that is ready.</summary>
    private static readonly Place Notes = new("notes");

    /// <summary>A symptom this far past its limit matters even in a single try (ours, editable).</summary>
    private const double SevereInOneTry = 2;

    /// <summary>A take that cannot be judged: why, and what to do about it.</summary>
    internal static Verdict Unreadable(TakeMeasures take, StageBands bands, BuzzDrill drill, Disturbance problem) =>
        new(
            Outcome.CannotTell,
            $"Cannot tell: {problem.Why}",
            HeardNumbers.In(take, bands),
            [],
            new NextStep(Place, drill.Id, problem.Remedy, problem.Why)
        );

    /// <summary>Judges.</summary>
    /// <param name="take">The measures.</param>
    /// <param name="bands">What is good enough.</param>
    /// <param name="drill">What was asked.</param>
    /// <param name="aims">What the drill is for, beside what was heard.</param>
    /// <param name="pupil">Who played.</param>
    internal static Verdict Judge(TakeMeasures take, StageBands bands, BuzzDrill drill, IReadOnlyList<AskedHeard> aims, SoundingPupil pupil)
    {
        if (take.Attempts.Count == 0)
            return Unreadable(
                take,
                bands,
                drill,
                new Disturbance(DisturbanceKind.Silence, "no tone of 150 ms or more was found.", "Play one try close to the microphone.")
            );
        var all = SymptomFinder.Find(take, bands, drill.Minds, pupil);
        var tense = AdvisedStep.IsTense(pupil, all);
        var findings = all.Where(finding => Matters(finding, take))
            .OrderBy(finding => finding.Symptom.Order)
            .ThenByDescending(finding => finding.Severity * finding.Tries.Count)
            .ToList();
        var maybe = drill.Aim != DrillAim.Reference && drill.Minds("airy") ? MaybeSound.Of(take, bands, pupil) : null;
        if (maybe is not null && MaybeSound.Confirmed(maybe, take, bands, pupil) is { } confirmed)
        {
            findings.Add(confirmed);
            maybe = null;
        }

        IReadOnlyList<AskedHeard> asked = PitchAim.Of(take, bands, pupil) is { } pitch ? [pitch, .. aims] : aims;
        var outcome = OutcomeOf(take, findings, asked);
        // What may be airy or tight is not passed as ready.
        maybe = outcome == Outcome.Passed ? maybe : null;
        outcome = maybe is null ? outcome : Outcome.Repeat;
        var summary = Summary(take, findings, all, asked);
        var places = pupil.Scale is { } scale ? take.Spoken.Select(scale.Place).OfType<double>().ToList() : [];
        return new Verdict(
            outcome,
            maybe is null ? summary : $"{summary} {MaybeSound.Words(maybe)}",
            HeardNumbers.In(take, bands),
            findings,
            maybe is null ? Next(outcome, findings, asked, drill, pupil, tense, take) : MaybeSound.Next(maybe, Place, drill.Id)
        )
        {
            MayBe = maybe?.Id,
            Asked = asked,
            NotJudged =
                pupil.Scale is null && drill.Aim != DrillAim.Reference
                    ? "Tight or open is not judged: there are no samples of your own yet."
                    : null,
            OnOwnScale = places.Count == 0 ? null : places.Median(),
            HeardAs = take.Median(bands.Steadiness) switch
            {
                null => null,
                var cents => cents <= bands.SteadyCents ? HeardAs.Steady : HeardAs.Unsteady,
            },
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

    private static Outcome OutcomeOf(TakeMeasures take, List<Finding> findings, IReadOnlyList<AskedHeard> asked)
    {
        if (take.Spoken.Count() * 2 <= take.Asked.Count())
            return Outcome.StepBack;
        var unmet = asked.Count(aim => aim.Met == false);
        if (unmet >= 2 && 3 * unmet > 2 * asked.Count(aim => aim.Met is not null))
            return Outcome.StepBack;
        return findings.Count == 0 && unmet == 0 ? Outcome.Passed : Outcome.Repeat;
    }

    /// <summary>What was heard: what matters first, then what was missed, then what a try or two did beside it.</summary>
    private static string Summary(TakeMeasures take, List<Finding> findings, IReadOnlyList<Finding> all, IReadOnlyList<AskedHeard> asked)
    {
        if (findings.Count > 0)
            return $"{Spoke(take)}. {findings[0].Heard}";
        if (asked.FirstOrDefault(aim => aim.Met == false) is { } missed)
            return $"{Spoke(take)}. {Capital(missed.What)}: {missed.Heard}; {missed.Asked} is the aim.";
        var strays = all.Where(finding => finding.Symptom.Id is not ("airy" or "pinched"))
            .SelectMany(finding => finding.Tries)
            .Distinct()
            .Count();
        return strays == 0
            ? $"{Spoke(take)}, all steady."
            : $"{Spoke(take)}. {Words.Of(strays, take.Asked.Count())} {(strays == 1 ? "was" : "were")} less steady; that is few enough.";
    }

    private static NextStep Next(
        Outcome outcome,
        List<Finding> findings,
        IReadOnlyList<AskedHeard> asked,
        BuzzDrill drill,
        SoundingPupil pupil,
        bool tense,
        TakeMeasures take
    )
    {
        if (outcome == Outcome.Passed)
            return Onward(drill, pupil, take);
        var drillId = outcome == Outcome.StepBack ? drill.Easier : drill.Id;
        if (findings.Count == 0)
        {
            var missed = asked.First(aim => aim.Met == false);
            return new NextStep(
                Place,
                drillId,
                missed.CueFor(pupil.Approach, tense),
                $"{Capital(missed.What)}: asked {missed.Asked}, heard {missed.Heard}."
            );
        }

        return InstrumentFirst.Of(pupil, findings, take.Asked.Count()) ?? AdvisedStep.Of(pupil, findings, tense, Place, drillId);
    }

    /// <summary>Where a take that passed leads: to its next use, to another round, or off the mouthpiece.</summary>
    private static NextStep Onward(BuzzDrill drill, SoundingPupil pupil, TakeMeasures take)
    {
        if (drill.Aim == DrillAim.Reference)
            return new NextStep(
                Place,
                BuzzDrill.All[0].Id,
                "Now four on, four off: it will be placed between your own samples.",
                "Tight, centred and open can be told apart."
            );
        if (drill.Aim is DrillAim.Pair or DrillAim.Proof or DrillAim.Search)
            return new NextStep(
                Place,
                BuzzDrill.All[0].Id,
                drill.Aim == DrillAim.Search
                    ? "Four on, four off, with the rim where it sat best."
                    : "Four on, four off, with that same face.",
                $"{Spoke(take)}: what was found here is kept by playing on it."
            );
        if (pupil.Earlier is { } earlier)
        {
            var gate = MouthpieceGate.Of(pupil.Approach, [.. earlier, GateTake.Of(take, [], pupil.Day, Outcome.Passed)], pupil.Day);
            if (!gate.Open)
                return new NextStep(Place, drill.Id, gate.Next, gate.Reason);
        }

        return new NextStep(
            Notes,
            null,
            "Go to the first written note.",
            $"{Spoke(take)}, straight and alike: the sound is ready to be a note."
        );
    }

    private static string Spoke(TakeMeasures take)
    {
        var spoken = take.Spoken.Count();
        return spoken == 0 ? "No try spoke" : $"{Words.Of(spoken, take.Asked.Count())} spoke";
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
