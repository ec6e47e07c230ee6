using System.Globalization;
using System.Text;
using Bocca.Core;
using Bocca.Core.Practice.Week;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using CalendarEvent = Ical.Net.CalendarComponents.CalendarEvent;

namespace Bocca.Web.Pages.Practice;

/// <summary>The week after a lesson: planned round by round from the record, changed by hand, handed over.</summary>
public sealed class WeekModel(Journal journal) : EntriesPage(journal)
{
    private const int MostLetters = 80;

    private PupilWeek? _source;

    /// <summary>The page itself says what is wrong in its address, with everything else still there.</summary>
    protected override bool ChecksItself => !Request.Query.ContainsKey("handler");

    /// <summary>Its first day; today's where none is asked for.</summary>
    [BindProperty(SupportsGet = true, Name = "from")]
    public string? From { get; set; }

    /// <summary>Minutes free on each day, the first day first.</summary>
    [BindProperty(SupportsGet = true, Name = "m")]
    public double[]? Minutes { get; set; }

    /// <summary>How tired the lips are, 0 to 3.</summary>
    [BindProperty(SupportsGet = true, Name = "tired")]
    public int? Tired { get; set; }

    /// <summary>The day of an exam; empty for none.</summary>
    [BindProperty(SupportsGet = true, Name = "exam")]
    public string? Exam { get; set; }

    /// <summary>Items locked to days by hand, each as <c>item@0,2,4</c>.</summary>
    [BindProperty(SupportsGet = true, Name = "lock")]
    public string?[]? Locks { get; set; }

    /// <summary>Where the other items stood when one was moved by hand, each as <c>item@0,2,4</c>.</summary>
    [BindProperty(SupportsGet = true, Name = "stand")]
    public string?[]? Stands { get; set; }

    /// <summary>What was added by hand: a drill as <c>stop:drill</c>, or a paper item.</summary>
    [BindProperty(SupportsGet = true, Name = "add")]
    public string?[]? Added { get; set; }

    /// <summary>Something liked, in the teacher's own words.</summary>
    [BindProperty(SupportsGet = true, Name = "liked")]
    public string? Liked { get; set; }

    /// <summary>The only note of the week, as it is written; empty for no such rule.</summary>
    [BindProperty(SupportsGet = true, Name = "only")]
    public string? Only { get; set; }

    /// <summary>What the record says.</summary>
    public PupilWeek Source => _source ??= new PupilWeek(Journal, Pupil!, Room, Health);

    /// <summary>The first notes, any of which can be the only one of a week.</summary>
    public IReadOnlyList<Core.Music.Pitch> Notes => [.. Source.Path?.Notes.Select(each => each.Note.Written) ?? []];

    /// <summary>How the lips are, by what was said and heard.</summary>
    public LipState? Lips { get; private set; }

    /// <summary>What can be added: the drills of all stops that are for this pupil, by stop.</summary>
    public IEnumerable<(string Stop, IReadOnlyList<WeekItem> Drills)> ToAdd =>
        Source.Player is not { } player
            ? []
            : Stops
                .All.Select(stop => (stop.Name, (IReadOnlyList<WeekItem>)[.. StandardWeek.Drills(player, stop.Place)]))
                .Where(each => each.Item2.Count > 0);

    public DateOnly First { get; private set; }

    public WeekPlan? Plan { get; private set; }

    /// <summary>The week that was handed over from this day, while the plan shown is that one; null for none.</summary>
    public Shown<WeekPayload>? Kept { get; private set; }

    /// <summary>When a week from this day was handed over last, as it is shown or otherwise; null for never.</summary>
    public DateTime? HandedOver { get; private set; }

    public string? Trouble { get; private set; }

    /// <summary>What had to move besides what was moved by hand, in words.</summary>
    public IReadOnlyList<string> Moved { get; private set; } = [];

