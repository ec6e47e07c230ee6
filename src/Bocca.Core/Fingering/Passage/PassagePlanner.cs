using Bocca.Core.Instruments;

namespace Bocca.Core.Fingering.Passage;

/// <summary>Finds the cheapest way through a whole line: the optimum over every way of every note, not a walk from note to note.</summary>
public static class PassagePlanner
{
    /// <summary>The most notes of a line.</summary>
    public const int MostNotes = 20_000;

    /// <summary>Plans a line.</summary>
    /// <param name="player">Who plays.</param>
    /// <param name="notes">The line.</param>
    /// <param name="repeats">The passages that return; each of them pays where it is fingered otherwise.</param>
    /// <exception cref="PassageException">A note has no way at all, or not the one that is pinned.</exception>
    /// <exception cref="ArgumentException">There is no note, or more than are planned.</exception>
    public static PassagePlan Plan(PassagePlayer player, IReadOnlyList<PassageNote> notes, IReadOnlyList<PassageRepeat>? repeats = null)
    {
        if (notes.Count is 0 or > MostNotes)
            throw new ArgumentException(notes.Count == 0 ? "There is no note to be fingered." : $"A line has at most {MostNotes} notes.");
        var byPitch = new Dictionary<int, IReadOnlyList<PassageWay>>();
        var ways = new IReadOnlyList<PassageWay>[notes.Count];
        for (var i = 0; i < notes.Count; i++)
        {
            if (!byPitch.TryGetValue(notes[i].Sounding.Midi, out var all))
                byPitch[notes[i].Sounding.Midi] = all = PassageWay.Of(player, notes[i].Sounding);
            ways[i] = Pinned(notes[i], all, i, player);
        }

        var costing = new PassageCosting(player, notes);
        var chain = new PassageChain(costing, ways);
        var deviating = (long)Math.Round(player.Costs.PerDeviatingRepeat * PassageCosting.Unit);
        var search = new TiedSearch(
            notes.Count,
            repeats ?? [],
            deviating,
            only => chain.Cheapest(only),
            note => Enumerable.Range(0, ways[note].Count),
            (note, way, other) => Alike(ways[note][way], ways[other])
        );
        var found = search.Search()!;
        var plain = notes.Select(note => byPitch[note.Sounding.Midi]).ToList();
        var plainCost = costing.Of([.. plain.Select(all => all[0])]);
        var writer = new PassageWords(player, notes, costing, ways, found.Chosen, plain);
        var through = chain.Through();
        return new PassagePlan(
            [
                .. Enumerable
                    .Range(0, notes.Count)
                    .Select(i => writer.Choice(i) with { Also = Near(player, ways[i], found.Chosen[i], through[i]) }),
            ],
            found.Cost / PassageCosting.Unit,
            plainCost / PassageCosting.Unit,
            found.LowerBound / PassageCosting.Unit
        )
        {
            Gain = writer.Gain(),
            Deviating =
            [
                .. (repeats ?? [])
                    .Select(repeat => (Repeat: repeat, At: search.Differs(found.Chosen, repeat)))
                    .Where(each => each.At >= 0)
                    .Select(each => (each.Repeat, each.Repeat.From + each.At)),
            ],
        };
    }

    /// <summary>The way of a note that has the same setting; null where none has.</summary>
    private static int? Alike(PassageWay way, IReadOnlyList<PassageWay> others)
    {
        for (var i = 0; i < others.Count; i++)
            if (others[i].Fingering.Setting == way.Fingering.Setting)
                return i;
        return null;
    }

    private static IReadOnlyList<PassageWay> Pinned(PassageNote note, IReadOnlyList<PassageWay> all, int index, PassagePlayer player)
    {
        if (all.Count == 0)
            throw new PassageException(index, $"{note.Sounding} (concert pitch) lies on no {player.Instrument.Name}.");
        if (note.Pin is not { } pin)
            return all;
        // What is pinned here goes before what is pinned for the note everywhere.
        var pinned = PassageWay
            .Every(player, note.Sounding)
            .Where(way => way.Setting == pin && way.Barred is null)
            .Select(way => PassageWay.Of(player, way))
            .ToList();
        return pinned.Count > 0 ? pinned : throw new PassageException(index, WhyNot(player, note, pin, all));
    }

    private static string WhyNot(PassagePlayer player, PassageNote note, Setting pin, IReadOnlyList<PassageWay> all)
    {
        var barred = PassageWay.Every(player, note.Sounding).FirstOrDefault(way => way.Setting == pin);
        return barred?.Barred is { } why
            ? $"{pin} cannot be pinned: {why}"
            : $"{pin} does not give this note; {string.Join(", ", all.Select(way => way.Fingering.Setting).Distinct())} do.";
    }

    /// <summary>The other settings whose best line costs hardly more than the best.</summary>
    private static IReadOnlyList<Fingering> Near(PassagePlayer player, IReadOnlyList<PassageWay> ways, int chosen, long[] through)
    {
        if (ways.Count == 1)
            return [];
        var most = through[chosen] + (player.Costs.Whisker * PassageCosting.Unit);
        return
        [
            .. Enumerable
                .Range(0, ways.Count)
                .Where(way => through[way] <= most && ways[way].Fingering.Setting != ways[chosen].Fingering.Setting)
                .OrderBy(way => through[way])
                .Select(way => ways[way].Fingering),
        ];
    }
}
