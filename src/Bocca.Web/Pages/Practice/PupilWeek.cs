using Bocca.Core.Breath;
using Bocca.Core.Buzz;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice.Week;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Practice;

/// <summary>What a teacher asks of a week beside what the record says.</summary>
public sealed record WeekChoices
{
    /// <summary>Drills and paper items added by hand, as <c>stop:drill</c> or <c>paper:number</c>.</summary>
    public IReadOnlyList<string> Added { get; init; } = [];

    /// <summary>Items on days by hand, each as <c>item@0,2,4</c>; no day takes one out.</summary>
    public IReadOnlyList<string> Locks { get; init; } = [];

    /// <summary>Items where they stood before a change by hand, each as <c>item@0,2,4</c>: they stay there where they can.</summary>
    public IReadOnlyList<string> Stands { get; init; } = [];

    /// <summary>Something liked, in the teacher's own words.</summary>
    public string? Liked { get; init; }

    /// <summary>The only note of the week; null for no such rule.</summary>
    public Pitch? Only { get; init; }
}

/// <summary>What the record says of a pupil whose week or lesson is planned.</summary>
public sealed class PupilWeek(Journal journal, Pupil pupil, RoomSettings room, HealthDay health)
{
    /// <summary>So many days back takes say what worked, and how the lips are (ours, editable).</summary>
    private const int DaysOfGain = 56,
        DaysOfLips = 7,
        MostTakes = 400;

    /// <summary>What is liked, in words of the teacher's own, has so many counts at a tempo.</summary>
    private static readonly Amount LikedAmount = Amount.Of(32, 16, 3, 80);

    private readonly RoomClock _clock = journal.Clock;
    private readonly Approach _approach = pupil.ApproachIn(room);
    private readonly OwnSettings _own = pupil.SettingsIn(room);

    private List<(DrillTake Take, DateTime At, double HighSeconds)>? _takes;

    /// <summary>Who practises; read once.</summary>
    public WeekPupil? Player { get; private set; }

    /// <summary>The way of first notes.</summary>
    public FirstNotePath? Path { get; private set; }

    /// <summary>Paper items that fit the pupil's stage, those against a symptom of late first.</summary>
    public IReadOnlyList<PaperItem> Papers { get; private set; } = [];

    /// <summary>What worked, by drill.</summary>
    public IReadOnlyDictionary<string, DrillGain> Gains { get; private set; } = new Dictionary<string, DrillGain>();

    /// <summary>Reads who practises.</summary>
    public async Task<WeekPupil> PlayerAsync()
    {
        if (Player is not null)
            return Player;
        var played = await journal.PlayedAsync(pupil, _approach, room.Tuning);
        var player = played.Situation(pupil.Reading, room.Tuning);
        Path = FirstNotePath.Of(player, _approach, await journal.FirstTriesAsync(pupil.Id));
        player = player with { Learnt = Path.InPatterns };
        return Player = new WeekPupil(player, _approach, pupil.Stage, pupil.Breathing(_clock.Today, _own), _own);
    }

    /// <summary>
    /// What the record says is wanted, most urgent first: the warm-up, the open step, what the teacher added, what is due, what is near its
    /// gate or a little too hard, paper, something liked; then what is usual at the stage.
    /// </summary>
    public async Task<IReadOnlyList<WeekItem>> ItemsAsync(WeekChoices choices)
    {
        var week = await PlayerAsync();
        Papers = await PapersAsync();
        Gains = WhatWorked.Of((await TakesAsync()).Select(take => take.Take));
        List<WeekItem?> items = [StandardWeek.WarmUp(week), .. await FaultsAsync(week)];
        items.AddRange(choices.Added.Select(id => Added(week, id)));
        foreach (var (due, counts) in await journal.Stops.DuesAsync(journal.Db, [pupil.Id], _clock.Now))
            if (counts.TryGetValue(pupil.Id, out var count))
                items.Add(StandardWeek.Drill(week, due.Drill ?? "", WeekKind.Recall, 7, $"{due.Words(count)}."));
        items.AddRange(await StandingAsync(week));
        if (await FaultySymptomsAsync() is var symptoms && Papers.FirstOrDefault(each => symptoms.Contains(each.SymptomId)) is { } paper)
            items.Add(paper.AsItem(4, $"Against what was heard of late: {paper.Words}".TrimEnd(' ', ':')));
        if (choices.Liked?.Trim() is { Length: > 0 } liked)
            items.Add(
                new WeekItem("liked", liked, WeekKind.Liked, LikedAmount, 4, "Played to the end, for the fun of it.", "Something liked.")
            );
        items.AddRange(StandardWeek.Items(week));
        var all = items.OfType<WeekItem>().DistinctBy(item => item.Id);
        return
        [
            .. (choices.Only is { } only ? OneNoteWeek.Of(all, only) : all)
                .Take(WeekAsked.MostItems)
                .Select(item =>
                    WhatWorked.Weighed(item with { Locked = DaysOf(item, choices.Locks), Stands = DaysOf(item, choices.Stands) }, Gains)
                ),
        ];
    }

