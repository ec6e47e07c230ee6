using Bocca.Core;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Breath;

/// <summary>A drill that has just been done, and the stream that was heard of it.</summary>
public sealed record BreathOutcome(
    Entry Entry,
    BreathPayload Payload,
    string Try,
    IReadOnlyList<StreamHeard> Streams,
    BreathDrill Drill,
    int NextRung
)
{
    public int Rung => (int)BreathStop.Rung.Of(Entry)!.Value;

    public double Seconds => Entry.SoundedSeconds!.Value;

    public bool Even => BreathStop.Pass(Entry).Even;

    public bool IsDemonstration => Entry.Source == EntrySource.PracticePlayer;
}

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
    double? Seconds,
    EntrySource? Source
);

/// <summary>The Breath stop: count, listen, keep, and never too much.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class IndexModel(Journal journal) : EntriesPage(journal)
{
    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method) && Request.Query["handler"] == "Keep";

    private const int PastEntries = 12,
        EntriesForLadder = 200;

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

    public IReadOnlyList<Entry> Past { get; private set; } = [];

    public UsableBreath? Usable { get; private set; }

    public double? Quickest { get; private set; }

    public BreathDay Day { get; private set; } = BreathDay.Fresh;

    public IReadOnlyList<BalloonReading> Balloons { get; private set; } = [];

    public string? BalloonTrouble { get; private set; }

    public string? BalloonTyped { get; private set; }

    public BreathingPupil Breathing => Pupil!.Breathing(Clock.Today, TeachersOwn);

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
        if (Health.Refusal(HealthActivity.Breathing, Clock.Now) is { } ended)
            return Refuse(ended);
        var (plan, refusal) = BreathPlan.Make(found, found.Rungs[rung], tempo, Breathing, await Journal.BreathDayAsync(Pupil.Id, Health));
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
                        Air = BreathWords.Of(phase.Air),
                        Start = phase.StartSeconds,
                        phase.Seconds,
                        phase.Counts,
                    }),
                }
            );
    }

    /// <summary>The practice player's breath as a WAV; without a fault it is even.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(string drill, int rung, double tempo, string? fault, int seed)
    {
        if (Pupil is null || PlanOf(drill, rung, tempo) is not { } plan)
            return NotFound();
        return await PlayedInTurnAsync(
            plan.TotalSeconds,
            () =>
            {
                var faults = (fault ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Fault.Parse);
                var wav = new MemoryStream();
                WavFile.Write(wav, SimulatedBreath.Play(plan, [.. faults], seed));
                wav.Position = 0;
                return File(wav, "audio/wav", "practice-breath.wav");
            }
        );
    }

    /// <summary>Keeps a drill: heard from its recording, tapped as even or not, or stopped. The same one sent twice is kept once.</summary>
    public async Task<IActionResult> OnPostKeepAsync([FromForm] SentBreath sent)
    {
        if (Pupil is null)
            return NotFound();
        if (!ModelState.IsValid || sent.Key == Guid.Empty || PlanOf(sent.Drill, sent.Rung, sent.Tempo) is not { } plan)
            return Refuse("The drill did not arrive whole. Nothing was kept of it.");
        // A drill that was stopped was breathed up to there: it counts for the day.
        if (!sent.Stopped && Health.Refusal(HealthActivity.Breathing, Clock.Now) is { } ended)
            return Refuse(ended);
        return await RefusingAsync(() =>
            sent is { Sound: { } sound, Stopped: false } ? InTurnAsync(sound, () => KeepAsync(sent, plan)) : KeepAsync(sent, plan)
        );
    }

    private async Task<IActionResult> KeepAsync(SentBreath sent, BreathPlan plan)
    {
        IReadOnlyList<StreamHeard> streams = [];
        BreathVerdict verdict;
        var heard = sent.Sound is not null && !sent.Stopped;
        if (heard)
        {
            using var stream = sent.Sound!.OpenReadStream();
            streams = BreathJudge.Streams(plan, WavFile.Read(stream, "The recording"), sent.First ?? 0);
            verdict = BreathJudge.Judge(plan, streams);
        }
        else
        {
            verdict = sent.Stopped ? BreathVerdict.Stopped(sent.Seconds ?? 0) : BreathVerdict.Tapped(sent.Even == true);
        }

        EntrySource? source = heard ? sent.Source ?? EntrySource.Microphone : null;
        // What the practice player breathed is shown, and is no breath of the pupil's.
        var (entry, payload) =
            source == EntrySource.PracticePlayer
                ? BreathStop.Drill(Pupil!, plan, sent.Rung, verdict, source, sent.Key, Clock.Now)
                : await StandingAsync(sent.Key) ?? await AddOnceAsync(sent, plan, verdict, source);
        await LoadAsync();
        var next = BreathLadder.Next(plan.Drill, Past.Select(BreathStop.Pass));
        return Partial("_Outcome", new BreathOutcome(entry, payload, verdict.Try, streams, plan.Drill, next));
    }

    public async Task<IActionResult> OnPostBalloonAsync(string? cm, string? across)
    {
        if (Pupil is null)
            return NotFound();
        await LoadAsync();
        if (Drill is null)
            return NotFound();
        BalloonTyped = cm;
        BalloonTrouble = Health.Refusal(HealthActivity.Breathing, Clock.Now) ?? Balloon.TooSoon(Balloons, Breathing, Clock.Now);
        if (BalloonTrouble is null && !double.TryParse(cm?.Replace(',', '.'), out _))
            BalloonTrouble = $"'{cm}' is not a length in centimetres.";
        if (BalloonTrouble is not null)
            return Page();
        var round = double.Parse(cm!.Replace(',', '.')) * (across == "diameter" ? Math.PI : 1);
        double litres;
        try
        {
            litres = Balloon.LitresFromCircumference(round);
        }
        catch (ArgumentOutOfRangeException problem)
        {
            BalloonTrouble = OneLine.Of(problem);
            return Page();
        }

        var entry = new Entry
        {
            PupilId = Pupil.Id,
            Kind = BreathStop.Balloons.Id,
            Result = EntryResult.Of(BreathStop.Litres, litres),
            At = Clock.Now,
            Summary = $"{litres:0.0} l.",
        };
        await Journal.WriteAsync(BreathStop.Balloons, entry, new BalloonPayload(round), Approach.ToString());
        Tell($"{litres:0.0} l are saved.", "Delete", entry.Id);
        return RedirectToPage(new { pupilId = Pupil!.Id });
    }

    private async Task LoadAsync()
    {
        Day = await Journal.BreathDayAsync(Pupil!.Id, Health);
        Offered = BreathDrill.OfferedTo(Breathing, Approach);
        Past = await Journal.Of(Pupil.Id, BreathStop.Drills).Take(EntriesForLadder).ToListAsync();
        var passes = Past.Select(BreathStop.Pass).ToList();
        Usable = UsableBreath.From(passes, Clock.Now);
        Quickest = RestForBreath.Quickest(passes);
        Balloons =
        [
            .. (await Journal.Of(Pupil.Id, BreathStop.Balloons).Take(PastEntries).ToListAsync()).Select(entry => new BalloonReading(
                BreathStop.Litres.Of(entry) ?? 0,
                entry.At
            )),
        ];
        Drill = DrillId is null
            ? Offered.FirstOrDefault(drill => drill.Id == "even-stream") ?? Offered[0]
            : Offered.FirstOrDefault(drill => drill.Id == DrillId);
        if (Drill is null)
            return;
        Tempo = TempoAsked ?? Drill.Tempo;
        Rung = RungAsked is { } asked
            ? Math.Clamp(asked, 0, Drill.Rungs.Count - 1)
            : BreathLadder.Allowed(Drill, BreathLadder.Next(Drill, passes), Tempo, Breathing);
        Answer = Health.Refusal(HealthActivity.Breathing, Clock.Now) is { } ended
            ? new BreathAnswer(null, ended)
            : BreathPlan.Make(Drill, Drill.Rungs[Rung], Tempo, Breathing, Day);
    }

    private static BreathDrill? Find(string id) => BreathDrill.All.FirstOrDefault(drill => drill.Id == id);

    /// <summary>The plan as it may be on a fresh day: what was breathed is kept even when the day's limit has been reached by it.</summary>
    private BreathPlan? PlanOf(string id, int rung, double tempo) =>
        Find(id) is { } drill && rung >= 0 && rung < drill.Rungs.Count
            ? BreathPlan.Make(drill, drill.Rungs[rung], tempo, Breathing, BreathDay.Fresh).Plan
            : null;

    /// <summary>The drill that a page sent before under the same key.</summary>
    private async Task<(Entry, BreathPayload)?> StandingAsync(Guid key) =>
        await Db
            .Entries.IgnoreQueryFilters()
            .Include(entry => entry.Payload)
            .FirstOrDefaultAsync(entry => entry.Key == key && entry.PupilId == PupilId && entry.Kind == BreathStop.Drills.Id)
            is { } entry
            ? (entry, BreathStop.Drills.Read(entry))
            : null;

    /// <summary>Adds a drill; sent twice at the same moment, the one that came first stands for both.</summary>
    private async Task<(Entry, BreathPayload)> AddOnceAsync(SentBreath sent, BreathPlan plan, BreathVerdict verdict, EntrySource? source)
    {
        try
        {
            return await AddAsync(sent, plan, verdict, source);
        }
        catch (DbUpdateException)
        {
            Db.ChangeTracker.Clear();
            return await StandingAsync(sent.Key) ?? throw new InvalidDataException("The drill could not be kept. Send it once more.");
        }
    }

    private async Task<(Entry, BreathPayload)> AddAsync(SentBreath sent, BreathPlan plan, BreathVerdict verdict, EntrySource? source)
    {
        var (entry, payload) = BreathStop.Drill(Pupil!, plan, sent.Rung, verdict, source, sent.Key, Clock.Now);
        if (sent.Stopped)
        {
            entry.ElapsedSeconds = Math.Clamp(sent.Seconds ?? plan.DrilledSeconds, 0, plan.DrilledSeconds);
            entry.Outcome = Core.Judging.Outcome.StepBack;
            payload = payload with { Stopped = true };
        }

        await Journal.WriteAsync(BreathStop.Drills, entry, payload, Approach.ToString());
        return (entry, payload);
    }
}