    public IReadOnlyList<double> OnDays { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        await PlanAsync();
        if (!ModelState.IsValid)
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        Moved = [.. MovedBeside()];
        var handed = await Journal.ShowAsync(
            PracticeStop.Weeks,
            Journal.Of(Pupil.Id, PracticeStop.Weeks).Where(week => week.Subject == $"{First:yyyy-MM-dd}")
        );
        // A plan that has changed since is not the one that was handed over.
        Kept = handed is not null && IsAsHandedOver(handed.Payload) ? handed : null;
        HandedOver = handed?.Entry.At;
        return Page();
    }

    /// <summary>Hands the week over as it is shown.</summary>
    public async Task<IActionResult> OnPostAsync()
    {
        if (Pupil is null)
            return NotFound();
        await PlanAsync();
        if (Plan is null)
            return Refuse(Trouble!);
        var entry = await Source.HandOverAsync(
            Plan,
            First,
            OnDays,
            Only is { Length: > 0 } ? Only : null,
            Exam is { Length: > 0 } ? Exam : null
        );
        Tell("The week is handed over.", "Delete", entry.Id);
        return LocalRedirect($"/practice/{Pupil.Id}/week{Request.QueryString}");
    }

    /// <summary>Lets the next weeks follow by themselves, or no more.</summary>
    public async Task<IActionResult> OnPostRunAsync(bool on)
    {
        if (Pupil is null)
            return NotFound();
        var pupil = await Db.Pupils.FirstAsync(each => each.Id == Pupil.Id);
        (pupil.WeekRuns, pupil.Version) = (on, Guid.NewGuid());
        await Db.SaveChangesAsync();
        TempData["Told"] = on
            ? "Once a week is over, the next is planned from the record and handed over by itself."
            : "Weeks are handed over by you alone.";
        return LocalRedirect($"/practice/{Pupil.Id}/week");
    }

