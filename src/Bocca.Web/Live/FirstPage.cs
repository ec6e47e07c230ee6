namespace Bocca.Web.Live;

/// <summary>
/// The first page after a start. What takes a core for a while in the background waits for it, so that nobody waits for the page.
/// </summary>
public sealed class FirstPage(TimeProvider time)
{
    /// <summary>Without a page, background work begins after so long.</summary>
    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(10);

    private readonly TaskCompletionSource _answered = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Says that a page was answered.</summary>
    public void Answered() => _answered.TrySetResult();

    /// <summary>Waits until a page was answered, or nobody asked for one for a while.</summary>
    /// <exception cref="OperationCanceledException">The application stops.</exception>
    public async Task WaitAsync(CancellationToken stopping)
    {
        await Task.WhenAny(_answered.Task, Task.Delay(LongestWait, time, stopping));
        stopping.ThrowIfCancellationRequested();
    }
}
