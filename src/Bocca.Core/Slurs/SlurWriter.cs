using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Slurs;

/// <summary>Slurs through the tubes in order, and why they stop where they stop.</summary>
/// <param name="Slurs">The slurs in order.</param>
/// <param name="StoppedBecause">Why there are no more, in words.</param>
public sealed record SlurSheet(IReadOnlyList<Slur> Slurs, string StoppedBecause);

/// <summary>Writes slurs over the true partials of a player's tubes, inside the range.</summary>
public static class SlurWriter
{
    /// <summary>Where the teacher writes a vowel in.</summary>
    private const string Room = "____";

    internal const int LowestPartial = 2,
        HighestPartial = 12;

    /// <summary>Every slur of every shape that a player has, in the order of the shapes and the tubes.</summary>
    public static IEnumerable<Slur> All(SlurPlayer player)
    {
        var tubes = PartialsOf(player);
        return SlurShape.All.SelectMany(shape =>
            shape.Neighbours ? Neighbours(player, player.Range.Highest).Slurs : tubes.SelectMany(partials => Over(player, shape, partials))
        );
    }

    /// <summary>Those of them that go along one tube.</summary>
    public static IEnumerable<Slur> AllAlongTubes(SlurPlayer player)
    {
        var tubes = PartialsOf(player);
        return SlurShape.AlongTube.SelectMany(shape => tubes.SelectMany(partials => Over(player, shape, partials)));
    }

    private static List<List<TubePartial>> PartialsOf(SlurPlayer player) => [.. player.Tubes().Select(tube => Partials(player, tube))];

    /// <summary>The slurs of a shape on a tube, from the lowest up.</summary>
    /// <exception cref="ArgumentException">The shape goes by semitones.</exception>
    public static IEnumerable<Slur> OnTube(SlurPlayer player, SlurShape shape, Tube tube)
    {
        RefuseSemitones(shape);
        return Over(player, shape, Partials(player, tube));
    }

    private static void RefuseSemitones(SlurShape shape)
    {
        if (shape.Neighbours)
            throw new ArgumentException($"{shape.Name} goes by semitones, not on one setting.");
    }

    private static IEnumerable<Slur> Over(SlurPlayer player, SlurShape shape, List<TubePartial> partials) =>
        Enumerable
            .Range(LowestPartial, HighestPartial - LowestPartial + 1)
            .Where(first => Stopped(shape, partials, first) is null)
            .Select(first => Over(player, shape, partials, first));

    private static Slur Over(SlurPlayer player, SlurShape shape, List<TubePartial> partials, int first) =>
        new(
            shape,
            Sung(
                player,
                [.. shape.Steps.Select((step, i) => partials[first + step - LowestPartial].Note with { Beats = shape.BeatsOf(i) })]
            )
        );

    /// <summary>A shape from a partial on, through the tubes in order, until the range ends.</summary>
    /// <exception cref="ArgumentException">The shape goes by semitones, or no tube is taught.</exception>
    public static SlurSheet Sheet(SlurPlayer player, SlurShape shape, int firstPartial)
    {
        RefuseSemitones(shape);
        var tubes = player.Tubes();
        if (tubes.Count == 0)
            throw new ArgumentException("No setting is taught yet: choose one first.");
        var slurs = new List<Slur>();
        foreach (var tube in tubes)
        {
            var (slur, why) = Of(player, shape, tube, firstPartial);
            if (slur is null && slurs.Count > 0)
                return new SlurSheet(slurs, $"The next, on {tube.Setting}, {why}");
            if (slur is not null)
                slurs.Add(slur);
        }

        return new SlurSheet(
            slurs,
            slurs.Count == 0
                ? $"{shape.Name} from partial {firstPartial} does not fit: on {tubes[0].Setting} it "
                    + $"{Of(player, shape, tubes[0], firstPartial).Why}"
                : "Every setting taught has been through."
        );
    }

