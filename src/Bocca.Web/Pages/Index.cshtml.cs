using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages;

/// <summary>A link of the Desk to something that wants doing.</summary>
public sealed record DeskLink(string Words, string Address, string Name)
{
    /// <summary>How often it was tried and did not come yet; null for never.</summary>
    public string? Tried { get; init; }
}

/// <summary>A pupil on the Desk.</summary>
public sealed record DeskLine(
    Pupil Pupil,
    string Playing,
    string? LastHeard,
    string? LastWhen,
    IReadOnlyList<double> Steadiness,
    IReadOnlyList<DeskLink> Due
);

/// <summary>A lesson of today.</summary>
/// <param name="At">When it begins.</param>
/// <param name="Who">Whose.</param>
/// <param name="Address">Where it is prepared.</param>
/// <param name="Words">Why a look is needed first; empty for nothing.</param>
/// <param name="Over">Whether its time is over.</param>
public sealed record DeskLesson(TimeOnly At, string Who, string Address, string Words, bool Over);

/// <summary>The Desk: everybody by pages, what was heard last, and what is due. So many queries, however many pupils.</summary>
public sealed class IndexModel(Journal journal, DemoFilling filling, Copies copies) : StagePage(journal)
{
    private const int PastTakes = 8;

    private const int PupilsAtOnce = 30;

    /// <summary>So many days back what was told asks for a look; so many are named, of so many whose step is stuck (ours).</summary>
    private const int LookedBackDays = 8,
        MostLooks = 5,
        MostStuck = 200;

    /// <summary>The last pupil of the page before; none for the first page.</summary>
    [BindProperty(SupportsGet = true, Name = "after")]
    public int? After { get; set; }

    public IReadOnlyList<DeskLine> Lines { get; private set; } = [];

    /// <summary>The lessons of today, the earliest first.</summary>
    public IReadOnlyList<DeskLesson> Lessons { get; private set; } = [];

    /// <summary>The holidays of today; null for none.</summary>
    public string? Holiday { get; private set; }

    /// <summary>Who else needs a look first, and why.</summary>
    public IReadOnlyList<(Pupil Pupil, LookFirst Why)> Looks { get; private set; } = [];

    /// <summary>Where the next pupils are; null where these are the last.</summary>
    public string? Onward { get; private set; }

    /// <summary>How far the invented pupils' histories are; null where nothing is being filled in.</summary>
    public string? Filling => filling.Words;

    /// <summary>How old the newest copy of the record is, in a sentence.</summary>
    public string CopyWords =>
        copies.Newest is { } newest ? $"Last copy of the record: {Clock.AgoWithin(newest)}." : "There is no copy of the record yet.";

    /// <summary>Whether the record has been without a copy for longer than a week.</summary>
    public bool CopyIsOld => (Clock.Now - (copies.Newest ?? copies.Begun)).TotalDays > Copies.Days;

    /// <summary>How many pupils are deleted and can be brought back, in words; null for none.</summary>
    public string? DeletedWords { get; private set; }

    /// <summary>Copies the record now.</summary>
    public IActionResult OnPostCopy()
    {
        try
        {
            copies.Make(Clock.Today);
        }
        catch (StartRefusedException problem)
        {
            return Refuse($"{char.ToUpperInvariant(problem.Message[0])}{problem.Message[1..]}");
        }

        TempData["Told"] = "The record is copied.";
        return RedirectToPage();
    }

    public async Task OnGetAsync()
    {
        var pupils = await PupilsAsync();
        DeletedWords = await Db.Pupils.IgnoreQueryFilters().CountAsync(pupil => pupil.DeletedAt != null) switch
        {
            0 => null,
            1 => "1 deleted pupil",
            var deleted => $"{deleted} deleted pupils",
        };
        int[] ids = [.. pupils.Select(pupil => pupil.Id)];
        var last = (await LastHeardAsync(ids)).ToDictionary(line => line.PupilId);
        var steadiness = (await SteadinessAsync(ids)).ToLookup(point => point.PupilId, point => point.Value);
        var steps = (await OpenStepsAsync(ids)).ToLookup(step => step.PupilId);
        var dues = await Stops.DuesAsync(Db, ids, Clock.Now);
        Lines =
        [
            .. pupils.Select(pupil =>
            {
                var heard = last.GetValueOrDefault(pupil.Id);
                return new DeskLine(
                    pupil,
                    PlayingTime.InWords(pupil.Started, Clock.Today),
                    heard?.Summary,
                    heard is null ? null : Clock.Ago(DateTimeOffset.FromUnixTimeMilliseconds(heard.At).UtcDateTime),
                    [.. steadiness[pupil.Id].Reverse()],
                    [Step(pupil, steps[pupil.Id].MaxBy(step => step.At)), .. Dues(pupil, dues)]
                );
            }),
        ];
        if (After is null)
            await TodayAsync(pupils, last);
    }

