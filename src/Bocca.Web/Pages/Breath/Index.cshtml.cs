using Bocca.Core.Breath;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Breath;

/// <summary>A drill that has just been done, and the stream that was heard of it.</summary>
public sealed record BreathOutcome(
    int PupilId,
    BreathEntry Entry,
    string Try,
    IReadOnlyList<StreamHeard> Streams,
    BreathDrill Drill,
    int NextRung
);

/// <summary>A drill as sent by the page.</summary>
public sealed record SentBreath(
    string Drill,
    int Rung,
    double Tempo,
    Guid Key,
    IFormFile? Sound,
    double? First,
    bool? Even,
    bool Stopped,
    double? Seconds
);

/// <summary>The Breath stop: count, listen, keep, and never too much.</summary>
[RequestFormLimits(MultipartBodyLengthLimit = WavFile.MaximumBytes + 1_000_000)]
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastEntries = 12;
    private const int EntriesForLadder = 200;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "rung")]
    public int? RungAsked { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? TempoAsked { get; set; }

    public IReadOnlyList<BreathDrill> Offered { get; private set; } = [];

    public BreathDrill? Drill { get; private set; }

    public int Rung { get; private set; }

    public double Tempo { get; private set; }

    public BreathAnswer? Answer { get; private set; }

    public IReadOnlyList<BreathEntry> Past { get; private set; } = [];

    public UsableBreath? Usable { get; private set; }

    public double? Quickest { get; private set; }

    public BreathDay Day { get; private set; } = BreathDay.Fresh;

    public IReadOnlyList<BalloonEntry> Balloons { get; private set; } = [];

    public string? BalloonTrouble { get; private set; }

    public string? BalloonTyped { get; private set; }

    public BreathingPupil Breathing => Pupil!.Breathing(Today.Date(time));

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        await LoadAsync();
        return Drill is null ? NotFound() : Page();
    }

    /// <summary>
    /// The plan in seconds, or the sentence that refuses it: asked anew at every start, so that no limit is passed by waiting.
    /// </summary>
    public async Task<IActionResult> OnGetPlanAsync(string drill, int rung, double tempo)
    {
        if (Pupil is null || Find(drill) is not { } found || rung < 0 || rung >= found.Rungs.Count || !Approach.Meets(found.When))
            return NotFound();
        var (plan, refusal) = BreathPlan.Make(found, found.Rungs[rung], tempo, Breathing, await Db.BreathDayAsync(Pupil.Id, time));
        return plan is null
            ? Refuse(refusal!)
            : new JsonResult(
                new
                {
                    plan.TotalSeconds,
                    plan.Drill.Seated,
                    Phases = plan.Phases.Select(phase => new
                    {
                        Kind = BreathWords.Of(phase.Kind),
                        Start = phase.StartSeconds,
                        phase.Seconds,
                        phase.Counts,
                    }),
                }
            );
    }

    /// <summary>The practice player's breath as a WAV.</summary>
    public IActionResult OnGetPractice(string drill, int rung, double tempo, string fault, int seed)
    {
        if (Pupil is null || PlanOf(drill, rung, tempo) is not { } plan)
            return NotFound();
        IReadOnlyList<Fault> faults;
        try
        {
            faults = [.. fault.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse)];
        }
        catch (FormatException problem)
        {
            return Refuse(problem.Message);
        }

        var wav = new MemoryStream();
        WavFile.Write(wav, SimulatedBreath.Play(plan, faults, seed));
        wav.Position = 0;
        return File(wav, "audio/wav", "practice-breath.wav");
    }

    /// <summary>Keeps a drill: heard from its recording, tapped as even or not, or stopped. The same one sent twice is kept once.</summary>
    public async Task<IActionResult> OnPostKeepAsync([FromForm] SentBreath sent)
    {
        if (Pupil is null)
            return NotFound();
        if (!ModelState.IsValid || sent.Key == Guid.Empty || PlanOf(sent.Drill, sent.Rung, sent.Tempo) is not { } plan)
            return Refuse("The drill did not arrive whole. Nothing was kept of it.");
        IReadOnlyList<StreamHeard> streams = [];
        BreathVerdict verdict;
        try
        {
            if (sent.Sound is not null && !sent.Stopped)
            {
                using var stream = sent.Sound.OpenReadStream();
                streams = BreathJudge.Streams(plan, WavFile.Read(stream, "The recording"), sent.First ?? 0);
                verdict = BreathJudge.Judge(plan, streams);
            }
            else
            {
                verdict = Tapped(sent);
            }
        }
        catch (InvalidDataException problem)
        {
            return Refuse(problem.Message);
        }

        var entry =
            await Db.Breaths.IgnoreQueryFilters().FirstOrDefaultAsync(kept => kept.Key == sent.Key) ?? await AddAsync(sent, plan, verdict);
        await LoadAsync();
        return Partial(
            "_Outcome",
            new BreathOutcome(
                Pupil.Id,
                entry,
                verdict.Try,
                streams,
                plan.Drill,
                BreathLadder.Next(plan.Drill, Past.Select(past => past.Pass))
            )
        );
    }

    public async Task<IActionResult> OnPostDizzyAsync()
    {
        if (Pupil is null)
            return NotFound();
        Db.Noticed.Add(
            new Noticed
            {
                PupilId = Pupil.Id,
                Signal = "seen.dizzy",
                At = time.GetUtcNow().UtcDateTime,
            }
        );
        await Db.SaveChangesAsync();
        TempData["Told"] = "Sit down and breathe plainly. No more breath drills today. If it comes back, ask a doctor.";
        return RedirectToPage(new { pupilId = PupilId });
    }

    public async Task<IActionResult> OnPostBalloonAsync(string? cm, string across)
    {
        if (Pupil is null)
            return NotFound();
        await LoadAsync();
        BalloonTyped = cm;
        var now = time.GetUtcNow().UtcDateTime;
        BalloonTrouble = Balloon.TooSoon(Balloons.Select(entry => new BalloonReading(entry.Litres, entry.At)), Breathing, now);
        if (BalloonTrouble is null && !double.TryParse(cm?.Replace(',', '.'), out _))
            BalloonTrouble = $"'{cm}' is not a length in centimetres.";
        if (BalloonTrouble is not null)
            return Page();
        var round = double.Parse(cm!.Replace(',', '.')) * (across == "diameter" ? Math.PI : 1);
        BalloonEntry entry;
        try
        {
            entry = new BalloonEntry
            {
                PupilId = Pupil.Id,
                CircumferenceCm = round,
                Litres = Balloon.LitresFromCircumference(round),
                At = now,
            };
        }
        catch (ArgumentOutOfRangeException problem)
        {
            BalloonTrouble = problem.Message.Split(" (Parameter")[0];
            return Page();
        }

        Db.Balloons.Add(entry);
        await Db.SaveChangesAsync();
        TempData["Told"] = $"{entry.Litres:0.0} l stand in the record.";
        TempData["UndoAt"] = $"/breath/{PupilId}?handler=Deflate&id={entry.Id}";
        return RedirectToPage(new { pupilId = PupilId });
    }

    /// <summary>Takes a balloon reading back.</summary>
    public async Task<IActionResult> OnPostDeflateAsync(int id)
    {
        if (await Db.Balloons.FirstOrDefaultAsync(entry => entry.Id == id && entry.PupilId == PupilId) is not { } entry)
            return NotFound();
        entry.DeletedAt = time.GetUtcNow().UtcDateTime;
        await Db.SaveChangesAsync();
        TempData["Told"] = "The reading is gone.";
        return RedirectToPage(new { pupilId = PupilId });
    }

    public async Task<IActionResult> OnPostDeleteAsync(int id) =>
        await MarkAsync<BreathEntry>(
            id,
            time.GetUtcNow().UtcDateTime,
            "The entry is gone; what was breathed still counts for today.",
            "Restore"
        )
            is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    public async Task<IActionResult> OnPostRestoreAsync(int id) =>
        await MarkAsync<BreathEntry>(id, null, "The entry is back.", "Delete") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    private async Task LoadAsync()
    {
        Day = await Db.BreathDayAsync(Pupil!.Id, time);
        Offered = BreathDrill.OfferedTo(Breathing, Approach);
        Past = await Db
            .Breaths.AsNoTracking()
            .Where(entry => entry.PupilId == Pupil.Id)
            .OrderByDescending(entry => entry.At)
            .Take(EntriesForLadder)
            .ToListAsync();
        var passes = Past.Where(entry => !entry.Stopped).Select(entry => entry.Pass).ToList();
        Usable = UsableBreath.From(passes, time.GetUtcNow().UtcDateTime);
        Quickest = RestForBreath.Quickest(passes);
        Balloons = await Db
            .Balloons.AsNoTracking()
            .Where(entry => entry.PupilId == Pupil.Id)
            .OrderByDescending(entry => entry.At)
            .Take(PastEntries)
            .ToListAsync();
        Drill = DrillId is null
            ? Offered.FirstOrDefault(drill => drill.Id == "even-stream") ?? Offered[0]
            : Offered.FirstOrDefault(drill => drill.Id == DrillId);
        if (Drill is null)
            return;
        Rung = Math.Clamp(RungAsked ?? BreathLadder.Next(Drill, passes), 0, Drill.Rungs.Count - 1);
        Tempo = TempoAsked ?? Drill.Tempo;
        Answer = BreathPlan.Make(Drill, Drill.Rungs[Rung], Tempo, Breathing, Day);
        // A rung beyond a pupil's limits is not the next one: the highest that may be done is.
        while (RungAsked is null && Rung > 0 && BreathPlan.Make(Drill, Drill.Rungs[Rung], Tempo, Breathing, BreathDay.Fresh).Plan is null)
            Answer = BreathPlan.Make(Drill, Drill.Rungs[--Rung], Tempo, Breathing, Day);
    }

    private BreathDrill? Find(string id) => BreathDrill.All.FirstOrDefault(drill => drill.Id == id);

    /// <summary>The plan as it may be on a fresh day: what was breathed is kept even when the day's limit has been reached by it.</summary>
    private BreathPlan? PlanOf(string id, int rung, double tempo) =>
        Find(id) is { } drill && rung >= 0 && rung < drill.Rungs.Count
            ? BreathPlan.Make(drill, drill.Rungs[rung], tempo, Breathing, BreathDay.Fresh).Plan
            : null;

    private static BreathVerdict Tapped(SentBreath sent) =>
        sent.Stopped
            ? new BreathVerdict(
                false,
                null,
                null,
                $"Stopped after {sent.Seconds ?? 0:0} s.",
                "Breathe plainly for a while before going on."
            )
        : sent.Even == true ? new BreathVerdict(true, null, null, "Tapped: even to the end.", "The same once more, then the next one up.")
        : new BreathVerdict(
            false,
            null,
            null,
            "Tapped: not even to the end.",
            "The same again, with less at the start and as much at the end."
        );

    private async Task<BreathEntry> AddAsync(SentBreath sent, BreathPlan plan, BreathVerdict verdict)
    {
        var entry = BreathEntry.Of(
            Pupil!,
            plan,
            sent.Rung,
            verdict,
            sent.Sound is not null && !sent.Stopped,
            Approach,
            sent.Key,
            time.GetUtcNow().UtcDateTime
        );
        entry.Stopped = sent.Stopped;
        if (sent.Stopped)
            entry.DrilledSeconds = Math.Clamp(sent.Seconds ?? plan.DrilledSeconds, 0, plan.DrilledSeconds);
        Db.Breaths.Add(entry);
        await Db.SaveChangesAsync();
        return entry;
    }
}
