using Bocca.Core.Practice.Week;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>
/// Plans and hands over the next week where a teacher lets weeks follow by themselves: once the last one is over, from the record of then.
/// Days that were missed are not made up for.
/// </summary>
public sealed class WeekFollows(IServiceScopeFactory scopes, TimeProvider time, ILogger<WeekFollows> log) : Clockwork(scopes, time, log)
{
    /// <summary>Hands over what is due.</summary>
    /// <returns>How many weeks.</returns>
    public static async Task<int> FollowAsync(Journal journal)
    {
        var (room, today, handed) = (await journal.Db.RoomAsync(), journal.Clock.Today, 0);
        foreach (var pupil in await journal.Db.Pupils.AsNoTracking().Where(pupil => pupil.WeekRuns).ToListAsync())
        {
            if (await Journal.ShowAsync(PracticeStop.Weeks, journal.Of(pupil.Id, PracticeStop.Weeks)) is not { } last)
                continue;
            var first = last.Payload.First.AddDays(WeekAsked.Days);
            if (first > today)
                continue;
            // After a pause it begins today, on the same minutes for the same days of the week.
            var turned = (today.DayNumber - first.DayNumber) % WeekAsked.Days;
            double[] minutes = [.. last.Payload.Minutes.Skip(turned), .. last.Payload.Minutes.Take(turned)];
            var source = new PupilWeek(journal, pupil, room, await journal.HealthDayAsync(pupil));
            try
            {
                var exam = DateOnly.TryParse(last.Payload.Exam, out var on) && on >= today ? on : (DateOnly?)null;
                var asked = await source.AskedAsync(today, minutes, (await source.LipsAsync()).Tired, exam, new WeekChoices());
                await source.HandOverAsync(WeekPlanner.Plan(asked), today, minutes, null, exam is null ? null : last.Payload.Exam);
                handed++;
            }
            catch (ArgumentException)
            {
                // A week that cannot be asked so waits for the teacher.
            }
        }

        return handed;
    }

    protected override async Task<DateTime?> TurnAsync(IServiceProvider services)
    {
        await FollowAsync(services.GetRequiredService<Journal>());
        return null;
    }
}