    /// <summary>How tired the lips are, by what was said and heard in the last week.</summary>
    public async Task<LipState> LipsAsync()
    {
        var since = _clock.Now.AddDays(-DaysOfLips);
        var report = await journal.Of(pupil.Id, PracticeStop.Reports).Where(said => said.At >= since).FirstOrDefaultAsync();
        var days = (await TakesAsync())
            .Where(take => take.At >= since)
            .GroupBy(take => take.Take.Day)
            .Select(day => new LipDay(day.Key, [.. day.Select(take => take.Take.Share)], day.Sum(take => take.HighSeconds)));
        return LipState.Of(report?.Subject ?? "", [.. days], pupil.Limits(_clock.Today, health, _own).HighSecondsADay);
    }

    /// <summary>The week as it is asked.</summary>
    /// <param name="first">Its first day.</param>
    /// <param name="minutes">Minutes free on each day.</param>
    /// <param name="tired">How tired the lips are, 0 to 3.</param>
    /// <param name="exam">The day of an exam; null for none.</param>
    /// <param name="choices">What the teacher asks beside the record.</param>
    /// <exception cref="ArgumentException">It cannot be asked so.</exception>
    public async Task<WeekAsked> AskedAsync(DateOnly first, IReadOnlyList<double> minutes, int tired, DateOnly? exam, WeekChoices choices)
    {
        if (tired is < 0 or > LipState.Most)
            throw new ArgumentException("Tiredness runs from 0 to 3.");
        var examDay = exam?.DayNumber - first.DayNumber;
        if (examDay < 0)
            throw new ArgumentException($"The exam of {exam:yyyy-MM-dd} is over: it lies before the week.");
        var asked = new WeekAsked(minutes, await ItemsAsync(choices), pupil.Limits(_clock.Today, health, _own))
        {
            Tired = tired,
            Barred = first == _clock.Today ? health.Ends?.Words : null,
            Exam = examDay <= WeekAsked.Days ? examDay : null,
            LipSecondsADay = LipTime.MostSecondsADay,
            BreathSecondsADay = BreathLimits.For(pupil.Breathing(_clock.Today, _own)).SecondsPerDay,
        };
        return asked with { Items = StandardWeek.Filling(asked.Items, minutes.DefaultIfEmpty(0).Max(), asked) };
    }

