using Bocca.Web.Live;

namespace Bocca.Web.Tests;

public sealed class HeavyWorkTests
{
    private static CancellationToken Stopping => TestContext.Current.CancellationToken;

    [Fact]
    public async Task One_thing_is_done_at_a_time_and_all_in_the_end()
    {
        using var work = new HeavyWork();
        var (running, most) = (0, 0);
        var done = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(i =>
                    work.RunAsync(
                        100,
                        async () =>
                        {
                            most = Math.Max(most, Interlocked.Increment(ref running));
                            await Task.Delay(10, Stopping);
                            Interlocked.Decrement(ref running);
                            return i;
                        },
                        Stopping
                    )
                )
        );
        Assert.Equal([0, 1, 2, 3, 4, 5], done.Order());
        Assert.Equal(1, most);
    }

    [Fact]
    public async Task What_would_wait_too_long_is_refused_and_taken_later()
    {
        using var work = new HeavyWork();
        var finished = new TaskCompletionSource<int>();
        var first = work.RunAsync(HeavyWork.MostSeconds - 10, () => finished.Task, Stopping);
        await Assert.ThrowsAsync<BusyException>(() => work.RunAsync(20, () => Task.FromResult(1), Stopping));
        var small = work.RunAsync(5, () => Task.FromResult(2), Stopping);
        finished.SetResult(0);
        Assert.Equal((0, 2), (await first, await small));
        Assert.Equal(3, await work.RunAsync(2 * HeavyWork.MostSeconds, () => Task.FromResult(3), Stopping));
    }

    [Fact]
    public async Task Work_that_fails_makes_room_for_the_next()
    {
        using var work = new HeavyWork();
        await Assert.ThrowsAsync<FormatException>(() => work.RunAsync<int>(1800, () => throw new FormatException(), Stopping));
        Assert.Equal(1, await work.RunAsync(1800, () => Task.FromResult(1), Stopping));
    }
}
