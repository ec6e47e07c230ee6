using Bocca.Core.Fingering.Passage;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>Plans the breaths of a line: the cheapest legal places so that no breath is used up, parallel places alike.</summary>
public static class AirPlanner
{
    /// <summary>Plans a line.</summary>
    /// <param name="line">The line.</param>
    /// <param name="breather">Who breathes.</param>
    /// <param name="phrases">Its phrases.</param>
    /// <param name="returns">What comes again in it: the same places are breathed in, or the difference is paid.</param>
    /// <exception cref="ArgumentException">The breath is none that can be planned with, or a place is asked for and forbidden.</exception>
    public static AirPlan Plan(PieceLine line, PieceBreather breather, IReadOnlyList<Phrase> phrases, IReadOnlyList<Return> returns)
    {
        Check(line, breather);
        var (chain, places) = Built(line, breather, phrases);
        var found = new TiedSearch(
            line.Notes.Count,
            Parallel(returns, places),
            (long)Math.Round(breather.Costs.PerDeviatingReturn * AirPlaces.Unit),
            only => chain.Cheapest(only) is { OutOfAirAt: null } cheapest ? (cheapest.Cost, cheapest.Chosen) : null,
            note => Enumerable.Range(AirChain.None, places[note].Count + 1),
            (note, place, other) => Alike(place == AirChain.None ? null : places[note][place], places[other])
        ).Search();
        if (found is null)
            return Impossible(line, breather, phrases, chain.Cheapest().OutOfAirAt!.Value);
        return new AirWords(line, breather, chain, places, found).Plan();
    }

    /// <summary>Stretches whose places are parallel: the same notes, and a place in both.</summary>
    private static List<PassageRepeat> Parallel(IReadOnlyList<Return> returns, IReadOnlyList<IReadOnlyList<AirPlace>> places) =>
        [
            .. returns
                .Where(each => each.Same > 1)
                // The last note's place belongs to what comes after it, which may be something else.
                .Select(each => new PassageRepeat(each.From, each.Like, each.Same - 1))
                .Where(each => Enumerable.Range(0, each.Count).All(i => IsRest(places[each.From + i]) == IsRest(places[each.Like + i]))),
        ];

    /// <summary>The place after another note that is the same as one after this; no breath is the same as none.</summary>
    private static int? Alike(AirPlace? place, IReadOnlyList<AirPlace> others)
    {
        if (place is null)
            return AirChain.None;
        for (var i = 0; i < others.Count; i++)
            if (others[i].Shortens?.By == place.Shortens?.By && (others[i].Kind == PlaceKind.Drop) == (place.Kind == PlaceKind.Drop))
                return i;
        return null;
    }

    private static bool IsRest(IReadOnlyList<AirPlace> places) => places is [{ Kind: PlaceKind.Rest }, ..];

    private static (AirChain Chain, IReadOnlyList<IReadOnlyList<AirPlace>> Places) Built(
        PieceLine line,
        PieceBreather breather,
        IReadOnlyList<Phrase> phrases
    )
    {
        var finder = new AirPlaces(line, breather, phrases);
        var places = new IReadOnlyList<AirPlace>[line.Notes.Count];
        for (var i = 0; i < places.Length; i++)
            places[i] = finder.After(i);
        return (new AirChain(line, breather, places, finder), places);
    }

    private static void Check(PieceLine line, PieceBreather breather)
    {
        if (!(breather.CapacitySeconds is >= PieceBreather.LeastCapacity and <= PieceBreather.MostCapacity))
            throw new ArgumentException(
                $"One breath carries {PieceBreather.LeastCapacity:0} to {PieceBreather.MostCapacity:0} s, "
                    + $"not {breather.CapacitySeconds:0.#}."
            );
        if (line.Notes.Count == 0)
            throw new ArgumentException("There is no note to breathe for.");
        foreach (var asked in breather.Asked)
            if (asked < 0 || asked >= line.Notes.Count - 1)
                throw new ArgumentException(
                    $"A breath is asked for after note {asked}; the places go from 0 to {line.Notes.Count - 2}: after the last it is free."
                );
            else if (breather.Forbidden.Contains(asked))
                throw new ArgumentException($"A breath is asked for and forbidden at one place: {line.PlaceOf(asked)}.");
    }

    private static AirPlan Impossible(PieceLine line, PieceBreather breather, IReadOnlyList<Phrase> phrases, int note)
    {
        var mending = new AirMends(line, breather, (changed, by) => Built(changed, by, phrases).Chain.Cheapest().OutOfAirAt);
        var (tempo, dropped, mends) = (mending.Tempo(), mending.Dropped(), new List<string>());
        if (tempo is { } beats)
            mends.Add($"at {beats:0} beats a minute");
        if (mending.Softer())
            mends.Add("one level softer");
        if (dropped.Count > 0)
            mends.Add($"with {string.Join(" and ", dropped.Select(Left))} left out for a breath");
        if (mending.Freed())
            mends.Add("with the forbidden places free");
        string Left(int i) => $"the {line.Notes[i].Written} of {line.PlaceOf(i)}";
        var sentence =
            $"In bar {line.BarOf(note)} the air runs out before the next place to breathe: one breath carries "
            + $"{breather.CapacitySeconds:0.0} s. "
            + (mends.Count > 0 ? $"It goes {string.Join(", or ", mends)}." : "No tempo mends that.");
        return new AirPlan([], [], 0, 0)
        {
            Why = sentence,
            OutOfAirAt = note,
            MendingTempo = tempo,
            MendingNotes = dropped,
        };
    }
}
