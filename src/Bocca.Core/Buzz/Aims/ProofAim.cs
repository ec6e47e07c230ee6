using Bocca.Core.Judging;

namespace Bocca.Core.Buzz.Aims;

/// <summary>Silent where the lips cannot meet, a tone where they do: each counted under its own label.</summary>
internal static class ProofAim
{
    public static IReadOnlyList<AskedHeard> Of(AimedTake take)
    {
        var aims = new List<AskedHeard>();
        foreach (var kind in take.Measures.Attempts.Where(attempt => attempt.Asked is not null).GroupBy(attempt => attempt.Asked!.Label))
        {
            var (all, spoke) = (kind.Count(), kind.Count(attempt => attempt.Spoke));
            aims.Add(
                kind.First().Asked!.Silent
                    ? new AskedHeard(kind.Key, "no tone", Spoke(spoke, all), spoke == 0, "Let it be air alone here.")
                    : new AskedHeard(
                        kind.Key,
                        "a tone each time",
                        Spoke(spoke, all),
                        spoke == all,
                        "Let the lips meet on air that is already moving."
                    )
            );
        }

        return aims;
    }

    private static string Spoke(int spoke, int all) => spoke == 0 ? "none sounded" : $"{spoke} of {all} sounded";
}
