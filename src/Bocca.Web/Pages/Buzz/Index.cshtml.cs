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
public sealed record HeardView(Pupil Pupil, Take? Take, BuzzDrill Drill, AcceptedStep? Open)
{
    /// <summary>The pupil's own scale, where there is one for what is played on.</summary>
    public ScaleView? Scale { get; init; }

    /// <summary>Rounds of the drill today, where it comes in rounds.</summary>
    public DayRounds? Rounds { get; init; }

    /// <summary>Whether the mouthpiece may be left; null off the mouthpiece.</summary>
    public MouthpieceGate? Gate { get; init; }
}

/// <summary>The pupil's own scale, with where takes lie on it.</summary>
public sealed record ScaleView(OwnScale Scale, DateTime Made, double? Now, IReadOnlyList<double> Earlier)
{
    public string Words =>
        Now switch
        {
            null => "Tight, centred and open as this pupil makes them.",
            < -OwnScale.Near => $"This take is near the own too tight sound, {-Now:0.0} of the way from centred.",
            > OwnScale.Near => $"This take is near the own too open sound, {Now:0.0} of the way from centred.",
            _ => $"This take lies near the own centred sound, {Math.Abs(Now.Value):0.0} of the way towards {(Now < 0 ? "tight" : "open")}.",
        };
}

/// <summary>A recording as sent by the page.</summary>
public sealed record SentTake(
    IFormFile? Sound,
    string Drill,
    double Tempo,
    SoundStage On,
    SoundSource Source,
    double? FirstCue,
    bool Tense,
    double Missing
);

/// <summary>A drill as the page counts it.</summary>
public sealed record CountedDrill(
    double BeatSeconds,
    double TotalBeats,
    double SoundSeconds,
    double ModelHertz,
    IReadOnlyList<CountedBeat> Beats
);

