namespace Bocca.Core.Breath;

/// <summary>The ladder of a drill: the next rung only after two even passes.</summary>
public static class BreathLadder
{
    /// <summary>Even passes in a row from which the next rung is open (ours, editable).</summary>
    public const int Passes = 2;

    /// <summary>The rung to do next, from 0: one above the highest that ended on two even passes.</summary>
    /// <param name="drill">The drill.</param>
    /// <param name="passes">What was done, in any order; other drills are passed over.</param>
    public static int Next(BreathDrill drill, IEnumerable<BreathPass> passes)
    {
        var done = passes
            .Where(pass => pass.DrillId == drill.Id)
            .GroupBy(pass => pass.Rung)
            .Where(rung => rung.OrderByDescending(pass => pass.At).Take(Passes).Count(pass => pass.Even) == Passes)
            .Select(rung => rung.Key)
            .DefaultIfEmpty(-1)
            .Max();
        return Math.Min(done + 1, drill.Rungs.Count - 1);
    }

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
