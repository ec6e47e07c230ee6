using Bocca.Core.Music;

namespace Bocca.Core.Fingering.Class;

/// <summary>The shapes that one concert instruction can have.</summary>
public enum ConcertShape
{
    /// <summary>One long note.</summary>
    LongNote,

    /// <summary>Downwards by semitones.</summary>
    SemitonesDown,

    /// <summary>Upwards by semitones.</summary>
    SemitonesUp,

    /// <summary>Do to so and back.</summary>
    FiveNotes,

    /// <summary>A major scale up.</summary>
    MajorScale,

    /// <summary>A major chord up and back.</summary>
    Arpeggio,

    /// <summary>Notes of one's own.</summary>
    Own,
}

/// <summary>
/// One instruction at concert pitch for everybody: notes with their spelling and their contour, but in no octave yet; each
/// player takes it where it lies well.
/// </summary>
/// <param name="Words">The instruction in words.</param>
/// <param name="Notes">The notes in some octave; what counts is the way from one to the next.</param>
public sealed record ConcertLine(string Words, IReadOnlyList<Pitch> Notes)
{
    /// <summary>Whether it runs by semitones: then every note is spelled as fingering charts spell it, in whatever key one reads.</summary>
    public bool IsChromatic { get; init; }

    /// <summary>The concert note whose major key it is in; null where it is in none.</summary>
    public Pitch? KeyNote { get; init; }

    /// <summary>The most notes of a line.</summary>
    public const int MostNotes = 64;

    private static readonly Interval[] Major = [new(0, 0), new(1, 2), new(2, 4), new(3, 5), new(4, 7), new(5, 9), new(6, 11), new(7, 12)];
    private static readonly int[] FiveUpAndBack = [0, 1, 2, 3, 4, 3, 2, 1, 0],
        ChordUpAndBack = [0, 2, 4, 7, 4, 2, 0];

    /// <summary>A line of a shape from a concert note.</summary>
    /// <param name="shape">The shape.</param>
    /// <param name="from">The concert note it starts on, such as <c>Bb</c>; the octave is free.</param>
    /// <param name="count">How many notes a run by semitones has, 2 to 13.</param>
    /// <exception cref="ArgumentException">The note is none, or a run is that long.</exception>
    public static ConcertLine Of(ConcertShape shape, string from, int count = 7)
    {
        if (!Pitch.TryParse($"{from}4", out var start))
            throw new ArgumentException($"'{from}' is not a concert note: write a letter and # or b, such as F or Bb.");
        if (shape is ConcertShape.SemitonesDown or ConcertShape.SemitonesUp && count is < 2 or > 13)
            throw new ArgumentException($"A run by semitones has 2 to 13 notes, not {count}.");
        Pitch At(Interval interval) => start.Transpose(interval);
        Pitch Degree(int degree) => At(Major[degree]);
        return shape switch
        {
            ConcertShape.LongNote => new ConcertLine($"A long concert {from}.", [start]),
            ConcertShape.SemitonesDown => new ConcertLine(
                $"From concert {from} down by semitones, {count} notes.",
                [.. Enumerable.Range(0, count).Select(i => i == 0 ? start : Pitch.FromMidi(start.Midi - i))]
            )
            {
                IsChromatic = true,
            },
            ConcertShape.SemitonesUp => new ConcertLine(
                $"From concert {from} up by semitones, {count} notes.",
                [.. Enumerable.Range(0, count).Select(i => i == 0 ? start : Pitch.FromMidi(start.Midi + i))]
            )
            {
                IsChromatic = true,
            },
            ConcertShape.FiveNotes => new ConcertLine($"Five notes up and back, from concert {from}.", [.. FiveUpAndBack.Select(Degree)])
            {
                KeyNote = start,
            },
            ConcertShape.MajorScale => new ConcertLine($"Concert {from} major scale.", [.. Enumerable.Range(0, 8).Select(Degree)])
            {
                KeyNote = start,
            },
            ConcertShape.Arpeggio => new ConcertLine($"Concert {from} major chord, up and back.", [.. ChordUpAndBack.Select(Degree)])
            {
                KeyNote = start,
            },
            _ => throw new ArgumentException("Notes of one's own are read, not shaped."),
        };
    }

    /// <summary>
    /// Reads notes of one's own: concert names, apart by spaces; one without an octave lies nearest to the one before it.
    /// </summary>
    /// <exception cref="ArgumentException">One is no note, or there are none or too many.</exception>
    public static ConcertLine Parse(string text)
    {
        var names = text.Split((char[])[' ', ',', '\n', '\r', '\t'], StringSplitOptions.RemoveEmptyEntries);
        if (names.Length is 0 or > MostNotes)
            throw new ArgumentException(
                names.Length == 0
                    ? "Write the concert notes, apart by spaces, such as Bb C D."
                    : $"A line has at most {MostNotes} notes; this one has {names.Length}."
            );
        var notes = new List<Pitch>();
        foreach (var name in names)
        {
            if (Pitch.TryParse(name, out var full))
                notes.Add(full);
            else if (Pitch.TryParse($"{name}4", out var bare))
                notes.Add(
                    notes.Count == 0
                        ? bare
                        : Enumerable
                            .Range(1, 7)
                            .Select(octave => bare with { Octave = octave })
                            .MinBy(each => Math.Abs(each.Midi - notes[^1].Midi))
                );
            else
                throw new ArgumentException(
                    $"'{name}' is not a concert note: write a letter, # or b, and the octave if it matters, such as Bb or F3."
                );
        }

        return new ConcertLine($"Concert {string.Join(' ', names)}.", notes);
    }
}
