namespace Bocca.Core.Judging;

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
public sealed record Verdict(
    Outcome Outcome,
    string Summary,
    IReadOnlyList<HeardNumber> Heard,
    IReadOnlyList<Finding> Findings,
    NextStep Next
)
{
    /// <summary>
    /// The same of a take that was stopped before its end: what was played is told, and it has not passed, however well it went.
    /// </summary>
    /// <param name="played">Tries, notes or cards that were played.</param>
    /// <param name="asked">How many the whole take has; the verdict stands where all were played.</param>
    /// <param name="again">Where the same is played once more.</param>
    public Verdict StoppedAfter(int played, int asked, (Place Place, string? DrillId) again) =>
        played >= asked
            ? this
            : this with
            {
                Outcome = Outcome == Outcome.Passed ? Outcome.Repeat : Outcome,
                Summary = $"Stopped after {played} of {asked}. {Summary}",
                Next =
                    Outcome == Outcome.Passed
                        ? new NextStep(again.Place, again.DrillId, "Play it once more, to the end.", "Only a whole take counts.")
                        : Next,
            };

    /// <summary>The one number to read first: the first outside its band, else the first; none where nothing was measured.</summary>
    public IReadOnlyList<HeardNumber> FirstNumber() => [.. Heard.OrderBy(number => number.InBand != false).Take(1)];

    /// <summary>The numbers beside the first, in their order.</summary>
    public IReadOnlyList<HeardNumber> OtherNumbers() => [.. Heard.Except(FirstNumber())];

    /// <summary>What the drill asked for beside what was heard; empty where it only asks for tries alike.</summary>
    public IReadOnlyList<AskedHeard> Asked { get; init; } = [];

    /// <summary>What came of the cue that the take before this one ended with; null where it gave none.</summary>
    public CueTry? Came { get; init; }

    /// <summary>What could not be judged and why; null for nothing.</summary>
    public string? NotJudged { get; init; }

    /// <summary>The symptom that it may show, by its id: a teacher's ear decides; null for none.</summary>
    public string? MayBe { get; init; }

    /// <summary>Where the take lies on the pupil's own scale, -1 tight, 0 centred, 1 open; null without one.</summary>
    public double? OnOwnScale { get; init; }

    /// <summary>The take in the word that a pupil can guess; null where nothing sure was heard.</summary>
    public HeardAs? HeardAs { get; init; }

    /// <summary>What the pupil guessed before this was shown; null for nothing.</summary>
    public HeardAs? Guessed { get; init; }
}