    /// <summary>The lessons of today, and who needs a look first.</summary>
    private async Task TodayAsync(List<Pupil> shown, Dictionary<int, LastHeard> last)
    {
        var (today, since) = (Clock.Today, Clock.Now.AddDays(-LookedBackDays));
        var timetable = await Db.TimetableAsync();
        var slots = timetable.On(today);
        Holiday = timetable.HolidayOn(today)?.Name;
        // In the words of the index that holds just these.
        var told = await Db
            .Database.SqlQuery<Told>(
                $"""
                SELECT PupilId, Kind, Subject, At FROM Entries
                WHERE "Kind" IN ('seen', 'report', 'week') AND DeletedAt IS NULL AND At >= {new DateTimeOffset(
                    since
                ).ToUnixTimeMilliseconds()}
                ORDER BY At DESC
                """
            )
            .ToListAsync();
        var stuck = await Db
            .Entries.AsNoTracking()
            .Where(step => step.Kind == Steps.Kind.Id && step.DoneAt == null && step.Asked >= LookFirst.StuckAfter)
            .OrderByDescending(step => step.Id)
            .Select(step => new
            {
                step.PupilId,
                step.Asked,
                step.Summary,
            })
            .Take(MostStuck)
            .ToListAsync();
        var lessons = slots.Select(slot => slot.Who.Pupil ?? 0).ToList();
        int[] ids = [.. told.Select(entry => entry.PupilId).Concat(stuck.Select(step => step.PupilId)).Concat(lessons).Distinct()];
        var pupils = (await Db.Pupils.AsNoTracking().Where(pupil => ids.Contains(pupil.Id)).ToListAsync())
            .Concat(shown)
            .DistinctBy(pupil => pupil.Id)
            .ToDictionary(pupil => pupil.Id);
        var known = told.ToLookup(entry => entry.PupilId);
        var looks = pupils.Values.ToDictionary(
            pupil => pupil.Id,
            pupil =>
            {
                var step = stuck.Find(each => each.PupilId == pupil.Id);
                var hurt = known[pupil.Id].FirstOrDefault(entry => HealthRecord.ComplaintOf(entry.Kind, entry.Subject) is not null);
                var week = known[pupil.Id].Any(entry => entry.Kind == PracticeStop.Weeks.Id);
                return LookFirst.Of(
                    new LookFacts(
                        hurt is null ? null : Clock.AgoWithin(DateTimeOffset.FromUnixTimeMilliseconds(hurt.At).UtcDateTime),
                        known[pupil.Id].FirstOrDefault(entry => entry.Kind == PracticeStop.Reports.Id)?.Subject ?? "",
                        step?.Asked ?? 0,
                        step?.Summary ?? "",
                        week && last.TryGetValue(pupil.Id, out var heard)
                            ? today.DayNumber - Clock.DayOf(DateTimeOffset.FromUnixTimeMilliseconds(heard.At).UtcDateTime).DayNumber
                            : null
                    )
                );
            }
        );
        var now = TimeOnly.FromDateTime(Clock.Local(Clock.Now));
        Lessons =
        [
            .. slots.Zip(
                lessons,
                (slot, id) =>
                    pupils.TryGetValue(id, out var pupil)
                        ? new DeskLesson(slot.Start, pupil.Name, $"/practice/{id}", looks[id]?.Words ?? "", slot.End < now)
                        : new DeskLesson(
                            slot.Start,
                            slot.Who.ClassName,
                            $"/practice/class?class={Uri.EscapeDataString(slot.Who.ClassName)}",
                            "",
                            slot.End < now
                        )
            ),
        ];
        Looks =
        [
            .. looks
                .Where(each => each.Value is not null && !lessons.Contains(each.Key))
                .Select(each => (pupils[each.Key], each.Value!))
                .OrderBy(each => each.Item2.Reason)
                .ThenBy(each => each.Item1.Name, StringComparer.CurrentCulture)
                .Take(MostLooks),
        ];
    }

