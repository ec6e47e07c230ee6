using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Tests.Record;

/// <summary>The copies that Bocca makes by itself: which stay, and what the Desk says of them.</summary>
public sealed class CopiesTests : IAsyncDisposable
{
    // An application of its own: what lies beside the record would stay for the next test.
    private readonly Room _room = new() { Instead = _ => { } };

    public ValueTask DisposeAsync() => _room.DisposeAsync();

    [Fact]
    public void Seven_days_stay_and_the_last_of_four_weeks()
    {
        // 1 December 2026 is a Tuesday: its week began on 30 November.
        var today = new DateOnly(2026, 12, 1);
        var daily = Enumerable.Range(0, 40).Select(back => today.AddDays(-back)).ToList();

        var kept = Copies.Kept(daily, today).Order().Select(day => $"{day:MM-dd}");

        Assert.Equal(["11-15", "11-22", "11-25", "11-26", "11-27", "11-28", "11-29", "11-30", "12-01"], kept);
        // A room that was not opened for long keeps its last four weeks, however old.
        var old = daily.Select(day => day.AddYears(-1)).ToList();
        Assert.Equal(4, Copies.Kept(old, today).Count());
    }

    [Fact]
    public async Task The_Desk_copies_the_record_and_says_how_old_the_copy_is()
    {
        await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var (_, desk) = await tab.OpenAsync("/");
        Assert.Contains("There is no copy of the record yet.", desk.QuerySelector("[data-copy]")!.TextContent);
        Assert.DoesNotContain("old", desk.QuerySelector("[data-copy]")!.ClassList);

        var (_, copied) = await tab.SendAsync(desk, "[data-copy]");

        Assert.Contains("The record is copied.", copied.Body!.TextContent);
        Assert.Contains("Last copy of the record: today.", copied.QuerySelector("[data-copy]")!.TextContent);
        var copy = Assert.Single(Directory.EnumerateFiles(Path.Combine(_room.Folder, "copies")));
        Assert.Equal(1, RecordCopy.Look(copy)!.Pupils);
        File.SetLastWriteTimeUtc(copy, DateTime.UtcNow.AddDays(-9));
        var (_, later) = await tab.OpenAsync("/");
        Assert.Contains("9 days ago", later.QuerySelector("[data-copy]")!.TextContent);
        Assert.Contains("old", later.QuerySelector("[data-copy]")!.ClassList);
    }

    [Fact]
    public async Task A_start_makes_the_copy_of_the_day_where_somebody_plays()
    {
        string copies;
        await using (var first = new Room { KeepFolder = true })
        {
            await first.AddAsync("Ada");
            copies = Path.Combine(first.Folder, "copies");
            Assert.False(Directory.Exists(copies));
        }

        await using var again = new Room { UseFolder = Path.GetDirectoryName(copies) };
        await again.InRecordAsync(db => db.Pupils.CountAsync());
        for (var i = 0; i < 200 && (!Directory.Exists(copies) || !Directory.EnumerateFiles(copies, "*.db").Any()); i++)
            await Task.Delay(50, TestContext.Current.CancellationToken);
        Assert.Equal(1, RecordCopy.Look(Assert.Single(Directory.EnumerateFiles(copies, "*.db")))!.Pupils);
    }
}
