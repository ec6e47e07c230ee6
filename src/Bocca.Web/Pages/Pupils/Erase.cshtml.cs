using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Pupils;

/// <summary>Erases a pupil at once, deleted or not, after saying what goes.</summary>
public sealed class EraseModel(Journal journal, Erasing erasing) : StagePage(journal)
{
    /// <summary>The pupil.</summary>
    public Pupil Who { get; private set; } = null!;

    /// <summary>What is erased, a line each.</summary>
    public IReadOnlyList<string> Goes { get; private set; } = [];

    /// <summary>What was typed to confirm.</summary>
    public string? Typed { get; private set; }

    /// <summary>Why nothing was erased; null where nothing was asked yet.</summary>
    public string? Trouble { get; private set; }

    public async Task<IActionResult> OnGetAsync(int id) => await LoadAsync(id) ? Page() : NotFound();

    public async Task<IActionResult> OnPostAsync(int id, string? name)
    {
        if (!await LoadAsync(id))
            return NotFound();
        if (!string.Equals(name?.Trim(), Who.Name, StringComparison.CurrentCultureIgnoreCase))
        {
            (Typed, Trouble) = (name, $"Nothing is erased: type {Who.Name} to confirm.");
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        erasing.Erase(Who);
        TempData["Told"] = "The pupil and the whole record are erased.";
        TempData["Erased"] = id;
        return RedirectToPage("/Index");
    }

    private async Task<bool> LoadAsync(int id)
    {
        if (await Db.Pupils.IgnoreQueryFilters().AsNoTracking().FirstOrDefaultAsync(pupil => pupil.Id == id) is not { } found)
            return false;
        Who = found;
        var entries = await Db.Entries.IgnoreQueryFilters().CountAsync(entry => entry.PupilId == id);
        var times = await Db.TimetableSlots.CountAsync(slot => slot.PupilId == id);
        var copies = erasing.Copies.Count();
        Goes =
        [
            "name, instrument, class, remark and whatever is noted about health and consent",
            $"{Counted(entries, "entry", "entries")} of the record: takes, lessons, weeks, messages and their figures",
            "own settings, pinned fingerings, cards that are due, choices in pieces",
            .. times > 0 ? [$"{Counted(times, "lesson time", "lesson times")} in the timetable"] : Array.Empty<string>(),
            .. copies > 0
                ? [$"all of this in {Counted(copies, "copy", "copies")} of the record in the data folder"]
                : Array.Empty<string>(),
        ];
        return true;
    }

    private static string Counted(int count, string one, string many) => $"{count} {(count == 1 ? one : many)}";
}
