using Bocca.Core.Fingering.Passage;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>Says of breaths that were found where they are, why, and what each span needs.</summary>
internal sealed class AirWords(
    PieceLine line,
    PieceBreather breather,
    AirChain chain,
    IReadOnlyList<IReadOnlyList<AirPlace>> places,
    TiedSearch.Found found
)
{
    /// <summary>Tempi are told in whole beats: this little is rounding.</summary>
    private const double Rounding = 1e-6;

    public AirPlan Plan()
    {
        var taken = Enumerable.Range(0, places.Count).Select(i => found.Chosen[i] < 0 ? null : places[i][found.Chosen[i]]).ToList();
        var dropped = taken
            .OfType<AirPlace>()
            .Where(place => place.Kind == PlaceKind.Drop)
            .Select(place => place.Shortens!.Value.Note)
            .ToHashSet();
        var breaths = new List<PlannedBreath>();
        var spans = new List<BreathSpan>();
        var (from, left, full) = (0, chain.Capacity, chain.Capacity);
        for (var i = 0; i < places.Count; i++)
        {
            left -= dropped.Contains(i) ? 0 : chain.Needs(i, taken[i]);
            if (taken[i] is not { } place && i + 1 < places.Count)
                continue;
            spans.Add(Span(from, i, taken[i], full - left, full));
            if (taken[i] is null)
                break;
            var filled = chain.Filled(left, taken[i]!.Seconds);
            breaths.Add(Breath(taken[i]!, left, filled));
            (from, left, full) = (i + 1, filled, filled);
        }

        for (var i = 0; i < breaths.Count; i++)
            breaths[i] = breaths[i] with { WithoutFrom = Without(breaths[i].Place, spans[i], spans[i + 1]) };
        return new AirPlan(breaths, spans, found.Cost / AirPlaces.Unit, found.LowerBound / AirPlaces.Unit) { Remarks = Repeated(spans) };
    }

    private BreathSpan Span(int from, int to, AirPlace? place, int needs, int capacity)
    {
        var last = line.Notes[to];
        var cut = place?.Shortens is { } shortens && shortens.Note == to ? last.Held * (shortens.By / last.Length).Value : 0;
        return new BreathSpan(from, to, last.Seconds + last.Held - cut - line.Notes[from].Seconds, needs / 1000.0, capacity / 1000.0);
    }

    private PlannedBreath Breath(AirPlace place, int left, int filled)
    {
        var isFull = filled >= chain.Capacity;
        return new PlannedBreath(place, Why(place, left, isFull))
        {
            IsFull = isFull,
            WrittenAs = place is { Kind: not PlaceKind.Drop, Shortens: { } shortens }
                ? Written(line.Notes[shortens.Note], shortens.By)
                : "",
        };
    }

    private string Why(AirPlace place, int left, bool isFull)
    {
        var where = place.Kind switch
        {
            PlaceKind.Rest => "A rest: use the whole of it",
            PlaceKind.Comma => "A printed comma",
            PlaceKind.Phrase => "A phrase ends",
            PlaceKind.Drop => "The last short note of the group is left out",
            PlaceKind.Asked => "Asked for by the teacher",
            _ => "The note is shortened",
        };
        var empties = place.Kind == PlaceKind.Rest && LetsGo(place.Seconds, left);
        return $"{where}; {place.Seconds:0.00} s"
            + (
                empties ? ", time to let the old air go and fill."
                : isFull ? "."
                : ", a top-up only."
            );
    }

    /// <summary>Whether there is time to let the old air go before the new comes in.</summary>
    private bool LetsGo(double seconds, int left) =>
        seconds >= (breather.QuickestSeconds ?? breather.Costs.QuickestSeconds) + (breather.Costs.EmptySeconds * left / chain.Capacity);

    private static string Written(LineNote note, Rational by)
    {
        try
        {
            var heads = NoteValue.Of(note.Length - by).Select(Named);
            return $"{string.Join(" tied to ", heads)} and {Named(NoteValue.Of(by)[0])} rest";
        }
        catch (ArgumentException)
        {
            return "";
        }
    }

    private static string Named(NoteValue value) =>
        (
            value.Dots switch
            {
                0 => "",
                1 => "dotted ",
                2 => "double-dotted ",
                _ => "triple-dotted ",
            }
        ) + value.Type;

    /// <summary>The tempo from which one breath carries what two do now.</summary>
    private double? Without(AirPlace place, BreathSpan before, BreathSpan after)
    {
        if (place.Kind is PlaceKind.Rest or PlaceKind.Asked)
            return null;
        var needs = Enumerable.Range(before.From, after.To - before.From + 1).Sum(i => AirSpent.Seconds(line.Notes[i], breather));
        var tempo = Math.Ceiling((line.Tempo * needs / before.Capacity) - Rounding);
        return tempo <= PieceLine.FastestTempo ? tempo : null;
    }

    /// <summary>Where going back for a repeat leaves no breath: what comes first again has to be carried by what is left.</summary>
    private List<string> Repeated(List<BreathSpan> spans)
    {
        var remarks = new List<string>();
        var begins = 0;
        foreach (var bar in line.Bars)
        {
            if (bar.RepeatBegins)
                begins = bar.Index;
            if (!bar.Repeats)
                continue;
            var last = LastIn(bar.Index);
            var first = FirstFrom(begins);
            begins = bar.Index + 1;
            if (last is not { } end || first is not { } start || found.Chosen[end] >= 0 || line.Notes[end].RestSeconds > 0)
                continue;
            var ending = spans.First(span => span.To >= end);
            var opening = spans.First(span => span.To >= start);
            var used = Spent(ending.From, end) + Spent(start, opening.To);
            if (used > ending.Capacity)
                remarks.Add(
                    $"Bar {bar.Number} goes back to bar {line.BarOf(start)} without a breath: {used:0.0} s in one, which carries "
                        + $"{ending.Capacity:0.0} s. Breathe at the repeat."
                );
        }

        return remarks;
    }

    private double Spent(int from, int to) =>
        Enumerable.Range(from, Math.Max(0, to - from + 1)).Sum(i => AirSpent.Seconds(line.Notes[i], breather));

    private int? LastIn(int bar)
    {
        for (var i = line.Notes.Count - 1; i >= 0; i--)
            if (line.Notes[i].Bar <= bar)
                return i;
        return null;
    }

    private int? FirstFrom(int bar)
    {
        for (var i = 0; i < line.Notes.Count; i++)
            if (line.Notes[i].Bar >= bar)
                return i;
        return null;
    }
}
