using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests;

public sealed class RecordFileTests
{
    /// <summary>Said here, for a start looks only whether a step is missing.</summary>
    [Fact]
    public async Task The_steps_lead_to_the_model_as_it_is()
    {
        await using var room = new Room();
        Assert.False(await room.InRecordAsync(db => Task.FromResult(db.Database.HasPendingModelChanges())));
    }

    [Fact]
    public async Task The_record_outlives_the_application_and_is_written_ahead()
    {
        var first = new Room { KeepFolder = true };
        await first.AddAsync("Ada");
        Task<T> PragmaAsync<T>(FormattableString sql) => first.InRecordAsync(db => db.Database.SqlQuery<T>(sql).SingleAsync());
        Assert.Equal("wal", await PragmaAsync<string>($"SELECT journal_mode AS Value FROM pragma_journal_mode"));
        Assert.Equal(1, await PragmaAsync<int>($"SELECT foreign_keys AS Value FROM pragma_foreign_keys"));
        // Full synchronisation: what was acknowledged is on disk even if the machine loses power.
        Assert.Equal(2, await PragmaAsync<int>($"SELECT synchronous AS Value FROM pragma_synchronous"));
        await first.DisposeAsync();
        await using var second = new Room { UseFolder = first.Folder };
        Assert.Equal("Ada", await second.InRecordAsync(db => db.Pupils.Select(pupil => pupil.Name).SingleAsync()));
    }

    /// <summary>In Auckland it is eleven or twelve hours ahead of Lisbon's winter: the same moment is another day there.</summary>
    [Theory]
    [InlineData("Pacific/Auckland", "2026-11-24T11:30:00Z", "2026-11-24T12:00:00Z", 2)]
    [InlineData("Pacific/Auckland", "2026-11-24T10:30:00Z", "2026-11-24T12:01:00Z", 1)]
    [InlineData("Europe/Lisbon", "2026-11-24T10:30:00Z", "2026-11-24T12:01:00Z", 2)]
    [InlineData("Europe/Lisbon", "2026-11-23T23:30:00Z", "2026-11-24T00:59:00Z", 2)]
    [InlineData("Europe/Lisbon", "2026-11-23T23:30:00Z", "2026-11-24T01:00:00Z", 1)]
    public async Task What_nobody_saved_goes_an_hour_after_its_day_and_what_was_saved_stays(
        string zone,
        string played,
        string now,
        int left
    )
    {
        await using var room = new Room();
        var pupil = await room.AddAsync("Ada");
        await room.InRecordAsync(async db =>
        {
            foreach (var kept in new[] { false, true })
                db.Entries.Add(
                    new Entry
                    {
                        PupilId = pupil.Id,
                        Kind = BuzzStop.Takes.Id,
                        At = Utc(played),
                        Kept = kept,
                    }
                );
            await db.SaveChangesAsync();
            var clock = new RoomClock(new FakeTimeProvider(new DateTimeOffset(Utc(now))), TimeZoneInfo.FindSystemTimeZoneById(zone));
            return await Tidy.ClearAsync(db, clock);
        });
        Assert.Equal(left, await room.CountAsync(BuzzStop.Takes));
        Assert.Equal(DateTimeKind.Utc, (await room.InRecordAsync(db => db.Entries.FirstAsync())).At.Kind);
    }

    [Fact]
    public async Task What_nobody_saved_goes_while_the_application_runs()
    {
        // The keys' ring has the system's clock, so the test's begins there too.
        var time = new FakeTimeProvider(DateTimeOffset.UtcNow);
        await using var room = new Room { Instead = services => services.AddSingleton<TimeProvider>(time) };
        var pupil = await room.AddAsync("Ada");
        await room.InRecordAsync(db =>
        {
            db.Entries.Add(
                new Entry
                {
                    PupilId = pupil.Id,
                    Kind = BuzzStop.Takes.Id,
                    At = time.GetUtcNow().UtcDateTime,
                }
            );
            return db.SaveChangesAsync();
        });
        // The clock goes on until the clockwork has had its turn, however busy the machine is.
        for (var turn = 0; turn < 600 && await room.CountAsync(BuzzStop.Takes) > 0; turn++)
        {
            time.Advance(TimeSpan.FromHours(1));
            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        Assert.Equal(0, await room.CountAsync(BuzzStop.Takes));
    }

    private static DateTime Utc(string text) => DateTimeOffset.Parse(text).UtcDateTime;
}
