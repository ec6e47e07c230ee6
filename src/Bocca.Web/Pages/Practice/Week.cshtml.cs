using System.Globalization;
using System.Text;
using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Practice.Week;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using CsvHelper;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using CalendarEvent = Ical.Net.CalendarComponents.CalendarEvent;

namespace Bocca.Web.Pages.Practice;

/// <summary>The week after a lesson: planned round by round from the record, changed by hand, handed over.</summary>
public sealed class WeekModel(Journal journal) : EntriesPage(journal)
{
    protected override bool ChecksItself => true;

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
    public string[]? Locks { get; set; }

    public DateOnly First { get; private set; }

    public WeekPlan? Plan { get; private set; }

    /// <summary>The week that was handed over from this day; null for none.</summary>
    public Shown<WeekPayload>? Kept { get; private set; }

    public string? Trouble { get; private set; }

    public IReadOnlyList<double> OnDays { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return NotFound();
        await PlanAsync();
        Kept = await Journal.ShowAsync(
            PracticeStop.Weeks,
            Journal.Of(Pupil.Id, PracticeStop.Weeks).Where(week => week.Subject == $"{First:yyyy-MM-dd}")
        );
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
        var rounds = Plan.Days.Sum(day => day.Rounds.Count);
        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = PracticeStop.Weeks.Id,
            InstrumentId = Pupil.InstrumentId,
            Subject = $"{First:yyyy-MM-dd}",
            At = Clock.Now,
            Asked = rounds,
            Summary = $"{rounds} rounds on {Plan.Days.Count(day => day.Rounds.Count > 0)} days.",
        };
        var payload = new WeekPayload(
            First,
            [
                .. Plan.Days.Select(day =>
                    (IReadOnlyList<KeptRound>)[.. day.Rounds.Select(round => new KeptRound(round.Item, round.RestSeconds))]
                ),
            ],
            OnDays,
            [.. Plan.Left.Select(left => $"{left.Item.Name}: {left.Why}")]
        );
        await Journal.WriteAsync(PracticeStop.Weeks, entry, payload, Approach.ToString());
        Tell("The week is handed over.", "Delete", entry.Id);
        return LocalRedirect($"/practice/{Pupil.Id}/week{Request.QueryString}");
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
        await using (var table = new CsvWriter(text, CultureInfo.InvariantCulture))
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
                    Summary = $"Practice, {day.Seconds / 60:0} min",
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
            First = From is { Length: > 0 } from ? Day(from) : Clock.Today.AddDays(1);
            OnDays = Minutes is { Length: > 0 } given
                ? given
                : StandardWeek.UsualMinutes(Pupil!.Stage, Clock.Today.DayNumber - Pupil.Started.DayNumber);
            Plan = WeekPlanner.Plan(await AskedAsync());
        }
        catch (ArgumentException problem)
        {
            Trouble = problem.Message.Split(" (Parameter")[0];
        }
    }

    private static DateOnly Day(string text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", out var day)
            ? day
            : throw new ArgumentException($"'{text}' is no day such as 2026-12-03.");

    private async Task<WeekAsked> AskedAsync()
    {
        var pupil = Pupil!;
        var report = await Journal.Of(pupil.Id, PracticeStop.Reports).Where(said => said.At >= Clock.Now.AddDays(-7)).FirstOrDefaultAsync();
        Tired ??= report?.Subject switch
        {
            "tired" => 1,
            "sore" => 2,
            _ => 0,
        };
        if (Tired is < 0 or > 3)
            throw new ArgumentException("Tiredness runs from 0 to 3.");
        var exam = Exam is { Length: > 0 } text ? Day(text).DayNumber - First.DayNumber : (int?)null;
        if (exam < 0)
            throw new ArgumentException($"The exam of {Exam} is over: it lies before the week.");
        var asked = new WeekAsked(OnDays, await ItemsAsync(), pupil.Limits(Clock.Today, Health, TeachersOwn))
        {
            Tired = Tired.Value,
            Barred = First == Clock.Today ? Health.Ends?.Words : null,
            Exam = exam < WeekAsked.Days ? exam : null,
            LipSecondsADay = LipTime.MostSecondsADay,
            BreathSecondsADay = BreathLimits.For(pupil.Breathing(Clock.Today, TeachersOwn)).SecondsPerDay,
        };
        return asked with { Items = StandardWeek.Filling(asked.Items, OnDays.DefaultIfEmpty(0).Max(), asked) };
    }

    /// <summary>What the record says is wanted, most urgent first: the open step, what is due, then what is usual at the stage.</summary>
    private async Task<IReadOnlyList<WeekItem>> ItemsAsync()
    {
        var pupil = Pupil!;
        var played = await Journal.PlayedAsync(pupil, Approach, Room.Tuning);
        var path = await Journal.FirstTriesAsync(pupil.Id);
        var player = new PlayerSituation(played.Instrument, pupil.Reading, Room.Tuning)
        {
            Passport = played.Passport,
            Weights = played.Weights,
            Hand = played.Hand,
        };
        player = player with { Learnt = FirstNotePath.Of(player, Approach, path).InPatterns };
        var week = new WeekPupil(player, Approach, pupil.Stage, pupil.Breathing(Clock.Today, TeachersOwn), TeachersOwn);
        var items = new List<WeekItem>();
        if (StandardWeek.WarmUp(week) is { } warm)
            items.Add(warm);
        var step = await Journal.Of(pupil.Id, Steps.Kind).Where(open => open.DoneAt == null).FirstOrDefaultAsync();
        if (
            step is not null
            && StandardWeek.Drill(
                week,
                step.DrillId is null ? step.Subject : $"{step.Subject}:{step.DrillId}",
                WeekKind.Fault,
                8,
                step.Summary
            )
                is { } fault
        )
            items.Add(fault);
        foreach (var (due, counts) in await Stops.DuesAsync(Db, [pupil.Id], Clock.Now))
            if (
                counts.TryGetValue(pupil.Id, out var count)
                && StandardWeek.Drill(week, due.Drill ?? "", WeekKind.Recall, 7, $"{due.Words(count)}.") is { } recall
            )
                items.Add(recall);
        items.AddRange(StandardWeek.Items(week));
        return [.. items.DistinctBy(item => item.Id).Take(WeekAsked.MostItems).Select(Locked)];
    }

    private WeekItem Locked(WeekItem item)
    {
        var own = Locks?.FirstOrDefault(each => each.StartsWith($"{item.Id}@", StringComparison.Ordinal));
        if (own is null)
            return item;
        var days = own[(item.Id.Length + 1)..]
            .Split(',', StringSplitOptions.RemoveEmptyEntries)
            .Select(day =>
                int.TryParse(day, out var at) && at is >= 0 and < WeekAsked.Days
                    ? at
                    : throw new ArgumentException($"'{day}' is no day of the week.")
            )
            .ToList();
        return item with { Locked = days };
    }
}
