using Bocca.Core.Practice.Lesson;
using Bocca.Web.Pages.Practice;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>The lesson that is on, in the record.</summary>
public static class LessonRecord
{
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
        var written = PracticeStop.Lessons.Write(payload);
        (entry.Payload!.Version, entry.Payload.Body) = (written.Version, written.Body);
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
