using Bocca.Core.Music;
using Bocca.Core.Pieces.Lines;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A note as the page plays it.</summary>
/// <param name="Hertz">Its pitch.</param>
/// <param name="At">When it begins, seconds.</param>
/// <param name="Held">How long it sounds, seconds.</param>
/// <param name="Bound">Whether it goes on from the one before.</param>
public sealed record HeardNote(double Hertz, double At, double Held, bool Bound);

/// <summary>A piece as it sounds.</summary>
public static class HeardPiece
{
    /// <summary>Other parts that are played at once, at most: more is a wall.</summary>
    private const int MostOthers = 6;

    /// <summary>A line as it sounds at the room's A.</summary>
    public static IReadOnlyList<HeardNote> Of(PieceLine line, Tuning tuning) =>
        [
            .. line.Notes.Select(note => new HeardNote(
                Math.Round(tuning.Frequency(note.Sounding), 3),
                Math.Round(note.Seconds, 4),
                Math.Round(note.Held, 4),
                note.Slurred
            )),
        ];

    /// <summary>The other lines of the score, at the same tempo.</summary>
    public static IReadOnlyList<IReadOnlyList<HeardNote>> Others(WorkedPiece worked, Tuning tuning) =>
        [
            .. LineChoice
                .Of(worked.Source.Score)
                .Where(choice => choice != worked.Plan.Line.Choice)
                .Take(MostOthers)
                .Select(choice =>
                {
                    var part = worked.Source.Score.Parts[choice.Part];
                    // As the part itself sounds, whoever reads it.
                    var reading = new Reading("part", part.Clef, part.ToSounding.Inverse);
                    return Of(PieceLine.Of(worked.Source.Score, choice, reading, worked.Plan.Line.Tempo), tuning);
                }),
        ];
}
