using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Brings a deleted pupil back.</summary>
public sealed class RestoreModel(BoccaDb db) : PageModel
{
    public async Task<IActionResult> OnPostAsync(int id)
    {
        if (await db.Pupils.IgnoreQueryFilters().FirstOrDefaultAsync(pupil => pupil.Id == id) is not { } stored)
            return NotFound();
        stored.DeletedAt = null;
        await db.SaveChangesAsync();
        TempData["Told"] = $"{stored.Name} is back.";
        return RedirectToPage("/Index");
    }

    public IActionResult OnGet() => NotFound();
}
