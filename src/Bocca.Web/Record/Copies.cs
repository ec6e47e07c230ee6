using System.Globalization;

namespace Bocca.Web.Record;

/// <summary>
/// The copies that Bocca makes of the record by itself, in a folder beside it: one a day. Those of seven days stay, and of four weeks
/// the last one each; what lies there under other names is left alone.
/// </summary>
public sealed class Copies(RecordFolder folder)
{
    /// <summary>So many days and weeks are kept (ours).</summary>
    public const int Days = 7,
        Weeks = 4;

    private const string Before = "bocca-",
        After = ".db",
        DayPattern = "yyyy-MM-dd";

    /// <summary>Where they lie.</summary>
    public string Place { get; } = Path.Combine(folder.Path, "copies");

    /// <summary>When the newest was made (UTC); null where there is none.</summary>
    public DateTime? Newest => All().Select(copy => (DateTime?)File.GetLastWriteTimeUtc(copy.File)).Max();

    /// <summary>When the record was begun (UTC), as far as its file tells.</summary>
    public DateTime Begun => File.GetCreationTimeUtc(RecordFolder.RecordIn(folder.Path));

    /// <summary>Whether a day has its copy.</summary>
    public bool Has(DateOnly day) => All().Any(copy => copy.Day == day);

    /// <summary>Makes the copy of a day, in the place of an earlier one of the same day, and lets go of those that are too old.</summary>
    /// <exception cref="StartRefusedException">It could not be made; the copies that were there are there.</exception>
    public void Make(DateOnly today)
    {
        Directory.CreateDirectory(Place);
        RecordFolder.Backup(folder.Path, FileOf(today));
        var kept = Kept([.. All().Select(copy => copy.Day)], today).ToHashSet();
        foreach (var (file, day) in All().Where(copy => !kept.Contains(copy.Day)).ToList())
            File.Delete(file);
    }

    /// <summary>Which of the copies' days stay.</summary>
    public static IEnumerable<DateOnly> Kept(IReadOnlyList<DateOnly> days, DateOnly today)
    {
        var recent = days.Where(day => day.DayNumber > today.DayNumber - Days);
        var weekly = days.GroupBy(Week).OrderByDescending(week => week.Key).Take(Weeks).Select(week => week.Max());
        return recent.Union(weekly);
    }

    /// <summary>A week by a number that grows from Monday to Monday.</summary>
    private static int Week(DateOnly day) => (day.DayNumber - (((int)day.DayOfWeek + 6) % 7)) / 7;

    private string FileOf(DateOnly day) => Path.Combine(Place, Before + day.ToString(DayPattern, CultureInfo.InvariantCulture) + After);

    private IEnumerable<(string File, DateOnly Day)> All()
    {
        if (!Directory.Exists(Place))
            yield break;
        foreach (var file in Directory.EnumerateFiles(Place, $"{Before}*{After}"))
            if (DateOnly.TryParseExact(Path.GetFileName(file)[Before.Length..^After.Length], DayPattern, out var day))
                yield return (file, day);
    }
}

/// <summary>Makes the copy of the day: when Bocca starts, and after midnight while it runs. A room with nobody in it needs none.</summary>
public sealed class DailyCopy(IServiceScopeFactory scopes, TimeProvider time, ILogger<DailyCopy> log) : Clockwork(scopes, time, log)
{
    protected override Task<DateTime?> TurnAsync(IServiceProvider services)
    {
        var (copies, clock) = (services.GetRequiredService<Copies>(), services.GetRequiredService<RoomClock>());
        try
        {
            if (!copies.Has(clock.Today) && services.GetRequiredService<BoccaDb>().Pupils.Any())
                copies.Make(clock.Today);
        }
        catch (StartRefusedException problem)
        {
            throw new IOException(problem.Message, problem);
        }

        return Task.FromResult<DateTime?>(clock.StartOf(clock.Today.AddDays(1)));
    }
}
