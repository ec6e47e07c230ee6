namespace Bocca.Core.Teaching;

/// <summary>
/// How a tempo rises and falls with what comes: after two in a row, a little up, or twice as far down (common practice; ours, editable).
/// </summary>
public static class TempoLadder
{
    /// <summary>Beats a minute up after two that came, and down after two that did not.</summary>
    public const double Faster = 4,
        Slower = 8;

    /// <summary>The tempo after two in a row, held within what can be counted.</summary>
    /// <param name="tempo">Beats a minute of both.</param>
    /// <param name="came">Whether both came, or neither.</param>
    public static double Next(double tempo, bool came) =>
        Math.Clamp(tempo + (came ? Faster : -Slower), CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest);

    /// <summary>The fastest tempo at which all came more than once; null for none.</summary>
    /// <param name="tempos">Beats a minute of each take in which all came.</param>
    public static double? Clean(IEnumerable<double> tempos) =>
        tempos.GroupBy(tempo => tempo).Where(takes => takes.Count() > 1).Max(takes => (double?)takes.Key);
}