    /// <summary>The pupils of this page, by name; the names go on where the page before ended.</summary>
    private async Task<List<Pupil>> PupilsAsync()
    {
        var from = await Db.Pupils.IgnoreQueryFilters().Where(pupil => pupil.Id == After).Select(pupil => pupil.Name).FirstOrDefaultAsync();
        var pupils = await Db
            .Pupils.AsNoTracking()
            .Where(pupil => from == null || pupil.Name.CompareTo(from) > 0 || (pupil.Name == from && pupil.Id > After))
            .OrderBy(pupil => pupil.Name)
            .ThenBy(pupil => pupil.Id)
            .Take(PupilsAtOnce + 1)
            .ToListAsync();
        if (pupils.Count <= PupilsAtOnce)
            return pupils;
        Onward = $"/?after={pupils[PupilsAtOnce - 1].Id}";
        return pupils[..PupilsAtOnce];
    }

    /// <summary>The step that is open, or where to begin.</summary>
    private DeskLink Step(Pupil pupil, Entry? step) =>
        step is not null && Stops.At(step.Subject) is { } stop
            ? new DeskLink(step.Summary, stop.StepAddress(pupil.Id, step.DrillId), "step")
            {
                Tried = step.Asked > 0 ? Steps.Tries(step) : null,
            }
            : new DeskLink("Hear a buzz", $"/buzz/{pupil.Id}", "begin");

    private static IEnumerable<DeskLink> Dues(Pupil pupil, IReadOnlyList<(StopDue Due, Dictionary<int, int> Counts)> dues) =>
        dues.Where(each => each.Counts.ContainsKey(pupil.Id))
            .Select(each => new DeskLink(each.Due.Words(each.Counts[pupil.Id]), each.Due.Address(pupil.Id), each.Due.Name));

    /// <summary>
    /// The last kept take of each pupil. A window over all takes would read the whole record; this asks the index once a pupil.
    /// </summary>
    private Task<List<LastHeard>> LastHeardAsync(int[] ids)
    {
        // Lists for the database's own reader of JSON, so that each goes in as one parameter.
        var (pupils, takes) = (Json(ids), Json(Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id)));
        return Db
            .Database.SqlQuery<LastHeard>(
                $"""
                SELECT e.PupilId, e.Summary, e.At
                FROM json_each({pupils}) p JOIN Entries e ON e.Id = (
                    SELECT r.Id FROM Entries r
                    WHERE r.PupilId = p.value AND r.Kept AND r.DeletedAt IS NULL AND r.Kind IN (SELECT value FROM json_each({takes}))
                    ORDER BY r.At DESC, r.Id DESC LIMIT 1)
                """
            )
            .ToListAsync();
    }

    /// <summary>The steadiness of the last few takes of each pupil, the newest first.</summary>
    private Task<List<Steady>> SteadinessAsync(int[] ids) =>
        Db
            .Database.SqlQuery<Steady>(
                $"""
                SELECT f.PupilId, f.Value
                FROM json_each({Json(ids)}) p JOIN Figures f ON f.rowid IN (
                    SELECT r.rowid FROM Figures r
                    WHERE r.PupilId = p.value AND r.Name = {BuzzFigures.Steadiness.Name}
                    ORDER BY r.At DESC LIMIT {PastTakes})
                ORDER BY f.At DESC
                """
            )
            .ToListAsync();

    private Task<List<Entry>> OpenStepsAsync(int[] ids) =>
        Db.Entries.AsNoTracking().Where(step => step.Kind == "step" && step.DoneAt == null && ids.Contains(step.PupilId)).ToListAsync();

    private static string Json<T>(IEnumerable<T> list) => System.Text.Json.JsonSerializer.Serialize(list);

    private sealed record LastHeard(int PupilId, string Summary, long At);

    private sealed record Told(int PupilId, string Kind, string Subject, long At);

    private sealed record Steady(int PupilId, double Value);
}
