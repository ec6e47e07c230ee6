using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Aims;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Judging;
using Bocca.Core.Practice;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Buzz;

/// <summary>A take on the stage, with what may be done about it.</summary>
public sealed record HeardView(Pupil Pupil, Shown<BuzzPayload>? Take, BuzzDrill Drill, Entry? Open, RoomClock Clock)
{
    /// <summary>Where in the take it went otherwise first, seconds into it; null where it did not.</summary>
    public string? Place =>
        Take
            ?.Payload.Threads.Marks.Where(mark => mark.Outside)
            .Select(mark => mark.Try)
            .Order()
            .Select(StartOf)
            .FirstOrDefault(at => at != null);

    private string? StartOf(int number) =>
        Take!.Payload.Measures.Attempts.FirstOrDefault(attempt => attempt.Number == number)?.StartSeconds is { } start
            ? $"{start:0.##}"
            : null;

    /// <summary>The take that the pupil is to guess at first; null for none.</summary>
    public GuessAsked? Guessing { get; init; }

    /// <summary>What it is played on.</summary>
    public required SoundStage On { get; init; }

    /// <summary>The gate with what is asked, before anything is drawn into it.</summary>
    public required ThreadDrawing Empty { get; init; }

    /// <summary>What is asked on a few lines, where the tries are of several kinds; null where they are laid over each other.</summary>
    public StripDrawing? EmptyStrip { get; init; }

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
            > OwnScale.Near => $"This take is near your too-open sample, {Now:0.0} of the way from centred.",
            _ => $"This take lies near the own centred sound, {Math.Abs(Now.Value):0.0} of the way towards {(Now < 0 ? "tight" : "open")}.",
        };
}

/// <summary>A recording of a drill as sent by the page.</summary>
public sealed record SentBuzz(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    double Tempo,
    SoundStage On
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill);

