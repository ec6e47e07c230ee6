using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Tone.Listening;

/// <summary>How the notes of a row were begun, held and ended; null where too few say something.</summary>
public sealed record RowArticulation
{
    /// <summary>An ending faster than this is closed by the tongue (ms from -3 to -20 dB).</summary>
    private const double ClosedMs = 30;

    /// <summary>From -3 to -20 dB.</summary>
    private const double FallDb = 17;

    /// <summary>A room that takes longer than this for such a fall hides how a note was ended (ms).</summary>
    private const double HiddenMs = 45;

    /// <summary>What falls by so much more slowly than the room does was let die away.</summary>
    private const double SlowerThanRoom = 1.6;

    /// <summary>How much a room adds to a rise at most, a share of its time of 60 dB: it fills as it empties.</summary>
    private const double RiseShare = 0.2;

    /// <summary>Share of the time to the next start that sounds, median over the tongued notes that have a next.</summary>
    public double? Duty { get; init; }

    /// <summary>Share of endings closed by the tongue, of those that can be told.</summary>
    public double? ClosedShare { get; init; }

    /// <summary>Whether the room rings for so long that most endings cannot be told.</summary>
    public bool EndingsHidden { get; init; }

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
        var roomMs = 1000 * (row.RoomDecaySeconds ?? 0) * FallDb / 60;
        var told = endings.Where(note => roomMs < HiddenMs || note.Sound!.FallMs > SlowerThanRoom * roomMs).ToList();
        var closed = told.Where(note => note.Sound!.FallMs <= ClosedMs).Select(note => note.Number).ToList();
        return new RowArticulation
        {
            Duty = Median(tongued.Select(pair => (double?)DutyOf(pair.First.Sound!, pair.Second.Sound!))),
            ClosedShare = 2 * told.Count <= endings.Count ? null : (double)closed.Count / told.Count,
            EndingsHidden = roomMs >= HiddenMs && 2 * told.Count <= endings.Count,
            ClosedNotes = closed,
            RiseMs = Median(notes.Where(note => note.Sound!.Tongued).Select(note => note.Sound!.RiseMs)),
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

    /// <summary>The longest rise that a limit allows in the room of a take, milliseconds.</summary>
    /// <param name="limitMs">The limit where nothing rings.</param>
    /// <param name="row">The take.</param>
    internal static double RiseLimitMs(double limitMs, HeardRow row) => limitMs + (1000 * RiseShare * (row.RoomDecaySeconds ?? 0));

    /// <summary>Share of the time from a start to the next that sounds, 0 to 1.</summary>
    public static double DutyOf(SoundedNote note, SoundedNote next) =>
        Math.Clamp(note.HalfToHalfSeconds / (next.StartSeconds - note.StartSeconds), 0, 1);

    private static double? Median(IEnumerable<double?> values)
    {
        var known = values.OfType<double>().ToList();
        return known.Count == 0 ? null : known.Median();
    }
}