    /// <summary>A semitone down and back, from a note on down, each a semitone lower, until the floor (common practice).</summary>
    /// <param name="player">The player.</param>
    /// <param name="from">The sounding note to start on.</param>
    public static SlurSheet Neighbours(SlurPlayer player, Pitch from)
    {
        var known = new Dictionary<int, Fingering.Fingering?>();
        var shape = SlurShape.All.First(each => each.Neighbours);
        var slurs = new List<Slur>();
        for (var midi = from.Midi; ; midi--)
        {
            var pitches = shape.Steps.Select(step => midi + step).ToList();
            var low = pitches.Min();
            if (low < player.Range.Lowest.Midi)
                return new SlurSheet(
                    slurs,
                    $"The next needs {Pitch.FromMidi(player.Reading.ToWritten(Pitch.FromMidi(low)).Midi)}, below the range."
                );
            var ways = pitches.ConvertAll(pitch =>
                known.TryGetValue(pitch, out var way) ? way : known[pitch] = BestWay(player, Pitch.FromMidi(pitch))
            );
            if (ways.Any(way => way is null or { Barred: not null }))
                return new SlurSheet(
                    slurs,
                    $"The next needs {Pitch.FromMidi(player.Reading.ToWritten(Pitch.FromMidi(low)).Midi)}: "
                        + $"{ways.Select(way => way?.Barred).FirstOrDefault(barred => barred is not null) ?? "no setting gives it."}"
                );
            if (ways.TrueForAll(way => player.HasMet(way!.Tube, way.Partial)))
                slurs.Add(
                    new Slur(shape, Sung(player, [.. ways.Select((way, i) => Note(player, way!.Tube, way.Partial, shape.BeatsOf(i)))]))
                );
        }
    }

    /// <summary>The slur with this id, its shape, setting and first partial; null where the player has none.</summary>
    public static Slur? Find(SlurPlayer player, string id)
    {
        if (id.Split(':') is not [var name, var setting, var partial] || !int.TryParse(partial, out var first))
            return null;
        var shape = SlurShape.OwnFrom(name) ?? SlurShape.All.FirstOrDefault(known => known.Id == name);
        if (shape is null)
            return null;
        if (shape.Neighbours)
            return Neighbours(player, player.Range.Highest).Slurs.FirstOrDefault(slur => slur.Id == id);
        var tubes = player.Tubes().Where(tube => tube.Setting.ToString() == setting);
        return tubes.Select(tube => Of(player, shape, tube, first).Slur).FirstOrDefault();
    }

    /// <summary>The first choice for a note, or what bars it; null where nothing that is slurred gives it.</summary>
    private static Fingering.Fingering? BestWay(SlurPlayer player, Pitch sounding) =>
        FingeringFinder
            .FindSounding(player.Instrument, sounding, player.Weights, player.Hand)
            .FirstOrDefault(way => way.Barred is not null || IsUsed(player, way.Partial));

    /// <summary>The slur after one: the same on the next tube, else the next shape from its first tube on; null for none.</summary>
    public static Slur? Onward(SlurPlayer player, Slur slur)
    {
        if (slur.Shape.Neighbours)
            return Neighbours(player, player.Range.Highest).Slurs.SkipWhile(each => each.Id != slur.Id).Skip(1).FirstOrDefault();
        var sheet = Sheet(player, slur.Shape, slur.Notes[0].Partial).Slurs;
        return sheet.SkipWhile(each => each.Id != slur.Id).Skip(1).FirstOrDefault()
            ?? SlurShape
                .AlongTube.SkipWhile(shape => shape.Id != slur.Shape.Id)
                .Skip(1)
                .SelectMany(shape => Sheet(player, shape, slur.Notes[0].Partial).Slurs.Take(1))
                .FirstOrDefault();
    }

