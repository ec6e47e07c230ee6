using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>What would mend a line that cannot be breathed: the least change of each kind.</summary>
/// <param name="line">The line.</param>
/// <param name="breather">Who breathes.</param>
/// <param name="runsOut">Before which note the air runs out at the latest, whatever is breathed; null where there is a plan.</param>
internal sealed class AirMends(PieceLine line, PieceBreather breather, Func<PieceLine, PieceBreather, int?> runsOut)
{
    /// <summary>No more notes are left out, and no more are tried to be (ours).</summary>
    private const int MostDropped = 3,
        MostTried = 24;

    /// <summary>What is longer is a note that one hears missing, quarters (ours).</summary>
    private static readonly Rational LongestDropped = 1;

    /// <summary>The slowest whole tempo at which there is a plan, by bisection; null where even the fastest has none.</summary>
    public double? Tempo()
    {
        bool Goes(double tempo) => runsOut(Faster(tempo / line.Tempo), breather) is null;
        var (low, high) = (Math.Floor(line.Tempo), PieceLine.FastestTempo);
        if (high <= low || !Goes(high))
            return null;
        while (high - low > 1)
        {
            var middle = Math.Floor((low + high) / 2);
            (low, high) = Goes(middle) ? (low, middle) : (middle, high);
        }

        return high;
    }

    /// <summary>Whether one level softer it goes.</summary>
    public bool Softer() => !breather.Softer && runsOut(line, breather with { Softer = true }) is null;

    /// <summary>Whether it goes where nothing is forbidden.</summary>
    public bool Freed() => breather.Forbidden.Count > 0 && runsOut(line, breather with { Forbidden = new HashSet<int>() }) is null;

    /// <summary>
    /// Short notes which, left out, give the breath its time: each as late as the air carries, before a beat if it can be; none inside
    /// a slur. Empty where that does not mend it.
    /// </summary>
    public IReadOnlyList<int> Dropped()
    {
        var (left, dropped, tried) = (line, new List<int>(), 0);
        while (runsOut(left, breather) is { } at)
        {
            var helps = Droppable(left, at)
                .Cast<int?>()
                .FirstOrDefault(note => tried++ < MostTried && runsOut(Without(left, note!.Value), breather) is var next && !(next <= at));
            if (helps is not { } drop || dropped.Count == MostDropped)
                return [];
            left = Without(left, drop);
            dropped.Add(drop);
        }

        return dropped;
    }

    private IEnumerable<int> Droppable(PieceLine of, int runsOutAt)
    {
        var (notes, spent, found) = (of.Notes, 0.0, new List<int>());
        for (var i = runsOutAt; i > 0 && spent <= breather.CapacitySeconds; spent += AirSpent.Seconds(notes[i], breather), i--)
            if (i + 1 < notes.Count && CanGo(notes[i], notes[i - 1], notes[i + 1]) && !breather.Forbidden.Contains(i - 1))
                found.Add(i);
        return found.OrderByDescending(i => notes[i + 1].IsOnBeat).ThenByDescending(i => i);
    }

    private bool CanGo(LineNote note, LineNote before, LineNote next) =>
        note.IsTongued
        && next.IsTongued
        && !note.InTuplet
        && note.Length <= LongestDropped
        && note.Held >= breather.Costs.LeastSeconds
        && before.RestAfter == Rational.Zero;

    /// <summary>The line with a note as a rest: it keeps its place and spends nothing.</summary>
    private static PieceLine Without(PieceLine of, int note)
    {
        var notes = of.Notes.ToArray();
        var (before, gone) = (notes[note - 1], notes[note]);
        notes[note - 1] = before with
        {
            RestAfter = gone.Length + gone.RestAfter,
            RestSeconds = before.RestSeconds + gone.Held + gone.RestSeconds,
        };
        notes[note] = gone with { Held = 0, RestAfter = Rational.Zero, RestSeconds = 0 };
        return of with { Notes = notes };
    }

    private PieceLine Faster(double times) =>
        line with
        {
            Tempo = line.Tempo * times,
            Notes =
            [
                .. line.Notes.Select(note =>
                    note with
                    {
                        Seconds = note.Seconds / times,
                        Held = note.Held / times,
                        RestSeconds = note.RestSeconds / times,
                    }
                ),
            ],
        };
}
