using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Bocca.Web.Tests.Dummy;

/// <summary>A new stop touches nothing outside its folder and its registration, and is there everywhere.</summary>
public sealed class NewStopTests : IDisposable
{
    private readonly Room _room = new() { Instead = services => services.AddSingleton(HummingStop.Stop) };

    public void Dispose() => _room.Dispose();

    [Fact]
    public async Task It_is_on_the_path_the_desk_and_the_record()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        for (var day = 6; day >= 1; day--)
            await HumAsync(pupil, day, 200 + (10 * day), Outcome.Passed);

        var (_, desk) = await tab.OpenAsync("/");
        Assert.Equal("/humming", desk.QuerySelector(".path a[data-key='h']")!.GetAttribute("href"));
        Assert.Equal("Hummed well.", desk.QuerySelector(".heard-line")!.TextContent);
        Assert.Null(desk.QuerySelector("[data-due=hums]"));
        var past = DateTime.UtcNow.AddHours(-1);
        var moved = await _room.InRecordAsync(db =>
            db.Entries.Where(hum => hum.DueAt != null).ExecuteUpdateAsync(set => set.SetProperty(hum => hum.DueAt, past))
        );
        Assert.Equal(1, moved);
        Assert.Equal("1 to hum again", (await tab.OpenAsync("/")).Page.QuerySelector("[data-due=hums]")!.TextContent);

        var (_, record) = await tab.OpenAsync($"/record/{pupil.Id}");
        Assert.Equal(6, record.QuerySelectorAll("tr[data-kind=hum]").Length);
        Assert.Contains("Hummed low", record.QuerySelector("tr[data-kind=hum]")!.TextContent);
        Assert.Contains("Lower", record.QuerySelector(".trend.changed p")!.TextContent);
        Assert.Contains("Humming", record.QuerySelector("select[name=stop]")!.TextContent);
        Assert.Equal(6, (await tab.OpenAsync($"/record/{pupil.Id}?stop=humming")).Page.QuerySelectorAll("tr[data-kind]").Length);
        Assert.Empty((await tab.OpenAsync($"/record/{pupil.Id}?stop=buzz")).Page.QuerySelectorAll("tr[data-kind]"));
    }

    [Fact]
    public async Task A_step_that_leads_there_is_shown_and_closed_by_what_shows_it_there()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        var because = new Entry
        {
            PupilId = pupil.Id,
            Kind = BuzzStop.Takes.Id,
            At = DateTime.UtcNow,
        };
        await _room.WriteAsync(journal =>
            journal.AcceptAsync(because, new NextStep(new Place("humming"), "low", "Hum a low one.", "It helps."), "")
        );
        var step = (await tab.OpenAsync("/")).Page.QuerySelector("[data-due=step]")!;
        Assert.Equal(("Hum a low one.", $"/humming/{pupil.Id}?drill=low"), (step.TextContent, step.GetAttribute("href")));
        Assert.Null((await tab.OpenAsync("/")).Page.QuerySelector("[data-tried]"));

        // Tried and come are two things.
        await HumAsync(pupil, 0, 200, Outcome.Repeat);
        var desk = (await tab.OpenAsync("/")).Page;
        Assert.NotNull(desk.QuerySelector("[data-due=step]"));
        Assert.Equal("tried once", desk.QuerySelector("[data-tried]")!.TextContent);
        var record = (await tab.OpenAsync($"/record/{pupil.Id}")).Page;
        Assert.Equal($"/humming/{pupil.Id}?drill=low", record.QuerySelector("[data-last] [data-step]")!.GetAttribute("href"));
        Assert.Contains("1 hum", record.QuerySelector("[data-last]")!.TextContent);

        await HumAsync(pupil, 0, 200, Outcome.Passed);
        Assert.Null((await tab.OpenAsync("/")).Page.QuerySelector("[data-due=step]"));
        Assert.Contains(
            "came, tried twice",
            (await tab.OpenAsync($"/record/{pupil.Id}")).Page.QuerySelector("tr[data-kind=step]")!.TextContent
        );
    }

    [Fact]
    public async Task What_it_keeps_is_deleted_and_brought_back_with_its_figures()
    {
        var pupil = await _room.AddAsync("Ada");
        var tab = new Tab(_room.CreateClient());
        await HumAsync(pupil, 0, 233, Outcome.Passed);
        var (_, record) = await tab.OpenAsync($"/record/{pupil.Id}");
        var (_, gone) = await tab.SendAsync(record, "tr[data-kind=hum] form");
        Assert.Contains("The hum is gone from the record.", gone.QuerySelector(".told")!.TextContent);
        Assert.Equal(0, await _room.InRecordAsync(db => db.Figures.CountAsync()));
        await tab.SendAsync(gone, ".told form");

        // Who reads on a filtered page is there again afterwards, and so is who brings it back.
        var (_, filtered) = await tab.OpenAsync($"/record/{pupil.Id}?stop=humming&kind=hum");
        var (after, still) = await tab.SendAsync(filtered, "tr[data-kind=hum] form");
        Assert.Equal("?stop=humming&kind=hum", after.RequestMessage!.RequestUri!.Query);
        var (back, _) = await tab.SendAsync(still, ".told form");
        Assert.Equal("?stop=humming&kind=hum", back.RequestMessage!.RequestUri!.Query);
        Assert.Equal(233, await _room.InRecordAsync(db => db.Figures.Select(figure => figure.Value).SingleAsync()));
    }

    /// <summary>A record whose figures are of another form has them made anew at its next start, many entries or few.</summary>
    [Fact]
    public async Task Its_figures_are_made_anew_from_what_can_be_read_and_the_others_stay()
    {
        var pupil = await _room.AddAsync("Ada");
        for (var i = 0; i < 600; i++)
            await HumAsync(pupil, 0, 200 + i, Outcome.Passed);
        await HumAsync(pupil, 0, 100, Outcome.Passed);
        var told = new List<string>();
        var values = await _room.InRecordAsync(async db =>
        {
            var broken = await db.Entries.Where(entry => entry.Kind == "hum").MaxAsync(entry => entry.Id);
            await db.Payloads.Where(payload => payload.EntryId == broken).ExecuteDeleteAsync();
            await db
                .Figures.Where(figure => figure.EntryId != broken)
                .ExecuteUpdateAsync(set => set.SetProperty(figure => figure.Value, 1));
            await db.Database.ExecuteSqlRawAsync("PRAGMA user_version = 0;");
            await RecordFile.PrepareAsync(db, _room.Services.GetRequiredService<Stops>(), told.Add);
            await RecordFile.PrepareAsync(db, _room.Services.GetRequiredService<Stops>(), told.Add);
            return await db.Figures.OrderBy(figure => figure.EntryId).Select(figure => figure.Value).ToListAsync();
        });

        Assert.Equal([.. Enumerable.Range(200, 600).Select(value => (double)value), 100], values);
        Assert.Equal("1 entry of the record could not be read; what stood there is left.", told[^1]);
        Assert.All(told.SkipLast(1), line => Assert.Contains("%", line));
    }

    private Task HumAsync(Pupil pupil, int daysAgo, double hertz, Outcome outcome) =>
        _room.WriteAsync(journal =>
        {
            var entry = new Entry
            {
                PupilId = pupil.Id,
                Kind = HummingStop.Hums.Id,
                DrillId = "low",
                At = DateTime.UtcNow.AddDays(-daysAgo),
                Kept = true,
                Outcome = outcome,
                Summary = "Hummed well.",
            };
            return journal.WriteAsync(HummingStop.Hums, entry, new HumPayload(hertz), "AirFirst");
        });
}
