using Bocca.Core.Fingering.Passage;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>
/// The cheapest breaths of a line. The air is a reservoir: each note spends of it, each breath fills it as far as its time goes. A label at
/// a note is what was paid so far and what is left; of two, one that has paid no less and holds no more is dropped (a shortest path with a
/// resource; published: Desrochers and Soumis 1988). Costs are whole thousandths of a point, air whole milliseconds: needs are rounded up,
/// what is left down.
/// </summary>
internal sealed class AirChain
{
    /// <summary>No breath after a note.</summary>
    public const int None = -1;

    private readonly IReadOnlyList<IReadOnlyList<AirPlace>> _places;
    private readonly int[] _needs;
    private readonly long[] _skipped;
    private readonly bool[] _must;
    private readonly int _capacity;
    private readonly double _quickest;
    private readonly double _thinPoints;
    private readonly double _thinFrom;
    private readonly Func<int, AirPlace, int> _saved;

    /// <param name="line">The line.</param>
    /// <param name="breather">Who breathes.</param>
    /// <param name="places">The ways to breathe after each note.</param>
    /// <param name="finder">What found them.</param>
    public AirChain(PieceLine line, PieceBreather breather, IReadOnlyList<IReadOnlyList<AirPlace>> places, AirPlaces finder)
    {
        var costs = breather.Costs;
        _places = places;
        _needs = [.. line.Notes.Select(note => Milliseconds(AirSpent.Seconds(note, breather)))];
        _skipped = [.. line.Notes.Select((_, i) => finder.WantsBreath(i) ? (long)(AirPlaces.Unit * costs.HighSkipped) : 0)];
        _must = [.. places.Select((each, i) => each.Count > 0 && (each[0].Kind == PlaceKind.Rest || breather.Asked.Contains(i)))];
        _capacity = (int)Math.Floor(1000 * breather.CapacitySeconds);
        _quickest = breather.QuickestSeconds ?? costs.QuickestSeconds;
        (_thinPoints, _thinFrom) = (costs.ThinSpare, costs.ThinFrom);
        _saved = (note, place) =>
            place.Shortens is { } shortens && shortens.Note == note
                ? (int)Math.Floor(_needs[note] * (shortens.By / line.Notes[note].Length).Value)
                : 0;
    }

    private sealed record Label(long Cost, int Left, Label? Before, int Place, bool Drops);

    /// <summary>What was found: the place chosen after each note, -1 for none; or the first note for which no air is left.</summary>
    public readonly record struct Found(long Cost, int[] Chosen, int? OutOfAirAt);

    /// <summary>What is left after a breath of so many seconds, ms.</summary>
    public int Filled(int left, double seconds) =>
        Math.Min(_capacity, left + (int)Math.Floor(_capacity * Math.Min(1, seconds / _quickest)));

    /// <summary>What a note spends as it is played, ms.</summary>
    public int Needs(int note, AirPlace? place) => _needs[note] - (place is null ? 0 : _saved(note, place));

    /// <summary>What one breath holds, ms.</summary>
    public int Capacity => _capacity;

    /// <summary>The cheapest breaths under restrictions.</summary>
    /// <param name="only">The place to be taken after each note, <see cref="TiedSearch.Free"/> where all are free; null for none.</param>
    public Found Cheapest(int[]? only = null)
    {
        var labels = new List<Label> { new(0, _capacity, null, None, false) };
        var next = new List<Label>();
        for (var i = 0; i < _places.Count; i++)
        {
            next.Clear();
            foreach (var label in labels)
                Extend(label, i, only is null ? TiedSearch.Free : only[i], next);
            if (next.Count == 0)
                return new Found(0, [], i);
            Prune(next);
            (labels, next) = (next, labels);
        }

        var best = labels.MinBy(label => label.Cost + Thin(label.Left))!;
        return new Found(best.Cost + Thin(best.Left), Back(best), null);
    }

    private int[] Back(Label last)
    {
        var chosen = new int[_places.Count];
        var at = chosen.Length - 1;
        for (var label = last; label.Before is { } before; label = before)
            chosen[at--] = label.Place;
        return chosen;
    }

    private void Extend(Label label, int i, int only, List<Label> next)
    {
        // A note that is left out spends nothing, and no breath follows it.
        var left = label.Left - (label.Drops ? 0 : _needs[i]);
        if (only is None or TiedSearch.Free && !_must[i] && left >= 0)
            next.Add(new Label(label.Cost + _skipped[i], left, label, None, false));
        if (label.Drops)
            return;
        for (var place = 0; place < _places[i].Count; place++)
        {
            if (only >= 0 ? only != place : only == None)
                continue;
            var taken = _places[i][place];
            var rest = left + _saved(i, taken);
            if (rest < 0)
                continue;
            next.Add(
                new Label(label.Cost + taken.Points + Thin(rest), Filled(rest, taken.Seconds), label, place, taken.Kind == PlaceKind.Drop)
            );
        }
    }

    /// <summary>Points of a breath that was used up nearly or wholly.</summary>
    private long Thin(int left)
    {
        var over = Math.Max(0, 1 - ((double)left / _capacity) - _thinFrom) / (1 - _thinFrom);
        return (long)Math.Round(AirPlaces.Unit * _thinPoints * over * over);
    }

    /// <summary>Keeps what nothing else is at least as good as; of equals the first.</summary>
    private static void Prune(List<Label> labels)
    {
        if (labels.Count == 1)
            return;
        // A stable order, so that equals stay in the order in which they came.
        var sorted = labels.OrderBy(label => label.Cost).ThenByDescending(label => label.Left).ToList();
        labels.Clear();
        var (most, mostDropping) = (-1, -1);
        foreach (var label in sorted)
        {
            // What leaves the next note out is another state.
            ref var held = ref label.Drops ? ref mostDropping : ref most;
            if (label.Left <= held)
                continue;
            held = label.Left;
            labels.Add(label);
        }
    }

    private static int Milliseconds(double seconds) => (int)Math.Ceiling((1000 * seconds) - 1e-6);
}
