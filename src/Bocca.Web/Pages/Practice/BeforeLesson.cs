using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Core.Practice.Lesson;
using Bocca.Core.Practice.Timetable;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>A day since the last lesson.</summary>
/// <param name="Day">The day.</param>
/// <param name="Minutes">Minutes that sounded on it.</param>
public readonly record struct DayPlayed(DateOnly Day, double Minutes);

/// <summary>What happened since the last lesson, as far as it is known.</summary>
/// <param name="Since">When that was; null where there was none.</param>
/// <param name="Days">The days up to today, at most seven, the oldest first.</param>
/// <param name="Takes">How many takes, by stop, in words; empty for none.</param>
/// <param name="Report">What the pupil said of the days; null for nothing.</param>
public sealed record SinceLast(DateTime? Since, IReadOnlyList<DayPlayed> Days, string Takes, Entry? Report)
{
    /// <summary>Days on which something was kept.</summary>
    public int Played => Days.Count(day => day.Minutes > 0);
}

/// <summary>What a teacher reads before a lesson: made from the record in one go.</summary>
public sealed record BeforeLesson
{
    /// <summary>Without a lesson on record so many days are looked back on, and so many at most are drawn (ours, editable).</summary>
    private const int DaysLookedBack = 7;

    /// <summary>Milestones are looked for in so many days from the first lesson on (ours).</summary>
    private const int DaysOfBeginning = 366;

    public required SinceLast Since { get; init; }

    public required HearFirst First { get; init; }

    public required IReadOnlyList<FigureHistory> Moved { get; init; }

    /// <summary>The open step, or the one that came since.</summary>
    public Entry? Step { get; init; }

    public string? Bottleneck { get; init; }

    /// <summary>The cue that helped most often lately, and how often of how many times; null for none.</summary>
    public (string Cue, int Helped, int Of)? Helping { get; init; }

    public required IReadOnlyList<(string Words, string Address)> Due { get; init; }

    /// <summary>The drills that were passed for the first time since the last lesson, by name.</summary>
    public required IReadOnlyList<string> FirstTimes { get; init; }

    public required IReadOnlyList<MilestoneStanding> Milestones { get; init; }

    /// <summary>The lesson of today in the timetable; null for none.</summary>
    public LessonSlot? Slot { get; init; }

    /// <summary>What the lesson is made of.</summary>
    public required IReadOnlyList<AgendaPart> Parts { get; init; }

    /// <summary>Minutes that are planned for it.</summary>
    public int Minutes => Slot?.Minutes ?? Agenda.UsualMinutes;

    /// <summary>Reads the record.</summary>
    /// <param name="journal">The record.</param>
    /// <param name="pupil">Whose lesson it is.</param>
    /// <param name="room">What holds for the room.</param>
    /// <param name="page">The page that asks: what the teacher has set.</param>
    public static async Task<BeforeLesson> ReadAsync(Journal journal, Pupil pupil, RoomSettings room, StagePage page)
    {
        var (clock, stops) = (journal.Clock, journal.Stops);
        var last = await journal
            .Of(pupil.Id, PracticeStop.Lessons)
            .Where(lesson => lesson.DoneAt != null)
            .Select(lesson => (DateTime?)lesson.At)
            .FirstOrDefaultAsync();
        var since = last ?? clock.Now.AddDays(-DaysLookedBack);
        var kept = await KeptAsync(journal, pupil.Id, since);
        IReadOnlyList<FigureHistory> moved = [.. (await journal.HistoriesAsync(pupil.Id)).Where(history => history.Changed)];
        var step = await journal
            .Of(pupil.Id, Steps.Kind)
            .Where(step => step.DoneAt == null || (step.DoneAt >= since && step.Outcome == Outcome.Passed))
            .FirstOrDefaultAsync();
        IReadOnlyList<(string, string)> due =
        [
            .. (await stops.DuesAsync(journal.Db, [pupil.Id], clock.Now))
                .Where(each => each.Counts.ContainsKey(pupil.Id))
                .Select(each =>
                    (each.Due.Words(each.Counts[pupil.Id]), each.Due.Drill ?? stops.All.First(stop => stop.Dues.Contains(each.Due)).Place)
                ),
        ];
        var first = HearFirst.Of(
            StepBefore(step),
            await journal.LastSlipAsync(pupil, page.Approach, step),
            [.. moved.Select(each => (each, stops.All.First(stop => stop.Followed.Contains(each.Kind)).Place))],
            due,
            kept.Count
        );
        return new BeforeLesson
        {
            Since = SinceOf(
                clock,
                stops,
                last,
                since,
                kept,
                await journal.Of(pupil.Id, PracticeStop.Reports).Where(said => said.At >= since).FirstOrDefaultAsync()
            ),
            First = first,
            Moved = moved,
            Step = step,
            Bottleneck = HearFirst.Bottleneck(await journal.RecentMissesAsync(pupil.Id)),
            Helping = Helped(await journal.CuesAsync(pupil.Id), page.Symptoms),
            Due = due,
            FirstTimes = await FirstTimesAsync(journal, pupil.Id, since, kept),
            Milestones = await MilestonesAsync(journal, pupil),
            Slot = (await journal.Db.TimetableAsync())
                .On(clock.Today)
                .FirstOrDefault(slot => slot.Who.Pupil == pupil.Id || (pupil.ClassName != "" && slot.Who.ClassName == pupil.ClassName)),
            Parts = await PartsAsync(new PupilWeek(journal, pupil, room, page.Health), first, due),
        };
    }

