namespace Bocca.Core.Breath;

/// <summary>A rest and whether a pupil can fill the lungs in it.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Seconds">How long it is at the tempo.</param>
/// <param name="Usable">Whether that is at least the pupil's quickest full breath; null where that is not known.</param>
public sealed record RestForBreath(string Name, double Seconds, bool? Usable)
{
    private static readonly (string Name, double Quarters)[] Values =
    [
        ("whole", 4),
        ("half", 2),
        ("quarter", 1),
        ("eighth", 0.5),
        ("sixteenth", 0.25),
        ("32nd", 0.125),
    ];

    /// <summary>The rests at a tempo in quarters a minute.</summary>
    /// <param name="tempo">Quarters a minute.</param>
    /// <param name="quickest">The pupil's quickest full breath in seconds, or null.</param>
    public static IReadOnlyList<RestForBreath> At(double tempo, double? quickest) =>
        [
            .. Values.Select(value => new RestForBreath(
                value.Name,
                Counts.Seconds(value.Quarters, tempo),
                quickest is { } least ? Counts.Seconds(value.Quarters, tempo) >= least - 1e-9 : null
            )),
        ];

    /// <summary>What is shorter is no full breath, but tops one up (counts; common practice: a quarter, then an eighth).</summary>
    private const double LeastFullCounts = 0.5;

    /// <summary>The quickest full breath of some passes: the shortest in-breath of an even quick one; null where there is none.</summary>
    public static double? Quickest(IEnumerable<BreathPass> passes)
    {
        var drills = BreathDrill.All.Where(drill => drill.Kind == BreathKind.Quick).ToDictionary(drill => drill.Id);
        return passes
            .Where(pass =>
                pass.Even
                && drills.ContainsKey(pass.DrillId)
                && pass.Rung < drills[pass.DrillId].Rungs.Count
                && InCounts(drills[pass.DrillId].Rungs[pass.Rung]) >= LeastFullCounts
            )
            .Select(pass => (double?)Counts.Seconds(InCounts(drills[pass.DrillId].Rungs[pass.Rung]), pass.Tempo))
            .DefaultIfEmpty(null)
            .Min();
    }

    private static double InCounts(BreathPattern rung) =>
        rung.Phases.Where(phase => phase.Kind == BreathPhaseKind.In).Sum(phase => phase.Counts);
}
