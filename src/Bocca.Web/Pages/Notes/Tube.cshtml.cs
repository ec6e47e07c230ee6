using Bocca.Web.Drawings;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Notes;

/// <summary>All rungs of all tubes: how valves or slide fill the gaps between the open partials.</summary>
public sealed class TubeModel(Journal journal) : NotesPage(journal)
{
    /// <summary>The setting shown first.</summary>
    [BindProperty(SupportsGet = true, Name = "setting")]
    public string? Setting { get; set; }

    public TubeDrawing? Drawing { get; private set; }

    public TubeColumn Now =>
        Drawing!.Columns.FirstOrDefault(column => column.Setting == Setting)
        ?? Drawing.Columns.First(column => column.AddedCm == 0 || column.Setting == "1");

    public IActionResult OnGet()
    {
        if (Pupil is null)
            return NotFound();
        Drawing = new TubeDrawing(Played!.Instrument, Reading, Played.Weights, Played.Hand);
        return Page();
    }
}
