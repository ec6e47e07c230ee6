using Bocca.Web.Pages.Buzz;
using Bocca.Web.Pages.Ear;
using Bocca.Web.Pages.Slurs;
using Bocca.Web.Pages.Tone;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests;

/// <summary>The invented pupils, filled in while the application already answers.</summary>
public sealed class DemoTests
{
    private const int FewEntries = 20;

    [Fact]
    public async Task The_demo_room_answers_at_once_and_is_whole_in_the_end()
    {
        var room = new Room { Demo = true, KeepFolder = true };
        var (_, desk) = await new Tab(room.CreateClient()).OpenAsync("/");
        Assert.Equal(DemoPupils.All.Count, desk.QuerySelectorAll(".bench tbody tr").Length);
        Assert.Contains("invented pupils", desk.QuerySelector("[data-filling]")!.TextContent);
        // Stopped in the middle, it goes on at the next start, and nothing is there twice.
        while (await room.InRecordAsync(db => db.Entries.CountAsync()) < FewEntries)
            await Task.Delay(20, TestContext.Current.CancellationToken);
        await room.DisposeAsync();
        await using var next = new Room { Demo = true, UseFolder = room.Folder };
        await FilledAsync(next);
        var entries = await next.InRecordAsync(db =>
            db.Entries.Include(entry => entry.Payload).Include(entry => entry.Figures).ToListAsync()
        );
        Assert.Equal(DemoPupils.All.Sum(demo => demo.Takes.Count), entries.Count(entry => entry.Kind == BuzzStop.Takes.Id));
        Assert.Equal(DemoPupils.All.Sum(demo => demo.Tones.Count), entries.Count(entry => entry.Kind == ToneStop.Takes.Id));
        Assert.Equal(DemoPupils.All.Sum(demo => demo.Slurs.Count), entries.Count(entry => entry.Kind == SlursStop.Takes.Id));
        Assert.Equal(
            DemoPupils.All.Sum(demo => demo.Takes.Count(take => take.Accepted)),
            entries.Count(entry => entry is { Kind: "step", DoneAt: null })
        );
        Assert.All(entries.Where(entry => entry.Kind == BuzzStop.Takes.Id), IsWhole);
        string[] asked = [BuzzStop.Takes.Id, ToneStop.Takes.Id, SlursStop.Takes.Id, EarStop.Answers.Id, EarStop.Cards.Id];
        Assert.All(entries.Where(entry => asked.Contains(entry.Kind)), entry => Assert.NotNull(entry.RequestId));
        Assert.Null((await new Tab(next.CreateClient()).OpenAsync("/")).Page.QuerySelector("[data-filling]"));
        await next.DisposeAsync();
        Leave(room.Folder);
    }

    /// <summary>Leaves the record to tests that come after, where they ask for it.</summary>
    private static void Leave(string folder)
    {
        if (Environment.GetEnvironmentVariable("BOCCA_DEMO") is { } kept)
        {
            Directory.CreateDirectory(kept);
            RecordFolder.Backup(folder, Path.Combine(kept, "bocca.db"));
        }

        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    private static void IsWhole(Entry entry)
    {
        var take = BuzzStop.Takes.Read(entry);
        Assert.Equal(entry.Outcome, take.Verdict.Outcome);
        Assert.Equal(take.Measures.Attempts.Count(attempt => attempt.Spoke), take.Threads.Threads.Count);
        Assert.NotEmpty(entry.Figures);
    }

    private static async Task FilledAsync(Room room)
    {
        var filling = room.Services.GetRequiredService<DemoFilling>();
        while (filling.Words is not null)
            await Task.Delay(100, TestContext.Current.CancellationToken);
    }
}
