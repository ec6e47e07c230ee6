using Bocca.Core.Counting;
using Bocca.Web.Pages.Ear;

namespace Bocca.Web.Drawings;

/// <summary>A line of the grid: where, what is counted there, whether a note begins, whether it is a beat.</summary>
public sealed record GridMark(double X, string Syllable, bool Begins, bool IsBeat);

/// <summary>What came of a beginning in a track: where it was due, where it came, and whether inside.</summary>
public sealed record TrackMark(double DueX, double? X, bool Inside, string Words);

/// <summary>A track under the grid.</summary>
public sealed record GridTrack(string Name, double Y, IReadOnlyList<TrackMark> Marks, IReadOnlyList<double> Extras);

/// <summary>
/// The half-beat grid under a card: a line for each half of a beat, what is counted on it, how long each note is held over them; and, once
/// it was done, the voice and the hands as two tracks, each mark where it came.
/// </summary>
public sealed class GridDrawing
{
    public const double Width = 760;
    public const double Left = 92;
    public const double Right = Width - 34;

    /// <summary>The baseline of the syllables, and the height of the held bars.</summary>
    public const double SyllableY = 24,
        HeldY = 44;

    private const double FirstTrackY = 84,
        TrackStep = 46;

    private readonly double _seconds;
    private readonly RhythmCard _card;

    /// <param name="card">The card.</param>
    /// <param name="beatSeconds">Seconds of a quarter.</param>
    /// <param name="toleranceMs">What is inside.</param>
    /// <param name="traced">What came of it; null before.</param>
    public GridDrawing(RhythmCard card, double beatSeconds, double toleranceMs, TracedCard? traced)
    {
        (_card, _seconds) = (card, card.Length.Value * beatSeconds);
        Marks =
        [
            .. Counts
                .Grid(card)
                .Select(line => new GridMark(
                    X(line.At.Value * beatSeconds),
                    line.Syllable,
                    line.Begins,
                    (line.At / card.Metre.Beat).IsWhole
                )),
        ];
        Held =
        [
            .. card
                .Notes.Select((note, i) => (note, i))
                .Where(each => each.note.Begins)
                .Select(each =>
                    (X(each.note.At.Value * beatSeconds) + 6, X((each.note.At + card.Sounding(each.i)).Value * beatSeconds) - 8)
                ),
        ];
        var tracks = new List<GridTrack>();
        foreach (var (name, track) in new[] { ("said", traced?.Said), ("hands", traced?.Hands) })
            if (track is not null)
                tracks.Add(Track(name, track, FirstTrackY + (TrackStep * tracks.Count), beatSeconds, toleranceMs));
        Tracks = tracks;
    }

    public IReadOnlyList<GridMark> Marks { get; }

    /// <summary>How long each note is held: from where to where.</summary>
    public IReadOnlyList<(double From, double To)> Held { get; }

    public IReadOnlyList<GridTrack> Tracks { get; }

    public double Height => Tracks.Count == 0 ? 62 : FirstTrackY + (TrackStep * (Tracks.Count - 1)) + 30;

    /// <summary>The same in words.</summary>
    public string Words =>
        $"{_card.Metre}: counted {string.Join(" ", Marks.Select(mark => mark.Begins ? mark.Syllable : $"({mark.Syllable})"))}. "
        + string.Join(" ", Tracks.Select(track => $"{track.Name}: {string.Join(", ", track.Marks.Select(mark => mark.Words))}."));

    private GridTrack Track(string name, TracedTrack track, double y, double beatSeconds, double toleranceMs) =>
        new(
            name,
            y,
            [
                .. track.Beats.Select(beat => new TrackMark(
                    X(beat.At * beatSeconds),
                    beat.ErrorMs is { } off ? X((beat.At * beatSeconds) + (off / 1000)) : null,
                    beat.ErrorMs is { } ms && Math.Abs(ms) <= toleranceMs,
                    $"{beat.Place} {(beat.ErrorMs is { } late ? $"{late:+0;−0;0} ms" : "missing")}"
                )),
            ],
            [.. track.ExtraSeconds.Select(X)]
        );

    private double X(double seconds) => Left + (Math.Clamp(seconds / _seconds, -0.06, 1.06) * (Right - Left));
}
