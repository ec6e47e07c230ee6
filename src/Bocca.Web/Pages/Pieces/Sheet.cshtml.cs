using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pieces;

/// <summary>A piece on paper: the study sheet, the fingered part, the breath part, the practice plan.</summary>
public sealed class SheetModel(Journal journal, PiecePlans plans) : StagePage(journal)
{
    private static readonly string[] Sheets = ["study", "settings", "breaths", "practice"];

    [BindProperty(SupportsGet = true)]
    [FromRoute]
    public int PieceId { get; set; }

    /// <summary>Which sheet.</summary>
    [BindProperty(SupportsGet = true, Name = "of")]
    public string? Asked { get; set; }

    public PieceView View { get; private set; } = null!;

    public string Sheet => Array.Find(Sheets, sheet => sheet == Asked) ?? "study";

    /// <summary>What is drawn upon the part.</summary>
    public string Layers =>
        Sheet switch
        {
            "settings" => "settings",
            "breaths" => "breaths",
            _ => "phrases hard",
        };

    public async Task<IActionResult> OnGetAsync()
    {
        if (
            Pupil is null
            || await Db.Pieces.AsNoTracking().FirstOrDefaultAsync(each => each.Id == PieceId) is not { } piece
            || await Db.NewestAsync(PieceId) is not { } version
        )
            return NotFound();
        if (await Db.PlayedOrOnlyAsync(plans, Pupil, version) is not { } played)
            return Redirect($"/pieces/{Pupil.Id}/{PieceId}");
        try
        {
            View = new PieceView(
                Pupil,
                await Journal.WorkOutAsync(plans, Pupil, Approach, Room.Conditions.Tuning, piece, version, played),
                Room.Tuning
            );
            return Page();
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException)
        {
            // What stands against it is said where it can be mended.
            return Redirect($"/pieces/{Pupil.Id}/{PieceId}");
        }
    }
}
