using Bocca.Core.Advice;
using Bocca.Core.Embouchure;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>What the evidence comes to, and what has been noticed today.</summary>
public sealed record AdviceView(int PupilId, AdviceGiven? Advice, IReadOnlyList<string> Noticed);

/// <summary>The Set-up stop's watching: one tap an observation, and advice from all that is known.</summary>
public sealed class WatchModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    public AdviceView? View { get; private set; }

    public IReadOnlyList<AdviceEntry> Past { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return RedirectToPage("/Setup/Index");
        View = await ViewAsync();
        Past = await Db
            .Advice.AsNoTracking()
            .Where(entry => entry.PupilId == Pupil.Id)
            .OrderByDescending(entry => entry.At)
            .Take(8)
            .ToListAsync();
        return Page();
    }

    /// <summary>Notes a signal, or takes today's back: an observation, or the answer to a question.</summary>
    public async Task<IActionResult> OnPostNoticeAsync(string signal)
    {
        if (Pupil is null || !IsKnown(signal))
            return NotFound();
        var start = Today.Start(time);
        var opposite =
            signal.StartsWith("yes.", StringComparison.Ordinal) ? $"no.{signal[4..]}"
            : signal.StartsWith("no.", StringComparison.Ordinal) ? $"yes.{signal[3..]}"
            : null;
        var standing = await Db
            .Noticed.Where(entry => entry.PupilId == Pupil.Id && entry.At >= start && (entry.Signal == signal || entry.Signal == opposite))
            .ToListAsync();
        foreach (var entry in standing)
            entry.DeletedAt = time.GetUtcNow().UtcDateTime;
        if (standing.All(entry => entry.Signal != signal))
            Db.Noticed.Add(
                new Noticed
                {
                    PupilId = Pupil.Id,
                    Signal = signal,
                    At = time.GetUtcNow().UtcDateTime,
                }
            );
        await Db.SaveChangesAsync();
        return Partial("_Advice", await ViewAsync());
    }

    /// <summary>Takes the advice, or another symptom against it; either is kept.</summary>
    public async Task<IActionResult> OnPostTakeAsync(string symptom)
    {
        if (Pupil is null || Symptom.All.All(known => known.Id != symptom))
            return NotFound();
        var suggested = (await ViewAsync()).Advice?.Found.Symptom.Id;
        if ((await ViewAsync(symptom)).Advice is not { } advice)
            return NotFound();
        Db.Advice.Add(
            new AdviceEntry
            {
                PupilId = Pupil.Id,
                SymptomId = symptom,
                SuggestedId = suggested ?? symptom,
                Cue = advice.Fix.Cue,
                Why = advice.Why.Length <= 1200 ? advice.Why : advice.Why[..1200],
                ApproachText = Approach.ToString(),
                At = time.GetUtcNow().UtcDateTime,
            }
        );
        await Db.SaveChangesAsync();
        TempData["Told"] = suggested == symptom ? "The advice is taken." : "Taken as you say; that it was overruled is kept.";
        return Redirect(
            advice.Fix.Drill?.Split(':') switch
            {
                ["buzz", var drill] => $"/buzz/{PupilId}?drill={drill}",
                ["breath", var drill]
                    when Core
                        .Breath.BreathDrill.OfferedTo(Pupil.Breathing(Today.Date(time)), Approach)
                        .Any(offered => offered.Id == drill) => $"/breath/{PupilId}?drill={drill}",
                ["set-up", "placement"] => $"/set-up/{PupilId}",
                ["set-up", _] => $"/set-up/{PupilId}/checks",
                _ => $"/set-up/{PupilId}/watch",
            }
        );
    }

    private static bool IsKnown(string? signal) =>
        signal?.Split('.') switch
        {
            ["seen", var id] => Observation.All.Any(observation => observation.Id == id),
            ["yes" or "no", var id] => Symptom.All.Any(symptom => symptom.Ask?.Id == id),
            _ => false,
        };

    private async Task<AdviceView> ViewAsync(string? chosen = null)
    {
        var noticed = await Db.NoticedTodayAsync(Pupil!.Id, time);
        var evidence = (await Db.KnownAsync(Pupil.Id, time)).ToList();
        var since = time.GetUtcNow().UtcDateTime - Adviser.StillTells;
        var take = await Db
            .Takes.AsNoTracking()
            .Where(entry => entry.PupilId == Pupil.Id && entry.Kept && entry.RecordedAt >= since)
            .OrderByDescending(entry => entry.RecordedAt)
            .FirstOrDefaultAsync();
        if (take is not null)
            evidence.AddRange(take.Verdict.Findings.Select(Evidence.Heard));
        return new AdviceView(
            Pupil.Id,
            Adviser.Advise(evidence, Approach, tense: false, chosen),
            [.. noticed.Select(entry => entry.Signal)]
        );
    }
}
