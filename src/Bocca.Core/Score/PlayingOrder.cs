namespace Bocca.Core.Score;

/// <summary>The order in which measures are played: repeats, endings, back to the sign, on to the coda.</summary>
public static class PlayingOrder
{
    /// <summary>Measures that a piece has at most when it is played.</summary>
    public const int MostMeasures = 20_000;

    /// <summary>The measures of a part by their places, in the order in which they are played.</summary>
    /// <exception cref="InvalidDataException">The repeats make it longer than is played.</exception>
    public static IReadOnlyList<int> Of(IReadOnlyList<ScoreMeasure> measures)
    {
        var order = new List<int>();
        var (from, time, jumped) = (0, 1, false);
        var ending = Endings(measures);
        for (var at = 0; at < measures.Count; )
        {
            var measure = measures[at];
            if (measure.RepeatBegins && at != from)
                (from, time) = (at, 1);
            // An ending of another time through is passed over; after a jump back the last one is taken.
            if (ending[at] is { } times && !(jumped ? times.Max == LastTime(ending, at) : times.Contains(time)))
            {
                at++;
                continue;
            }

            order.Add(at);
            if (order.Count > MostMeasures)
                throw new InvalidDataException($"With its repeats the piece has more than {MostMeasures} measures.");
            if (jumped && Has(measure, MarkKind.Fine))
                break;
            if (jumped && Has(measure, MarkKind.ToCoda) && Find(measures, MarkKind.Coda) is { } coda && coda > at)
            {
                at = coda;
                continue;
            }

            if (!jumped && measure.RepeatTimes > time)
            {
                (at, time) = (from, time + 1);
                continue;
            }

            if (measure.RepeatTimes > 0)
                (from, time) = (at + 1, 1);
            if (!jumped && (Has(measure, MarkKind.DaCapo) || Has(measure, MarkKind.DalSegno)))
            {
                (jumped, at) = (true, Has(measure, MarkKind.DaCapo) ? 0 : Find(measures, MarkKind.Segno) ?? 0);
                (from, time) = (at, 1);
                continue;
            }

            at++;
        }

        return order;
    }

    private static bool Has(ScoreMeasure measure, MarkKind kind) => measure.Marks.Any(mark => mark.Kind == kind);

    private static int? Find(IReadOnlyList<ScoreMeasure> measures, MarkKind kind)
    {
        for (var i = 0; i < measures.Count; i++)
            if (Has(measures[i], kind))
                return i;
        return null;
    }

    /// <summary>The times through on which each measure is played; null where it stands under no ending.</summary>
    private static SortedSet<int>?[] Endings(IReadOnlyList<ScoreMeasure> measures)
    {
        var all = new SortedSet<int>?[measures.Count];
        SortedSet<int>? open = null;
        for (var i = 0; i < measures.Count; i++)
        {
            if (measures[i].EndingBegins.Count > 0)
                open = [.. measures[i].EndingBegins];
            all[i] = open;
            if (measures[i].EndingEnds || measures[i].RepeatTimes > 0)
                open = null;
        }

        return all;
    }

    /// <summary>The last time through of the endings that stand beside one another here.</summary>
    private static int LastTime(SortedSet<int>?[] endings, int at)
    {
        var last = 0;
        for (var i = at; i < endings.Length && endings[i] is { } times; i++)
            last = Math.Max(last, times.Max);
        for (var i = at; i >= 0 && endings[i] is { } times; i--)
            last = Math.Max(last, times.Max);
        return last;
    }
}
