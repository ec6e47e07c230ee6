using System.Text;
using Bocca.Core.Music;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;

namespace Bocca.Core.Pieces;

/// <summary>A piece as it came: the document, and what was read of it.</summary>
/// <param name="Score">What was read.</param>
/// <param name="Document">The document with everything that is in it.</param>
public sealed record PieceSource(MusicScore Score, ScoreDocument Document)
{
    /// <summary>A file of MusicXML, plain or packed.</summary>
    /// <exception cref="InvalidDataException">It is no score; the message says what and where.</exception>
    public static PieceSource OfFile(byte[] file)
    {
        var score = MusicXmlReader.Read(file);
        // A piece of which no line could be played is refused here, in one sentence.
        if (LineChoice.Of(score).Count == 0)
            LineChoice.Choose(score, null);
        return new PieceSource(score, ScoreDocument.Read(file));
    }

    /// <summary>A piece typed as text; see <see cref="PieceText"/>.</summary>
    /// <exception cref="EntrySlip">Something does not fit; where, and what would do.</exception>
    public static PieceSource OfText(string text, string title, Reading reading) => Of(PieceText.Read(text, title, reading));

    /// <summary>A piece of our own making, such as a scale.</summary>
    public static PieceSource Of(MusicScore score)
    {
        var file = Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score));
        // Read again, so that each note knows its own place in the document.
        return new PieceSource(MusicXmlReader.Read(file), ScoreDocument.Read(file));
    }
}
