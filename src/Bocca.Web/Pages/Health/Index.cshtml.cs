using Bocca.Core.Health;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Health;

/// <summary>How the pupil is today: one tap, from every stop; what it does to the day; what of it may be kept.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    /// <summary>What was told today, the newest first.</summary>
    public IReadOnlyList<Entry> Told { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        Told = await Journal.ComplaintsAsync(Pupil.Id, Clock.DayStart);
        Playing = await Journal.PlayingClockAsync(Pupil, Pupil.Limits(Clock.Today, Health, TeachersOwn));
        return Page();
    }

    /// <summary>Takes a complaint down, says what follows, and leads back to where it was told.</summary>
    public async Task<IActionResult> OnPostTellAsync(string complaint, string? back)
    {
        if (Pupil is null || Complaint.Find(complaint) is not { } told)
            return NotFound();
        var entry = await Journal.ComplainAsync(Pupil, told, Approach.ToString());
        // What follows from it stands on the page; here only that it was taken, and the way back.
        Tell($"{told.Name}: noted.", "Delete", entry.Id);
        return Url.IsLocalUrl(back) ? LocalRedirect(back!) : RedirectToPage(new { pupilId = Pupil.Id });
    }
}
