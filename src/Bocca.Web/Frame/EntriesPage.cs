using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Frame;

/// <summary>A page that shows entries of the record: they are taken from it and brought back here, in one way for all kinds.</summary>
public abstract class EntriesPage(Journal journal) : StagePage(journal)
{
    /// <summary>Takes an entry of the pupil from the record, says so, and offers the way back.</summary>
    public async Task<IActionResult> OnPostDeleteAsync(long id) => await MarkAsync(id, deleted: true);

    /// <summary>Brings it back.</summary>
    public async Task<IActionResult> OnPostRestoreAsync(long id) => await MarkAsync(id, deleted: false);

    /// <summary>Where the page is read on once an entry is gone or back: where the reader was.</summary>
    protected virtual IActionResult ReadOn(Entry entry) => LocalRedirect(Request.Path + QueryString.Create(View()));

    /// <summary>What of the address chooses what is shown, beside what is done.</summary>
    private IEnumerable<KeyValuePair<string, string?>> View() =>
        Request
            .Query.Where(part => part.Key is not ("handler" or "id"))
            .Select(part => new KeyValuePair<string, string?>(part.Key, part.Value.ToString()));

    /// <summary>Says what was done, and how it is undone.</summary>
    protected void Tell(string told, string? undoHandler = null, long id = 0)
    {
        TempData["Told"] = told;
        if (undoHandler is not null)
            TempData["UndoAt"] = Request.Path + QueryString.Create([new("handler", undoHandler), new("id", $"{id}"), .. View()]);
    }

    private async Task<IActionResult> MarkAsync(long id, bool deleted)
    {
        if (PupilId is not { } pupil || await Journal.MarkAsync(pupil, id, deleted) is not { } entry)
            return NotFound();
        var kind = Stops.Kind(entry.Kind);
        Tell(deleted ? kind.Gone : kind.Back, deleted ? "Restore" : "Delete", id);
        return ReadOn(entry);
    }
}
