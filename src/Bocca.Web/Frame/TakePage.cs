using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Pages.Practice;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Bocca.Web.Record.Shapes;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame;

/// <summary>A recording as sent by the page.</summary>
/// <param name="Sound">The sound.</param>
/// <param name="Source">Where it comes from.</param>
/// <param name="FirstCue">When the first try was due, seconds into it; null for a sound with marks of its own.</param>
/// <param name="Tense">Whether the teacher has ticked tension.</param>
/// <param name="Missing">Seconds of it that did not arrive.</param>
/// <param name="Drill">The drill, by its id.</param>
public record SentSound(IFormFile? Sound, EntrySource Source, double? FirstCue, bool Tense, double Missing, string Drill)
{
    /// <summary>Beats that were over when the take was stopped; null for one that went to its end.</summary>
    public double? Finished { get; init; }

    /// <summary>What it was asked to be, as the page was given it when Start was pressed; null where it was not asked.</summary>
    public string? Request { get; init; }

    /// <summary>Whether nothing of it is to be kept: it is heard, shown, and forgotten.</summary>
    public bool? Private { get; init; }

    /// <summary>Whether the practice player made it: it is shown and judged, and nothing of it is anybody's.</summary>
    public bool IsDemonstration => Source == EntrySource.PracticePlayer;

    public double MissingSeconds => Math.Max(0, Missing);
}

/// <summary>A take that was heard and is not told yet: first the pupil says what it was.</summary>
/// <param name="TakeId">The take.</param>
/// <param name="Was">What it was.</param>
public sealed record GuessAsked(long TakeId, HeardAs Was);

/// <summary>A drill as the page counts it.</summary>
public sealed record CountedDrill(
    double BeatSeconds,
    double TotalBeats,
    double SoundSeconds,
    double StartHertz,
    IReadOnlyList<ModelNote> Model,
    IReadOnlyList<ModelNote> Lead,
    IReadOnlyList<double> Ends,
    IReadOnlyList<CountedBeat> Beats
)
{
    /// <summary>What is asked, sealed: it comes back with the sound; null where the stop freezes nothing yet.</summary>
    public string? Request { get; init; }

    /// <summary>What sounds along with the take, each line by itself, as a drone under it.</summary>
    public IReadOnlyList<IReadOnlyList<ModelNote>> Along { get; init; } = [];

    /// <param name="plan">The drill.</param>
    /// <param name="model">What it sounds like; empty where nobody knows its pitch.</param>
    /// <param name="restWords">What to do in a rest.</param>
    /// <param name="startHertz">The pitch that is given before it; 0 for none.</param>
    public static CountedDrill Of(CuePlan plan, IReadOnlyList<ModelNote> model, string restWords = "", double startHertz = 0) =>
        new(
            plan.BeatSeconds,
            plan.TotalBeats,
            plan.SoundSeconds,
            startHertz,
            model,
            ModelLine.Lead(model),
            [.. plan.Tries.Select(cue => cue.StartBeat + cue.SoundBeats)],
            BeatSheet.Of(plan, restWords)
        );
}

