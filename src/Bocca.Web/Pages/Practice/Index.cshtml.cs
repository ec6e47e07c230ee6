using Bocca.Core.Practice.Lesson;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Practice;

/// <summary>The page before a lesson, read in fifteen seconds from the stand.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    public BeforeLesson? Before { get; private set; }

    /// <summary>Where what is heard first is; null for nowhere.</summary>
    public (string Name, string Address)? FirstAt { get; private set; }

    /// <summary>The lesson as it would be run.</summary>
    public IReadOnlyList<AgendaPart> Parts { get; private set; } = [];

    /// <summary>Minutes of a lesson that was to begin while another is on; null for none asked.</summary>
    [BindProperty(SupportsGet = true, Name = "minutes")]
    public int? Minutes { get; set; }

    /// <summary>The lesson that is on with somebody else, where one was to begin beside it.</summary>
    public (Pupil Pupil, DateTime Since)? Beside { get; private set; }

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        Beside = Minutes is null || Lesson is not null ? null : await Journal.OtherLessonAsync(Pupil.Id);
        Before = await BeforeLesson.ReadAsync(Journal, Pupil, Room, this);
        Parts = Agenda.Of(Before.Minutes, Before.Parts);
        FirstAt = Stops.Mending(Before.First.Address, Pupil, Approach, Clock.Today);
        return Page();
    }

    /// <summary>What the pupil says of the days since the last lesson.</summary>
    public async Task<IActionResult> OnPostReportAsync(int days, int minutes, string? lips)
    {
        if (Pupil is null)
            return NotFound();
        if (days is < 0 or > 31 || minutes is < 0 or > 31 * 180 || lips is not (null or "" or "fresh" or "tired" or "sore"))
            return Refuse("Days are 0 to 31, minutes what they add up to, lips fresh, tired or sore.");
        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = PracticeStop.Reports.Id,
            InstrumentId = Pupil.InstrumentId,
            At = Clock.Now,
            Came = days,
            ElapsedSeconds = 60 * minutes,
            Subject = lips ?? "",
            Summary = $"{days} days, {minutes} minutes{(lips is { Length: > 0 } ? $", lips {lips}" : "")}.",
        };
        await Journal.WriteAsync(PracticeStop.Reports, entry, Approach.ToString());
        Tell("Taken down.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil.Id });
    }
}
