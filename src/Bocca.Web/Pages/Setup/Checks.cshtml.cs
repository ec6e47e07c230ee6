using Bocca.Core.Embouchure;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>The Set-up stop's checks of body, face, hold and care: a drawn hint and a tick each.</summary>
public sealed class ChecksModel(Journal journal) : StagePage(journal)
{
    public IReadOnlyList<SetupCheck> Checks { get; private set; } = [];

    /// <summary>When each check was ticked last.</summary>
    public IReadOnlyDictionary<string, DateTime> Ticks { get; private set; } = new Dictionary<string, DateTime>();

    public ArmReach? Reach { get; private set; }

    /// <summary>What the camera saw of the head last; null where it never looked.</summary>
    public string? Gaze { get; private set; }

    /// <summary>The first check not ticked today.</summary>
    public SetupCheck? Next => Checks.FirstOrDefault(check => !IsTicked(check));

    public bool IsTicked(SetupCheck check) => Ticks.TryGetValue(check.Id, out var at) && at >= Clock.DayStart;

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return RedirectToPage("/Setup/Index");
        Checks = SetupCheck.Of(Pupil.Instrument.Family);
        Ticks = await Db
            .Entries.Where(tick => tick.PupilId == Pupil.Id && tick.Kind == SetupStop.Ticks.Id)
            .GroupBy(tick => tick.DrillId!)
            .Select(ticks => new { ticks.Key, At = ticks.Max(tick => tick.At) })
            .ToDictionaryAsync(ticks => ticks.Key, ticks => ticks.At);
        Gaze = await Journal.Of(Pupil.Id, SetupStop.Gazes).Select(gaze => gaze.Summary).FirstOrDefaultAsync();
        Reach = Pupil.ArmCm is { } arm && Pupil.Instrument.Slide is not null ? ArmReach.Of(arm, Pupil.Instrument) : null;
        return Page();
    }

    /// <summary>Keeps how far the head moved while the eyes were on a mark; no picture comes along.</summary>
    public async Task<IActionResult> OnPostGazeAsync([FromBody] IReadOnlyList<HeadShift>? shifts)
    {
        if (Pupil is null)
            return NotFound();
        return await RefusingAsync(async () =>
        {
            var motion = HeadMotion.Of(shifts ?? []);
            var entry = new Entry
            {
                PupilId = Pupil.Id,
                Kind = SetupStop.Gazes.Id,
                InstrumentId = Pupil.InstrumentId,
                Source = EntrySource.Camera,
                Result = EntryResult.Of(SetupStop.Moved, motion.SpreadShare),
                Outcome = motion.IsStill ? Core.Judging.Outcome.Passed : Core.Judging.Outcome.Repeat,
                At = Clock.Now,
                Summary = motion.Sentence,
            };
            await Journal.WriteAsync(SetupStop.Gazes, entry, Approach.ToString());
            return Content(motion.Sentence, "text/plain; charset=utf-8");
        });
    }

    /// <summary>Ticks a check for today, or takes today's tick away.</summary>
    public async Task<IActionResult> OnPostAsync(string check)
    {
        if (Pupil is null || SetupCheck.Of(Pupil.Instrument.Family).FirstOrDefault(known => known.Id == check) is not { } asked)
            return NotFound();
        var start = Clock.DayStart;
        var ticked = await Db
            .Entries.Where(tick => tick.PupilId == Pupil.Id && tick.Kind == SetupStop.Ticks.Id && tick.DrillId == check && tick.At >= start)
            .ToListAsync();
        foreach (var tick in ticked)
            tick.DeletedAt = Clock.Now;
        await Db.SaveChangesAsync();
        if (ticked.Count == 0)
            await Journal.WriteAsync(
                SetupStop.Ticks,
                new Entry
                {
                    PupilId = Pupil.Id,
                    Kind = SetupStop.Ticks.Id,
                    DrillId = check,
                    InstrumentId = Pupil.InstrumentId,
                    At = Clock.Now,
                    Outcome = Core.Judging.Outcome.Passed,
                    Summary = asked.Ask(Approach),
                },
                Approach.ToString()
            );
        return Redirect($"/set-up/{PupilId}/checks#{check}");
    }
}