/// <summary>
/// A stop's page on which takes are planned, practised, heard, kept, accepted, deleted and brought back. A stop supplies what
/// is its own: what a take is, what its verdict says next, and where that leads.
/// </summary>
/// <typeparam name="T">What a take of it has beside its columns.</typeparam>
public abstract class TakePage<T>(Journal journal) : EntriesPage(journal)
    where T : class
{
    private const int PastTakes = 12;

    private Verdict? _before;
    private TakeRequest? _request;
    private AskedUnder? _asked;
    private bool _rebuilt;

    /// <summary>Of a take that was stopped: how much of it was played, of how much; null for one that went to its end.</summary>
    protected (int Played, int Asked)? Stopped { get; set; }

    /// <summary>For so long what is played after a cue says something of it (ours, editable).</summary>
    private static readonly TimeSpan CueHolds = TimeSpan.FromDays(2);

    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method) && Request.Query["handler"] == "Hear";

    [BindProperty(SupportsGet = true, Name = "take")]
    public long? TakeId { get; set; }

    /// <summary>What the sound is to be taken from, where a drill is laid out.</summary>
    [BindProperty(SupportsGet = true, Name = "source")]
    public EntrySource? Source { get; set; }

    /// <summary>How far the pupil has come, as a request has it.</summary>
    protected string StageText => StoredNames.LearningStages[Pupil!.Stage];

    /// <summary>What the teacher has set otherwise, as a request has it; null for nothing.</summary>
    protected string? OwnText => StoredOwn.Write(TeachersOwn) is { Length: > 0 } own ? own : null;

    /// <summary>Kept takes, the newest first.</summary>
    public IReadOnlyList<Entry> Past { get; protected set; } = [];

    /// <summary>What its takes are in the record.</summary>
    protected abstract EntryKind<T> Kind { get; }

    /// <summary>What the page says of a take that was kept.</summary>
    protected virtual string KeptWords => $"The {Kind.Noun} is saved.";

    /// <summary>Whether the pupil guesses before the verdict.</summary>
    public bool GuessesFirst => Approach.Of(Points.BeforeTheVerdict) == BeforeTheVerdict.GuessFirst;

    /// <summary>The verdict on a take.</summary>
    protected abstract Verdict VerdictOf(T payload);

    /// <summary>The same take with its verdict changed.</summary>
    protected abstract T WithVerdict(T payload, Verdict verdict);

    /// <summary>A take as it is shown on the stage.</summary>
    protected abstract Task<IActionResult> OnStageAsync(Shown<T> take);

    /// <summary>Takes the pupil's guess down and shows the verdict.</summary>
    public async Task<IActionResult> OnPostGuessAsync(long id, HeardAs said)
    {
        if (await TrackedAsync(id) is not { } entry)
            return NotFound();
        var payload = Kind.Read(entry);
        var verdict = VerdictOf(payload);
        if (verdict is not { HeardAs: { } was, Guessed: null } || entry.Kept || !Guess.Choices(was).Contains(said))
            return Refuse("This take was told already.");
        payload = WithVerdict(payload, verdict with { Guessed = said });
        Kind.Rewrite(entry, payload);
        await Db.SaveChangesAsync();
        return await OnStageAsync(new Shown<T>(entry, payload));
    }

    /// <summary>What the pupil is asked before a take is told; null where it may be told.</summary>
    protected GuessAsked? Asks(Shown<T>? take) =>
        GuessesFirst && take is { Entry: { Kept: false, Id: > 0 } } && VerdictOf(take.Payload) is { HeardAs: { } was, Guessed: null }
            ? new GuessAsked(take.Entry.Id, was)
            : null;

    /// <summary>Where an accepted step leads.</summary>
    protected abstract IActionResult Onward(Shown<T> take, NextStep next);

    /// <summary>Keeps a take.</summary>
    public async Task<IActionResult> OnPostKeepAsync(long id)
    {
        if (await TrackedAsync(id) is not { } entry)
            return NotFound();
        await KeepAsync(entry);
        Tell(KeptWords);
        return RedirectToPage(new { pupilId = Pupil!.Id, take = id });
    }

    /// <summary>Accepts what a take leads to. That keeps the take too: it is the reason for the step.</summary>
    public async Task<IActionResult> OnPostAcceptAsync(long id)
    {
        if (await TrackedAsync(id) is not { } entry)
            return NotFound();
        await KeepAsync(entry);
        var take = new Shown<T>(entry, Kind.Read(entry));
        var next = VerdictOf(take.Payload).Next;
        await Journal.AcceptAsync(entry, next, Approach.ToString());
        Tell(KeptWords);
        return next.Place == InstrumentFirst.Place && next.DrillId is { } look
            ? LocalRedirect(Stops.At(next.Place.Id)!.StepAddress(Pupil!.Id, look))
            : Onward(take, next);
    }

    /// <summary>Whether takes of a drill are shown on this page, where several pages keep takes of one kind.</summary>
    protected virtual bool IsShownHere(string? drill) => true;

    /// <summary>Whether a drill is played, so that what hurts ends it; who sings, says or claps wears no lips out.</summary>
    protected virtual bool IsPlaying(string drill) => true;

    /// <summary>Whether lips were at work, whose minutes have to be counted whatever is kept.</summary>
    private static bool IsCounted(Entry entry) => entry.PlayedSeconds is not null;

    private async Task KeepAsync(Entry entry)
    {
        var stands = entry.Kept;
        await Journal.KeepAsync(entry);
        if (!stands)
            await KeptAsync(new Shown<T>(entry, Kind.Read(entry)));
    }

    /// <summary>Something follows from a take that has just been kept.</summary>
    protected virtual Task KeptAsync(Shown<T> take) => Task.CompletedTask;

    protected override IActionResult ReadOn(Entry entry) =>
        entry.DeletedAt is null && entry.Kind == Kind.Id
            ? RedirectToPage(new { pupilId = Pupil!.Id, take = entry.Id })
            : RedirectToPage(new { pupilId = Pupil!.Id });

    /// <summary>Takes of the pupil, the newest first.</summary>
    protected IQueryable<Entry> Takes() => Journal.Of(Pupil!.Id, Kind);

    /// <summary>The take whose number the address has; null for none.</summary>
    protected async Task<Shown<T>?> AskedTakeAsync(IQueryable<Entry> takes) =>
        TakeId is { } id
        && await Journal.ShowAsync(Kind, takes.Include(take => take.Request).Where(take => take.Id == id)) is { } take
        && IsShownHere(take.Entry.DrillId)
            ? take
            : null;

    /// <summary>The drill of the last take kept; null for none.</summary>
    protected Task<string?> LastDrillAsync() => Takes().Where(take => take.Kept).Select(take => take.DrillId).FirstOrDefaultAsync();

    /// <summary>The kept takes for the list below the fold.</summary>
    protected async Task LoadPastAsync()
    {
        Past = await Takes().Where(take => take.Kept).Take(PastTakes).ToListAsync();
        Playing = await PlayingAsync();
    }

    /// <summary>What a take was asked to be, as it stands beside it; null where it is of before requests were kept.</summary>
    protected static TRequest? AskedIn<TRequest>(RequestKind<TRequest> kind, Shown<T>? take)
        where TRequest : AskedUnder => take?.Entry.Request is { } request ? kind.Read(request) : null;

    /// <summary>A drill as the page counts it, with what is asked sealed in it.</summary>
    /// <exception cref="ArgumentException">No recording holds it.</exception>
    protected CountedDrill Asking<TRequest>(CountedDrill counted, RequestKind<TRequest> kind, TRequest asked)
        where TRequest : AskedUnder
    {
        RefuseTooLong(counted.TotalBeats * counted.BeatSeconds);
        return counted with { Request = Seal.Seal(new IssuedRequest(kind.Write(asked), PupilId, Clock.Now)) };
    }

    /// <summary>
    /// What a take was asked to be: as the page was given it, or made now from what was sent beside the sound where nothing was given, or
    /// too long ago. The approach and the teacher's own numbers of then hold from here on.
    /// </summary>
    /// <exception cref="ArgumentException">What came is no request of this room's, or somebody else's.</exception>
    protected async Task<TRequest> RequestOfAsync<TRequest>(RequestKind<TRequest> kind, SentSound sent, Func<Task<TRequest>> make)
        where TRequest : AskedUnder
    {
        var issued = sent.Request is { Length: > 0 } text ? Seal.Open(text, PupilId!.Value, Clock.Now) : null;
        if (issued is not null && issued.Request.Kind != kind.Id)
            throw new ArgumentException("What this take was asked to be belongs to another page. Press Start once more.");
        _rebuilt = issued is null;
        var asked = issued is null ? await make() : kind.Read(issued.Request);
        _request = issued?.Request ?? kind.Write(asked);
        (_asked, Approach, TeachersOwn) = (asked, Approach.Parse(asked.Approach), asked.ReadOwn());
        return asked;
    }

    private RequestSeal Seal => HttpContext.RequestServices.GetRequiredService<RequestSeal>();

    /// <summary>
    /// A drill beat by beat; or why it waits: something hurts, the lips are due a rest, the notes above the ceiling have had their time.
    /// </summary>
    /// <param name="counted">The drill.</param>
    /// <param name="plan">The same as tries.</param>
    /// <param name="highSeconds">Seconds of it above the pupil's ceiling.</param>
    protected async Task<IActionResult> CountedAsync(CountedDrill counted, CuePlan plan, double highSeconds = 0)
    {
        if (Health.Refusal(HealthActivity.Playing, Clock.Now) is { } ended)
            return Refuse(ended);
        if (!IsPlayed(Source ?? EntrySource.Microphone))
            return new JsonResult(counted);
        var playing = await PlayingAsync();
        return playing.Refusal(PlayingClock.PlayedSeconds(plan), highSeconds, Clock.Now) is { } wait ? Refuse(wait.Sentence)
            : await Journal.WatchFirstAsync(Pupil!) is { } watch ? Refuse(watch)
            : new JsonResult(counted);
    }

    /// <summary>Whether a sound from somewhere has just been played here.</summary>
    private static bool IsPlayed(EntrySource source) => source == EntrySource.Microphone;

    private Task<PlayingClock> PlayingAsync() => Journal.PlayingClockAsync(Pupil!, Pupil!.Limits(Clock.Today, Health, TeachersOwn));

    /// <summary>The step that is open for the pupil at this stop; null for none.</summary>
    protected Task<Entry?> OpenStepAsync()
    {
        var place = Stops.OfKind(Kind.Id).Place;
        return Journal.Of(Pupil!.Id, Steps.Kind).Where(step => step.DoneAt == null && step.Subject == place).FirstOrDefaultAsync();
    }

    /// <summary>
    /// Hears a recording out and writes what was heard, not yet kept; nothing stays of its sound. A demonstration is shown and not written.
    /// </summary>
    protected async Task<IActionResult> HearAsync(
        SentSound? sent,
        Func<MonoSound, Task<(Entry Entry, T Payload)>> hear,
        Func<Shown<T>, Task<IActionResult>> show
    )
    {
        if (Pupil is null)
            return NotFound();
        if (sent?.Sound is null || !ModelState.IsValid)
            return Refuse("The recording did not arrive whole. Record it once more.");
        if (IsPlaying(sent.Drill) && Health.Refusal(HealthActivity.Playing, Clock.Now) is { } ended)
            return Refuse(ended);
        return await RefusingAsync(() =>
            InTurnAsync(
                sent.Sound,
                async () =>
                {
                    using var stream = sent.Sound.OpenReadStream();
                    _before = sent.IsDemonstration ? null : await BeforeAsync(sent.Drill);
                    var (entry, payload) = await hear(WavFile.Read(stream, Path.GetFileName(sent.Sound.FileName)));
                    if (_before is not null && VerdictOf(payload) is var verdict)
                        payload = WithVerdict(payload, verdict with { Came = CueHistory.Came(_before, verdict) });
                    if (Stopped is (var done, var whole))
                    {
                        var told = VerdictOf(payload).StoppedAfter(done, whole, (new Place(Stops.OfKind(Kind.Id).Place), entry.DrillId));
                        payload = WithVerdict(payload, told);
                        (entry.Outcome, entry.Summary) = (told.Outcome, told.Summary);
                    }

                    if (_asked is not null && entry.InstrumentId is not null)
                        entry.InstrumentId = _asked.On.Instrument;
                    if (!IsPlayed(sent.Source))
                        (entry.PlayedSeconds, entry.HighSeconds) = (null, null);
                    (entry.Request, entry.Rebuilt) = (_request, _request is not null && _rebuilt);
                    if (sent.IsDemonstration || (sent.Private == true && !IsCounted(entry)))
                        return await show(new Shown<T>(entry, payload));
                    if (_request is not null)
                        entry.Request = await Journal.RequestAsync(_request);
                    var take = await Journal.WriteAsync(Kind, entry, payload, Approach.ToString());
                    Playing = await PlayingAsync();
                    Third = Lesson is null ? null : await Journal.ThirdTimeAsync(Pupil.Id, Lesson, entry.Kind, entry.DrillId);
                    return await show(take);
                }
            )
        );
    }

    /// <summary>The verdict that the take of the same drill before this one ended with, and its cue; null for none lately.</summary>
    private async Task<Verdict?> BeforeAsync(string drill)
    {
        var since = Clock.Now - CueHolds;
        if (await Journal.ShowAsync(Kind, Takes().Where(take => take.DrillId == drill && take.At >= since)) is not { } before)
            return null;
        var verdict = VerdictOf(before.Payload);
        // A cue that the teacher gave after it is the one that was tried.
        var given = Lesson is null
            ? null
            : await Journal
                .Of(Pupil!.Id, PracticeStop.Cues)
                .Where(cue => cue.At > before.Entry.At)
                .Select(cue => cue.Subject)
                .FirstOrDefaultAsync();
        return given is null ? verdict : verdict with { Next = verdict.Next with { Given = given } };
    }

    /// <summary>The practice player's take as a WAV. It rests before its first note; the page counts in itself.</summary>
    protected FileStreamResult Played(MonoSound sound, string character, double restSeconds = 0)
    {
        var wav = new MemoryStream();
        WavFile.Write(
            wav,
            restSeconds > 0 ? new MonoSound(sound.Samples[(int)(restSeconds * sound.SampleRate)..], sound.SampleRate) : sound
        );
        wav.Position = 0;
        return File(wav, "audio/wav", $"practice-{character}.wav");
    }

    /// <summary>Who is judged, with all that the record knows.</summary>
    protected async Task<SoundingPupil> JudgedAsync(SoundStage on, bool tense)
    {
        var (scale, own) = await Journal.OwnSoundAsync(Pupil!.Id, on);
        return new SoundingPupil(Approach, own, tense || Health.Softens || await Journal.TenseTodayAsync(Pupil.Id))
        {
            Symptoms = Symptoms,
            Bands = Health.Softens ? Bands.Wider : Bands,
            Scale = scale,
            Known = await Journal.KnownAsync(Pupil.Id),
            LooksFirst = on == SoundStage.Instrument && !await Journal.LookedTodayAsync(Pupil),
            Cues = await Journal.CuesAsync(Pupil.Id),
            Before = _before,
            Day = Clock.Today,
        };
    }

    private async Task<Entry?> TrackedAsync(long id) =>
        await Db
            .Entries.Include(entry => entry.Payload)
            .Include(entry => entry.Request)
            .FirstOrDefaultAsync(entry => entry.Id == id && entry.PupilId == PupilId && entry.Kind == Kind.Id)
            is { } entry
        && IsShownHere(entry.DrillId)
            ? entry
            : null;
}
