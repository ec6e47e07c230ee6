using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Archive;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>A pupil with the whole record as one file.</summary>
public sealed class ArchiveModel(Journal journal) : StagePage(journal)
{
    /// <param name="id">The pupil.</param>
    /// <param name="notes">Whether remarks for the teacher alone come with it.</param>
    public async Task<IActionResult> OnGetAsync(int id, bool notes = false)
    {
        if (await Db.Pupils.AsNoTracking().FirstOrDefaultAsync(pupil => pupil.Id == id) is not { } who)
            return NotFound();
        var name = string.Concat(who.Name.Select(letter => char.IsLetterOrDigit(letter) ? letter : '-'));
        return File(await PupilArchive.MakeAsync(Journal, who, notes), "application/zip", $"{name}-{Clock.Today:yyyy-MM-dd}.zip");
    }
}
