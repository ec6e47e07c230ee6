using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Record;

/// <summary>
/// What the application does with the record by the clock, with nobody asking: when it starts, when the work itself says, and at least
/// every hour, since the room's time zone may have been changed or the machine have slept. A record that is busy or full now is asked
/// again later; the application goes on.
/// </summary>
/// <param name="scopes">Where each turn gets its own record from.</param>
/// <param name="time">The clock.</param>
/// <param name="log">Where it is told what could not be done.</param>
public abstract class Clockwork(IServiceScopeFactory scopes, TimeProvider time, ILogger log) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromHours(1);

    /// <summary>One turn; says when the next is due (UTC), or null for in an hour.</summary>
    protected abstract Task<DateTime?> TurnAsync(IServiceProvider services);

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
            await Task.Delay(Until(await TryTurnAsync()), time, stoppingToken);
    }

    private async Task<DateTime?> TryTurnAsync()
    {
        try
        {
            using var scope = scopes.CreateScope();
            return await TurnAsync(scope.ServiceProvider);
        }
        catch (Exception problem) when (problem is DbUpdateException or SqliteException or InvalidDataException or IOException)
        {
            log.LogError(problem, "{Work} could not do its turn and tries again in an hour.", GetType().Name);
            return null;
        }
    }

    /// <summary>What was due while the turn took place, or while the machine slept, is due now.</summary>
    private TimeSpan Until(DateTime? due)
    {
        var wait = due - time.GetUtcNow().UtcDateTime ?? Longest;
        return wait > Longest ? Longest
            : wait < TimeSpan.Zero ? TimeSpan.Zero
            : wait;
    }
}
