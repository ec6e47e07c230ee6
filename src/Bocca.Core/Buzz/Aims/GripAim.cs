using Bocca.Core.Judging;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Ever fewer fingers: a lighter grip has won when the tone is as steady as before.</summary>
internal static class GripAim
{
    /// <summary>So much unsteadier still counts as unchanged (ours, editable).</summary>
    private const double Unchanged = 1.25;

    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var aims = new List<AskedHeard>();
        double? first = null;
        foreach (var grip in take.Measures.Asked.Where(attempt => attempt.Asked is not null).GroupBy(attempt => attempt.Asked!.Label))
        {
            var heard = grip.Select(take.Bands.Steadiness).OfType<double>().ToList();
            if (heard.Count == 0)
            {
                aims.Add(new AskedHeard(grip.Key, "a tone", "nothing sounded", false, "Hold it so that the rim just seals, no more."));
                continue;
            }

            var steady = heard.Median();
            var most = Math.Max(take.Bands.SteadyCents, Unchanged * (first ?? 0));
            aims.Add(
                new AskedHeard(
                    grip.Key,
                    first is null ? $"inside {take.Bands.SteadyCents:0} cents" : "as steady as before",
                    $"{steady:0} cents",
                    steady <= most,
                    "Keep the seal with one finger more for now."
                )
            );
            first ??= steady;
        }

        return aims;
    }
}