/// <summary>The Buzz stop: record, hear, see, accept, keep.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class IndexModel(Journal journal) : TakePage<BuzzPayload>(journal)
{
    private const int TakesOfHistory = 30,
        PlacedTakes = 12;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    /// <summary>What it is to be played on; null for what the drill is usually played on.</summary>
    [BindProperty(SupportsGet = true, Name = "on")]
    public SoundStage? On { get; set; }

    public HeardView? View { get; private set; }

    /// <summary>The drills as they are played here.</summary>
    public IReadOnlyList<BuzzDrill> Drills => field ??= [.. BuzzDrill.All.Select(drill => drill.With(TeachersOwn))];

    /// <summary>The measures over weeks.</summary>
    public IReadOnlyList<FigureHistory> Histories { get; private set; } = [];

    /// <summary>How steady the takes of the list were, by entry.</summary>
    public IReadOnlyDictionary<long, double> Steadiness { get; private set; } = new Dictionary<long, double>();

    protected override TakeRules<BuzzPayload> Rules => new(BuzzStop.Takes, OnStageAsync, Onward);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        // What stands under Heard was just played, or was asked for by its number: a stop that is opened has an empty stage.
        var take = await AskedTakeAsync();
        if (TakeId is not null && take is null)
            return NotFound();
        View = await ViewAsync(take, DrillId ?? take?.Entry.DrillId ?? await Takes.LastDrillAsync() ?? await FirstDrillAsync());
        if (View is null)
            return NotFound();
        await LoadPastAsync();
        var listed = Past.Select(past => past.Id).ToList();
        Steadiness = await Db
            .Figures.Where(figure => listed.Contains(figure.EntryId) && figure.Name == BuzzFigures.Steadiness.Name)
            .ToDictionaryAsync(figure => figure.EntryId, figure => figure.Value);
        Histories = await HistoriesAsync(take?.Entry.Stage ?? SoundStage.Mouthpiece);
        return Page();
    }

    /// <summary>The drill beat by beat, or a refusal where it would be too much for today.</summary>
    public async Task<IActionResult> OnGetBeginAsync(string drill, double tempo, SoundStage on)
    {
        if (Pupil is null)
            return NotFound();
        if (Drills.FirstOrDefault(known => known.Id == drill) is not { } asked)
            return Refuse($"'{drill}' is not a drill.");
        if (!asked.On.Contains(on))
            return Refuse($"{asked.Name} is played on the {string.Join(" or the ", asked.On.Select(Wording.On))}. Choose that under On.");
        var plan = asked.Plan.At(tempo);
        // A file was played elsewhere, before.
        if (Source != EntrySource.File && LipTime.Refusal(plan, on, await SecondsOnLipsAsync(), TeachersOwn) is { } refusal)
            return Refuse(refusal);
        var start = IsModelled(asked) ? asked.StartHz(Pupil.Instrument, Room.Tuning) : 0;
        var counted = CountedDrill.Of(plan, ModelLine.Of(plan, start), BeatSheet.RestWords(Approach, on), start);
        return await RefusingAsync(() => CountedAsync(Asking(counted, BuzzRequest.Kind, RequestOf(asked, plan, on)), plan));
    }

    /// <summary>The practice player's take as a WAV.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(
        string drill,
        double tempo,
        SoundStage on,
        string? request,
        string character,
        int seed
    ) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var frozen = await FrozenAsync(BuzzRequest.Kind, request, () => Task.FromResult(RequestNow(drill, tempo, on)));
                var (asked, player) = (frozen.Asked.Asked(), frozen.Asked.On.Read());
                var faults = asked
                    .Drill.Played.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .Select(Fault.Parse)
                    .Concat(PracticeCharacter.Get(character).Faults);
                return await PlayedInTurnAsync(
                    asked.Plan.TotalSeconds,
                    () =>
                    {
                        var start = asked.Drill.StartHz(player.Instrument, player.Tuning);
                        var take = SimulatedPlayer.Play(player.Instrument, asked.On, asked.Plan, [.. faults], seed, start);
                        return Played(take.Sound, character);
                    }
                );
            });

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public Task<IActionResult> OnPostHearAsync([FromForm] SentBuzz sent) =>
        HearAsync(
            sent,
            async take =>
            {
                var frozen = await FrozenAsync(
                    BuzzRequest.Kind,
                    sent.Request,
                    () => Task.FromResult(RequestNow(sent.Drill, sent.Tempo, sent.On))
                );
                var whole = frozen.Asked.Asked();
                var asked = whole with
                {
                    Plan = sent.Finished is { } beats ? whole.Plan.UpTo(beats) : whole.Plan,
                    FirstCueSeconds = sent.FirstCue,
                    MissingSeconds = sent.MissingSeconds,
                };
                var judged = await JudgedAsync(frozen, asked, sent.Tense, take.Before);
                var heard = TakeListener.Hear(take.Sound, asked, judged);
                var written = BuzzStop.Take(Pupil!, asked, sent.Source, heard, Clock.Now);
                return WrittenTake.Of(frozen, written, asked.Plan.Times, whole.Plan.Times);
            }
        );

    private BuzzRequest RequestNow(string id, double tempo, SoundStage on)
    {
        var drill = BuzzDrill.Get(id).With(TeachersOwn);
        return RequestOf(drill, drill.Plan.At(tempo), on);
    }

    private BuzzRequest RequestOf(BuzzDrill drill, CuePlan plan, SoundStage on)
    {
        var player = new PlayerSituation(Pupil!.Instrument, Pupil.Reading, Room.Tuning);
        double? startHz = IsModelled(drill) ? drill.StartHz(player.Instrument, player.Tuning) : null;
        return BuzzRequest.Of(drill, plan, on, player, startHz, Terms);
    }

    private async Task<IActionResult> OnStageAsync(Shown<BuzzPayload> take) => Partial("_Heard", await ViewAsync(take, take.Entry.DrillId));

    private RedirectToPageResult Onward(Shown<BuzzPayload> take, NextStep next) =>
        next.Place == new Place("notes")
            ? RedirectToPage("/Notes/Index", new { pupilId = Pupil!.Id })
            : RedirectToPage(new { pupilId = Pupil!.Id, drill = next.DrillId });

    private async Task<HeardView?> ViewAsync(Shown<BuzzPayload>? take, string? drillId)
    {
        var request = AskedIn(BuzzRequest.Kind, take);
        var drill = request?.ReadDrill() ?? (drillId is null ? Drills[0] : Drills.FirstOrDefault(known => known.Id == drillId));
        if (drill is null)
            return null;
        var on = take?.Entry.Stage ?? (On is { } chosen && drill.On.Contains(chosen) ? chosen : drill.UsualStage);
        var plan = request?.Cues.Read() ?? drill.Plan.At(take?.Entry.Tempo ?? drill.Tempo);
        var guess = Asks(take);
        return new HeardView(Pupil!, guess is null ? take : null, drill, await Takes.OpenStepAsync(), Clock)
        {
            Guessing = guess,
            On = on,
            Empty = new ThreadDrawing(Bands.For(on, Pupil!.Stage).Under(Approach).SteadyCents, plan),
            EmptyStrip = TakeStrip.Meant(plan) is { } meant ? new StripDrawing(meant, plan.Tempo) : null,
            Scale = await ScaleAsync(guess is null ? take : null, on),
            Rounds = await RoundsAsync(drill),
            Gate = on == SoundStage.Mouthpiece ? MouthpieceGate.Of(Approach, await GateTakesAsync(), Clock.Today) : null,
        };
    }

    /// <summary>The drill of a pupil who has not been heard here yet; null once there is a take, kept or not.</summary>
    private async Task<string?> FirstDrillAsync() => await Takes.All.AnyAsync() ? null : BuzzDrill.First.Id;

    /// <summary>Whether Bocca gives the pitch: where the approach wants the pupil's own, it gives none.</summary>
    public bool IsModelled(BuzzDrill drill) => Approach.Of(Points.BuzzPitch) == BuzzPitch.AModels && drill.Aim != DrillAim.Reference;

    /// <summary>Seconds of drills on the lips alone today, whatever became of them.</summary>
    private async Task<double> SecondsOnLipsAsync()
    {
        var start = Clock.DayStart;
        return await Db
                .Entries.IgnoreQueryFilters()
                .Where(take =>
                    take.PupilId == Pupil!.Id && take.Kind == BuzzStop.Takes.Id && take.Stage == SoundStage.Lips && take.At >= start
                )
                .SumAsync(take => take.ElapsedSeconds)
            ?? 0;
    }

    /// <summary>Everything that is known about the pupil when a take is judged.</summary>
    /// <param name="frozen">What the take was asked to be.</param>
    /// <param name="asked">The same, as far as it was played.</param>
    /// <param name="tense">Whether the teacher has ticked tension.</param>
    /// <param name="before">What the take before ended with; null for none.</param>
    private async Task<SoundingPupil> JudgedAsync(FrozenTake<BuzzRequest> frozen, AskedTake asked, bool tense, Verdict? before)
    {
        var approach = frozen.Terms.Approach;
        var last =
            approach.Of(Points.BuzzPitch) == BuzzPitch.AModels
                ? null
                : await Journal.ShowAsync(
                    BuzzStop.Takes,
                    Takes.All.Where(take => take.Kept && take.Stage == asked.On && take.DrillId == asked.Drill.Id)
                );
        return await Takes.JudgedAsync(frozen.Terms, asked.On, tense, before) with
        {
            // The gate is for those who have not left the mouthpiece yet.
            Earlier = asked.On == SoundStage.Mouthpiece && asked.Pupil <= LearningStage.Mouthpiece ? await GateTakesAsync() : null,
            HeldAgainstHz =
                asked.On == SoundStage.Instrument || asked.Drill.Aim == DrillAim.Reference ? null
                : approach.Of(Points.BuzzPitch) == BuzzPitch.AModels ? frozen.Asked.StartHz
                : last?.Payload.Measures.Median(attempt => attempt.MedianHz),
        };
    }

    private async Task<ScaleView?> ScaleAsync(Shown<BuzzPayload>? take, SoundStage on)
    {
        var samples = take?.Entry.DrillId == OwnSounds.SamplesDrill ? take : await Journal.SamplesAsync(Pupil!.Id, on);
        if (samples is null || OwnScale.From(samples.Payload.Measures) is not { } scale)
            return null;
        var (since, shown) = (samples.Entry.At, take?.Entry.Id);
        var earlier = await Journal
            .FiguresOf(Pupil!.Id, BuzzFigures.OwnPlace)
            .Where(figure => figure.Stage == on && figure.At >= since && figure.EntryId != shown && figure.EntryId != samples.Entry.Id)
            .Take(PlacedTakes)
            .Select(figure => figure.Value)
            .ToListAsync();
        return new ScaleView(scale, since, take?.Payload.Verdict.OnOwnScale, earlier);
    }

    private async Task<DayRounds?> RoundsAsync(BuzzDrill drill)
    {
        if (drill.Rounds is not { } rounds)
            return null;
        var start = Clock.DayStart;
        var played = await Takes
            .All.Where(take => take.DrillId == drill.Id && take.At >= start && take.Outcome != Outcome.CannotTell)
            .Select(take => take.At)
            .ToListAsync();
        return DayRounds.Of(played, rounds.ADay, rounds.ApartMinutes, Clock.Now);
    }

    /// <summary>Takes of plain drills on something that could be judged, the newest first.</summary>
    private IQueryable<Entry> Judged(SoundStage on) =>
        Takes
            .All.Where(take =>
                take.Kept && take.Stage == on && take.DrillId != OwnSounds.SamplesDrill && take.Outcome != Outcome.CannotTell
            )
            .Take(TakesOfHistory);

    private async Task<IReadOnlyList<GateTake>> GateTakesAsync()
    {
        var takes = await Judged(SoundStage.Mouthpiece).ToListAsync();
        return
        [
            .. Enumerable
                .Reverse(takes)
                .Select(take => new GateTake(Clock.DayOf(take.At), take.Asked ?? 0, take.Came ?? 0, take.Outcome == Outcome.Passed)),
        ];
    }

    /// <summary>Measures over weeks, of takes of the plain drills on one thing.</summary>
    private async Task<IReadOnlyList<FigureHistory>> HistoriesAsync(SoundStage on)
    {
        var names = BuzzFigures.Followed.Select(kind => kind.Name).ToList();
        var takes = Judged(on).Select(take => take.Id);
        var figures = await Db
            .Figures.Where(figure => takes.Contains(figure.EntryId) && names.Contains(figure.Name))
            .OrderBy(figure => figure.At)
            .ToListAsync();
        return
        [
            .. BuzzFigures
                .Followed.Select(kind =>
                    FigureHistory.Of(
                        kind,
                        [
                            .. figures
                                .Where(figure => figure.Name == kind.Name)
                                .Select(figure => new FigurePoint(Clock.Local(figure.At), figure.Value, figure.Spread, figure.Count)),
                        ]
                    )
                )
                .OfType<FigureHistory>(),
        ];
    }
}
