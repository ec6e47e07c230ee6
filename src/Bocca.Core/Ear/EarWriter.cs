using Bocca.Core.Music;

namespace Bocca.Core.Ear;

/// <summary>Writes questions for the ear: the same drill, level and seed ask the same.</summary>
public static class EarWriter
{
    private static readonly string[] Places = ["first", "second", "third"];

    /// <summary>Writes a question.</summary>
    /// <param name="drill">The drill.</param>
    /// <param name="level">How hard.</param>
    /// <param name="seed">Another seed, another question.</param>
    /// <param name="player">Who is asked.</param>
    /// <param name="tuning">The room's A.</param>
    /// <param name="line">A line of somebody's own, as it is read; null for none.</param>
    /// <exception cref="ArgumentException">The player has too few notes for it, or the line is none; the message says so.</exception>
    public static EarQuestion Write(EarDrill drill, int level, int seed, EarPlayer player, Tuning tuning, EarLine? line = null)
    {
        var asked = new EarQuestion(drill, Math.Clamp(level, 0, drill.Hardest), seed);
        var random = new Random(seed ^ (asked.Level << 20) ^ drill.Hardest);
        var question = drill.Kind switch
        {
            EarKind.Lowest => Lowest(asked, player, random),
            EarKind.Copy => Copy(asked, player, random),
            EarKind.Siren => asked with { Item = "the voice" },
            EarKind.Find => Find(asked, player),
            EarKind.Intervals => Intervals(asked, player, random),
            EarKind.Run => Run(asked, player, random),
            EarKind.Line => Line(asked, player, random, line),
            EarKind.Tune => Tune(asked, player, random),
            EarKind.Steps => Steps(asked, player, random),
            EarKind.Metre => Metre(asked, player, random),
            EarKind.Sight => Sight(asked, player, random),
            _ => Drone(asked, player, random, tuning),
        };
        return question with { Sung = drill.Sings ? question.Sung : [], Played = drill.Plays ? question.Played : [] };
    }

    private static EarQuestion Lowest(EarQuestion asked, EarPlayer player, Random random)
    {
        // Two wide, two near, three wide, three near; then with a gap to remember over; then less than open notes lie apart.
        var count = asked.Level is 2 or 3 or 5 ? 3 : 2;
        var gap = asked.Level >= 4 ? 3.0 : 0.5;
        var open = player.OpenNotes;
        var pool = asked.Level >= 6 ? [.. Enumerable.Range(0, 3).Select(by => EarPlayer.Flat(player.Start.ConcertF.Midi - by))] : open;
        if (pool.Count < count)
            throw TooFew(asked);
        var near = asked.Level is 1 or 3 or >= 4;
        var first = random.Next(near ? pool.Count - count + 1 : 1);
        var notes = near ? pool.Skip(first).Take(count).ToList() : [.. Spread(pool, count)];
        var order = Shuffled(notes, random);
        var heard = new List<(Pitch, double, double)>();
        foreach (var (i, note) in order.Index())
            heard.Add((note, i * (1.5 + gap), 1.5));
        return asked with
        {
            Heard = heard,
            Choices = [.. Enumerable.Range(0, count).Select(i => new EarChoice($"{i + 1}", Places[i]))],
            Answer = [$"{order.IndexOf(order.MinBy(note => note.Midi)) + 1}"],
            Item = $"lowest of {count}, {order.Max(note => note.Midi) - order.Min(note => note.Midi)} semitones",
        };
    }

    private static EarQuestion Copy(EarQuestion asked, EarPlayer player, Random random)
    {
        (int Notes, int Of)[] levels = [(1, 2), (2, 2), (2, 3), (3, 3), (3, 4), (4, 4), (4, 4), (4, 5)];
        var (count, of) = levels[Math.Min(asked.Level, levels.Length - 1)];
        var open = player.OpenNotes;
        if (open.Count < 2)
            throw TooFew(asked);
        var pool = open.Take(Math.Min(of, open.Count)).ToList();
        var notes = Enumerable.Range(0, count).Select(_ => pool[random.Next(pool.Count)]).ToList();
        return asked with
        {
            Heard = Row(notes, asked.Level >= 6 ? 1 : 2),
            Choices = Named(pool, player),
            Answer = [.. notes.Select(note => $"{player.Reading.ToWritten(note)}")],
            Played = Written(notes, player),
            Item = $"copy {count} of {pool.Count}",
        };
    }

    private static EarQuestion Find(EarQuestion asked, EarPlayer player)
    {
        var (goal, from) = (player.Start.ConcertF, player.Start.ConcertBb);
        return asked with
        {
            Heard = asked.Level switch
            {
                0 => Row([goal], 4),
                1 => Row([from], 4),
                _ => [],
            },
            Sung = Written([goal], player),
            NoteBeats = 4,
            Item = "concert F",
        };
    }

