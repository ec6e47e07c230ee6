using Bocca.Core.Judging;

namespace Bocca.Core.Buzz.Aims;

/// <summary>A note, the half step below, and back: the step within 40 cents, the return within 30 (ours, editable).</summary>
internal static class NeighbourAim
{
    private const double StepCents = 40,
        ReturnCents = 30;

    /// <summary>Sequences that a drill of two to five minutes asks for at least (common practice).</summary>
    private const int Fewest = 7;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var sequences = take.Measures.Spoken.Select(take.Plateaus).Where(heights => heights.Count == 3).ToList();
        var steps = sequences.Select(heights => 100 * (heights[0] - heights[1])).ToList();
        var returns = sequences.Select(heights => 100 * (heights[2] - heights[0])).ToList();
        var good = sequences.Count(heights =>
            heights is [{ } note, { } below, { } back]
            && Math.Abs((100 * (note - below)) - 100) <= StepCents
            && Math.Abs(100 * (back - note)) <= ReturnCents
        );
        var asked = Math.Min(Fewest, take.Measures.Asked.Count());
        return
        [
            new AskedHeard(
                "half step down",
                $"100 cents, {StepCents:0} either way",
                $"{Median(steps):0} cents",
                Math.Abs(Median(steps) - 100) <= StepCents,
                "Sing the half step first, then buzz it."
            )
            {
                Unsung = "Hear the half step inside first, then buzz it.",
            },
            new AskedHeard(
                "back again",
                $"0 cents, {ReturnCents:0} either way",
                $"{Median(returns):+0;-0;0} cents",
                Math.Abs(Median(returns)) <= ReturnCents,
                "Keep the first note in the ear while the lower one sounds."
            ),
            new AskedHeard(
                "sequences",
                $"{asked} or more",
                $"{good} of {take.Measures.Asked.Count()}",
                good >= asked,
                "Slower: one sequence, a full breath, the next."
            ),
        ];
    }

    private static double Median(IEnumerable<double?> values)
    {
        var known = values.OfType<double>().ToList();
        return known.Count == 0 ? double.NaN : MathNet.Numerics.Statistics.Statistics.Median(known);
    }
}
