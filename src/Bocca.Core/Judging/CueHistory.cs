namespace Bocca.Core.Judging;

/// <summary>What came of a cue: the take after it, beside the one that it was given for.</summary>
/// <param name="Cue">The cue, as <see cref="CueHistory.NameOf"/> names it.</param>
/// <param name="Helped">Whether the symptom was gone, or fewer tries showed it.</param>
public readonly record struct CueTry(string Cue, bool Helped);

/// <summary>
/// How cues have worked with one pupil (common practice: what helped comes first next time; the next rung when three tries show no gain).
/// </summary>
/// <param name="Tries">What came of them, the newest first.</param>
public sealed record CueHistory(IReadOnlyList<CueTry> Tries)
{
    /// <summary>Tries without gain after which the next rung comes (common practice).</summary>
    public const int Patience = 3;

    /// <summary>Tries of a cue that are looked back on (ours, editable).</summary>
    private const int LookBack = 12;

    /// <summary>How a cue is followed: how often it helped, of how many times.</summary>
    public static FigureKind Helped { get; } = new("cue", "%", "helps less", "helps more", IsShare: true);

    /// <summary>Nothing tried yet.</summary>
    public static CueHistory Empty { get; } = new([]);

    /// <summary>A cue in records: the symptom, a dot, and the rung.</summary>
    public static string NameOf(string symptomId, Fix fix) => $"{symptomId}.{fix.Id}";

    /// <summary>What a take says of the cue before it, as a figure; none for no cue.</summary>
    public static IEnumerable<Figure> FiguresOf(Verdict verdict) =>
        verdict.Came is { } came ? [new Figure(Helped, came.Helped ? 1 : 0, Item: came.Cue)] : [];

    /// <summary>How often a cue helped, of how many of its last tries.</summary>
    public (int Helped, int Of) Count(string symptomId, Fix fix)
    {
        var tries = Of(symptomId, fix);
        return (tries.Count(each => each.Helped), tries.Count);
    }

    /// <summary>
    /// The rung to try: of those not given up, the one that helped most often, else the first; where all are given up, the one given up
    /// longest ago; null for an empty ladder.
    /// </summary>
    internal Fix? Choose(string symptomId, IReadOnlyList<Fix> ladder)
    {
        var open = ladder.Where(fix => !IsGivenUp(symptomId, fix)).ToList();
        if (open.Count == 0)
            return ladder.MaxBy(fix => Latest(symptomId, fix));
        return open.MaxBy(fix => Share(symptomId, fix)) is { } best && Share(symptomId, best) > 0 ? best : open[0];
    }

    /// <summary>
    /// What came of the cue of an earlier take: whether its symptom is gone now, or fewer tries of the same drill show it; null where the
    /// earlier take gave no cue of a symptom, or one of the two could not be judged.
    /// </summary>
    /// <param name="earlier">The take that the cue was given for.</param>
    /// <param name="now">The take after it, of the same drill.</param>
    public static CueTry? Came(Verdict earlier, Verdict now) => now.Outcome == Outcome.CannotTell ? null : Came(earlier, now.Findings);

    /// <summary>The same while the later take is being judged.</summary>
    internal static CueTry? Came(Verdict earlier, IReadOnlyList<Finding> now)
    {
        if (earlier.Next.Given is not { } cue)
            return null;
        var symptom = cue.Split('.')[0];
        int Shown(IReadOnlyList<Finding> findings) => findings.FirstOrDefault(finding => finding.Symptom.Id == symptom)?.Tries.Count ?? 0;
        return new CueTry(cue, Shown(now) == 0 || Shown(now) < Shown(earlier.Findings));
    }

    /// <summary>The history with one try more.</summary>
    internal CueHistory After(CueTry came) => new([came, .. Tries]);

    private List<CueTry> Of(string symptomId, Fix fix) => [.. Tries.Where(each => each.Cue == NameOf(symptomId, fix)).Take(LookBack)];

    private bool IsGivenUp(string symptomId, Fix fix) =>
        Of(symptomId, fix).Take(Patience).ToList() is { Count: Patience } last && last.TrueForAll(each => !each.Helped);

    private double Share(string symptomId, Fix fix) =>
        Of(symptomId, fix) is { Count: > 0 } tries ? (double)tries.Count(each => each.Helped) / tries.Count : 0;

    /// <summary>How many other tries lie between now and its last one.</summary>
    private int Latest(string symptomId, Fix fix)
    {
        var name = NameOf(symptomId, fix);
        return Tries.Index().FirstOrDefault(each => each.Item.Cue == name, (Tries.Count, default)).Item1;
    }
}
