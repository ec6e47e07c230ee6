using Bocca.Core.Embouchure;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>The Set-up stop's checks of body, face, hold and care: a drawn hint and a tick each.</summary>
public sealed class ChecksModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    public IReadOnlyList<SetupCheck> Checks { get; private set; } = [];

    /// <summary>The newest tick of each check.</summary>
    public IReadOnlyDictionary<string, CheckTick> Ticks { get; private set; } = new Dictionary<string, CheckTick>();

    public ArmReach? Reach { get; private set; }

    /// <summary>The first check not ticked today.</summary>
    public SetupCheck? Next => Checks.FirstOrDefault(check => !IsTicked(check));

    public bool IsTicked(SetupCheck check) => Ticks.TryGetValue(check.Id, out var tick) && tick.At >= Today.Start(time);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return RedirectToPage("/Setup/Index");
        Checks = SetupCheck.Of(Pupil.Instrument.Family);
        var ticks = await Db.Ticks.AsNoTracking().Where(tick => tick.PupilId == Pupil.Id).OrderBy(tick => tick.At).ToListAsync();
        Ticks = ticks.GroupBy(tick => tick.CheckId).ToDictionary(group => group.Key, group => group.Last());
        Reach = Pupil.ArmCm is { } arm && Pupil.Instrument.Slide is not null ? ArmReach.Of(arm, Pupil.Instrument) : null;
        return Page();
    }

    /// <summary>Ticks a check for today, or takes today's tick away.</summary>
    public async Task<IActionResult> OnPostAsync(string check)
    {
        if (Pupil is null || SetupCheck.Of(Pupil.Instrument.Family).All(known => known.Id != check))
            return NotFound();
        var start = Today.Start(time);
        var ticked = await Db.Ticks.Where(tick => tick.PupilId == Pupil.Id && tick.CheckId == check && tick.At >= start).ToListAsync();
        foreach (var tick in ticked)
            tick.DeletedAt = time.GetUtcNow().UtcDateTime;
        if (ticked.Count == 0)
            Db.Ticks.Add(
                new CheckTick
                {
                    PupilId = Pupil.Id,
                    CheckId = check,
                    ApproachText = Approach.ToString(),
                    At = time.GetUtcNow().UtcDateTime,
                }
            );
        await Db.SaveChangesAsync();
        return Redirect($"/set-up/{PupilId}/checks#{check}");
    }
}
