using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Frame.Takes;

/// <summary>A take that was heard and is not told yet: first the pupil says what it was.</summary>
/// <param name="TakeId">The take.</param>
/// <param name="Was">What it was.</param>
public sealed record GuessAsked(long TakeId, HeardAs Was)
{
    /// <summary>What is asked of a take; null where it may be told at once.</summary>
    public static GuessAsked? Of<T>(Approach approach, Shown<T>? take)
        where T : class, IJudgedPayload =>
        approach.Of(Points.BeforeTheVerdict) == BeforeTheVerdict.GuessFirst
        && take is { Entry: { Kept: false, Id: > 0 }, Payload.Verdict: { HeardAs: { } was, Guessed: null } }
            ? new GuessAsked(take.Entry.Id, was)
            : null;
}

/// <summary>
/// A stop's page on which takes are begun, heard, guessed at, kept, accepted, deleted and brought back: the handlers that are the same at
/// every stop. What is a stop's own stands in its rules; what is done stands in <see cref="StopTakes{T}"/>.
/// </summary>
/// <typeparam name="T">What a take of it has beside its columns.</typeparam>
public abstract class TakePage<T>(Journal journal) : EntriesPage(journal)
    where T : class, IJudgedPayload<T>
{
    private const int PastTakes = 12;

    protected override bool ChecksItself => HttpMethods.IsPost(Request.Method) && Request.Query["handler"] == "Hear";

    [BindProperty(SupportsGet = true, Name = "take")]
    public long? TakeId { get; set; }

    /// <summary>What the sound is to be taken from, where a drill is laid out.</summary>
    [BindProperty(SupportsGet = true, Name = "source")]
    public EntrySource? Source { get; set; }

    /// <summary>Kept takes, the newest first.</summary>
    public IReadOnlyList<Entry> Past { get; protected set; } = [];

    /// <summary>Whether the pupil guesses before the verdict.</summary>
    public bool GuessesFirst => Approach.Of(Points.BeforeTheVerdict) == BeforeTheVerdict.GuessFirst;

    /// <summary>What is this page's own.</summary>
    protected abstract TakeRules<T> Rules { get; }

    /// <summary>The pupil's takes here.</summary>
    protected StopTakes<T> Takes => field ??= new StopTakes<T>(Pupil!, Journal, Health, Rules);

    /// <summary>Under what takes are asked now.</summary>
    protected TakeTerms Terms => new(Pupil!.Stage, Approach, TeachersOwn);

    /// <summary>Takes the pupil's guess down and shows the verdict.</summary>
    public async Task<IActionResult> OnPostGuessAsync(long id, HeardAs said) =>
        await FindAsync(id) is not { } entry ? NotFound()
        : await Takes.GuessAsync(entry, said) is { } take ? await Rules.Show(take)
        : Refuse("This take was told already.");

    /// <summary>Keeps a take.</summary>
    public async Task<IActionResult> OnPostKeepAsync(long id)
    {
        if (await FindAsync(id) is not { } entry)
            return NotFound();
        await Takes.KeepAsync(entry);
        Tell(Rules.KeptWords);
        return RedirectToPage(new { pupilId = Pupil!.Id, take = id });
    }

    /// <summary>Accepts what a take leads to, which keeps it.</summary>
    public async Task<IActionResult> OnPostAcceptAsync(long id)
    {
        if (await FindAsync(id) is not { } entry)
            return NotFound();
        var take = await Takes.AcceptAsync(entry, Approach);
        var next = take.Payload.Verdict.Next;
        Tell(Rules.KeptWords);
        return next.Place == InstrumentFirst.Place && next.DrillId is { } look
            ? LocalRedirect(Stops.At(next.Place.Id)!.StepAddress(Pupil!.Id, look))
            : Rules.Onward(take, next);
    }

    protected override IActionResult ReadOn(Entry entry) =>
        entry.DeletedAt is null && entry.Kind == Rules.Kind.Id
            ? RedirectToPage(new { pupilId = Pupil!.Id, take = entry.Id })
            : RedirectToPage(new { pupilId = Pupil!.Id });

    private async Task<Entry?> FindAsync(long id) => PupilId is null ? null : await Takes.FindAsync(id);

    /// <summary>The take whose number the address has; null for none.</summary>
    /// <param name="takes">Those that may be shown; null for all of the pupil's.</param>
    protected async Task<Shown<T>?> AskedTakeAsync(IQueryable<Entry>? takes = null) =>
        TakeId is { } id ? await Takes.ShownAsync(id, takes ?? Takes.All) : null;

    /// <summary>The kept takes for the list below the fold, and how long has been played.</summary>
    protected async Task LoadPastAsync()
    {
        Past = await Takes.All.Where(take => take.Kept).Take(PastTakes).ToListAsync();
        Playing = await PlayingAsync();
    }

    /// <summary>What the pupil is asked before a take is told; null where it may be told.</summary>
    protected GuessAsked? Asks(Shown<T>? take) => GuessAsked.Of(Approach, take);

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
    /// too long ago.
    /// </summary>
    /// <param name="kind">Its kind.</param>
    /// <param name="given">What the page was given, sealed; null or empty for nothing.</param>
    /// <param name="make">Makes it.</param>
    /// <exception cref="ArgumentException">What came is no request of this room's, or somebody else's.</exception>
    protected async Task<FrozenTake<TRequest>> FrozenAsync<TRequest>(RequestKind<TRequest> kind, string? given, Func<Task<TRequest>> make)
        where TRequest : AskedUnder
    {
        var issued = given is { Length: > 0 } text ? Seal.Open(text, PupilId!.Value, Clock.Now) : null;
        if (issued is not null && issued.Request.Kind != kind.Id)
            throw new ArgumentException("What this take was asked to be belongs to another page. Press Start once more.");
        if (issued is not null)
            return new FrozenTake<TRequest>(kind.Read(issued.Request), issued.Request, Rebuilt: false) { Made = issued.Made };
        var asked = await make();
        return new FrozenTake<TRequest>(asked, kind.Write(asked), Rebuilt: true);
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
        if (Source is not (null or EntrySource.Microphone))
            return new JsonResult(counted);
        var playing = await PlayingAsync();
        return playing.Refusal(PlayingClock.PlayedSeconds(plan), highSeconds, Clock.Now) is { } wait ? Refuse(wait.Sentence)
            : await Journal.WatchFirstAsync(Pupil!) is { } watch ? Refuse(watch)
            : new JsonResult(counted);
    }

    private Task<PlayingClock> PlayingAsync() => Journal.PlayingClockAsync(Pupil!, Pupil!.Limits(Clock.Today, Health, TeachersOwn));

    /// <summary>Hears a recording out in its turn, and shows what was heard.</summary>
    /// <param name="sent">What the page sent.</param>
    /// <param name="hear">What the stop makes of a sound.</param>
    /// <param name="show">How it is shown; null for as any take here.</param>
    protected async Task<IActionResult> HearAsync(
        SentSound? sent,
        Func<TakeToHear, Task<WrittenTake<T>>> hear,
        Func<Shown<T>, Task<IActionResult>>? show = null
    )
    {
        if (Pupil is null)
            return NotFound();
        if (sent?.Sound is not { } file || !ModelState.IsValid)
            return Refuse("The recording did not arrive whole. Record it once more.");
        if (Rules.IsPlaying(sent.Drill) && Health.Refusal(HealthActivity.Playing, Clock.Now) is { } ended)
            return Refuse(ended);
        return await RefusingAsync(() =>
            InTurnAsync(
                file,
                async () =>
                {
                    using var stream = file.OpenReadStream();
                    var sound = sent.PartOf(WavFile.Read(stream, Path.GetFileName(file.FileName)));
                    var take = await Takes.HearAsync(sent, sound, hear, Lesson);
                    if (take.Entry.Id > 0)
                        await CountInAsync(take.Entry);
                    return await (show ?? Rules.Show)(take);
                }
            )
        );
    }

    /// <summary>What a take that was written adds to: the minutes played, and in a lesson the times through.</summary>
    private async Task CountInAsync(Entry entry)
    {
        Playing = await PlayingAsync();
        Third = Lesson is null ? null : await Journal.ThirdTimeAsync(Pupil!.Id, Lesson, entry.Kind, entry.DrillId);
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
}