    /// <summary>How a pupil stands to the milestones.</summary>
    public static async Task<IReadOnlyList<MilestoneStanding>> MilestonesAsync(Journal journal, Pupil pupil)
    {
        var drills = Milestone.All.SelectMany(each => each.Drills).Select(drill => drill.Split(':')[1]).ToList();
        // A span of the index: what came later than within a year is no news of a beginning.
        var (from, until) = (journal.Clock.StartOf(pupil.Started), journal.Clock.StartOf(pupil.Started.AddDays(DaysOfBeginning)));
        var shown = await journal
            .Of(pupil.Id)
            .Where(entry => entry.At >= from && entry.At < until)
            .Where(entry => entry.Kept && entry.Outcome == Outcome.Passed && drills.Contains(entry.DrillId!))
            .GroupBy(entry => new { entry.Kind, entry.DrillId })
            .Select(same => new
            {
                same.Key.Kind,
                same.Key.DrillId,
                At = same.Min(entry => entry.At),
            })
            .ToListAsync();
        var day = journal.Clock.Today.DayNumber - pupil.Started.DayNumber;
        return
        [
            .. Milestone
                .All.Select(milestone =>
                    milestone.Standing(
                        shown
                            .Where(each => milestone.Drills.Contains($"{journal.Stops.OfKind(each.Kind).Place}:{each.DrillId}"))
                            .Select(each => (int?)Math.Max(0, journal.Clock.DayOf(each.At).DayNumber - pupil.Started.DayNumber))
                            .Min(),
                        day
                    )
                )
                // Who has come further has passed them, on record or not.
                .Where(standing => standing.Reached is not null || pupil.Stage < LearningStage.Second),
        ];
    }

    private static async Task<IReadOnlyList<Kept>> KeptAsync(Journal journal, int pupilId, DateTime since)
    {
        var takes = journal.Stops.Kinds.Where(kind => kind.IsTake).Select(kind => kind.Id).ToList();
        return await journal
            .Of(pupilId)
            .Where(entry => entry.Kept && entry.At >= since && takes.Contains(entry.Kind))
            .Select(entry => new Kept(entry.Kind, entry.DrillId, entry.At, entry.SoundedSeconds ?? 0, entry.Outcome == Outcome.Passed))
            .ToListAsync();
    }

    private sealed record Kept(string Kind, string? DrillId, DateTime At, double Seconds, bool Passed);

