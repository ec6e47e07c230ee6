namespace Bocca.Core.Judging;

/// <summary>
/// The symptoms, and the cues against them, that hold when something is judged: those that ship (<c>symptoms.json</c>), or a teacher's
/// own. It does not change: who is judged by one is judged by it to the end.
/// </summary>
public sealed class SymptomTable
{
    private static readonly Lazy<SymptomTable> Read = new(() => new SymptomTable(EmbeddedData.Read<List<Symptom>>("symptoms.json")));

    private readonly Dictionary<string, Symptom> _byId;

    /// <summary>A table of symptoms.</summary>
    /// <exception cref="ArgumentException">Two have the same id.</exception>
    public SymptomTable(IEnumerable<Symptom> symptoms)
    {
        All = [.. symptoms];
        _byId = All.ToDictionary(symptom => symptom.Id);
    }

    /// <summary>The table that ships.</summary>
    public static SymptomTable Shipped => Read.Value;

    /// <summary>The same table with a teacher's own ladders.</summary>
    /// <param name="ladders">The ladders, by the id of their symptom.</param>
    public SymptomTable With(IReadOnlyDictionary<string, IReadOnlyList<OwnRung>> ladders) =>
        ladders.Count == 0
            ? this
            : new SymptomTable(All.Select(symptom => ladders.GetValueOrDefault(symptom.Id) is { } ladder ? symptom.With(ladder) : symptom));

    /// <summary>All symptoms.</summary>
    public IReadOnlyList<Symptom> All { get; }

    /// <summary>The symptom with this id; null for none.</summary>
    public Symptom? Find(string id) => _byId.GetValueOrDefault(id);

    /// <summary>The symptom with this id.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public Symptom Get(string id) => Find(id) ?? throw new ArgumentException($"'{id}' is not a symptom Bocca knows.");

    /// <summary>The symptom that a question decides; null for none.</summary>
    public Symptom? OfQuestion(string id) => All.FirstOrDefault(symptom => symptom.Ask?.Id == id || symptom.Confirm?.Id == id);

    /// <summary>The question of this id; null for none.</summary>
    public SymptomQuestion? Question(string id) =>
        All.SelectMany(symptom => new[] { symptom.Ask, symptom.Confirm }).OfType<SymptomQuestion>().FirstOrDefault(ask => ask.Id == id);
}
