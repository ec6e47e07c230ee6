using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Study;

/// <summary>What differs between two bars that are alike.</summary>
public enum Difference
{
    /// <summary>The level.</summary>
    Level,

    /// <summary>Tongue, slurs and signs.</summary>
    Articulation,

    /// <summary>How it ends.</summary>
    Ending,

    /// <summary>It lies higher or lower throughout.</summary>
    Pitch,
}

/// <summary>Bars that come again.</summary>
/// <param name="From">The first note of what comes again.</param>
/// <param name="To">Its last note.</param>
/// <param name="Like">The first note of what it is like.</param>
/// <param name="Differs">What differs; empty where nothing does.</param>
public sealed record Return(int From, int To, int Like, IReadOnlyList<Difference> Differs)
{
    /// <summary>How many notes from the beginning have the same pitch and length in both.</summary>
    public int Same { get; init; }

    /// <summary>Semitones by which it lies higher; 0 where it is the same.</summary>
    public int Semitones { get; init; }

    /// <summary>The bars it takes up, and the first bar of what it is like, by their places.</summary>
    public (int First, int Last, int Like) Bars { get; init; }
}

/// <summary>Finds bars that come again: the longest stretch at each, the same notes before the same shape elsewhere.</summary>
public static class Returns
{
    /// <summary>A stretch with fewer notes says nothing: the same, and the same higher or lower (ours, editable).</summary>
    private const int LeastNotes = 3,
        LeastMovedNotes = 4;

    /// <summary>All that comes again in a line, in its order.</summary>
    public static IReadOnlyList<Return> Of(PieceLine line)
    {
        var bars = Bars(line);
        var (same, shapes) = (Alike(bars, Exact), Alike(bars, Shape));
        var (sames, shaped) = (Places(same), Places(shapes));
        var returns = new List<Return>();
        for (var bar = 1; bar < bars.Count; )
        {
            var found = Longest(bars, bar, same, sames, LeastNotes) ?? Longest(bars, bar, shapes, shaped, LeastMovedNotes);
            if (found is var (like, count))
            {
                var made = Made(line, bars, bar, like, count);
                returns.Add(made);
                bar = made.Bars.Last + 1;
            }
            else
            {
                bar++;
            }
        }

        return returns;
    }

    private static List<List<LineNote>> Bars(PieceLine line)
    {
        var bars = line.Bars.Select(_ => new List<LineNote>()).ToList();
        foreach (var note in line.Notes)
            bars[note.Bar].Add(note);
        return bars;
    }

    private static string Exact(List<LineNote> bar) =>
        bar.Count == 0
            ? ""
            : string.Join(' ', bar.Select(note => $"{note.At - bar[0].At}:{note.Length}:{note.Sounding.Midi}")) + $"@{bar[0].Beat}";

    private static string Shape(List<LineNote> bar) =>
        bar.Count == 0
            ? ""
            : string.Join(' ', bar.Select(note => $"{note.At - bar[0].At}:{note.Length}:{note.Sounding.Midi - bar[0].Sounding.Midi}"))
                + $"@{bar[0].Beat}";

    /// <summary>A number for each bar, the same where bars are alike; -1 where nothing begins in it.</summary>
    private static int[] Alike(List<List<LineNote>> bars, Func<List<LineNote>, string> key)
    {
        var numbers = new Dictionary<string, int>();
        return
        [
            .. bars.Select(bar =>
            {
                if (bar.Count == 0)
                    return -1;
                numbers.TryAdd(key(bar), numbers.Count);
                return numbers[key(bar)];
            }),
        ];
    }

    private static ILookup<int, int> Places(int[] alike) => Enumerable.Range(0, alike.Length).ToLookup(bar => alike[bar]);

    private static (int Like, int Count)? Longest(List<List<LineNote>> bars, int bar, int[] alike, ILookup<int, int> places, int least)
    {
        if (bars[bar].Count == 0)
            return null;
        (int Like, int Count)? best = null;
        foreach (var like in places[alike[bar]].TakeWhile(like => like < bar))
        {
            var moved = bars[bar][0].Sounding.Midi - bars[like][0].Sounding.Midi;
            var count = 1;
            while (like + count < bar && bar + count < bars.Count && alike[like + count] == alike[bar + count] && MovesAlike(count))
                count++;
            if (count > (best?.Count ?? 0) && bars.Skip(bar).Take(count).Sum(each => each.Count) >= least)
                best = (like, count);

            bool MovesAlike(int on) =>
                bars[bar + on].Count == 0 || bars[bar + on][0].Sounding.Midi - bars[like + on][0].Sounding.Midi == moved;
        }

        return best;
    }

    private static Return Made(PieceLine line, List<List<LineNote>> bars, int bar, int like, int count)
    {
        var moved = bars[bar][0].Sounding.Midi - bars[like][0].Sounding.Midi;
        var pairs = Enumerable.Range(0, count).SelectMany(i => bars[bar + i].Zip(bars[like + i])).ToList();
        var differs = new List<Difference>();
        if (pairs.Exists(pair => pair.First.Level != pair.Second.Level))
            differs.Add(Difference.Level);
        if (pairs.Exists(pair => pair.First.Slurred != pair.Second.Slurred || Signs(pair.First) != Signs(pair.Second)))
            differs.Add(Difference.Articulation);
        var last = bar + count - 1;
        var to = pairs[^1].First.Index;
        if (moved == 0 && EndsOtherwise(bars, bar + count, like + count, bar))
        {
            differs.Add(Difference.Ending);
            (last, to) = (last + 1, bars[last + 1][^1].Index);
        }

        if (moved != 0)
            differs.Add(Difference.Pitch);
        return new Return(bars[bar][0].Index, to, bars[like][0].Index, differs)
        {
            Same = moved == 0 ? pairs.Count : 0,
            Semitones = moved,
            Bars = (bar, last, like),
        };
    }

    /// <summary>Whether two bars begin alike, at least for half of their notes, and go on otherwise.</summary>
    private static bool EndsOtherwise(List<List<LineNote>> bars, int bar, int like, int first)
    {
        if (bar >= bars.Count || like >= first || bars[bar].Count == 0 || bars[like].Count == 0)
            return false;
        var same = bars[bar]
            .Zip(bars[like])
            .TakeWhile(pair => pair.First.Sounding.Midi == pair.Second.Sounding.Midi && pair.First.Beat == pair.Second.Beat)
            .Count();
        return 2 * same >= bars[bar].Count;
    }

    private static Score.NoteMarks Signs(LineNote note) => note.Marks & ~(Score.NoteMarks.Breath | Score.NoteMarks.Fermata);
}
