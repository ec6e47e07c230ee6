using System.Buffers.Binary;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Teaching;
using Bocca.Web.Record;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Live;

/// <summary>What the page needs to draw a live thread: the gate's half-height in cents.</summary>
public sealed record LiveGate(double GateCents);

/// <summary>
/// Listens to a take while it is made: blocks of 16-bit samples in, points of the thread out. One stream a connection.
/// Only drawing hangs on it; the take itself is sent whole when it ends.
/// </summary>
/// <param name="services">Where a stream that begins gets the record; the blocks after it need none.</param>
public sealed class ListenHub(IServiceProvider services) : Hub
{
    /// <summary>Where it is.</summary>
    public const string Path = "/live/listen";

    private const string ThreadKey = "thread";
    private const int MostBlockSeconds = 1;

    /// <summary>Begins a stream.</summary>
    /// <param name="pupilId">Who plays.</param>
    /// <param name="on">What is played on.</param>
    /// <param name="sampleRate">Samples a second.</param>
    public async Task<LiveGate> Begin(int pupilId, SoundStage on, int sampleRate)
    {
        if (!Enum.IsDefined(on))
            throw new HubException("That is nothing to play on.");
        if (sampleRate is < 8000 or > 192_000)
            throw new HubException($"{sampleRate} samples a second cannot be listened to: 8000 to 192000.");
        var db = services.GetRequiredService<BoccaDb>();
        var pupil =
            await db.Pupils.AsNoTracking().FirstOrDefaultAsync(pupil => pupil.Id == pupilId)
            ?? throw new HubException("Nobody of that number plays here.");
        var room = await db.RoomAsync();
        Context.Items[ThreadKey] = new Stream(LiveThread.For(pupil.Instrument, sampleRate, room.Tuning), sampleRate);
        return new LiveGate(BandTable.Shipped.With(pupil.SettingsIn(room)).For(on, pupil.Stage).SteadyCents);
    }

    /// <summary>Hears the next block; the answer holds what is new and what may have changed.</summary>
    /// <param name="pcm">Samples, 16 bits, little end first, one channel.</param>
    public IReadOnlyList<LivePoint> Hear(byte[] pcm)
    {
        if (!Context.Items.TryGetValue(ThreadKey, out var item) || item is not Stream stream)
            throw new HubException("Begin comes before the first block.");
        var count = pcm.Length / 2;
        if (count > MostBlockSeconds * stream.SampleRate || (stream.Heard += count) > LiveThread.LongestSeconds * stream.SampleRate)
            throw new HubException("That is more than a take.");
        var samples = new float[count];
        for (var i = 0; i < count; i++)
            samples[i] = BinaryPrimitives.ReadInt16LittleEndian(pcm.AsSpan(2 * i)) / 32768f;
        var points = new List<LivePoint>();
        stream.Thread.Push(samples, points);
        return points;
    }

    private sealed class Stream(LiveThread thread, int sampleRate)
    {
        public LiveThread Thread { get; } = thread;

        public int SampleRate { get; } = sampleRate;

        public long Heard { get; set; }
    }
}
