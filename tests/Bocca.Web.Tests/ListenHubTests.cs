using Bocca.Core.Buzz;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;
using Bocca.Web.Live;
using Microsoft.AspNetCore.SignalR;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests;

public sealed class ListenHubTests : IDisposable
{
    private readonly Room _room = new();

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task Blocks_in_give_points_out_within_the_pupils_gate()
    {
        await _room.AddAsync("Ada Quill");
        using var scope = _room.Services.CreateScope();
        using var hub = new ListenHub(scope.ServiceProvider) { Context = new Line() };
        Assert.Throws<HubException>(() => hub.Hear([0, 0]));
        Assert.Equal(40, (await hub.Begin(1, SoundStage.Mouthpiece, 44100)).GateCents);
        var sound = SimulatedPlayer
            .Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, new CuePlan(160, 2, 2, 1), [], 2, Tuning.Standard)
            .Sound;
        var points = new Dictionary<int, LivePoint>();
        for (var at = 0; at + 882 <= sound.Samples.Length; at += 882)
            foreach (var point in hub.Hear(Pcm(sound.Samples.AsSpan(at, 882))))
                points[point.Frame] = point;
        Assert.InRange(points.Values.Count(point => point.Cents is not null), 55, 80);
        Assert.All(points.Values.Where(point => point.Seconds is > 0.1 and < 0.5), point => Assert.InRange(point.Cents!.Value, -25, 25));
    }

    [Fact]
    public async Task What_cannot_be_listened_to_is_refused_in_a_sentence()
    {
        await _room.AddAsync("Ada Quill");
        using var scope = _room.Services.CreateScope();
        using var hub = new ListenHub(scope.ServiceProvider) { Context = new Line() };
        Assert.Contains("8000 to 192000", (await Assert.ThrowsAsync<HubException>(() => hub.Begin(1, SoundStage.Lips, 4000))).Message);
        Assert.Contains("Nobody", (await Assert.ThrowsAsync<HubException>(() => hub.Begin(99, SoundStage.Lips, 44100))).Message);
        await hub.Begin(1, SoundStage.Lips, 8000);
        Assert.Contains("more than a take", Assert.Throws<HubException>(() => hub.Hear(new byte[40000])).Message);
    }

    private static byte[] Pcm(ReadOnlySpan<float> samples)
    {
        var bytes = new byte[2 * samples.Length];
        for (var i = 0; i < samples.Length; i++)
            BitConverter.TryWriteBytes(bytes.AsSpan(2 * i), (short)(samples[i] * 32767));
        return bytes;
    }

    private sealed class Line : HubCallerContext
    {
        public override string ConnectionId => "line";

        public override string? UserIdentifier => null;

        public override System.Security.Claims.ClaimsPrincipal? User => null;

        public override IDictionary<object, object?> Items { get; } = new Dictionary<object, object?>();

        public override Microsoft.AspNetCore.Http.Features.IFeatureCollection Features { get; } =
            new Microsoft.AspNetCore.Http.Features.FeatureCollection();

        public override CancellationToken ConnectionAborted => CancellationToken.None;

        public override void Abort() { }
    }
}