    /// <summary>A shape on a tube from a partial on, or why there is none.</summary>
    internal static (Slur? Slur, string Why) Of(SlurPlayer player, SlurShape shape, Tube tube, int firstPartial)
    {
        var partials = Partials(player, tube);
        if (Stopped(shape, partials, firstPartial) is not var (stop, partial))
            return (Over(player, shape, partials, firstPartial), "");
        Pitch Written() => partials[partial - LowestPartial].Note.Written;
        var range = player.Range;
        return (
            null,
            stop switch
            {
                Stop.NoResonance => $"needs partial {partial}, which is no plain resonance.",
                Stop.TooHigh => $"needs partial {partial}, above what is slurred.",
                Stop.OffItsNote => $"needs partial {partial}, which lies off its note.",
                Stop.BelowRange => $"needs {Written()}, below the range, which starts at {player.Reading.ToWritten(range.Lowest)}.",
                Stop.AboveRange => $"needs {Written()}, above the range, which ends at {player.Reading.ToWritten(range.Highest)}.",
                Stop.NotMet => $"needs {Written()}, which has not come yet.",
                _ => $"has no true {Written()}.",
            }
        );
    }

    /// <summary>The first partial that stops a shape from a partial on; null where none does.</summary>
    private static (Stop Stop, int Partial)? Stopped(SlurShape shape, List<TubePartial> partials, int first)
    {
        foreach (var step in shape.Steps)
        {
            var partial = first + step;
            if (partial < LowestPartial)
                return (Stop.NoResonance, partial);
            if (partial > HighestPartial)
                return (Stop.TooHigh, partial);
            if (partials[partial - LowestPartial].Stop is { } stop)
                return (stop, partial);
        }

        return null;
    }

    /// <summary>What a player has on a tube, from <see cref="LowestPartial"/> to <see cref="HighestPartial"/>.</summary>
    private static List<TubePartial> Partials(SlurPlayer player, Tube tube) =>
        [
            .. Enumerable
                .Range(LowestPartial, HighestPartial - LowestPartial + 1)
                .Select(partial => Note(player, tube, partial, beats: 1))
                .Select(note => new TubePartial(note, StopOf(player, note))),
        ];

    private static Stop? StopOf(SlurPlayer player, SlurNote note) =>
        !IsUsed(player, note.Partial) ? Stop.OffItsNote
        : note.Sounding.Midi < player.Range.Lowest.Midi ? Stop.BelowRange
        : note.Sounding.Midi > player.Range.Highest.Midi ? Stop.AboveRange
        : !player.HasMet(note.Tube, note.Partial) ? Stop.NotMet
        // A tube so far from the note that no chart names it for it is no way to play it.
        : !note.Tube.Gives(note.Partial) ? Stop.Untrue
        : null;

    /// <summary>A note on a tube, and what keeps it out of every slur; null where nothing does.</summary>
    private readonly record struct TubePartial(SlurNote Note, Stop? Stop);

    /// <summary>What stops a slur at a note.</summary>
    private enum Stop
    {
        NoResonance,
        TooHigh,
        OffItsNote,
        BelowRange,
        AboveRange,
        NotMet,
        Untrue,
    }

    private static bool IsUsed(SlurPlayer player, int partial) => !HarmonicSeries.IsAvoided(partial) || (partial == 7 && player.Seventh);

    private static SlurNote Note(SlurPlayer player, Tube tube, int partial, double beats)
    {
        var sounding = player.Instrument.NoteOf(tube, partial);
        return new SlurNote(tube, partial, sounding, Pitch.FromMidi(player.Reading.ToWritten(sounding).Midi), beats, "");
    }

    /// <summary>The notes with what is printed of vowels.</summary>
    private static IReadOnlyList<SlurNote> Sung(SlurPlayer player, IReadOnlyList<SlurNote> notes) =>
        player.Vowels switch
        {
            VowelLine.ByContour => SlurVowelLine.Of(player.Instrument, notes),
            VowelLine.Room => [.. notes.Select(note => note with { Vowel = Room })],
            _ => notes,
        };
}
