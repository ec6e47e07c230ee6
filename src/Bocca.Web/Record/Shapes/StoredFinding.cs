using Bocca.Core.Judging;

namespace Bocca.Web.Record.Shapes;

/// <summary>A question that tells one cause from another.</summary>
public sealed record StoredSymptomQuestion(string Id, string Question, string Yes) : StoredShape
{
    public static StoredSymptomQuestion Of(SymptomQuestion question) => new(question.Id, question.Question, question.Yes);

    public SymptomQuestion Read() => new(Id, Question, Yes);
}

/// <summary>A cue against a symptom.</summary>
public sealed record StoredFix(string Cue, string Pull) : StoredShape
{
    /// <summary>Its name within the symptom; null in records of the first days.</summary>
    public string? Id { get; init; }

    public IReadOnlyList<string>? When { get; init; }

    public IReadOnlyList<string>? Unless { get; init; }

    public string? Drill { get; init; }

    public static StoredFix Of(Fix fix) =>
        new(fix.Cue, StoredNames.Pulls[fix.Pull])
        {
            Id = fix.Id,
            When = fix.When,
            Unless = fix.Unless,
            Drill = fix.Drill,
        };

    public Fix Read() => new(Id ?? "", Cue, StoredNames.Pulls.Read(Pull), When, Unless, Drill);
}

/// <summary>A symptom as it was when it was found: what may be the cause, what is asked, what is said against it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Order">How urgent it is, from 0: a matter of health.</param>
/// <param name="Causes">What may be the cause, the likeliest first.</param>
/// <param name="Tells">What gives it away.</param>
/// <param name="Supports">What speaks for it.</param>
/// <param name="Contradicts">What speaks against it.</param>
/// <param name="Fixes">What is said against it, in order.</param>
/// <param name="Basis">Where this comes from.</param>
public sealed record StoredSymptom(
    string Id,
    string Name,
    int Order,
    IReadOnlyList<string> Causes,
    IReadOnlyList<string> Tells,
    IReadOnlyList<string> Supports,
    IReadOnlyList<string> Contradicts,
    IReadOnlyList<StoredFix> Fixes,
    string Basis
) : StoredShape
{
    public StoredSymptomQuestion? Ask { get; init; }

    public StoredSymptomQuestion? Confirm { get; init; }

    public static StoredSymptom Of(Symptom symptom) =>
        new(
            symptom.Id,
            symptom.Name,
            symptom.Order,
            symptom.Causes,
            symptom.Tells,
            symptom.Supports,
            symptom.Contradicts,
            [.. symptom.Fixes.Select(StoredFix.Of)],
            symptom.Basis
        )
        {
            Ask = symptom.Ask is { } ask ? StoredSymptomQuestion.Of(ask) : null,
            Confirm = symptom.Confirm is { } confirm ? StoredSymptomQuestion.Of(confirm) : null,
        };

    public Symptom Read() =>
        new(Id, Name, Order, Causes, Tells, Supports, Contradicts, Ask?.Read(), [.. Fixes.Select(each => each.Read())], Basis)
        {
            Confirm = Confirm?.Read(),
        };
}

/// <summary>Something that differed from what was asked.</summary>
/// <param name="Symptom">What it is.</param>
/// <param name="Tries">In which tries, from 1.</param>
/// <param name="Measured">What was measured, in <paramref name="Unit"/>.</param>
/// <param name="Limit">What counts as right.</param>
/// <param name="Unit">The unit of both.</param>
/// <param name="Heard">The same in a sentence.</param>
public sealed record StoredFinding(
    StoredSymptom Symptom,
    IReadOnlyList<int> Tries,
    double Measured,
    double Limit,
    string Unit,
    string Heard
) : StoredShape
{
    public static StoredFinding Of(Finding finding) =>
        new(StoredSymptom.Of(finding.Symptom), finding.Tries, finding.Measured, finding.Limit, finding.Unit, finding.Heard);

    public Finding Read() => new(Symptom.Read(), Tries, Measured, Limit, Unit, Heard);
}