    private static SinceLast SinceOf(RoomClock clock, Stops stops, DateTime? last, DateTime since, IReadOnlyList<Kept> kept, Entry? report)
    {
        var minutes = kept.GroupBy(entry => clock.DayOf(entry.At))
            .ToDictionary(day => day.Key, day => day.Sum(entry => entry.Seconds) / 60);
        var days = Math.Clamp(clock.Today.DayNumber - clock.DayOf(since).DayNumber, 1, DaysLookedBack);
        return new SinceLast(
            last,
            [
                .. Enumerable
                    .Range(-days, days + 1)
                    .Select(back => clock.Today.AddDays(back))
                    .Select(day => new DayPlayed(day, minutes.GetValueOrDefault(day))),
            ],
            string.Join(", ", kept.GroupBy(entry => stops.OfKind(entry.Kind).Name).Select(stop => $"{stop.Key} {stop.Count()}")),
            report
        );
    }

    private static StepBefore? StepBefore(Entry? step) =>
        step is null
            ? null
            : new StepBefore(
                step.Summary,
                step.DrillId is null ? step.Subject : $"{step.Subject}:{step.DrillId}",
                step.Asked ?? 0,
                step.Outcome == Outcome.Passed
            );

    private static (string, int, int)? Helped(CueHistory cues, SymptomTable symptoms)
    {
        var best = cues
            .Tries.GroupBy(each => each.Cue)
            .Select(each => (Cue: each.Key, Helped: each.Count(one => one.Helped), Of: each.Count()))
            .Where(each => each.Helped > 0)
            .OrderByDescending(each => each.Helped)
            .ThenBy(each => each.Of)
            .FirstOrDefault();
        return
            best.Cue?.Split('.') is [var symptom, var fix]
            && symptoms.Find(symptom)?.Fixes.FirstOrDefault(rung => rung.Id == fix) is { } rung
            ? (rung.Cue, best.Helped, best.Of)
            : null;
    }

    /// <summary>The drills passed since then that had never been passed before.</summary>
    private static async Task<IReadOnlyList<string>> FirstTimesAsync(Journal journal, int pupilId, DateTime since, IReadOnlyList<Kept> kept)
    {
        var passed = kept.Where(take => take is { Passed: true, DrillId: not null })
            .Select(take => (take.Kind, take.DrillId))
            .Distinct()
            .ToList();
        if (passed.Count == 0)
            return [];
        var names = new List<string>();
        foreach (var (kind, drill) in passed)
            // The newest are looked at first: what was passed before was mostly passed not long ago.
            if (
                journal.Stops.OfKind(kind).DrillName(drill!) is { } name
                && await journal
                    .Of(pupilId)
                    .Where(take =>
                        take.Kind == kind && take.At < since && take.Kept && take.Outcome == Outcome.Passed && take.DrillId == drill
                    )
                    .Select(take => (long?)take.Id)
                    .FirstOrDefaultAsync()
                    is null
            )
                names.Add(name);
        return names;
    }

    private static async Task<IReadOnlyList<AgendaPart>> PartsAsync(
        PupilWeek source,
        HearFirst first,
        IReadOnlyList<(string Words, string Address)> due
    )
    {
        var week = await source.PlayerAsync();
        var usual = StandardWeek.Items(week);
        var slurs = due.FirstOrDefault(each => each.Address == "slurs");
        List<AgendaPart> parts = [];
        if (StandardWeek.WarmUp(week) is { } warm)
            parts.Add(new AgendaPart(LessonPart.WarmUp, warm.Name, warm.Why, warm.Id));
        parts.Add(new AgendaPart(LessonPart.Fault, first.What, first.Why, first.Address));
        if (usual.FirstOrDefault(item => item.Kind == WeekKind.New) is { } anew && anew.Id != first.Address)
            parts.Add(new AgendaPart(LessonPart.New, anew.Name, anew.Why, anew.Id));
        if (slurs.Words is not null)
            parts.Add(new AgendaPart(LessonPart.Piece, slurs.Words, "Due before they are forgotten.", "slurs"));
        else if (usual.FirstOrDefault(item => item.Kind == WeekKind.Liked) is { } liked)
            parts.Add(new AgendaPart(LessonPart.Piece, liked.Name, liked.Why, liked.Id));
        else if (week.Stage >= LearningStage.Second && StandardWeek.FirstSlur(week) is not null)
            parts.Add(new AgendaPart(LessonPart.Piece, "A slur of the week", "One air through every change.", "slurs"));
        parts.Add(new AgendaPart(LessonPart.Close, "One good thing, the week", "Mouthpiece stowed, case latched.", null));
        return parts;
    }
}
