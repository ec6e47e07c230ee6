using Bocca.Core.Judging;

namespace Bocca.Web.Record.Shapes;

/// <summary>A number of a verdict.</summary>
public sealed record StoredHeardNumber(string Name, string Value, string Meaning) : StoredShape
{
    /// <summary>Whether it lies where it should; null where that is not the matter.</summary>
    public bool? InBand { get; init; }

    public static StoredHeardNumber Of(HeardNumber number) => new(number.Name, number.Value, number.Meaning) { InBand = number.InBand };

    public HeardNumber Read() => new(Name, Value, Meaning, InBand);
}

/// <summary>Something that a drill asked for, beside what was heard.</summary>
public sealed record StoredAskedHeard(string What, string Asked, string Heard) : StoredShape
{
    public bool? Met { get; init; }

    public string? Cue { get; init; }

    /// <summary>A name of <see cref="StoredNames.Pulls"/>.</summary>
    public string? Pull { get; init; }

    public string? Unsung { get; init; }

    public static StoredAskedHeard Of(AskedHeard asked) =>
        new(asked.What, asked.Asked, asked.Heard)
        {
            Met = asked.Met,
            Cue = asked.Cue,
            Pull = StoredNames.Pulls[asked.Pull],
            Unsung = asked.Unsung,
        };

    public AskedHeard Read() =>
        new(What, Asked, Heard, Met, Cue ?? "") { Pull = StoredNames.Pulls.ReadIf(Pull) ?? Core.Judging.Pull.Neutral, Unsung = Unsung };
}

/// <summary>The step that a verdict leads to.</summary>
/// <param name="Place">The stop where it is done, by its id.</param>
/// <param name="Cue">What is said.</param>
/// <param name="Reason">Why.</param>
public sealed record StoredNextStep(string Place, string Cue, string Reason) : StoredShape
{
    public string? DrillId { get; init; }

    public string? Given { get; init; }

    public string? Mends { get; init; }

    public double? Tempo { get; init; }

    public static StoredNextStep Of(NextStep next) =>
        new(next.Place.Id, next.Cue, next.Reason)
        {
            DrillId = next.DrillId,
            Given = next.Given,
            Mends = next.Mends,
            Tempo = next.Tempo,
        };

    // Records of the first days have the place with a capital.
    public NextStep Read() =>
        new(new Place(Place.ToLowerInvariant()), DrillId, Cue, Reason)
        {
            Given = Given,
            Mends = Mends,
            Tempo = Tempo,
        };
}

/// <summary>Whether the cue of the take before helped.</summary>
public sealed record StoredCueTry(string Cue, bool Helped) : StoredShape
{
    public static StoredCueTry Of(CueTry tried) => new(tried.Cue, tried.Helped);

    public CueTry Read() => new(Cue, Helped);
}

/// <summary>What was said of a take.</summary>
/// <param name="Outcome">A name of <see cref="StoredNames.Outcomes"/>.</param>
/// <param name="Summary">The sentence.</param>
/// <param name="Heard">Its numbers.</param>
/// <param name="Findings">What differed, the gravest first.</param>
/// <param name="Next">The step it leads to.</param>
public sealed record StoredVerdict(
    string Outcome,
    string Summary,
    IReadOnlyList<StoredHeardNumber> Heard,
    IReadOnlyList<StoredFinding> Findings,
    StoredNextStep Next
) : StoredShape
{
    public IReadOnlyList<StoredAskedHeard>? Asked { get; init; }

    public StoredCueTry? Came { get; init; }

    public string? NotJudged { get; init; }

    public string? MayBe { get; init; }

    public double? OnOwnScale { get; init; }

    /// <summary>A name of <see cref="StoredNames.HeardAs"/>, as <see cref="Guessed"/>.</summary>
    public string? HeardAs { get; init; }

    public string? Guessed { get; init; }

    public static StoredVerdict Of(Verdict verdict) =>
        new(
            StoredNames.Outcomes[verdict.Outcome],
            verdict.Summary,
            [.. verdict.Heard.Select(StoredHeardNumber.Of)],
            [.. verdict.Findings.Select(StoredFinding.Of)],
            StoredNextStep.Of(verdict.Next)
        )
        {
            Asked = [.. verdict.Asked.Select(StoredAskedHeard.Of)],
            Came = verdict.Came is { } came ? StoredCueTry.Of(came) : null,
            NotJudged = verdict.NotJudged,
            MayBe = verdict.MayBe,
            OnOwnScale = verdict.OnOwnScale,
            HeardAs = StoredNames.HeardAs.Of(verdict.HeardAs),
            Guessed = StoredNames.HeardAs.Of(verdict.Guessed),
        };

    /// <exception cref="InvalidDataException">A name in it is none.</exception>
    public Verdict Read() =>
        new(
            StoredNames.Outcomes.Read(Outcome),
            Summary,
            [.. Heard.Select(each => each.Read())],
            [.. Findings.Select(each => each.Read())],
            Next.Read()
        )
        {
            Asked = [.. (Asked ?? []).Select(each => each.Read())],
            Came = Came?.Read(),
            NotJudged = NotJudged,
            MayBe = MayBe,
            OnOwnScale = OnOwnScale,
            HeardAs = StoredNames.HeardAs.ReadIf(HeardAs),
            Guessed = StoredNames.HeardAs.ReadIf(Guessed),
        };
}
