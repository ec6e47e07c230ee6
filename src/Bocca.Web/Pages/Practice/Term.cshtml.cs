using System.Globalization;
using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>A term on one sheet, for parents' evening: what changed in pictures, and nothing of anybody else.</summary>
public sealed class TermModel(Journal journal) : EntriesPage(journal)
{
    /// <summary>A term has so many days where none are given (common practice).</summary>
    private const int UsualDays = 84;

    private const int MostDrills = 12,
        MostRemarks = 5;

    /// <summary>Its first day; empty for twelve weeks back.</summary>
    [BindProperty(SupportsGet = true, Name = "from")]
    public string? From { get; set; }

    public DateOnly First { get; private set; }

    public int Lessons { get; private set; }

    public double LessonMinutes { get; private set; }

    /// <summary>Days on which something was kept, and minutes that sounded.</summary>
    public (int Days, double Minutes) Played { get; private set; }

    public IReadOnlyList<FigureHistory> Histories { get; private set; } = [];

    /// <summary>What was passed in the term, by name.</summary>
    public IReadOnlyList<string> Passed { get; private set; } = [];

    public IReadOnlyList<MilestoneStanding> Milestones { get; private set; } = [];

    /// <summary>Remarks that are not for the teacher alone, the newest first.</summary>
    public IReadOnlyList<Entry> Remarks { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        First =
            DateOnly.TryParseExact(From, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            && day.Year is >= 2000 and < 2200
                ? day
                : Clock.Today.AddDays(-UsualDays);
        var since = Clock.StartOf(First);
        var lessons = await Journal
            .Of(Pupil.Id, PracticeStop.Lessons)
            .Where(lesson => lesson.DoneAt != null && lesson.At >= since)
            .Select(lesson => lesson.ElapsedSeconds ?? 0)
            .ToListAsync();
        (Lessons, LessonMinutes) = (lessons.Count, lessons.Sum() / 60);
        var takes = Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id).ToList();
        var kept = await Journal
            .Of(Pupil.Id)
            .Where(entry => entry.Kept && entry.At >= since && takes.Contains(entry.Kind))
            .Select(entry => new
            {
                entry.Kind,
                entry.DrillId,
                entry.At,
                entry.SoundedSeconds,
                entry.Outcome,
            })
            .ToListAsync();
        Played = (kept.Select(entry => Clock.DayOf(entry.At)).Distinct().Count(), kept.Sum(entry => entry.SoundedSeconds ?? 0) / 60);
        Passed =
        [
            .. kept.Where(take => take is { Outcome: Outcome.Passed, DrillId: not null })
                .Select(take => Stops.OfKind(take.Kind).DrillName(take.DrillId!))
                .OfType<string>()
                .Distinct()
                .Take(MostDrills),
        ];
        Histories = await Journal.HistoriesAsync(Pupil.Id, since);
        Milestones = [.. (await BeforeLesson.MilestonesAsync(Journal, Pupil)).Where(each => each.Reached is not null)];
        Remarks = await Journal
            .Of(Pupil.Id, PracticeStop.Remarks)
            .Where(remark => remark.At >= since && remark.Subject != PracticeStop.Private)
            .Take(MostRemarks)
            .ToListAsync();
        return Page();
    }
}
