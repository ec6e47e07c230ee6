namespace Bocca.Web.Record;

/// <summary>What time and what day it is in the room: the one place that knows its time zone. The record holds UTC.</summary>
/// <param name="time">The clock.</param>
/// <param name="zone">Where the room lies.</param>
public sealed class RoomClock(TimeProvider time, TimeZoneInfo zone)
{
    public TimeZoneInfo Zone => zone;

    /// <summary>Now, UTC.</summary>
    public DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>The room's date.</summary>
    public DateOnly Today => DayOf(Now);

    /// <summary>When the room's day began, UTC.</summary>
    public DateTime DayStart => StartOf(Today);

    /// <summary>A moment on the room's wall clock.</summary>
    public DateTime Local(DateTime utc) => TimeZoneInfo.ConvertTimeFromUtc(DateTime.SpecifyKind(utc, DateTimeKind.Utc), zone);

    /// <summary>The room's date at a moment.</summary>
    public DateOnly DayOf(DateTime utc) => DateOnly.FromDateTime(Local(utc));

    /// <summary>When a day of the room begins, UTC. Where the clock goes forward over midnight, that is its first moment after.</summary>
    public DateTime StartOf(DateOnly day)
    {
        var midnight = day.ToDateTime(TimeOnly.MinValue);
        while (zone.IsInvalidTime(midnight))
            midnight = midnight.AddMinutes(15);
        // A midnight that comes twice begins with the earlier of the two, the one further ahead of UTC.
        var offset = zone.IsAmbiguousTime(midnight) ? zone.GetAmbiguousTimeOffsets(midnight).Max() : zone.GetUtcOffset(midnight);
        return DateTime.SpecifyKind(midnight - offset, DateTimeKind.Utc);
    }

    /// <summary>How long ago, in days of the room.</summary>
    public string Ago(DateTime utc) =>
        (Today.DayNumber - DayOf(utc).DayNumber) switch
        {
            <= 0 => "Today",
            1 => "Yesterday",
            < 7 => $"{Local(utc):dddd}",
            var days => $"{days} days ago",
        };

    /// <summary>The same within a sentence, such as <c>yesterday</c> and <c>Thursday</c>.</summary>
    public string AgoWithin(DateTime utc) => Ago(utc) is var ago && ago is "Today" or "Yesterday" ? ago.ToLowerInvariant() : ago;

    /// <summary>A day, such as <c>7 Nov</c>, with its year where that is another one.</summary>
    public string Day(DateTime utc) => Local(utc) is var at && at.Year == Local(Now).Year ? $"{at:d MMM}" : $"{at:d MMM yyyy}";

    /// <summary>A day in full, such as <c>7 November</c>.</summary>
    public string LongDay(DateTime utc) => $"{Local(utc):d MMMM}";

    /// <summary>A day and the time of it, such as <c>7 Nov 16:20</c>.</summary>
    public string Moment(DateTime utc) => $"{Day(utc)} {Local(utc):HH:mm}";

    /// <summary>A moment within a sentence, such as <c>today, 16:20</c> or <c>Fri 7 Nov, 16:20</c>.</summary>
    public string When(DateTime utc) => $"{(DayOf(utc) == Today ? "today" : $"{Local(utc):ddd} {Day(utc)}")}, {Local(utc):HH:mm}";

    /// <summary>The time zones that this machine knows by continent and city, by name.</summary>
    public static IReadOnlyList<string> Zones { get; } =
    [
        .. TimeZoneInfo
            .GetSystemTimeZones()
            .Select(zone => zone.Id)
            .Where(id => id.Contains('/', StringComparison.Ordinal))
            .Order(StringComparer.Ordinal),
    ];

    /// <summary>The clock of the room as its settings have it.</summary>
    public static RoomClock For(BoccaDb db, TimeProvider time) => new(time, ZoneOf(db.Rooms.Select(room => room.ZoneId).SingleOrDefault()));

    /// <summary>The zone of a name; the machine's own where there is none such.</summary>
    public static TimeZoneInfo ZoneOf(string? name) =>
        name is not null && TimeZoneInfo.TryFindSystemTimeZoneById(name, out var zone) ? zone : TimeZoneInfo.Local;
}
