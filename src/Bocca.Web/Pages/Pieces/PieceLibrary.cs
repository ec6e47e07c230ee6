using System.Security.Cryptography;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>What came of a piece that was brought in.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Version">The version it came in as, or the one that was there already.</param>
/// <param name="IsKnown">Whether the very same file was there already.</param>
public sealed record BroughtIn(Piece Piece, PieceVersion Version, bool IsKnown);

/// <summary>The library of pieces in the record.</summary>
public static class PieceLibrary
{
    /// <summary>Pieces that a library holds at most.</summary>
    public const int MostPieces = 5000;

    /// <summary>What tells a file from every other.</summary>
    public static string HashOf(byte[] file) => Convert.ToHexString(SHA256.HashData(file));

    /// <summary>The version in use of a piece; null where the piece is gone.</summary>
    public static Task<PieceVersion?> NewestAsync(this BoccaDb db, int pieceId) =>
        db
            .PieceVersions.AsNoTracking()
            .Where(version => version.PieceId == pieceId && db.Pieces.Any(piece => piece.Id == pieceId))
            .OrderByDescending(version => version.Number)
            .FirstOrDefaultAsync();

    /// <summary>
    /// Brings a file in: one that was there already is recognised; a piece of the same name and maker gets another version; else it is new.
    /// </summary>
    /// <param name="journal">The record.</param>
    /// <param name="source">The piece, read.</param>
    /// <param name="file">Its bytes.</param>
    /// <param name="fileName">The name of the file; empty for a typed piece.</param>
    /// <param name="text">What was typed; empty where a file came.</param>
    /// <param name="into">The piece whose version it is; null where that is to be found out.</param>
    /// <exception cref="InvalidDataException">The library is full.</exception>
    public static async Task<BroughtIn> BringInAsync(
        this Journal journal,
        PieceSource source,
        byte[] file,
        string fileName,
        string text = "",
        int? into = null
    )
    {
        var db = journal.Db;
        var hash = HashOf(file);
        var same = await db.PieceVersions.FirstOrDefaultAsync(version =>
            version.Hash == hash && db.Pieces.Any(piece => piece.Id == version.PieceId)
        );
        if (same is not null && (into is null || into == same.PieceId))
            return new BroughtIn(await db.Pieces.FirstAsync(piece => piece.Id == same.PieceId), same, IsKnown: true);
        var (title, composer) = (TitleOf(source.Score, fileName), Short(source.Score.Composer));
        var piece = into is { } id
            ? await db.Pieces.FirstAsync(each => each.Id == id)
            : await db.Pieces.FirstOrDefaultAsync(each => each.Title == title && each.Composer == composer);
        if (piece is null)
        {
            if (await db.Pieces.CountAsync() >= MostPieces)
                throw new InvalidDataException($"The library holds {MostPieces} pieces at most: take some out first.");
            db.Pieces.Add(
                piece = new Piece
                {
                    Title = title,
                    Composer = composer,
                    AddedAt = journal.Clock.Now,
                }
            );
            await db.SaveChangesAsync();
        }

        var number =
            await db.PieceVersions.IgnoreQueryFilters().Where(each => each.PieceId == piece.Id).MaxAsync(each => (int?)each.Number) ?? 0;
        var version = new PieceVersion
        {
            PieceId = piece.Id,
            Number = number + 1,
            File = file,
            Hash = hash,
            FileName = fileName.Length > 120 ? fileName[^120..] : fileName,
            Text = text,
            AddedAt = journal.Clock.Now,
        };
        db.PieceVersions.Add(version);
        await db.SaveChangesAsync();
        return new BroughtIn(piece, version, IsKnown: false);
    }

    /// <summary>How a pupil plays a piece; null where nobody has settled that.</summary>
    public static Task<PieceFor?> PlayedByAsync(this BoccaDb db, Pupil pupil, int pieceId) =>
        db.PiecesFor.FirstOrDefaultAsync(each =>
            each.PupilId == pupil.Id && each.PieceId == pieceId && each.InstrumentId == pupil.InstrumentId
        );

    /// <summary>
    /// How a pupil plays a piece as it is settled, or, where nobody has and there is nothing to choose, as it would be: looking at a piece
    /// writes nothing. Null where a line is to be chosen.
    /// </summary>
    public static async Task<PieceFor?> PlayedOrOnlyAsync(this BoccaDb db, PiecePlans plans, Pupil pupil, PieceVersion version)
    {
        var pieceId = version.PieceId;
        if (await db.PlayedByAsync(pupil, pieceId) is { } settled)
            return settled;
        return await plans.OffersAsync(version, pupil) is [{ Fits: true, FromConcert: false } only]
            ? new PieceFor
            {
                PupilId = pupil.Id,
                PieceId = pieceId,
                InstrumentId = pupil.InstrumentId,
                Line = PieceFor.Stored(only.Choice),
                Octaves = only.Octaves,
            }
            : null;
    }

    /// <summary>Gives a line of a piece to a pupil, as an offer has it; what was settled for another line is let go.</summary>
    public static async Task<PieceFor> GiveAsync(this Journal journal, Pupil pupil, int pieceId, PartOffer offer)
    {
        var db = journal.Db;
        var played = await db.PiecesFor.FirstOrDefaultAsync(each => each.PupilId == pupil.Id && each.PieceId == pieceId);
        if (played is null)
            db.PiecesFor.Add(
                played = new PieceFor
                {
                    PupilId = pupil.Id,
                    PieceId = pieceId,
                    InstrumentId = pupil.InstrumentId,
                }
            );
        var line = PieceFor.Stored(offer.Choice);
        if (played.Line != line || played.InstrumentId != pupil.InstrumentId)
            played.Choices = "";
        (played.InstrumentId, played.Line, played.FromConcert) = (pupil.InstrumentId, line, offer.FromConcert);
        (played.Octaves, played.At) = (offer.Octaves, journal.Clock.Now);
        await db.SaveChangesAsync();
        return played;
    }

    /// <summary>The line that is stored, in a score; null where the score has none such any more.</summary>
    public static LineChoice? LineOf(MusicScore score, string stored) =>
        LineChoice.Of(score).FirstOrDefault(choice => PieceFor.Stored(choice) == stored);

    private static string TitleOf(MusicScore score, string fileName)
    {
        var title = Short(score.Title);
        return title != "" ? title
            : Short(Path.GetFileNameWithoutExtension(fileName)) is { Length: > 0 } name ? name
            : "Without a title";
    }

    private static string Short(string text)
    {
        var shown = string.Concat(text.Where(letter => !char.IsControl(letter))).Trim();
        return shown.Length <= Piece.LongestTitle ? shown : shown[..Piece.LongestTitle];
    }
}
