using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces.Lines;

/// <summary>One player's line of a piece: its notes in the order in which they are written, with their moments at a tempo.</summary>
/// <param name="Title">The piece's title.</param>
/// <param name="Part">What the line is called.</param>
/// <param name="Reading">How its player reads.</param>
/// <param name="Tempo">Beats of its first metre a minute, at the beginning.</param>
/// <param name="Bars">Its bars.</param>
/// <param name="Notes">Its notes: what is tied is one; grace and cue notes are left out.</param>
public sealed record PieceLine(
    string Title,
    string Part,
    Reading Reading,
    double Tempo,
    IReadOnlyList<LineBar> Bars,
    IReadOnlyList<LineNote> Notes
)
{
    /// <summary>Tempi that a piece may have, beats a minute.</summary>
    public const double SlowestTempo = 10,
        FastestTempo = 400;

    /// <summary>The tempo of a piece that says none, beats a minute.</summary>
    public const double UsualTempo = 80;

    /// <summary>The line it was made from.</summary>
    public required LineChoice Choice { get; init; }

    /// <summary>Seconds from its beginning to its end, as written.</summary>
    public double TotalSeconds => Notes.Count == 0 ? 0 : Notes[^1].Seconds + Notes[^1].Held + Notes[^1].RestSeconds;

    /// <summary>The bar of a note as it is said: its printed number.</summary>
    public string BarOf(int note) => Bars[Notes[note].Bar].Number;

    /// <summary>Where a note stands, in words.</summary>
    public string PlaceOf(int note) => $"bar {BarOf(note)}, {BeatOf(Notes[note].Beat)}";

    private static string BeatOf(double beat) =>
        Math.Abs(beat - Math.Floor(beat) - 0.5) < 0.01 ? $"the \"and\" of {Math.Floor(beat):0}" : $"beat {beat:0.##}";

    /// <summary>The line of a score.</summary>
    /// <param name="score">The score.</param>
    /// <param name="choice">Which line.</param>
    /// <param name="reading">How the player reads.</param>
    /// <param name="tempo">Beats of the first metre a minute; null for what the score says, or the usual tempo.</param>
    /// <param name="fromConcert">
    /// Whether the part is taken at its concert pitch and written anew for this player; else it is read as it stands.
    /// </param>
    /// <param name="octaves">Octaves by which it is moved, up positive.</param>
    /// <exception cref="InvalidDataException">The tempo is none, or a note is moved out of what there is.</exception>
    public static PieceLine Of(
        MusicScore score,
        LineChoice choice,
        Reading reading,
        double? tempo = null,
        bool fromConcert = false,
        int octaves = 0
    )
    {
        if (tempo is { } asked && !(asked is >= SlowestTempo and <= FastestTempo))
            throw new InvalidDataException($"A piece goes at {SlowestTempo} to {FastestTempo} beats a minute, not at {asked:0.#}.");
        return new LineReader(score, choice, reading, fromConcert, octaves).Read(tempo);
    }
}
