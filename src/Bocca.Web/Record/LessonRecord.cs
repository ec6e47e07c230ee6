using Bocca.Core.Practice.Lesson;
using Bocca.Web.Pages.Practice;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The lesson that is on, in the record.</summary>
public static class LessonRecord
{
    /// <summary>What there is one lesson of, a pupil.</summary>
    private const string IsOn = "on";

    /// <summary>
    /// The lesson that is on with a pupil; null for none. One that nobody ended goes after some hours: it may run past midnight, and a
    /// change of clocks is nothing to it.
    /// </summary>
    public static async Task<Shown<LessonPayload>?> LessonAsync(this Journal journal, int pupilId)
    {
        var since = journal.Clock.Now.AddHours(-LessonTimes.LongestHours);
        // Every page asks this; nearly always there is none, and no payload is touched.
        var open = await journal
            .Of(pupilId, PracticeStop.Lessons)
            .Where(lesson => lesson.DoneAt == null && lesson.At >= since)
            .Select(lesson => (long?)lesson.Id)
            .FirstOrDefaultAsync();
        return open is null
            ? null
            : await Journal.ShowAsync(PracticeStop.Lessons, journal.Of(pupilId, PracticeStop.Lessons).Where(lesson => lesson.Id == open));
    }

    /// <summary>A lesson that is on with somebody else, the one begun last; null for none.</summary>
    public static async Task<(Pupil Pupil, DateTime Since)?> OtherLessonAsync(this Journal journal, int pupilId)
    {
        var since = journal.Clock.Now.AddHours(-LessonTimes.LongestHours);
        var other = await journal
            .Db.Entries.AsNoTracking()
            .Where(lesson =>
                lesson.At >= since && lesson.Kind == PracticeStop.Lessons.Id && lesson.DoneAt == null && lesson.PupilId != pupilId
            )
            .OrderByDescending(lesson => lesson.At)
            .Select(lesson => new { lesson.PupilId, lesson.At })
            .FirstOrDefaultAsync();
        return
            other is not null && await journal.Db.Pupils.AsNoTracking().FirstOrDefaultAsync(pupil => pupil.Id == other.PupilId) is { } who
            ? (who, other.At)
            : null;
    }

    /// <summary>Begins a lesson with a pupil; where one is on already, that one stays.</summary>
    public static async Task BeginLessonAsync(this Journal journal, Entry lesson, LessonPayload payload, string approach)
    {
        var (key, since) = (
            Journal.OneKey(lesson.PupilId, PracticeStop.Lessons, IsOn),
            journal.Clock.Now.AddHours(-LessonTimes.LongestHours)
        );
        // One that is over, by the clock or deleted, makes room.
        await journal
            .Db.Entries.IgnoreQueryFilters()
            .Where(each => each.Key == key && (each.DoneAt != null || each.DeletedAt != null || each.At < since))
            .ExecuteUpdateAsync(to => to.SetProperty(each => each.Key, (Guid?)null));
        lesson.Payload = PracticeStop.Lessons.Write(payload);
        PracticeStop.Lessons.Columns(lesson, payload);
        await journal.WriteOneAsync(PracticeStop.Lessons, lesson, approach, IsOn);
    }

    /// <summary>Ends the lesson that is on with a pupil.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupilId">Whose.</param>
    /// <param name="good">One good thing; empty for none.</param>
    /// <param name="task">The next task; empty for none.</param>
    /// <param name="seen">What else was seen to, such as <c>; case latched</c>; empty for nothing.</param>
    public static async Task EndLessonAsync(this Journal journal, int pupilId, string good, string task, string seen)
    {
        if (await journal.LessonAsync(pupilId) is not { Entry: var open })
            return;
        var kept = await journal.Of(pupilId).CountAsync(entry => entry.Kept && entry.At >= open.At && entry.Id != open.Id);
        var played = (await journal.SoundedAsync(pupilId, open.At)).Sum(each => each.Seconds) / 60;
        await journal.ChangeLessonAsync(
            pupilId,
            (lesson, payload) =>
            {
                (lesson.DoneAt, lesson.ElapsedSeconds) = (journal.Clock.Now, (journal.Clock.Now - lesson.At).TotalSeconds);
                var minutes = Math.Abs(played - 1) < 0.05 ? "minute" : "minutes";
                lesson.Summary =
                    $"{played:0.#} {minutes} sounded, {Math.Max(0, (lesson.ElapsedSeconds.Value / 60) - played):0} did not; {kept} "
                    + $"{(kept == 1 ? "thing" : "things")} kept{seen}.";
                return payload with { Good = good, Task = task };
            }
        );
    }

    /// <summary>Changes the lesson that is on.</summary>
    /// <returns>The lesson as it is now; null where none is on.</returns>
    public static async Task<Shown<LessonPayload>?> ChangeLessonAsync(
        this Journal journal,
        int pupilId,
        Func<Entry, LessonPayload, LessonPayload> change
    )
    {
        if (await journal.LessonAsync(pupilId) is not { } open)
            return null;
        var entry = await journal.Db.Entries.Include(each => each.Payload).FirstAsync(each => each.Id == open.Entry.Id);
        var payload = change(entry, PracticeStop.Lessons.Read(entry));
        PracticeStop.Lessons.Rewrite(entry, payload);
        await journal.Db.SaveChangesAsync();
        return new Shown<LessonPayload>(entry, payload);
    }

    /// <summary>What sounded since a moment, kept or not.</summary>
    public static async Task<IReadOnlyList<SoundedInLesson>> SoundedAsync(this Journal journal, int pupilId, DateTime since) =>
        await journal
            .Of(pupilId)
            .Where(entry => entry.At >= since && entry.SoundedSeconds > 0)
            .Select(entry => new SoundedInLesson(entry.At, entry.SoundedSeconds!.Value))
            .ToListAsync();

    /// <summary>
    /// What to do after the times through of one drill in the lesson that is on: on, again, or a step back; null where there is no lesson,
    /// or not the third time yet.
    /// </summary>
    public static async Task<ThirdTime?> ThirdTimeAsync(
        this Journal journal,
        int pupilId,
        Shown<LessonPayload> lesson,
        string kind,
        string? drill
    )
    {
        var times = await journal
            .Of(pupilId)
            .Where(take => take.Kind == kind && take.DrillId == drill && take.At >= lesson.Entry.At && take.Asked > 0)
            .Select(take => new
            {
                take.Came,
                take.Asked,
                take.Outcome,
            })
            .ToListAsync();
        var begun = lesson.Payload.Begun is [.., var last] ? last.At : lesson.Entry.At;
        var left = (lesson.Payload.Now?.Minutes ?? lesson.Payload.Minutes) - (journal.Clock.Now - begun).TotalMinutes;
        return ThirdTime.Of(
            [
                .. Enumerable
                    .Reverse(times)
                    .Select(take => new TimeThrough(
                        (double)(take.Came ?? 0) / take.Asked!.Value,
                        take.Outcome == Core.Judging.Outcome.Passed
                    )),
            ],
            left,
            lesson.Payload.Mood
        );
    }
}
