using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Study;

/// <summary>How the notes of a bar are begun.</summary>
/// <param name="Bar">The bar, by its place.</param>
/// <param name="Pattern">A letter a note that begins in it: T with the tongue, S slurred to.</param>
/// <param name="Like">The first bar with the same pattern, by its place; null where this is the first.</param>
public sealed record BarArticulation(int Bar, string Pattern, int? Like)
{
    /// <summary>The bars of a line in which notes begin.</summary>
    public static IReadOnlyList<BarArticulation> Of(PieceLine line)
    {
        var first = new Dictionary<string, int>();
        var rows = new List<BarArticulation>();
        foreach (var bar in line.Notes.GroupBy(note => note.Bar))
        {
            var pattern = string.Concat(bar.Select(note => note.IsTongued ? 'T' : 'S'));
            rows.Add(new BarArticulation(bar.Key, pattern, first.TryGetValue(pattern, out var like) ? like : null));
            first.TryAdd(pattern, bar.Key);
        }

        return rows;
    }
}