    /// <summary>Hands a week over; the same once more is the one that stands, and another from the same day takes its place.</summary>
    /// <param name="plan">The week.</param>
    /// <param name="first">Its first day.</param>
    /// <param name="minutes">Minutes that were free on each day.</param>
    /// <param name="only">The only note; null for no such rule.</param>
    /// <param name="exam">The day of an exam; null for none.</param>
    public async Task<Entry> HandOverAsync(WeekPlan plan, DateOnly first, IReadOnlyList<double> minutes, string? only, string? exam)
    {
        var rounds = plan.Days.Sum(day => day.Rounds.Count);
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = PracticeStop.Weeks.Id,
            InstrumentId = pupil.InstrumentId,
            Subject = $"{first:yyyy-MM-dd}",
            At = _clock.Now,
            Asked = rounds,
            Summary = $"{rounds} rounds on {plan.Days.Count(day => day.Rounds.Count > 0)} days.",
        };
        var payload = new WeekPayload(
            first,
            [
                .. plan.Days.Select(day =>
                    (IReadOnlyList<KeptRound>)[.. day.Rounds.Select(round => new KeptRound(round.Item, round.RestSeconds))]
                ),
            ],
            minutes,
            [.. plan.Left.Select(left => $"{left.Item.Name}: {left.Why}")]
        )
        {
            OnlyNote = only,
            Exam = exam,
        };
        entry.Payload = PracticeStop.Weeks.Write(payload);
        PracticeStop.Weeks.Complete(entry, payload);
        return await journal.WriteOneAsync(
            PracticeStop.Weeks,
            entry,
            _approach.ToString(),
            $"{entry.Subject}\n{entry.Payload.Body}",
            journal.Of(pupil.Id, PracticeStop.Weeks).Where(week => week.Subject == entry.Subject)
        );
    }

    /// <summary>What went otherwise last, with the drill that mends it, and the open step; the more urgent first.</summary>
    private async Task<IReadOnlyList<WeekItem?>> FaultsAsync(WeekPupil week)
    {
        var step = await journal.Of(pupil.Id, Steps.Kind).Where(open => open.DoneAt == null).FirstOrDefaultAsync();
        var slip = await journal.LastSlipAsync(pupil, _approach, step);
        var agreed = step is null
            ? null
            : StandardWeek.Drill(
                week,
                step.DrillId is null ? step.Subject : $"{step.Subject}:{step.DrillId}",
                WeekKind.Fault,
                8,
                step.Summary
            );
        return [slip is null ? null : StandardWeek.Drill(week, slip.Address, WeekKind.Fault, slip.SinceStep ? 9 : 7, slip.Heard), agreed];
    }

    private WeekItem Added(WeekPupil week, string id) =>
        (
            id.StartsWith("paper:", StringComparison.Ordinal)
                ? Papers.FirstOrDefault(paper => paper.ItemId == id)?.AsItem(6, "Added by hand.")
                : StandardWeek.Drill(week, id, WeekKind.New, 6, "Added by hand.")
        ) ?? throw new ArgumentException($"'{id}' is nothing that this pupil can be given.");

    /// <summary>What is near its gate, and what is a little too hard: one of each.</summary>
    private async Task<IEnumerable<WeekItem?>> StandingAsync(WeekPupil week)
    {
        var standing = (await TakesAsync())
            .GroupBy(take => take.Take.Drill)
            .Select(drill =>
                (Drill: drill.Key, Kind: WhatWorked.Standing([.. drill.Select(take => take.Take)]), Last: drill.Max(take => take.At))
            )
            .OrderByDescending(drill => drill.Last)
            .ToList();
        return new[] { (WeekKind.Gate, 6, "Near its gate."), (WeekKind.Stretch, 3, "A little too hard, and that is the point.") }.Select(
            (each) =>
                standing
                    .Where(drill => drill.Kind == each.Item1)
                    .Select(drill => StandardWeek.Drill(week, drill.Drill, each.Item1, each.Item2, each.Item3))
                    .FirstOrDefault(item => item is not null)
        );
    }

    private async Task<IReadOnlyList<PaperItem>> PapersAsync()
    {
        var symptoms = await FaultySymptomsAsync();
        var papers = await journal.Db.PaperItems.AsNoTracking().OrderBy(paper => paper.Book).ThenBy(paper => paper.Page).ToListAsync();
        return [.. papers.Where(paper => paper.From <= pupil.Stage).OrderByDescending(paper => symptoms.Contains(paper.SymptomId))];
    }

    /// <summary>The symptoms that were worked on of late.</summary>
    public async Task<IReadOnlyList<string>> FaultySymptomsAsync() =>
        _symptoms ??= [.. (await journal.CuesAsync(pupil.Id)).Tries.Take(12).Select(each => each.Cue.Split('.')[0]).Distinct()];

    private IReadOnlyList<string>? _symptoms;

    /// <summary>Kept takes of the last weeks, the oldest first.</summary>
    private async Task<List<(DrillTake Take, DateTime At, double HighSeconds)>> TakesAsync()
    {
        if (_takes is not null)
            return _takes;
        var since = _clock.Now.AddDays(-DaysOfGain);
        var takes = await journal
            .Of(pupil.Id)
            .Where(take => take.Kept && take.At >= since && take.Asked > 0)
            .Take(MostTakes)
            .Select(take => new
            {
                take.Kind,
                take.DrillId,
                take.At,
                take.Came,
                take.Asked,
                take.SoundedSeconds,
                take.HighSeconds,
                take.Outcome,
            })
            .ToListAsync();
        takes.Reverse();
        return _takes = [
            .. takes
                .Where(take => journal.Stops.Kind(take.Kind).IsTake)
                .Select(take =>
                    (
                        new DrillTake(
                            journal.Stops.OfKind(take.Kind).Place is "slurs"
                                ? "slurs"
                                : $"{journal.Stops.OfKind(take.Kind).Place}:{take.DrillId}",
                            _clock.DayOf(take.At).DayNumber,
                            Math.Clamp((double)(take.Came ?? 0) / take.Asked!.Value, 0, 1),
                            (take.SoundedSeconds ?? 0) / 60,
                            take.Outcome == Outcome.Passed
                        ),
                        take.At,
                        take.HighSeconds ?? 0
                    )
                ),
        ];
    }

    /// <summary>The days of an item in a list of <c>item@0,2,4</c>; null where it is not in it.</summary>
    /// <exception cref="ArgumentException">What stands there is no day.</exception>
    internal static IReadOnlyList<int>? DaysOf(WeekItem item, IReadOnlyList<string> lines) =>
        lines.LastOrDefault(each => each.StartsWith($"{item.Id}@", StringComparison.Ordinal)) is { } own
            ?
            [
                .. own[(item.Id.Length + 1)..]
                    .Split(',', StringSplitOptions.RemoveEmptyEntries)
                    .Select(day =>
                        int.TryParse(day, out var at) && at is >= 0 and < WeekAsked.Days
                            ? at
                            : throw new ArgumentException($"'{day}' is no day of the week.")
                    )
                    .Distinct(),
            ]
            : null;
}
