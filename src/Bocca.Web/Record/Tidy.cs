using Bocca.Core.Breath;
using Bocca.Core.Health;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>Clears takes that nobody saved: an hour after their day has ended, while the application runs and when it starts.</summary>
public sealed class Tidy(IServiceScopeFactory scopes, TimeProvider time, ILogger<Tidy> log) : Clockwork(scopes, time, log)
{
    /// <summary>A take of late in the evening may still be saved so long after midnight.</summary>
    private static readonly TimeSpan Grace = TimeSpan.FromHours(1);

    /// <summary>
    /// Clears what a moment allows; says when the next day's takes go. Where no consent is in force, of a pupil's health the care stays
    /// and the reason goes.
    /// </summary>
    public static async Task<DateTime> ClearAsync(BoccaDb db, RoomClock clock)
    {
        var day = clock.DayOf(clock.Now - Grace);
        var start = clock.StartOf(day);
        await db.Entries.IgnoreQueryFilters().Where(entry => !entry.Kept && entry.At < start).ExecuteDeleteAsync();
        await db.Database.ExecuteSqlRawAsync(Journal.ForgetRequests);
        await ForgetReasonsAsync(db, clock.Today);
        return clock.StartOf(day.AddDays(1)) + Grace;
    }

    private static async Task ForgetReasonsAsync(BoccaDb db, DateOnly today)
    {
        // Of deleted pupils as well: a reason that nobody consents to is kept of nobody.
        var unasked = db
            .Pupils.IgnoreQueryFilters()
            .Where(pupil =>
                pupil.ConsentBy == null || pupil.ConsentOn == null || pupil.ConsentOn > today || !(pupil.ConsentUntil >= today)
            );
        await unasked
            .Where(pupil => pupil.Health != BreathHealth.None && pupil.Health != BreathHealth.Unsaid)
            .ExecuteUpdateAsync(to =>
                to.SetProperty(pupil => pupil.Health, BreathHealth.Unsaid).SetProperty(pupil => pupil.Version, Guid.NewGuid())
            );
        await unasked
            .Where(pupil => pupil.Mouth != MouthNote.None)
            .ExecuteUpdateAsync(to =>
                to.SetProperty(pupil => pupil.Mouth, MouthNote.None).SetProperty(pupil => pupil.Version, Guid.NewGuid())
            );
    }

    protected override async Task<DateTime?> TurnAsync(IServiceProvider services) =>
        await ClearAsync(services.GetRequiredService<BoccaDb>(), services.GetRequiredService<RoomClock>());
}
