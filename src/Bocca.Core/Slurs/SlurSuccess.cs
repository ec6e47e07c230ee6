namespace Bocca.Core.Slurs;

/// <summary>A try at a slur.</summary>
/// <param name="SlurId">Which slur.</param>
/// <param name="Pairs">The pairs of partials in it.</param>
/// <param name="Difficulty">Its difficulty then, points.</param>
/// <param name="Clean">Whether it came clean.</param>
/// <param name="At">When.</param>
public sealed record SlurTry(string SlurId, IReadOnlyList<(int Low, int High)> Pairs, double Difficulty, bool Clean, DateTime At);

/// <summary>
/// How likely a pupil is to play a slur clean: 1 / (1 + exp(-(ability - 0.35 x difficulty + the mean of its pairs' own ease))).
/// Ability and the ease of each pair of partials are the most likely ones for the pupil's tries, beside what is usual: ability 4
/// with a spread of 2.5, ease 0 with a spread of 1 (ours, editable; logistic regression with normal priors, by Newton's method).
/// </summary>
public sealed class SlurSuccess
{
    /// <summary>A slur this likely to come clean is easy for a pupil, and one this likely right to work on (ours, editable).</summary>
    public const double Easy = 0.8,
        Right = 0.45;

    private const double UsualAbility = 4,
        AbilitySpread = 2.5,
        EaseSpread = 1,
        PerPoint = 0.35,
        LongestStep = 3;
    private const int Rounds = 30;

    /// <summary>A round that moves nothing by more has found it.</summary>
    private const double Settled = 1e-9;
    private readonly Dictionary<(int, int), double> _ease = [];

    private SlurSuccess() { }

    /// <summary>The pupil's ability: a slur of so many points over 0.35 comes every other time.</summary>
    public double Ability { get; private set; } = UsualAbility;

    /// <summary>Reads the ability from tries, oldest or newest first.</summary>
    public static SlurSuccess From(IReadOnlyList<SlurTry> tries)
    {
        var success = new SlurSuccess();
        foreach (var pair in tries.SelectMany(each => each.Pairs).Distinct())
            success._ease[pair] = 0;
        for (var round = 0; round < Rounds && tries.Count > 0; round++)
            if (success.Improve(tries) < Settled)
                break;
        return success;
    }

    /// <summary>How likely a slur comes clean, 0 to 1.</summary>
    public double Likelihood(double difficulty, IReadOnlyCollection<(int Low, int High)> pairs) =>
        1 / (1 + Math.Exp(-(Ability - (PerPoint * difficulty) + Ease(pairs))));

    /// <summary>How hard a slur is for the pupil: <c>easy</c>, <c>right</c> or <c>hard</c>.</summary>
    /// <param name="likelihood">How likely it comes clean.</param>
    public static string Words(double likelihood) =>
        likelihood >= Easy ? "easy"
        : likelihood >= Right ? "right"
        : "hard";

    private double Ease(IReadOnlyCollection<(int Low, int High)> pairs) =>
        pairs.Count == 0 ? 0 : pairs.Average(pair => _ease.GetValueOrDefault(pair));

    /// <summary>One step of Newton's method, one unknown after the other; says how far the longest step went.</summary>
    private double Improve(IReadOnlyList<SlurTry> tries)
    {
        var (slope, bend) = ((UsualAbility - Ability) / (AbilitySpread * AbilitySpread), 1 / (AbilitySpread * AbilitySpread));
        foreach (var each in tries)
        {
            var likely = Likelihood(each.Difficulty, each.Pairs);
            slope += (each.Clean ? 1 : 0) - likely;
            bend += likely * (1 - likely);
        }

        var moved = Math.Clamp(slope / bend, -LongestStep, LongestStep);
        Ability += moved;
        var longest = Math.Abs(moved);
        foreach (var pair in _ease.Keys.ToList())
        {
            (slope, bend) = (-_ease[pair] / (EaseSpread * EaseSpread), 1 / (EaseSpread * EaseSpread));
            foreach (var each in tries.Where(each => each.Pairs.Contains(pair)))
            {
                var share = (double)each.Pairs.Count(its => its == pair) / each.Pairs.Count;
                var likely = Likelihood(each.Difficulty, each.Pairs);
                slope += share * ((each.Clean ? 1 : 0) - likely);
                bend += share * share * likely * (1 - likely);
            }

            moved = Math.Clamp(slope / bend, -LongestStep, LongestStep);
            _ease[pair] += moved;
            longest = Math.Max(longest, Math.Abs(moved));
        }

        return longest;
    }
}
