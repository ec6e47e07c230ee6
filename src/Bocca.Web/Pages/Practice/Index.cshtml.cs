using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>What happened since the last lesson, as far as it is known.</summary>
/// <param name="Since">When that was; null where there was none.</param>
/// <param name="Days">Days on which something was kept.</param>
/// <param name="Minutes">Minutes that sounded.</param>
/// <param name="Takes">How many takes, by stop, in words.</param>
/// <param name="Report">What the pupil said of the days; null for nothing.</param>
public sealed record SinceLast(DateTime? Since, int Days, double Minutes, string Takes, Entry? Report);

/// <summary>The page before a lesson, read in fifteen seconds, and the lesson itself.</summary>
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    /// <summary>Without a lesson on record, so many days are looked back on (ours, editable).</summary>
    private const int DaysLookedBack = 7;

    private const int MostLetters = 400;

    public SinceLast? Before { get; private set; }

    public HearFirst? First { get; private set; }

    /// <summary>Where what is heard first is; null for nowhere.</summary>
    public (string Name, string Address)? FirstAt { get; private set; }

    public IReadOnlyList<FigureHistory> Moved { get; private set; } = [];

    public Entry? Step { get; private set; }

    public string? Bottleneck { get; private set; }

    /// <summary>The cue that helped most often lately, and how often of how many times; null for none.</summary>
    public (string Cue, int Helped, int Of)? Helping { get; private set; }

    public IReadOnlyList<(string Words, string Address)> Due { get; private set; } = [];

    /// <summary>The lesson that is on; null for none.</summary>
    public Entry? Lesson { get; private set; }

    /// <summary>What was written down and kept in the lesson that is on.</summary>
    public IReadOnlyList<Entry> InLesson { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        Lesson = await OpenLessonAsync();
        var last = await Journal
            .Of(Pupil.Id, PracticeStop.Lessons)
            .Where(lesson => lesson.DoneAt != null)
            .Select(lesson => (DateTime?)lesson.At)
            .FirstOrDefaultAsync();
        var since = last ?? Clock.Now.AddDays(-DaysLookedBack);
        Before = await SinceAsync(last, since);
        Moved = [.. (await Journal.HistoriesAsync(Pupil.Id)).Where(history => history.Changed)];
        Step = await Journal
            .Of(Pupil.Id, Steps.Kind)
            .Where(step => step.DoneAt == null || (step.DoneAt >= since && step.Outcome == Outcome.Passed))
            .FirstOrDefaultAsync();
        Bottleneck = HearFirst.Bottleneck(await Journal.RecentMissesAsync(Pupil.Id));
        Helping = Helped(await Journal.CuesAsync(Pupil.Id));
        Due = await DueAsync();
        First = HearFirst.Of(
            StepBefore(),
            [.. Moved.Select(moved => (moved, Stops.All.First(stop => stop.Followed.Contains(moved.Kind)).Place))],
            Due,
            InTakes
        );
        FirstAt = Stops.Mending(First.Address, Pupil, Approach, Clock.Today);
        InLesson = Lesson is null
            ? []
            : await Journal
                .Of(Pupil.Id)
                .Where(entry => entry.Kept && entry.At >= Lesson.At && entry.Id != Lesson.Id)
                .Take(20)
                .ToListAsync();
        return Page();
    }

    /// <summary>Begins a lesson; one that is on goes on.</summary>
    public async Task<IActionResult> OnPostBeginAsync()
    {
        if (Pupil is null)
            return NotFound();
        if (await OpenLessonAsync() is null)
            await Journal.WriteAsync(PracticeStop.Lessons, Made(PracticeStop.Lessons, ""), Approach.ToString());
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    /// <summary>Ends the lesson that is on.</summary>
    public async Task<IActionResult> OnPostEndAsync()
    {
        if (Pupil is null)
            return NotFound();
        if (await OpenLessonAsync() is not { } open)
            return Refuse("No lesson is on.");
        var lesson = await Db.Entries.FirstAsync(entry => entry.Id == open.Id);
        (lesson.DoneAt, lesson.ElapsedSeconds) = (Clock.Now, (Clock.Now - lesson.At).TotalSeconds);
        var kept = await Journal.Of(Pupil.Id).CountAsync(entry => entry.Kept && entry.At >= lesson.At && entry.Id != lesson.Id);
        lesson.Summary = $"{kept} {(kept == 1 ? "thing" : "things")} kept.";
        await Db.SaveChangesAsync();
        TempData["Told"] = "The lesson is over. Stow the mouthpiece, latch the case; then hand over the week.";
        return Redirect($"/practice/{Pupil.Id}/week");
    }

    /// <summary>Writes a remark down: for the pupil too, or for the teacher alone.</summary>
    public async Task<IActionResult> OnPostRemarkAsync(string? words, bool alone)
    {
        if (Pupil is null)
            return NotFound();
        if (words?.Trim() is not { Length: > 0 and <= MostLetters } said)
            return Refuse($"A remark has 1 to {MostLetters} letters.");
        var entry = Made(PracticeStop.Remarks, said);
        entry.Subject = alone ? PracticeStop.Private : "";
        await Journal.WriteAsync(PracticeStop.Remarks, entry, Approach.ToString());
        Tell(alone ? "Noted, for you alone." : "Noted.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    /// <summary>What the pupil says of the days since the last lesson.</summary>
    public async Task<IActionResult> OnPostReportAsync(int days, int minutes, string? lips)
    {
        if (Pupil is null)
            return NotFound();
        if (days is < 0 or > 31 || minutes is < 0 or > 31 * 180 || lips is not (null or "" or "fresh" or "tired" or "sore"))
            return Refuse("Days are 0 to 31, minutes what they add up to, lips fresh, tired or sore.");
        var entry = Made(PracticeStop.Reports, $"{days} days, {minutes} minutes{(lips is { Length: > 0 } ? $", lips {lips}" : "")}.");
        (entry.Came, entry.ElapsedSeconds, entry.Subject) = (days, 60 * minutes, lips ?? "");
        await Journal.WriteAsync(PracticeStop.Reports, entry, Approach.ToString());
        Tell("Taken down.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil.Id });
    }

    private int InTakes { get; set; }

    private Task<Entry?> OpenLessonAsync()
    {
        // A lesson that nobody ended goes with its day.
        var start = Clock.DayStart;
        return Journal
            .Of(Pupil!.Id, PracticeStop.Lessons)
            .Where(lesson => lesson.DoneAt == null && lesson.At >= start)
            .FirstOrDefaultAsync();
    }

    private Entry Made(EntryKind kind, string summary) =>
        new()
        {
            PupilId = Pupil!.Id,
            Kind = kind.Id,
            InstrumentId = Pupil.InstrumentId,
            At = Clock.Now,
            Summary = summary,
        };

    private async Task<SinceLast> SinceAsync(DateTime? last, DateTime since)
    {
        var takes = Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id).ToList();
        var kept = await Journal
            .Of(Pupil!.Id)
            .Where(entry => entry.Kept && entry.At >= since && takes.Contains(entry.Kind))
            .Select(entry => new
            {
                entry.Kind,
                entry.At,
                entry.SoundedSeconds,
            })
            .ToListAsync();
        InTakes = kept.Count;
        return new SinceLast(
            last,
            kept.Select(entry => Clock.DayOf(entry.At)).Distinct().Count(),
            kept.Sum(entry => entry.SoundedSeconds ?? 0) / 60,
            string.Join(", ", kept.GroupBy(entry => Stops.OfKind(entry.Kind).Name).Select(stop => $"{stop.Key} {stop.Count()}")),
            await Journal.Of(Pupil.Id, PracticeStop.Reports).Where(report => report.At >= since).FirstOrDefaultAsync()
        );
    }

    private StepBefore? StepBefore() =>
        Step is null
            ? null
            : new StepBefore(
                Step.Summary,
                Step.DrillId is null ? Step.Subject : $"{Step.Subject}:{Step.DrillId}",
                Step.Asked ?? 0,
                Step.Outcome == Outcome.Passed
            );

    private (string, int, int)? Helped(CueHistory cues)
    {
        var best = cues
            .Tries.GroupBy(each => each.Cue)
            .Select(each => (Cue: each.Key, Helped: each.Count(one => one.Helped), Of: each.Count()))
            .Where(each => each.Helped > 0)
            .OrderByDescending(each => each.Helped)
            .ThenBy(each => each.Of)
            .FirstOrDefault();
        return
            best.Cue?.Split('.') is [var symptom, var fix]
            && Symptoms.Find(symptom)?.Fixes.FirstOrDefault(rung => rung.Id == fix) is { } rung
            ? (rung.Cue, best.Helped, best.Of)
            : null;
    }

    private async Task<IReadOnlyList<(string, string)>> DueAsync() =>
        [
            .. (await Stops.DuesAsync(Db, [Pupil!.Id], Clock.Now))
                .Where(each => each.Counts.ContainsKey(Pupil.Id))
                .Select(each =>
                    (each.Due.Words(each.Counts[Pupil.Id]), each.Due.Drill ?? Stops.All.First(stop => stop.Dues.Contains(each.Due)).Place)
                ),
        ];
}
