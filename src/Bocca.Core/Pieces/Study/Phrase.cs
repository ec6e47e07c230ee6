using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Study;

/// <summary>A phrase.</summary>
/// <param name="From">Its first note.</param>
/// <param name="To">Its last note.</param>
public sealed record Phrase(int From, int To)
{
    /// <summary>The level that most of its notes have; empty where none is written.</summary>
    public string Level { get; init; } = "";

    /// <summary>Why it ends where it does, in words.</summary>
    public string Why { get; init; } = "";
}

/// <summary>
/// Where phrases end: at rests, commas, long notes, double bars and where material comes again; two to eight bars long where nothing says
/// otherwise. Weights ours, editable; the teacher's own boundaries hold.
/// </summary>
public static class Phrases
{
    /// <summary>What a boundary has to outweigh.</summary>
    private const double Threshold = 4;

    /// <summary>Bars of a phrase that nothing else shortens or lengthens.</summary>
    private const double LeastBars = 2,
        MostBars = 8;

    private const double PerBarShort = 3,
        PerBarLong = 1;

    /// <summary>The longest phrase looked at, notes.</summary>
    private const int MostNotes = 300;

    /// <summary>The phrases of a line.</summary>
    /// <param name="line">The line.</param>
    /// <param name="returns">What comes again in it.</param>
    /// <param name="ends">Notes after which the teacher ends a phrase.</param>
    /// <param name="joins">Notes after which none ends.</param>
    public static IReadOnlyList<Phrase> Of(
        PieceLine line,
        IReadOnlyList<Return> returns,
        IReadOnlySet<int>? ends = null,
        IReadOnlySet<int>? joins = null
    )
    {
        var count = line.Notes.Count;
        if (count == 0)
            return [];
        var after = Boundaries(line, returns);
        // In bars, as numbers: every stretch is looked at.
        var bar = line.Notes.Select(note => line.Bars[note.Bar].Metre.Bar.Value).ToArray();
        var begins = line.Notes.Select(note => note.At.Value).ToArray();
        var stops = line.Notes.Select(note => (note.End + note.RestAfter).Value).ToArray();
        var (best, from) = (new double[count + 1], new int[count + 1]);
        for (var end = 1; end <= count; end++)
        {
            best[end] = double.NegativeInfinity;
            var closes =
                end == count || (joins?.Contains(end - 1) != true && (ends?.Contains(end - 1) == true || after[end - 1].Weight > 0));
            if (!closes)
                continue;
            var weight =
                end == count ? Threshold
                : ends?.Contains(end - 1) == true ? 100
                : after[end - 1].Weight;
            for (var start = end - 1; start >= Math.Max(0, end - MostNotes); start--)
            {
                var value = best[start] + weight - Threshold - Length((stops[end - 1] - begins[start]) / bar[start]);
                if (value > best[end])
                    (best[end], from[end]) = (value, start);
                // Nothing goes over what the teacher ends.
                if (start > 0 && ends?.Contains(start - 1) == true)
                    break;
            }
        }

        return Back(line, after, from);
    }

    private static List<Phrase> Back(PieceLine line, (double Weight, string Why)[] after, int[] from)
    {
        var phrases = new List<Phrase>();
        for (var end = line.Notes.Count; end > 0; end = from[end])
            phrases.Add(
                new Phrase(from[end], end - 1)
                {
                    Level = line
                        .Notes.Skip(from[end])
                        .Take(end - from[end])
                        .GroupBy(note => note.Level)
                        .OrderByDescending(level => level.Sum(note => note.Length.Value))
                        .First()
                        .Key,
                    Why = end == line.Notes.Count ? "the end" : after[end - 1].Why,
                }
            );
        phrases.Reverse();
        return phrases;
    }

    /// <summary>What a phrase of so many bars costs.</summary>
    private static double Length(double bars) =>
        (PerBarShort * Math.Max(0, LeastBars - bars)) + (PerBarLong * Math.Max(0, bars - MostBars));

    /// <summary>How much speaks for a boundary after each note, and what most of all; 0 where there can be none.</summary>
    private static (double Weight, string Why)[] Boundaries(PieceLine line, IReadOnlyList<Return> returns)
    {
        var begins = returns.SelectMany(each => new[] { each.From, each.Like }).ToHashSet();
        var lengths = line.Notes.Select(note => note.Length.Value).Order().ToList();
        var usual = lengths[lengths.Count / 2];
        var after = new (double, string)[line.Notes.Count];
        for (var i = 0; i + 1 < line.Notes.Count; i++)
            after[i] = line.Notes[i + 1].Slurred ? (0, "") : Boundary(line, i, usual, begins);
        return after;
    }

    private static (double Weight, string Why) Boundary(PieceLine line, int i, double usual, HashSet<int> begins)
    {
        var (note, next) = (line.Notes[i], line.Notes[i + 1]);
        var beat = line.Bars[note.Bar].Metre.Beat.Value;
        var reasons = new List<(double Weight, string Why)>();
        void Add(bool holds, double weight, string why)
        {
            if (holds)
                reasons.Add((weight, why));
        }

        Add(note.RestAfter.Value >= beat, 6, "a rest");
        Add(note.RestAfter > Rational.Zero && note.RestAfter.Value < beat, 3, "a short rest");
        Add(note.Marks.HasFlag(NoteMarks.Breath), 8, "a comma");
        Add((note.Marks & (NoteMarks.Fermata | NoteMarks.Caesura)) != 0, 6, "it stops");
        Add(note.Length.Value >= 2 * usual && note.Length.Value >= beat, note.Length.Value >= 3 * usual ? 3 : 2, "a long note");
        Add(line.Bars[note.Bar].EndsSection && next.Bar > note.Bar, 8, "a section ends");
        Add(begins.Contains(next.Index), 3, "what comes next is known");
        Add(next.Bar > note.Bar && next.Bar % 4 == StartOf(line) % 4 && next.Beat == line.Notes[0].Beat, 2, "four bars");
        Add(next.Bar > note.Bar && next.Bar % 2 == StartOf(line) % 2, 1, "two bars");
        Add(note.Slurred, 0.5, "a slur ends");
        return reasons.Count == 0 ? (0.1, "") : (reasons.Sum(reason => reason.Weight), reasons.MaxBy(reason => reason.Weight).Why);
    }

    /// <summary>The bar from which bars are counted in twos and fours: not a pickup.</summary>
    private static int StartOf(PieceLine line) => line.Bars[0].Length < line.Bars[0].Metre.Bar ? 1 : 0;
}
