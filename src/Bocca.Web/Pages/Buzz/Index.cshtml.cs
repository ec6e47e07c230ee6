using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Buzz;

/// <summary>A take on the stage, with what may be done about it.</summary>
public sealed record HeardView(Pupil Pupil, Take? Take, BuzzDrill Drill, AcceptedStep? Open);

/// <summary>A recording as sent by the page.</summary>
public sealed record SentTake(IFormFile? Sound, string Drill, double Tempo, SoundStage On, SoundSource Source, double? FirstCue, bool Tense);

/// <summary>The Buzz stop: record, hear, see, accept, keep.</summary>
[RequestFormLimits(MultipartBodyLengthLimit = WavFile.MaximumBytes + 1_000_000)]
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastTakes = 12;
    private const int TakesForOwnSound = 10;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "take")]
    public int? TakeId { get; set; }

    public HeardView? View { get; private set; }

    public IReadOnlyList<Take> Past { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = await Takes().FirstOrDefaultAsync(candidate => TakeId == null ? candidate.Kept : candidate.Id == TakeId);
        if (TakeId is not null && take is null)
            return NotFound();
        // The drill asked for in the address starts with an empty stage.
        View = await ViewAsync(DrillId is not null && TakeId is null ? null : take, DrillId ?? take?.DrillId);
        Past = await Takes().Where(past => past.Kept).Take(PastTakes).ToListAsync();
        return View is null ? NotFound() : Page();
    }

    /// <summary>The practice player's take as a WAV.</summary>
    public IActionResult OnGetPractice(string drill, double tempo, SoundStage on, string character, int seed)
    {
        if (Pupil is null)
            return NotFound();
        return Refusing(() =>
        {
            var take = SimulatedPlayer.Play(Pupil.Instrument, on, BuzzDrill.Get(drill).Plan.At(tempo), PracticeCharacter.Get(character).Faults, seed);
            var wav = new MemoryStream();
            WavFile.Write(wav, take.Sound);
            wav.Position = 0;
            return File(wav, "audio/wav", $"practice-{character}.wav");
        });
    }

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentTake sent)
    {
        if (Pupil is null)
            return NotFound();
        if (sent.Sound is null || !ModelState.IsValid)
            return Refuse("The recording did not arrive whole. Record it once more.");
        var own = await OwnSoundAsync(sent.On);
        HeardTake heard;
        AskedTake asked;
        try
        {
            var drill = BuzzDrill.Get(sent.Drill);
            asked = new AskedTake(drill, drill.Plan.At(sent.Tempo), sent.On, Pupil.Stage, sent.FirstCue);
            using var stream = sent.Sound.OpenReadStream();
            var sound = WavFile.Read(stream, Path.GetFileName(sent.Sound.FileName));
            heard = TakeListener.Hear(sound, asked, new JudgedPupil(Approach, own, sent.Tense || await Db.TenseTodayAsync(Pupil.Id, time)));
        }
        catch (Exception problem) when (problem is InvalidDataException or ArgumentException)
        {
            return Refuse(problem.Message);
        }

        var take = Take.Of(Pupil, asked, sent.Source, heard, Approach, time.GetUtcNow().UtcDateTime);
        Db.Takes.Add(take);
        await Db.SaveChangesAsync();
        View = await ViewAsync(take, take.DrillId);
        return Partial("_Heard", View);
    }

    public async Task<IActionResult> OnPostKeepAsync(int id)
    {
        if (await Db.Takes.FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId) is not { } take)
            return NotFound();
        await KeepAsync(take);
        TempData["Told"] = "The take stands in the record.";
        return RedirectToPage(new { pupilId = PupilId, take = id });
    }

    /// <summary>Accepting keeps the take too: it is the reason for the step.</summary>
    public async Task<IActionResult> OnPostAcceptAsync(int id)
    {
        if (await Db.Takes.FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId) is not { } take)
            return NotFound();
        await KeepAsync(take);
        var next = take.Verdict.Next;
        var now = time.GetUtcNow().UtcDateTime;
        foreach (var open in await Db.Steps.Where(step => step.PupilId == take.PupilId && step.DoneAt == null).ToListAsync())
            open.DoneAt = now;
        Db.Steps.Add(new AcceptedStep { PupilId = take.PupilId, TakeId = take.Id, Place = next.Place, DrillId = next.DrillId, Cue = next.Cue, Reason = next.Reason, AcceptedAt = now });
        await Db.SaveChangesAsync();
        return next.Place == NextPlace.Notes
            ? RedirectToPage("/Notes/Index", new { pupilId = PupilId })
            : RedirectToPage(new { pupilId = PupilId, drill = next.DrillId });
    }

    public async Task<IActionResult> OnPostDeleteAsync(int id)
    {
        if (await Db.Takes.FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId) is not { } take)
            return NotFound();
        take.DeletedAt = time.GetUtcNow().UtcDateTime;
        await Db.SaveChangesAsync();
        TempData["Told"] = "The take is gone from the record.";
        TempData["UndoAt"] = $"/buzz/{PupilId}?handler=Restore&id={id}";
        return RedirectToPage(new { pupilId = PupilId });
    }

    public async Task<IActionResult> OnPostRestoreAsync(int id)
    {
        if (await Db.Takes.IgnoreQueryFilters().FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId) is not { } take)
            return NotFound();
        take.DeletedAt = null;
        await Db.SaveChangesAsync();
        TempData["Told"] = "The take is back.";
        return RedirectToPage(new { pupilId = PupilId, take = id });
    }

    private IQueryable<Take> Takes() => Db.Takes.AsNoTracking().Where(take => take.PupilId == Pupil!.Id).OrderByDescending(take => take.RecordedAt).ThenByDescending(take => take.Id);

    private async Task KeepAsync(Take take)
    {
        take.Kept = true;
        foreach (var step in await Db.Steps.Where(step => step.PupilId == take.PupilId && step.DoneAt == null && step.DrillId == take.DrillId && step.TakeId != take.Id).ToListAsync())
            step.DoneAt = time.GetUtcNow().UtcDateTime;
        await Db.SaveChangesAsync();
    }

    private async Task<HeardView?> ViewAsync(Take? take, string? drillId)
    {
        var drill = drillId is null ? BuzzDrill.All[0] : BuzzDrill.All.FirstOrDefault(known => known.Id == drillId);
        var open = await Db.Steps.AsNoTracking().Where(step => step.PupilId == Pupil!.Id && step.DoneAt == null).OrderByDescending(step => step.AcceptedAt).FirstOrDefaultAsync();
        return drill is null ? null : new HeardView(Pupil!, take, drill, open);
    }

    private async Task<OwnSound> OwnSoundAsync(SoundStage on)
    {
        var passed = await Takes().Where(take => take.Kept && take.On == on && take.Outcome == TakeOutcome.Passed).Take(TakesForOwnSound).ToListAsync();
        return OwnSound.From(passed.Select(take => take.Measures));
    }

    private IActionResult Refusing(Func<IActionResult> act)
    {
        try
        {
            return act();
        }
        catch (ArgumentException problem)
        {
            return Refuse(problem.Message);
        }
    }
}
