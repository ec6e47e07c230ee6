namespace Bocca.Core.Judging;

/// <summary>A symptom found in a take, with the numbers it was found by.</summary>
/// <param name="Symptom">What was found.</param>
/// <param name="Tries">The tries that show it, counted from 1.</param>
/// <param name="Measured">The median measure over those tries, in <paramref name="Unit"/>.</param>
/// <param name="Limit">The limit it passed.</param>
/// <param name="Unit">The unit of both.</param>
/// <param name="Heard">What was heard, in a sentence with its number.</param>
public sealed record Finding(Symptom Symptom, IReadOnlyList<int> Tries, double Measured, double Limit, string Unit, string Heard)
{
    /// <summary>How far past the limit: 1 at it, 2 twice as far.</summary>
    public double Severity => Limit == 0 ? 1 + Math.Abs(Measured) : Math.Abs(Measured / Limit);

    /// <summary>The limit it passed; empty where the sentence heard has it already, or where what was counted has none.</summary>
    public string Passed =>
        Limit == 0 || Unit == "holes" || Heard.Contains($"{Math.Abs(Limit):0.#}", StringComparison.Ordinal)
            ? ""
            : $"{Math.Abs(Limit):0.#} {Unit} is the aim.";
}
