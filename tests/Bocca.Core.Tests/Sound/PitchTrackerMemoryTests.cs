using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Sound;

public sealed class PitchTrackerMemoryTests
{
    [Fact]
    public void Once_it_runs_a_tracker_takes_no_memory_for_a_frame()
    {
        var tracker = new PitchTracker(44100);
        var frames = new List<PitchFrame>(4000);
        var block = new float[882];
        var phase = 0.0;
        void Push()
        {
            for (var i = 0; i < block.Length; i++)
                block[i] = (float)(0.2 * Math.Sin(phase += 2 * Math.PI * 233 / 44100));
            tracker.Push(block, frames);
        }

        for (var i = 0; i < 500; i++)
            Push();
        var before = GC.GetAllocatedBytesForCurrentThread();
        for (var i = 0; i < 1000; i++)
            Push();
        Assert.Equal(0, GC.GetAllocatedBytesForCurrentThread() - before);
        Assert.True(frames.Count > 2900);
    }
}
