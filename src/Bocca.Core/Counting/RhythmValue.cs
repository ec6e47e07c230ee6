using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Counting;

/// <summary>A note value or figure as it is taught (<c>rhythm-values.json</c>, in the order in which they are introduced).</summary>
/// <param name="Id">Its name in records and addresses, such as <c>qd</c>.</param>
/// <param name="Name">Its name for people, with note values as fractions of the whole are called here.</param>
/// <param name="Simple">The figures it makes where a beat has two halves; each lasts whole beats.</param>
/// <param name="Compound">The same where a beat has three thirds, as in 6/8.</param>
/// <param name="Basis">Where its place in the order comes from.</param>
public sealed record RhythmValue(string Id, string Name, IReadOnlyList<string> Simple, IReadOnlyList<string> Compound, string Basis)
{
    private static readonly Lazy<IReadOnlyList<RhythmValue>> Shipped = new(() =>
        EmbeddedData.Read<List<RhythmValue>>("rhythm-values.json")
    );

    /// <summary>All of them, in the order in which they are taught.</summary>
    public static IReadOnlyList<RhythmValue> All => Shipped.Value;

    /// <summary>
    /// Those that a stage has met where no teacher has said otherwise: the first that are taught (ours, editable by hand).
    /// </summary>
    public static IReadOnlyList<RhythmValue> MetBy(LearningStage stage)
    {
        const int First = 3,
            Second = 7;
        return [.. All.Take(stage >= LearningStage.Second ? Second : First)];
    }

    /// <summary>The figures it makes in a metre.</summary>
    public IReadOnlyList<string> In(Metre metre) => metre.IsCompound ? Compound : Simple;

    /// <summary>The value of an id; a dot may be written for a <c>d</c>.</summary>
    /// <exception cref="ArgumentException">There is none such.</exception>
    public static RhythmValue Get(string id) =>
        All.FirstOrDefault(value => value.Id == id.Replace('.', 'd'))
        ?? throw new ArgumentException($"'{id}' is no value. Known: {string.Join(' ', All.Select(value => value.Id))}.");
}
