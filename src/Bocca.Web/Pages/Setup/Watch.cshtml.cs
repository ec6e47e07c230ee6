using Bocca.Core.Embouchure;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Pages.Buzz;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Setup;

/// <summary>What the evidence comes to, and what has been noticed today.</summary>
public sealed record AdviceView(int PupilId, AdviceGiven? Advice, IReadOnlyList<string> Noticed, string? DrillName)
{
    /// <summary>The symptoms a teacher may take it for instead.</summary>
    public required SymptomTable Symptoms { get; init; }

    /// <summary>What is said of how the pupil is; empty when all is well.</summary>
    public IReadOnlyList<string> Health { get; init; } = [];

    /// <summary>The rungs against what was found, each with how often it helped this pupil, of how many tries.</summary>
    public IReadOnlyList<(Fix Fix, int Helped, int Of)> Ladder { get; init; } = [];
}

/// <summary>The Set-up stop's watching: one tap an observation, and advice from all that is known.</summary>
public sealed class WatchModel(Journal journal) : StagePage(journal)
{
    public AdviceView? View { get; private set; }

    public IReadOnlyList<Shown<AdvicePayload>> Past { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return RedirectToPage("/Setup/Index");
        View = await ViewAsync();
        var past = await Journal.Of(Pupil.Id, SetupStop.Advice).Include(entry => entry.Payload).Take(8).ToListAsync();
        Past = past.ConvertAll(entry => new Shown<AdvicePayload>(entry, SetupStop.Advice.Read(entry)));
        return Page();
    }

    /// <summary>Notes a signal, or takes today's back: an observation, or the answer to a question.</summary>
    public async Task<IActionResult> OnPostNoticeAsync(string signal)
    {
        if (Pupil is null || !IsKnown(signal))
            return NotFound();
        var start = Clock.DayStart;
        var opposite =
            signal.StartsWith("yes.", StringComparison.Ordinal) ? $"no.{signal[4..]}"
            : signal.StartsWith("no.", StringComparison.Ordinal) ? $"yes.{signal[3..]}"
            : null;
        var standing = await Db
            .Entries.Where(entry =>
                entry.PupilId == Pupil.Id
                && entry.Kind == SetupStop.Seen.Id
                && entry.At >= start
                && (entry.Subject == signal || entry.Subject == opposite)
            )
            .ToListAsync();
        foreach (var entry in standing)
            entry.DeletedAt = Clock.Now;
        await Db.SaveChangesAsync();
        var stands = standing.Any(entry => entry.Subject == signal);
        if (!stands && Complaint.Find(signal.Split('.')[^1]) is { } complaint)
            await Journal.ComplainAsync(Pupil, complaint, Approach.ToString());
        else if (!stands)
            await Journal.WriteAsync(
                SetupStop.Seen,
                new Entry
                {
                    PupilId = Pupil.Id,
                    Kind = SetupStop.Seen.Id,
                    Subject = signal,
                    At = Clock.Now,
                },
                Approach.ToString()
            );
        return Partial("_Advice", await ViewAsync());
    }

    /// <summary>Takes an answer down where it was asked, and leads back there.</summary>
    public async Task<IActionResult> OnPostAnswerAsync(string signal, string? back)
    {
        if (Pupil is null || !IsKnown(signal) || signal.StartsWith("seen.", StringComparison.Ordinal))
            return NotFound();
        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = SetupStop.Seen.Id,
            Subject = signal,
            At = Clock.Now,
        };
        await Journal.WriteAsync(SetupStop.Seen, entry, Approach.ToString());
        TempData["Told"] = "Taken down for today; the next take is judged by it.";
        return Url.IsLocalUrl(back) ? LocalRedirect(back!) : RedirectToPage(new { pupilId = Pupil.Id });
    }

    /// <summary>Takes the advice, or another symptom against it; either is kept.</summary>
    public async Task<IActionResult> OnPostTakeAsync(string symptom)
    {
        if (Pupil is null || Symptoms.Find(symptom) is null)
            return NotFound();
        var suggested = (await ViewAsync()).Advice?.Found.Symptom.Id;
        if ((await ViewAsync(symptom)).Advice is not { } advice)
            return NotFound();
        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = SetupStop.Advice.Id,
            Subject = symptom,
            At = Clock.Now,
            Summary = advice.Fix.Cue,
        };
        await Journal.WriteAsync(SetupStop.Advice, entry, new AdvicePayload(suggested ?? symptom, advice.Why), Approach.ToString());
        TempData["Told"] = suggested == symptom ? "The advice is taken." : "Taken as you say; that it was overruled is kept.";
        return Redirect(Stops.Mending(advice.Fix.Drill, Pupil, Approach, Clock.Today)?.Address ?? $"/set-up/{PupilId}/watch");
    }

    private bool IsKnown(string? signal) =>
        signal?.Split('.') switch
        {
            ["seen", var id] => Observation.All.Any(observation => observation.Id == id),
            ["yes" or "no", var id] => Symptoms.OfQuestion(id) is not null,
            _ => false,
        };

    private async Task<AdviceView> ViewAsync(string? chosen = null)
    {
        var seen = await Journal.SeenTodayAsync(Pupil!.Id);
        var evidence = (await Journal.KnownAsync(Pupil.Id)).ToList();
        var since = Clock.Now - Adviser.StillTells;
        var take = await Journal.ShowAsync(
            BuzzStop.Takes,
            Journal.Of(Pupil.Id, BuzzStop.Takes).Where(entry => entry.Kept && entry.At >= since)
        );
        if (take is not null)
            evidence.AddRange(take.Payload.Verdict.Findings.Select(Evidence.Heard));
        var cues = await Journal.CuesAsync(Pupil.Id);
        var advice = Adviser.Advise(evidence, Symptoms, Approach, tense: false, chosen, cues);
        var drill = Stops.Mending(advice?.Fix.Drill, Pupil, Approach, Clock.Today)?.Name;
        return new AdviceView(Pupil.Id, advice, [.. seen.Select(entry => entry.Subject)], drill)
        {
            Symptoms = Symptoms,
            Health = (await Journal.HealthDayAsync(Pupil)).Words,
            Ladder = advice is null ? [] : [.. LadderOf(advice, cues)],
        };
    }

    private IEnumerable<(Fix, int, int)> LadderOf(AdviceGiven advice, CueHistory cues) =>
        advice
            .Found.Symptom.Ladder(Approach, advice.Tense)
            .Select(fix => (fix, Count: cues.Count(advice.Found.Symptom.Id, fix)))
            .Select(each => (each.fix, each.Count.Helped, each.Count.Of));
}
