namespace Bocca.Core.Breath;

/// <summary>The ladder of a drill: the next rung only after two even passes, a lower one where the breath ended early twice.</summary>
public static class BreathLadder
{
    /// <summary>Even passes in a row from which the next rung is open (ours, editable).</summary>
    public const int Passes = 2;

    /// <summary>Counts that an out-breath may end early and still count as that many (ours, editable).</summary>
    private const double EarlyCounts = 0.5;

    /// <summary>
    /// The rung to do next, from 0: one above the highest that ended on two even passes. Where its out-breath ended early twice in a row,
    /// it is the highest rung that fits into what was heard, until that one has passed twice.
    /// </summary>
    /// <param name="drill">The drill.</param>
    /// <param name="passes">What was done, in any order; other drills are passed over.</param>
    public static int Next(BreathDrill drill, IEnumerable<BreathPass> passes)
    {
        var rungs = passes
            .Where(pass => pass.DrillId == drill.Id)
            .GroupBy(pass => pass.Rung)
            .ToDictionary(rung => rung.Key, rung => rung.OrderByDescending(pass => pass.At).Take(Passes).ToList());
        var done = rungs.Where(rung => IsDone(rung.Value)).Select(rung => rung.Key).DefaultIfEmpty(-1).Max();
        var next = Math.Min(done + 1, drill.Rungs.Count - 1);
        if (!rungs.TryGetValue(next, out var last) || last.Count < Passes || last.Exists(pass => !EndedEarly(drill, pass)))
            return next;
        var counts = last.Max(HeardCounts) + EarlyCounts;
        var fits = Enumerable.Range(0, next + 1).Last(rung => rung == 0 || OutCounts(drill, rung) <= counts);
        return rungs.TryGetValue(fits, out var since) && IsDone(since) && since.TrueForAll(pass => pass.At > last[0].At) ? next : fits;
    }

    private static bool IsDone(List<BreathPass> last) => last.Count(pass => pass.Even) == Passes;

    private static bool EndedEarly(BreathDrill drill, BreathPass pass) =>
        pass is { Even: false, Measured: true } && HeardCounts(pass) < OutCounts(drill, pass.Rung) - EarlyCounts;

    private static double HeardCounts(BreathPass pass) => pass.Seconds * pass.Tempo / 60;

    private static double OutCounts(BreathDrill drill, int rung) =>
        rung < drill.Rungs.Count
            ? drill.Rungs[rung].Phases.Where(phase => phase.Kind == BreathPhaseKind.Out).Max(phase => phase.Counts)
            : 0;

    /// <summary>The highest rung up to one that a pupil may do at all: one beyond the limits is not the next.</summary>
    /// <param name="drill">The drill.</param>
    /// <param name="rung">The rung that would be next, from 0.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="pupil">Who breathes.</param>
    public static int Allowed(BreathDrill drill, int rung, double tempo, BreathingPupil pupil)
    {
        while (rung > 0 && BreathPlan.Make(drill, drill.Rungs[rung], tempo, pupil, BreathDay.Fresh).Plan is null)
            rung--;
        return rung;
    }
}
