using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>Finds which sounded note answers which meant one: notes may be left out, and others slip in between.</summary>
internal static class RowAligner
{
    /// <summary>What a meant note without a sound costs, and a sound that nobody meant: a short one little (ours).</summary>
    private const double MissingCost = 3,
        ExtraCost = 2.5,
        BrushedCost = 0.8,
        BrushedSeconds = 0.12;

    /// <summary>The most that a pair far apart costs: less than leaving the one out and the other in.</summary>
    private const double MostApart = 2.6;

    /// <summary>For each meant note the index of its sound; null where none answers it.</summary>
    public static IReadOnlyList<int?> Align(
        IReadOnlyList<MeantNote> meant,
        IReadOnlyList<SoundedNote> sounded,
        Tuning tuning,
        double shiftCents = 0
    )
    {
        var cost = new double[meant.Count + 1, sounded.Count + 1];
        for (var i = 0; i <= meant.Count; i++)
        for (var j = 0; j <= sounded.Count; j++)
            cost[i, j] = (i, j) switch
            {
                (0, 0) => 0,
                (0, _) => cost[0, j - 1] + Extra(sounded[j - 1]),
                (_, 0) => cost[i - 1, 0] + MissingCost,
                _ => Math.Min(Pair(i, j), Math.Min(cost[i - 1, j] + MissingCost, cost[i, j - 1] + Extra(sounded[j - 1]))),
            };
        var answers = new int?[meant.Count];
        for (var (i, j) = (meant.Count, sounded.Count); i > 0; )
        {
            if (j > 0 && cost[i, j] == Pair(i, j))
                (answers[i - 1], i, j) = (j - 1, i - 1, j - 1);
            else if (j > 0 && cost[i, j] == cost[i, j - 1] + Extra(sounded[j - 1]))
                j--;
            else
                i--;
        }

        return answers;
        double Pair(int i, int j) => cost[i - 1, j - 1] + Apart(meant[i - 1], sounded[j - 1], tuning, shiftCents);
    }

    /// <summary>Near the note costs nothing; a partial away, which is how notes are missed, less than the distance says.</summary>
    private static double Apart(MeantNote meant, SoundedNote sounded, Tuning tuning, double shiftCents)
    {
        var cents = Math.Abs(Tuning.Cents(tuning.Frequency(meant.Sounding), sounded.MedianHz) - shiftCents);
        return Math.Min(MostApart, cents < 60 ? cents / 600 : 0.6 + (cents / 600));
    }

    private static double Extra(SoundedNote sounded) => sounded.Seconds < BrushedSeconds ? BrushedCost : ExtraCost;
}