    /// <summary>The week as comma-separated values.</summary>
    public async Task<IActionResult> OnGetCsvAsync()
    {
        if (Pupil is null)
            return NotFound();
        await PlanAsync();
        if (Plan is null)
            return Refuse(Trouble!);
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var table = new TableWriter(text))
            await table.WriteRecordsAsync(
                Plan.Days.SelectMany(day =>
                    day.Rounds.Select(round => new
                    {
                        Day = $"{First.AddDays(day.Day):yyyy-MM-dd}",
                        Item = round.Item.Name,
                        round.Item.Amount.Counts,
                        round.Item.Amount.Tempo,
                        round.Item.Done,
                        round.Item.Amount.Seconds,
                        round.RestSeconds,
                    })
                )
            );
        return File(Encoding.UTF8.GetBytes(text.ToString()), "text/csv; charset=utf-8", $"week-{First:yyyy-MM-dd}.csv");
    }

    /// <summary>The week as a calendar: one entry a day with rounds, without an hour.</summary>
    public async Task<IActionResult> OnGetIcsAsync()
    {
        if (Pupil is null)
            return NotFound();
        await PlanAsync();
        if (Plan is null)
            return Refuse(Trouble!);
        var calendar = new Ical.Net.Calendar { ProductId = "-//Bocca//Week//EN" };
        foreach (var day in Plan.Days.Where(day => day.Rounds.Count > 0))
        {
            var on = First.AddDays(day.Day);
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"bocca-{Pupil.Id}-{on:yyyyMMdd}",
                    Summary = $"Practice, {day.Minutes} min",
                    Description = string.Join(
                        "\n",
                        day.Rounds.Select(round => $"{round.Item.Name}: {round.Item.Amount.Words}. {round.Item.Done}")
                    ),
                    Start = new CalDateTime(on),
                    End = new CalDateTime(on.AddDays(1)),
                }
            );
        }

        var text = new CalendarSerializer().SerializeToString(calendar) ?? "";
        return File(Encoding.UTF8.GetBytes(text), "text/calendar; charset=utf-8", $"week-{First:yyyy-MM-dd}.ics");
    }

    private async Task PlanAsync()
    {
        try
        {
            if (ModelState.Values.SelectMany(sent => sent.Errors).FirstOrDefault() is { } wrong)
                throw new ArgumentException(wrong.ErrorMessage);
            var pupil = Pupil!;
            var last = await Journal.ShowAsync(PracticeStop.Weeks, Journal.Of(pupil.Id, PracticeStop.Weeks));
            First = From is { Length: > 0 } from ? Day(from) : Clock.Today.AddDays(1);
            OnDays = Minutes is { Length: > 0 } given ? given : MinutesAsBefore(last?.Payload);
            if (Exam is null && DateOnly.TryParse(last?.Payload.Exam, CultureInfo.InvariantCulture, out var exam) && exam >= First)
                Exam = last!.Payload.Exam;
            Lips = await Source.LipsAsync();
            Tired ??= Lips.Tired;
            await Source.PlayerAsync();
            Plan = WeekPlanner.Plan(
                await Source.AskedAsync(First, OnDays, Tired.Value, Exam is { Length: > 0 } on ? Day(on) : null, Choices())
            );
        }
        catch (ArgumentException problem)
        {
            Trouble = OneLine.Of(problem);
        }
    }

    private bool IsAsHandedOver(WeekPayload handed) =>
        Plan is not null
        && Plan.Days.Select(day => day.Rounds.Select(round => (round.Item.Id, round.Item.Amount)))
            .Zip(handed.Days, (now, then) => now.SequenceEqual(then.Select(round => (round.Item.Id, round.Item.Amount))))
            .All(same => same);

    /// <summary>What left a day on which it stood, or came to another one, beside what was moved by hand.</summary>
    private IEnumerable<string> MovedBeside()
    {
        if (Plan is null || Stands is not { Length: > 0 })
            yield break;
        var now = Plan
            .Days.SelectMany(day => day.Rounds.Select(round => (round.Item, day.Day)))
            .ToLookup(each => each.Item.Id, each => each.Day);
        foreach (
            var item in Plan
                .Days.SelectMany(day => day.Rounds.Select(round => round.Item))
                .Concat(Plan.Left.Select(left => left.Item))
                .DistinctBy(item => item.Id)
                .Where(item => item.Locked is null && item.Stands is not null)
        )
        {
            var (left, come) = (item.Stands!.Except(now[item.Id]).Order().ToList(), now[item.Id].Except(item.Stands!).Order().ToList());
            string Named(List<int> days) => string.Join(" and ", days.Select(day => $"{First.AddDays(day):ddd}"));
            if (left.Count > 0 || come.Count > 0)
                yield return come.Count == 0 ? $"{item.Name} no longer on {Named(left)}"
                : left.Count == 0 ? $"{item.Name} also on {Named(come)}"
                : $"{item.Name} from {Named(left)} to {Named(come)}";
        }
    }

    /// <summary>The minutes of the week before, each on its own day of the week; the usual ones where there was none.</summary>
    private IReadOnlyList<double> MinutesAsBefore(WeekPayload? before) =>
        before?.Minutes is { Count: WeekAsked.Days } minutes
            ?
            [
                .. Enumerable
                    .Range(0, WeekAsked.Days)
                    .Select(day => minutes[(First.AddDays(day).DayNumber - before.First.DayNumber) % 7 is var at && at < 0 ? at + 7 : at]),
            ]
            : StandardWeek.UsualMinutes(Pupil!.Stage, Clock.Today.DayNumber - Pupil.Started.DayNumber);

    /// <summary>The lines of a list that say something: a field of it may come empty.</summary>
    internal static IReadOnlyList<string> Written(string?[]? lines) => [.. (lines ?? []).OfType<string>().Where(line => line != "")];

    private WeekChoices Choices() =>
        new()
        {
            Added = [.. Written(Added).Distinct()],
            Locks = Written(Locks),
            Stands = Written(Stands),
            Liked = Liked is { Length: > MostLetters } ? throw new ArgumentException($"{MostLetters} letters are enough for it.") : Liked,
            Only = Only is { Length: > 0 } note
                ? Notes.FirstOrDefault(each => $"{each}" == note) is var found && $"{found}" == note
                    ? found
                    : throw new ArgumentException($"'{note}' is none of the first notes.")
                : null,
        };

    private static DateOnly Day(string text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", out var day) && day.Year is >= 2000 and < 2200
            ? day
            : throw new ArgumentException($"'{text}' is no day such as 2026-12-03.");
}
