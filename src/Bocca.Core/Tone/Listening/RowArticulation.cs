using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Listening;

/// <summary>How the notes of a row were begun, held and ended; null where too few say something.</summary>
public sealed record RowArticulation
{
    /// <summary>An ending faster than this is closed by the tongue (ms from -3 to -20 dB).</summary>
    private const double ClosedMs = 30;

    /// <summary>Share of the time to the next start that sounds, median over the tongued notes that have a next.</summary>
    public double? Duty { get; init; }

    /// <summary>Share of endings closed by the tongue, of those that end before the next note.</summary>
    public double? ClosedShare { get; init; }

    /// <summary>Median rise of the tongued starts, milliseconds.</summary>
    public double? RiseMs { get; init; }

    /// <summary>Median pitch of the starts less that of their notes, cents.</summary>
    public double? ScoopCents { get; init; }

    /// <summary>Median silence between notes that are apart, milliseconds.</summary>
    public double? GapMs { get; init; }

    /// <summary>Standard deviation of the time between starts, milliseconds; for notes meant evenly.</summary>
    public double? SpacingMs { get; init; }

    /// <summary>Standard deviation of the notes' levels, decibels.</summary>
    public double? LevelDb { get; init; }

    /// <summary>The notes whose start was other than meant: tongued for slurred or the other way.</summary>
    public IReadOnlyList<int> OtherStarts { get; init; } = [];

    /// <summary>The notes closed by the tongue.</summary>
    public IReadOnlyList<int> ClosedNotes { get; init; } = [];

    /// <summary>Measures a row.</summary>
    public static RowArticulation Of(HeardRow row)
    {
        var notes = row.Notes.Where(note => note.Sound is not null).ToList();
        // Only what is next to each other in the row says something about the time between.
        var pairs = notes.Zip(notes.Skip(1)).Where(pair => pair.Second.Number == pair.First.Number + 1).ToList();
        // A note before a rest is followed by nothing it could be joined to.
        var tongued = pairs.Where(pair => !pair.First.Judged.Meant.SlurredToNext && pair.First.Asked.RestBeats == 0).ToList();
        var endings = notes.Where(note => !note.Judged.Meant.SlurredToNext && note.Sound!.FallMs is not null).ToList();
        var closed = endings.Where(note => note.Sound!.FallMs <= ClosedMs).Select(note => note.Number).ToList();
        return new RowArticulation
        {
            Duty = Median(tongued.Select(pair => (double?)DutyOf(pair.First.Sound!, pair.Second.Sound!))),
            ClosedShare = endings.Count == 0 ? null : (double)closed.Count / endings.Count,
            ClosedNotes = closed,
            RiseMs = Median(notes.Where((note, i) => note.Sound!.Tongued).Select(note => note.Sound!.RiseMs)),
            ScoopCents = Median(notes.Where(note => note.Sound!.Tongued).Select(note => note.Sound!.ScoopCents)),
            GapMs = Median(tongued.Select(pair => pair.Second.Sound!.GapMs).Where(gap => gap > 0)),
            SpacingMs =
                tongued.Count < 3
                    ? null
                    : tongued.Select(pair => 1000 * (pair.Second.Sound!.StartSeconds - pair.First.Sound!.StartSeconds)).StandardDeviation(),
            LevelDb = notes.Count < 3 ? null : notes.Select(note => note.Sound!.LevelDb).StandardDeviation(),
            OtherStarts =
            [
                .. pairs
                    .Where(pair => pair.First.Judged.Meant.SlurredToNext == pair.Second.Sound!.Tongued)
                    .Select(pair => pair.Second.Number),
            ],
        };
    }

    /// <summary>Share of the time from a start to the next that sounds, 0 to 1.</summary>
    public static double DutyOf(SoundedNote note, SoundedNote next) =>
        Math.Clamp(note.HalfToHalfSeconds / (next.StartSeconds - note.StartSeconds), 0, 1);

    private static double? Median(IEnumerable<double?> values)
    {
        var known = values.OfType<double>().ToList();
        return known.Count == 0 ? null : known.Median();
    }
}
