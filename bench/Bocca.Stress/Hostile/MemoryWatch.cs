using System.Collections.Concurrent;
using System.Diagnostics;

namespace Bocca.Stress.Hostile;

/// <summary>
/// Ends a run whose memory runs away while it can still say what was under way: a process that the system kills says nothing.
/// </summary>
internal sealed class MemoryWatch
{
    /// <summary>Bytes of memory that no run comes near: it rests below 500 MB.</summary>
    private const long Most = 3L << 30;

    private static readonly TimeSpan Often = TimeSpan.FromMilliseconds(250);

    private readonly ConcurrentDictionary<Attempt, Stopwatch> _underWay = new();

    /// <summary>Watches on a thread of its own to the end of the process: the others are slow to get a turn by then.</summary>
    public MemoryWatch() => new Thread(Watch) { IsBackground = true, Priority = ThreadPriority.Highest }.Start();

    public async Task<T> WhileAsync<T>(Attempt attempt, Func<Task<T>> run)
    {
        _underWay[attempt] = Stopwatch.StartNew();
        try
        {
            return await run();
        }
        finally
        {
            _underWay.TryRemove(attempt, out _);
        }
    }

    private void Watch()
    {
        while (Environment.WorkingSet < Most)
            Thread.Sleep(Often);
        foreach (var (attempt, clock) in _underWay.OrderByDescending(each => each.Value.Elapsed))
            Console.WriteLine($"FAULT memory ran away, under way for {clock.Elapsed.TotalSeconds:0.0} s: {attempt}");
        Console.WriteLine($"Ended at {Environment.WorkingSet >> 20} MB.");
        Environment.Exit(1);
    }
}
