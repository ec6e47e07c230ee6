using Bocca.Core.Counting;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Study;

/// <summary>Which of the values that are taught a line asks for.</summary>
public static class NoteValues
{
    private static readonly (Rational Length, string Id)[] Heads =
    [
        (4, "w"),
        (3, "hd"),
        (2, "h"),
        (new(3, 2), "qd"),
        (1, "q"),
        (new(3, 4), "ed"),
        (new(1, 2), "e"),
        (new(1, 4), "s"),
    ];

    private static readonly (Rational Length, string Id)[] Rests = [(4, "rw"), (2, "rh"), (1, "rq"), (new(1, 2), "re")];

    /// <summary>The values of a line, each with the first note that has it, in the order in which they are taught.</summary>
    public static IReadOnlyList<(RhythmValue Value, int First)> Of(PieceLine line)
    {
        var first = new Dictionary<string, int>();
        foreach (var note in line.Notes)
        {
            foreach (var id in note.InTuplet ? ["3"] : note.Heads.Select(head => IdOf(Heads, head)).OfType<string>())
                first.TryAdd(id, note.Index);
            if (note.Heads.Count > 1)
                first.TryAdd("tie", note.Index);
            if (IdOf(Rests, note.RestAfter) is { } rest)
                first.TryAdd(rest, note.Index);
        }

        return [.. RhythmValue.All.Where(value => first.ContainsKey(value.Id)).Select(value => (value, first[value.Id]))];
    }

    private static string? IdOf((Rational Length, string Id)[] values, Rational length) =>
        values.FirstOrDefault(value => value.Length == length).Id;
}
