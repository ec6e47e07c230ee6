using Bocca.Web.Record;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Logging.Abstractions;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

/// <summary>What the application does by the clock goes on, whatever becomes of one turn: a host ends with a service that throws.</summary>
public sealed class ClockworkTests
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    private readonly WatchedTime _time = new();

    [Fact]
    public async Task A_record_that_is_busy_is_asked_again_in_an_hour()
    {
        var work = Start(turn => turn == 1 ? throw new SqliteException("The record is busy.", 5) : null);
        await work.CameAsync(1);
        await WaitsAsync(work, TimeSpan.FromMinutes(59), TimeSpan.FromMinutes(1), 2);
    }

    /// <summary>As when the machine slept in the middle of it.</summary>
    [Fact]
    public async Task What_was_due_while_it_worked_is_done_at_once()
    {
        var work = Start(turn => _time.GetUtcNow().UtcDateTime.AddMinutes(turn == 1 ? -3 : 3));
        await work.CameAsync(2);
        await WaitsAsync(work, TimeSpan.FromMinutes(2), TimeSpan.FromMinutes(1), 3);
    }

    [Fact]
    public async Task Nothing_waits_longer_than_an_hour()
    {
        var work = Start(_ => _time.GetUtcNow().UtcDateTime.AddHours(23));
        await work.CameAsync(1);
        await WaitsAsync(work, TimeSpan.FromMinutes(59), TimeSpan.FromMinutes(1), 2);
    }

    /// <summary>Nothing comes in the time before, and the turn comes after the rest.</summary>
    private async Task WaitsAsync(Counted work, TimeSpan before, TimeSpan rest, int turn)
    {
        Assert.True(await _time.Waits.WaitAsync(Patience, TestContext.Current.CancellationToken), "it does not wait for its next turn");
        _time.Advance(before);
        await Task.Delay(100, TestContext.Current.CancellationToken);
        Assert.Equal(turn - 1, work.Turns);
        _time.Advance(rest);
        await work.CameAsync(turn);
        await work.StopAsync(TestContext.Current.CancellationToken);
        Assert.False(work.ExecuteTask!.IsFaulted);
    }

    private Counted Start(Func<int, DateTime?> turn)
    {
        var scopes = new ServiceCollection().BuildServiceProvider().GetRequiredService<IServiceScopeFactory>();
        var work = new Counted(scopes, _time, NullLogger.Instance, turn);
        _ = work.StartAsync(TestContext.Current.CancellationToken);
        return work;
    }

    /// <summary>Tells when somebody waits on it.</summary>
    private sealed class WatchedTime() : FakeTimeProvider(new DateTimeOffset(2026, 11, 24, 9, 0, 0, TimeSpan.Zero))
    {
        public SemaphoreSlim Waits { get; } = new(0);

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            var timer = base.CreateTimer(callback, state, dueTime, period);
            Waits.Release();
            return timer;
        }
    }

    private sealed class Counted(IServiceScopeFactory scopes, TimeProvider time, ILogger log, Func<int, DateTime?> turn)
        : Clockwork(scopes, time, log)
    {
        private readonly SemaphoreSlim _came = new(0);
        private int _seen;

        public int Turns { get; private set; }

        public async Task CameAsync(int turns)
        {
            for (; _seen < turns; _seen++)
                Assert.True(await _came.WaitAsync(Patience, TestContext.Current.CancellationToken), $"turn {_seen + 1} did not come");
        }

        protected override Task<DateTime?> TurnAsync(IServiceProvider services)
        {
            Turns++;
            _came.Release();
            return Task.FromResult(turn(Turns));
        }
    }
}
