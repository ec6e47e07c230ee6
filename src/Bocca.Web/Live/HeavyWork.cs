using System.Runtime;

namespace Bocca.Web.Live;

/// <summary>Too much is waiting to be heard already; what was sent can be sent once more in a while.</summary>
public sealed class BusyException() : Exception("Bocca is still hearing other takes. Send yours once more in a moment.");

/// <summary>
/// What takes a core and much memory for a while: one thing at a time, so that the live lines of the others stay quick, and no more
/// waiting than can be heard soon. What it took is given back when nothing more comes.
/// </summary>
public sealed class HeavyWork : IDisposable
{
    /// <summary>Seconds of sound that may wait or be worked on (ours, editable): three takes of the greatest length.</summary>
    public const double MostSeconds = 2100;

    /// <summary>After as much sound at once, memory is given back when nothing came for as long (seconds).</summary>
    private const double MuchSeconds = 60,
        QuietSeconds = 5;
    private readonly SemaphoreSlim _one = new(1);
    private readonly Lock _count = new();
    private double _seconds;
    private int _begun;

    /// <summary>Does a piece of work in its turn.</summary>
    /// <param name="seconds">How much sound it is.</param>
    /// <param name="work">The work.</param>
    /// <param name="stopping">Whoever waits may go away.</param>
    /// <exception cref="BusyException">Too much is waiting already.</exception>
    public async Task<T> RunAsync<T>(double seconds, Func<Task<T>> work, CancellationToken stopping)
    {
        lock (_count)
        {
            if (_seconds > 0 && _seconds + seconds > MostSeconds)
                throw new BusyException();
            _seconds += seconds;
            _begun++;
        }

        try
        {
            await _one.WaitAsync(stopping);
            try
            {
                return await work();
            }
            finally
            {
                _one.Release();
            }
        }
        finally
        {
            lock (_count)
                _seconds -= seconds;
            if (seconds > MuchSeconds)
                GiveBackSoon();
        }
    }

    /// <summary>Gives memory back, once nothing has come for a while: something large is not needed any more.</summary>
    public void GiveBackSoon()
    {
        lock (_count)
            _ = GiveBackAsync(_begun);
    }

    public void Dispose() => _one.Dispose();

    private async Task GiveBackAsync(int begun)
    {
        await Task.Delay(TimeSpan.FromSeconds(QuietSeconds));
        if (_begun != begun)
            return;
        GCSettings.LargeObjectHeapCompactionMode = GCLargeObjectHeapCompactionMode.CompactOnce;
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
    }
}
