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

    /// <summary>The number beside its limit; where tries or notes were counted, the sentence heard says it all.</summary>
    public string Numbers => Limit == 0 ? Heard : $"Measured {Math.Abs(Measured):0.#} {Unit}; {Math.Abs(Limit):0.#} is the limit for now.";
}
