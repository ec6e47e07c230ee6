using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A piece as it is typed.</summary>
public sealed record TypedPiece(string? Title, string? Text, int? Piece);

/// <summary>A piece written by hand: typed, engraved while it is typed, kept as a piece like any other.</summary>
public sealed class WriteModel(Journal journal) : StagePage(journal)
{
    /// <summary>The typed piece that is changed; null for a new one.</summary>
    [BindProperty(SupportsGet = true, Name = "piece")]
    public int? PieceId { get; set; }

    /// <summary>A text to begin with, such as a scale's.</summary>
    [BindProperty(SupportsGet = true, Name = "text")]
    public string? Text { get; set; }

    [BindProperty(SupportsGet = true, Name = "title")]
    public string? PieceTitle { get; set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        if (PieceId is { } id)
        {
            if (
                await Db.Pieces.FirstOrDefaultAsync(each => each.Id == id) is not { } piece
                || await Db.NewestAsync(id) is not { Text.Length: > 0 } typed
            )
                return NotFound();
            (Text, PieceTitle) = (typed.Text, piece.Title);
        }

        return Page();
    }

    /// <summary>What is typed so far, engraved; or where it does not fit, and what would do.</summary>
    public IActionResult OnPostEngrave([FromForm] TypedPiece? typed)
    {
        if (Pupil is null)
            return NotFound();
        try
        {
            return new JsonResult(new { xml = MusicXmlWriter.Write(PieceText.Read(typed?.Text ?? "", "", Pupil.Reading)) });
        }
        catch (EntrySlip slip)
        {
            return new JsonResult(
                new
                {
                    xml = UpTo(typed?.Text ?? "", slip.At),
                    slip = slip.Message,
                    at = slip.At,
                    length = slip.Length,
                }
            );
        }
    }

    /// <summary>What was right so far, engraved; null where that is nothing.</summary>
    private string? UpTo(string text, int at)
    {
        try
        {
            return MusicXmlWriter.Write(PieceText.Read(text[..Math.Min(at, text.Length)], "", Pupil!.Reading));
        }
        catch (EntrySlip)
        {
            return null;
        }
    }

    /// <summary>Keeps it in the library, and opens it.</summary>
    public async Task<IActionResult> OnPostAsync([FromForm] TypedPiece? typed) =>
        await RefusingAsync(async () =>
        {
            if (Pupil is null || typed is null)
                return NotFound();
            var title = (typed.Title ?? "").Trim();
            if (title.Length is 0 or > Piece.LongestTitle || title.Any(char.IsControl))
                throw new ArgumentException($"Give it a title of at most {Piece.LongestTitle} letters.");
            var text = (typed.Text ?? "").Trim();
            var source = PieceSource.OfText(text, title, Pupil.Reading);
            if (typed.Piece is { } id && await Db.NewestAsync(id) is not { Text.Length: > 0 })
                return NotFound();
            var came = await Journal.BringInAsync(source, source.Document.Write(), "", text, typed.Piece);
            if (typed.Piece is not null && came.Piece.Title != title)
            {
                came.Piece.Title = title;
                await Db.SaveChangesAsync();
            }

            var line = LineChoice.Choose(source.Score, null);
            if (await Db.PlayedByAsync(Pupil, came.Piece.Id) is null)
                await Journal.GiveAsync(Pupil, came.Piece.Id, new PartOffer(line, FromConcert: false, 0));
            TempData["Told"] = came.IsKnown ? $"{title} was in the library already." : $"{title} is in the library.";
            return Redirect($"/pieces/{Pupil.Id}/{came.Piece.Id}");
        });
}