    private static EarQuestion Intervals(EarQuestion asked, EarPlayer player, Random random)
    {
        // Down by one to five semitones, then up, then from any start (common practice).
        var by =
            asked.Level < 5 ? -(asked.Level + 1)
            : asked.Level < 10 ? asked.Level - 4
            : (random.Next(2) == 0 ? -1 : 1) * random.Next(1, 6);
        var start = asked.Level < 10 ? player.Start.ConcertF : EarPlayer.Flat(player.Start.ConcertF.Midi + random.Next(-4, 3));
        var there = EarPlayer.Flat(start.Midi + by);
        // What lies out of range is asked the other way.
        if (!player.Holds(there))
            there = EarPlayer.Flat(start.Midi - by);
        if (!player.Holds(start) || !player.Holds(there))
            throw TooFew(asked);
        List<Pitch> notes = [start, there, start];
        return asked with
        {
            Heard = Row(notes, 2),
            Sung = Written(notes, player),
            Played = Written(notes, player),
            Item = $"interval {there.Midi - start.Midi:+0;-0}",
        };
    }

    private static EarQuestion Run(EarQuestion asked, EarPlayer player, Random random)
    {
        var count = Math.Min(5, asked.Level + 2);
        var way = random.Next(2) == 0 ? 1 : -1;
        List<Pitch> Notes(int by) => [.. Enumerable.Range(0, count).Select(i => EarPlayer.Flat(player.Start.ConcertBb.Midi + (by * i)))];
        var notes = Notes(way).TrueForAll(player.Holds) ? Notes(way) : Notes(-way);
        if (!notes.TrueForAll(player.Holds))
            throw TooFew(asked);
        var last = notes[^1];
        var choices = Enumerable.Range(-2, 4).Select(by => EarPlayer.Flat(last.Midi + by)).ToList();
        return asked with
        {
            // Faster each round, once there are five.
            Heard = Row(notes, asked.Level <= 3 ? 1.5 : Math.Max(0.5, 1.5 - (0.25 * (asked.Level - 3)))),
            Choices = Named(choices, player),
            Answer = [$"{player.Reading.ToWritten(last)}"],
            Played = Written(notes, player),
            Item = $"run of {count}",
        };
    }

    private static EarQuestion Line(EarQuestion asked, EarPlayer player, Random random, EarLine? own)
    {
        var line = own is { Notes: { Count: > 0 } notes }
            ? notes
            : Written(Melody(player, 4 + asked.Level, random, leaps: asked.Level > 1), player);
        return asked with
        {
            Heard = Row([player.Reading.ToSounding(line[0])], 2),
            Choices = [.. line.Select((note, i) => new EarChoice($"{i + 1}", $"note {i + 1}", note))],
            Sung = line,
            SungLengths = own?.Beats ?? [],
            NoteBeats = line.Count > 8 ? 1 : 2,
            Item = $"line of {line.Count}",
        };
    }

    private static EarQuestion Tune(EarQuestion asked, EarPlayer player, Random random)
    {
        // Do, re, mi first; from the middle on do to so (common practice).
        var notes = Melody(player, Math.Min(7, 3 + (asked.Level / 2)), random, leaps: asked.Level > 3, highest: asked.Level < 3 ? 3 : 5);
        return asked with
        {
            Heard = Row(notes, 1),
            Sung = Written(notes, player),
            Played = Written(notes, player),
            NoteBeats = 1,
            Item = $"tune of {notes.Count}",
        };
    }

    private static EarQuestion Steps(EarQuestion asked, EarPlayer player, Random random)
    {
        var scale = player.DoToSo;
        if (scale.Count < 4)
            throw TooFew(asked);
        var leaps = random.Next(2) == 0;
        var count = 5 + asked.Level;
        var notes = leaps ? Leaping(scale, count, asked.Level, random) : Stepping(scale, count, random);
        return asked with
        {
            Heard = Row(notes, 0.75),
            Choices = [new EarChoice("steps", "by steps"), new EarChoice("leaps", "with leaps")],
            Answer = [leaps ? "leaps" : "steps"],
            Item = $"steps or leaps, {count} notes",
        };
    }

    private static EarQuestion Metre(EarQuestion asked, EarPlayer player, Random random)
    {
        var beats = random.Next(2) == 0 ? 2 : 3;
        var scale = player.DoToSo;
        if (scale.Count < 3)
            throw TooFew(asked);
        var count = 12;
        // The harder it is, the less the strong beats stand out by their pitch.
        var notes = Enumerable
            .Range(0, count)
            .Select(i =>
                i % beats == 0 ? scale[0]
                : asked.Level >= 2 ? scale[random.Next(2)]
                : scale[1 + random.Next(Math.Min(2, scale.Count - 1))]
            )
            .ToList();
        return asked with
        {
            Heard = Row(notes, 1),
            Accents = [.. Enumerable.Range(0, count).Where(i => i % beats == 0)],
            Choices = [new EarChoice("2", "in two"), new EarChoice("3", "in three")],
            Answer = [$"{beats}"],
            Item = $"in {beats}",
        };
    }

