using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>Clears takes that nobody saved: an hour after their day has ended, while the application runs and when it starts.</summary>
public sealed class Tidy(IServiceScopeFactory scopes, TimeProvider time) : BackgroundService
{
    /// <summary>A take of late in the evening may still be saved so long after midnight.</summary>
    private static readonly TimeSpan Grace = TimeSpan.FromHours(1);

    /// <summary>When it looks again at the latest: the room's time zone may have been changed meanwhile.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromHours(1);

    /// <summary>Clears what a moment allows; says when the next day's takes go.</summary>
    public static async Task<DateTime> ClearAsync(BoccaDb db, RoomClock clock)
    {
        var day = clock.DayOf(clock.Now - Grace);
        var start = clock.StartOf(day);
        await db.Entries.IgnoreQueryFilters().Where(entry => !entry.Kept && entry.At < start).ExecuteDeleteAsync();
        return clock.StartOf(day.AddDays(1)) + Grace;
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            TimeSpan wait;
            using (var scope = scopes.CreateScope())
            {
                var clock = scope.ServiceProvider.GetRequiredService<RoomClock>();
                wait = await ClearAsync(scope.ServiceProvider.GetRequiredService<BoccaDb>(), clock) - clock.Now;
            }

            await Task.Delay(wait < Longest ? wait : Longest, time, stoppingToken);
        }
    }
}