/// <summary>The Buzz stop: record, hear, see, accept, keep.</summary>
[RequestFormLimits(MultipartBodyLengthLimit = WavFile.MaximumBytes + 1_000_000)]
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastTakes = 12;
    private const int TakesOfHistory = 30;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "take")]
    public int? TakeId { get; set; }

    public HeardView? View { get; private set; }

    public IReadOnlyList<Take> Past { get; private set; } = [];

    /// <summary>The measures over weeks.</summary>
    public IReadOnlyList<MeasureHistory> Histories { get; private set; } = [];

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
        Histories = await HistoriesAsync(View?.Take?.On ?? SoundStage.Mouthpiece);
        return View is null ? NotFound() : Page();
    }

    /// <summary>The drill beat by beat, or a refusal where it would be too much for today.</summary>
    public async Task<IActionResult> OnGetPlanAsync(string drill, double tempo, SoundStage on)
    {
        if (Pupil is null)
            return NotFound();
        if (BuzzDrill.All.FirstOrDefault(known => known.Id == drill) is not { } asked)
            return Refuse($"'{drill}' is not a drill.");
        if (!asked.On.Contains(on))
            return Refuse($"{asked.Name} is played on the {string.Join(" or the ", asked.On.Select(Say.On))}. Choose that under On.");
        var plan = asked.Plan.At(tempo);
        var start = Today.Start(time);
        var onLips = await Db
            .Takes.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(take => take.PupilId == Pupil.Id && take.On == SoundStage.Lips && take.RecordedAt >= start)
            .Select(take => new { take.DrillId, take.Tempo })
            .ToListAsync();
        var seconds = onLips.Sum(take =>
            BuzzDrill.All.FirstOrDefault(known => known.Id == take.DrillId)?.Plan.At(take.Tempo).TotalSeconds ?? 0
        );
        if (LipTime.Refusal(plan, on, seconds) is { } refusal)
            return Refuse(refusal);
        var model = Approach["match.pitch"] == "a" && asked.Aim != DrillAim.Reference ? asked.StartHz(Pupil.Instrument) : 0;
        return new JsonResult(
            new CountedDrill(
                plan.BeatSeconds,
                plan.TotalBeats,
                plan.SoundSeconds,
                model,
                BeatSheet.Of(plan, BeatSheet.RestWords(Approach, on))
            )
        );
    }

    /// <summary>The practice player's take as a WAV.</summary>
    public IActionResult OnGetPractice(string drill, double tempo, SoundStage on, string character, int seed)
    {
        if (Pupil is null)
            return NotFound();
        return Refusing(() =>
        {
            var asked = BuzzDrill.Get(drill);
            var faults = asked
                .Played.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(Fault.Parse)
                .Concat(PracticeCharacter.Get(character).Faults);
            var take = SimulatedPlayer.Play(Pupil.Instrument, on, asked.Plan.At(tempo), [.. faults], seed, asked.StartHz(Pupil.Instrument));
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
        HeardTake heard;
        AskedTake asked;
        try
        {
            var drill = BuzzDrill.Get(sent.Drill);
            asked = new AskedTake(drill, drill.Plan.At(sent.Tempo), sent.On, Pupil.Stage, sent.FirstCue, Math.Max(0, sent.Missing));
            using var stream = sent.Sound.OpenReadStream();
            var sound = WavFile.Read(stream, Path.GetFileName(sent.Sound.FileName));
            heard = TakeListener.Hear(sound, asked, await JudgedAsync(asked, sent.Tense));
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
        await AcceptAsync(next.Place, next, time.GetUtcNow().UtcDateTime, take.Id);
        return next.Place == NextPlace.Notes
            ? RedirectToPage("/Notes/Index", new { pupilId = PupilId })
            : RedirectToPage(new { pupilId = PupilId, drill = next.DrillId });
    }

    public async Task<IActionResult> OnPostDeleteAsync(int id) =>
        await MarkAsync<Take>(id, time.GetUtcNow().UtcDateTime, "The take is gone from the record.", "Restore") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    public async Task<IActionResult> OnPostRestoreAsync(int id) =>
        await MarkAsync<Take>(id, null, "The take is back.", "Delete") is not null
            ? RedirectToPage(new { pupilId = PupilId, take = id })
            : NotFound();

    private IQueryable<Take> Takes() =>
        Db
            .Takes.AsNoTracking()
            .Where(take => take.PupilId == Pupil!.Id)
            .OrderByDescending(take => take.RecordedAt)
            .ThenByDescending(take => take.Id);

    private async Task KeepAsync(Take take)
    {
        take.Kept = true;
        foreach (
            var step in await Db
                .Steps.Where(step =>
                    step.PupilId == take.PupilId && step.DoneAt == null && step.DrillId == take.DrillId && step.TakeId != take.Id
                )
                .ToListAsync()
        )
            step.DoneAt = time.GetUtcNow().UtcDateTime;
        await Db.SaveChangesAsync();
    }

    private async Task<HeardView?> ViewAsync(Take? take, string? drillId)
    {
        var drill = drillId is null ? BuzzDrill.All[0] : BuzzDrill.All.FirstOrDefault(known => known.Id == drillId);
        if (drill is null)
            return null;
        var open = await Db
            .Steps.AsNoTracking()
            .Where(step => step.PupilId == Pupil!.Id && step.DoneAt == null)
            .OrderByDescending(step => step.AcceptedAt)
            .FirstOrDefaultAsync();
        var on = take?.On ?? drill.On.FirstOrDefault(stage => stage == SoundStage.Mouthpiece, drill.On[0]);
        return new HeardView(Pupil!, take, drill, open)
        {
            Scale = await ScaleAsync(take, on),
            Rounds = await RoundsAsync(drill),
            Gate = on == SoundStage.Mouthpiece ? MouthpieceGate.Of(Approach, await GateTakesAsync(), Today.Date(time)) : null,
        };
    }

    /// <summary>Everything that is known about the pupil when a take is judged.</summary>
    private async Task<JudgedPupil> JudgedAsync(AskedTake asked, bool tense)
    {
        var (scale, own) = await Db.OwnSoundAsync(Pupil!.Id, asked.On);
        var last = await Takes().Where(take => take.Kept && take.On == asked.On && take.DrillId == asked.Drill.Id).FirstOrDefaultAsync();
        return new JudgedPupil(Approach, own, tense || await Db.TenseTodayAsync(Pupil!.Id, time))
        {
            Scale = scale,
            Known = await Db.KnownAsync(Pupil!.Id, time),
            // The gate is for those who have not left the mouthpiece yet.
            Earlier = asked.On == SoundStage.Mouthpiece && Pupil.Stage <= LearningStage.Mouthpiece ? await GateTakesAsync() : null,
            Day = Today.Date(time),
            HeldAgainstHz =
                asked.On == SoundStage.Instrument || asked.Drill.Aim == DrillAim.Reference ? null
                : Approach["match.pitch"] == "a" ? asked.Drill.StartHz(Pupil.Instrument)
                : last?.Measures.Median(attempt => attempt.MedianHz),
        };
    }

    private async Task<ScaleView?> ScaleAsync(Take? take, SoundStage on)
    {
        var samples = take?.DrillId == OwnSounds.SamplesDrill ? take : await Db.SamplesAsync(Pupil!.Id, on);
        if (samples is null || OwnScale.From(samples.Measures) is not { } scale)
            return null;
        var since = samples.RecordedAt;
        var earlier = await Takes()
            .Where(other =>
                other.Kept
                && other.On == on
                && other.DrillId != OwnSounds.SamplesDrill
                && other.RecordedAt >= since
                && (take == null || other.Id != take.Id)
            )
            .Take(PastTakes)
            .ToListAsync();
        return new ScaleView(
            scale,
            since,
            take?.Verdict.OnOwnScale,
            [.. earlier.Select(other => other.Verdict.OnOwnScale).OfType<double>()]
        );
    }

    private async Task<DayRounds?> RoundsAsync(BuzzDrill drill)
    {
        if (drill.Rounds is not { } rounds)
            return null;
        var start = Today.Start(time);
        var played = await Takes()
            .Where(take => take.DrillId == drill.Id && take.RecordedAt >= start && take.Outcome != TakeOutcome.CannotTell)
            .Select(take => take.RecordedAt)
            .ToListAsync();
        return DayRounds.Of(played, rounds.ADay, rounds.ApartMinutes, time.GetUtcNow().UtcDateTime);
    }

    private async Task<IReadOnlyList<GateTake>> GateTakesAsync()
    {
        var takes = await Takes()
            .Where(take =>
                take.Kept
                && take.On == SoundStage.Mouthpiece
                && take.DrillId != OwnSounds.SamplesDrill
                && take.Outcome != TakeOutcome.CannotTell
            )
            .Take(TakesOfHistory)
            .ToListAsync();
        return
        [
            .. Enumerable
                .Reverse(takes)
                .Select(take =>
                    GateTake.Of(
                        take.Measures,
                        take.Verdict.Findings.Select(finding => finding.Tries),
                        DateOnly.FromDateTime(take.RecordedAt),
                        take.Outcome
                    )
                ),
        ];
    }

    /// <summary>Measures over weeks, of takes of the plain drills on one thing.</summary>
    private async Task<IReadOnlyList<MeasureHistory>> HistoriesAsync(SoundStage on)
    {
        var takes = await Takes()
            .Where(take => take.Kept && take.On == on && take.DrillId != OwnSounds.SamplesDrill && take.Outcome != TakeOutcome.CannotTell)
            .Take(TakesOfHistory)
            .ToListAsync();
        return MeasureHistory.Of([.. Enumerable.Reverse(takes).Select(take => new DatedTake(take.RecordedAt, take.Measures))]);
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
