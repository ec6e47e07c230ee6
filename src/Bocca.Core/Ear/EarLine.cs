using System.Globalization;
using Bocca.Core.Music;

namespace Bocca.Core.Ear;

/// <summary>
/// A line of somebody's own to be sung: notes as they are read, each with its length where that is not the same for all. As text:
/// <c>C4 D4 E4</c>, or with beats from one note to the next <c>C4:1 D4:0.5 E4:1.5</c>.
/// </summary>
/// <param name="Notes">The notes, as they are read.</param>
/// <param name="Beats">Beats from each to the next, the last one's own; empty where all are alike.</param>
public sealed record EarLine(IReadOnlyList<Pitch> Notes, IReadOnlyList<double> Beats)
{
    /// <summary>The longest line.</summary>
    public const int MostNotes = 24;

    /// <summary>What a note may take, beats.</summary>
    public const double ShortestBeats = 0.1,
        LongestBeats = 16;

    /// <summary>Reads a line.</summary>
    /// <exception cref="ArgumentException">It is none, or too long; the message says what is wrong with which note.</exception>
    public static EarLine Parse(string text)
    {
        var words = text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        if (words.Length > MostNotes)
            throw new ArgumentException($"A line has at most {MostNotes} notes.");
        var notes = words.Select(word => word.Split(':')).ToList();
        if (notes.Exists(note => note.Length > 2 || note.Length != notes[0].Length))
            throw new ArgumentException("Give every note of the line its beats, as in C4:1 D4:0.5, or none of them.");
        return new EarLine([.. notes.Select(note => Pitch.Parse(note[0]))], notes is [[_, _], ..] ? [.. notes.Select(BeatsOf)] : []);
    }

    /// <summary>The line as it is read again.</summary>
    public override string ToString() =>
        string.Join(
            ' ',
            Notes.Select(
                (note, i) => Beats.Count == 0 ? $"{note}" : string.Create(CultureInfo.InvariantCulture, $"{note}:{Beats[i]:0.###}")
            )
        );

    private static double BeatsOf(string[] note) =>
        double.TryParse(note[1], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var beats)
        && beats is >= ShortestBeats and <= LongestBeats
            ? beats
            : throw new ArgumentException(
                $"{note[0]} cannot last {note[1]} beats: a note of a line lasts {ShortestBeats} to {LongestBeats}."
            );
}