    private static EarQuestion Sight(EarQuestion asked, EarPlayer player, Random random)
    {
        var notes = Melody(player, Math.Min(10, 4 + asked.Level), random, leaps: asked.Level > 2, highest: asked.Level < 2 ? 3 : 5);
        return asked with { Played = Written(notes, player), NoteBeats = 2, Item = $"line of {notes.Count} at sight" };
    }

    private static EarQuestion Drone(EarQuestion asked, EarPlayer player, Random random, Tuning tuning)
    {
        // Root, fifth, third: pure intervals over the root (published: Helmholtz, On the Sensations of Tone: 1, 3:2, 5:4).
        (int Semitones, double Ratio, string Name)[] degrees = [(0, 1, "the root"), (7, 1.5, "the fifth"), (4, 1.25, "the third")];
        var (semitones, ratio, name) = degrees[Math.Min(asked.Level, 5) / 2];
        var note = player.Start.ConcertF;
        if (!player.Holds(note))
            throw TooFew(asked);
        var root = tuning.Frequency(EarPlayer.Flat(note.Midi - semitones));
        // A bare root first, then the whole chord.
        var chord = asked.Level % 2 == 0 ? [root, 2 * root] : new[] { root, 1.25 * root, 1.5 * root, 2 * root };
        return asked with
        {
            Played = Written([note, note], player),
            Drone = chord,
            AsideCents = (1200 * Math.Log2(ratio)) - (100 * semitones),
            NoteBeats = 6,
            Item = $"{name} over {(asked.Level % 2 == 0 ? "a root" : "a chord")}",
        };
    }

    private static ArgumentException TooFew(EarQuestion asked) =>
        new($"{asked.Drill.Name} needs more notes than are in range now. Choose another drill, or a later stage.");

    private static List<(Pitch, double, double)> Row(List<Pitch> notes, double beats) =>
        [.. notes.Select((note, i) => (note, i * beats, beats))];

    private static List<Pitch> Written(List<Pitch> sounding, EarPlayer player) => [.. sounding.Select(player.Reading.ToWritten)];

    private static List<EarChoice> Named(List<Pitch> sounding, EarPlayer player) =>
        [.. sounding.Select(player.Reading.ToWritten).Select(written => new EarChoice($"{written}", $"{written}", written))];

    private static IEnumerable<Pitch> Spread(IReadOnlyList<Pitch> pool, int count) =>
        Enumerable.Range(0, count).Select(i => pool[i * (pool.Count - 1) / (count - 1)]);

    private static List<Pitch> Shuffled(List<Pitch> notes, Random random)
    {
        Pitch[] order = [.. notes];
        random.Shuffle(order);
        return [.. order];
    }

    /// <summary>A small tune on do to so that begins and ends on do.</summary>
    private static List<Pitch> Melody(EarPlayer player, int count, Random random, bool leaps, int highest = 5)
    {
        var scale = player.DoToSo.Take(highest).ToList();
        if (scale.Count < 2)
            throw new ArgumentException("A tune needs at least do and re in range. Choose another drill, or a later stage.");
        var at = 0;
        List<Pitch> notes = [scale[0]];
        for (var i = 1; i < count; i++)
        {
            var left = count - 1 - i;
            // So that do is reached at the end.
            List<int> next = [.. new[] { at - 1, at + 1, at }.Concat(leaps ? [at - 2, at + 2] : [])];
            var fitting = next.Where(to => to >= 0 && to < scale.Count && to <= (leaps ? 2 : 1) * left && !(to == at && i == 1)).ToList();
            at = fitting.Count > 0 ? fitting[random.Next(fitting.Count)] : Math.Max(0, at - 1);
            notes.Add(scale[at]);
        }

        return notes;
    }

    private static List<Pitch> Stepping(IReadOnlyList<Pitch> scale, int count, Random random)
    {
        var at = random.Next(scale.Count);
        List<Pitch> notes = [scale[at]];
        for (var way = 1; notes.Count < count; )
        {
            if (at + way < 0 || at + way >= scale.Count || random.Next(4) == 0)
                way =
                    at == 0 ? 1
                    : at == scale.Count - 1 ? -1
                    : -way;
            notes.Add(scale[at += way]);
        }

        return notes;
    }

    private static List<Pitch> Leaping(IReadOnlyList<Pitch> scale, int count, int level, Random random)
    {
        var at = 0;
        List<Pitch> notes = [scale[0]];
        while (notes.Count < count)
        {
            // The harder, the more steps between the leaps.
            var least = notes.Count % (1 + (level / 2)) == 0 || notes.Count == 1 ? 2 : 1;
            var to = Enumerable.Range(0, scale.Count).Where(place => Math.Abs(place - at) >= least).ToList();
            at = to[random.Next(to.Count)];
            notes.Add(scale[at]);
        }

        return notes;
    }
}
