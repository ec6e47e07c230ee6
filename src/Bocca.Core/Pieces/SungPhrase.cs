using Bocca.Core.Ear;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Pieces.Study;

namespace Bocca.Core.Pieces;

/// <summary>A phrase of a piece as a line to be sung before it is played.</summary>
public static class SungPhrase
{
    /// <summary>The phrase in its own rhythm, beats of the piece's first metre; what rests lasts with the note before it.</summary>
    /// <param name="line">The line.</param>
    /// <param name="phrase">One of its phrases.</param>
    /// <returns>The line; null where it has more notes than are sung at once, or one that is too short or too long.</returns>
    public static EarLine? Of(PieceLine line, Phrase phrase)
    {
        var notes = line.Notes.Skip(phrase.From).Take(phrase.To - phrase.From + 1).ToList();
        if (notes.Count is 0 or > EarLine.MostNotes)
            return null;
        List<double> beats =
        [
            .. notes.Select(
                (note, i) => Math.Round((i + 1 < notes.Count ? notes[i + 1].Seconds - note.Seconds : note.Held) * line.Tempo / 60, 3)
            ),
        ];
        return beats.TrueForAll(each => each is >= EarLine.ShortestBeats and <= EarLine.LongestBeats)
            ? new EarLine([.. notes.Select(note => note.Written)], beats)
            : null;
    }
}
