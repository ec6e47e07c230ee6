using Bocca.Web.Record;
using Microsoft.Extensions.Time.Testing;

namespace Bocca.Web.Tests.Record;

/// <summary>Days of the room across midnight and where clocks are changed (rules of the IANA time zone database).</summary>
public sealed class RoomClockTests
{
    [Theory]
    [InlineData("Europe/Berlin", "2026-11-26T22:59:59Z", "2026-11-26", "2026-11-25T23:00:00Z")]
    [InlineData("Europe/Berlin", "2026-11-26T23:00:00Z", "2026-11-27", "2026-11-26T23:00:00Z")]
    [InlineData("America/New_York", "2026-11-27T04:59:00Z", "2026-11-26", "2026-11-26T05:00:00Z")]
    [InlineData("America/New_York", "2026-11-27T05:00:00Z", "2026-11-27", "2026-11-27T05:00:00Z")]
    // The clock went back at three in the morning of 25 October: that day has 25 hours.
    [InlineData("Europe/Berlin", "2026-10-25T22:30:00Z", "2026-10-25", "2026-10-24T22:00:00Z")]
    // In Santiago the clock goes forward at midnight: 6 September 2026 begins at one o'clock.
    [InlineData("America/Santiago", "2026-09-06T12:00:00Z", "2026-09-06", "2026-09-06T04:00:00Z")]
    // In Havana it goes back at one o'clock: midnight of 1 November comes twice, and the day begins with the first.
    [InlineData("America/Havana", "2026-11-01T12:00:00Z", "2026-11-01", "2026-11-01T04:00:00Z")]
    public void A_day_is_the_rooms_and_begins_at_its_midnight(string zone, string now, string day, string start)
    {
        var clock = Clock(zone, now);
        Assert.Equal(DateOnly.Parse(day), clock.Today);
        Assert.Equal(DateTimeOffset.Parse(start).UtcDateTime, clock.DayStart);
        Assert.Equal(clock.Today, clock.DayOf(clock.DayStart));
        Assert.Equal(clock.Today.AddDays(-1), clock.DayOf(clock.DayStart.AddSeconds(-1)));
    }

    [Theory]
    [InlineData("Europe/Berlin", "26 Nov 00:30", "Today")]
    [InlineData("America/New_York", "25 Nov 18:30", "Yesterday")]
    public void A_moment_is_told_on_the_rooms_wall_clock(string zone, string moment, string ago)
    {
        var clock = Clock(zone, "2026-11-26T20:00:00Z");
        var played = DateTimeOffset.Parse("2026-11-25T23:30:00Z").UtcDateTime;
        Assert.Equal(moment, clock.Moment(played));
        Assert.Equal(ago, clock.Ago(played));
    }

    [Fact]
    public void Another_year_is_said() =>
        Assert.Equal(
            "3 Dec 2025",
            Clock("Europe/Berlin", "2026-11-26T20:00:00Z").Day(new DateTime(2025, 12, 3, 12, 0, 0, DateTimeKind.Utc))
        );

    [Fact]
    public void A_zone_that_is_none_is_the_machines_own()
    {
        Assert.Equal(TimeZoneInfo.Local, RoomClock.ZoneOf(null));
        Assert.Equal(TimeZoneInfo.Local, RoomClock.ZoneOf("Mars/Olympus"));
    }

    private static RoomClock Clock(string zone, string now) =>
        new(new FakeTimeProvider(DateTimeOffset.Parse(now)), TimeZoneInfo.FindSystemTimeZoneById(zone));
}
