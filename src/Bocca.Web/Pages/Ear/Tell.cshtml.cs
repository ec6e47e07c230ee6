using Bocca.Core.Ear;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Ear;

/// <summary>An own take, and which of the two the pupil takes it for.</summary>
public sealed record SentOwn(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    int Seed,
    string? Tapped
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill);

/// <summary>Right or wrong: two sounds, one with a fault; then which of them one's own take is like.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class TellModel(Journal journal) : TakePage<EarPayload>(journal)
{
    private const int Seeds = 100;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? PairId { get; set; }

    /// <summary>The pair on the stage.</summary>
    public FaultPair Pair { get; private set; } = FaultPair.All[0];

    public int Seed { get; private set; }

    /// <summary>An answer that is shown; null for none.</summary>
    public Shown<EarPayload>? Take { get; private set; }

    protected override TakeRules<EarPayload> Rules =>
        new(EarStop.Answers, OnStageAsync, Onward) { KeptWords = "The answer is saved.", IsShownHere = drill => drill == EarStop.Faults };

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        if (TakeId is not null)
        {
            Take = await AskedTakeAsync();
            if (Take is null)
                return NotFound();
        }

        var id = PairId ?? Take?.Entry.Subject;
        if (id is not null && FaultPair.All.All(pair => pair.Id != id))
            return NotFound();
        Pair = id is null ? FaultPair.All[0] : FaultPair.Get(id);
        Seed = Random.Shared.Next(Seeds);
        await LoadPastAsync();
        return Page();
    }

    /// <summary>The first or the second of the two as a WAV.</summary>
    public async Task<IActionResult> OnGetSoundAsync(string drill, int seed, int which) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(() =>
            {
                var pair = FaultPair.Get(drill);
                return PlayedInTurnAsync(
                    pair.Notes * pair.Beats * 60 / FaultPair.Tempo,
                    () => Sounding(pair, Note(), Situation(), which == FaultPair.Faulty(seed), seed + which)
                );
            });

    /// <summary>Which of the two it is: told at once, and kept.</summary>
    public async Task<IActionResult> OnPostAnswerAsync([FromForm] string drill, [FromForm] int seed, [FromForm] string? tapped) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var pair = FaultPair.Get(drill);
                if (tapped is not ("1" or "2"))
                    throw new ArgumentException("Tap the first or the second.");
                var faulty = $"{FaultPair.Faulty(seed)}";
                var right = tapped == faulty;
                var summary = right ? $"Ear right: it was the {Word(faulty)}." : $"It was the {Word(faulty)}.";
                var (entry, payload) = Answered(
                    pair,
                    seed,
                    faulty,
                    tapped,
                    right,
                    summary,
                    await Takes.JudgedAsync(Terms, SoundStage.Instrument, tense: false)
                );
                entry.Kept = true;
                var take = await Journal.WriteAsync(EarStop.Answers, entry, payload, Approach.ToString());
                return Partial("_Told", new ToldView(Pupil!, pair, take, Own: false));
            });

    /// <summary>The pupil's own, beat by beat.</summary>
    public async Task<IActionResult> OnGetBeginAsync(string drill) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(() =>
            {
                var request = RequestOf(drill);
                var plan = FaultPair.Get(drill).Plan(Note());
                return CountedAsync(Asking(CountedDrill.Of(plan.Cues, []), OwnTakeRequest.Kind, request), plan.Cues);
            });

    /// <summary>The practice player's own take: with the fault of the pair, or without.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(string drill, string? request, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var frozen = await FrozenAsync(OwnTakeRequest.Kind, request, () => Task.FromResult(RequestOf(drill)));
                var (pair, note, player) = frozen.Asked.Read();
                return await PlayedInTurnAsync(pair.Notes * pair.Beats, () => Sounding(pair, note, player, character == "fault", seed));
            });

    /// <summary>The pupil's own take, after it was said which of the two it is like.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentOwn sent) =>
        await HearAsync(
            sent,
            async take =>
            {
                var frozen = await FrozenAsync(OwnTakeRequest.Kind, sent.Request, () => Task.FromResult(RequestOf(sent.Drill)));
                var (pair, note, player) = frozen.Asked.Read();
                if (!pair.HearsOwn)
                    throw new ArgumentException(
                        "How open the mouth is tells only beside own samples: take them on Buzz, tight, centred, open."
                    );
                if (sent.Tapped is not ("fault" or "right"))
                    throw new ArgumentException("Say first which of the two yours is like.");
                var judged = await Takes.JudgedAsync(frozen.Terms, SoundStage.Instrument, sent.Tense, take.Before);
                var (row, has) = pair.Hear(take.Sound, sent.FirstCue, note, player, frozen.Asked.ReadStage(), judged);
                var was = has is null ? "right" : "fault";
                var right = sent.Tapped == was;
                var summary =
                    row.Outcome == Outcome.CannotTell ? row.Summary
                    : has is null ? $"{(right ? "Ear right" : "It was better than you thought")}: yours is like the good one."
                    : $"{(right ? "Ear right" : "Hear it again")}: {has}";
                var (entry, payload) = Answered(pair, sent.Seed, was, sent.Tapped, right, summary, judged);
                (entry.Source, entry.InstrumentId) = (sent.Source, Pupil!.InstrumentId);
                entry.PlayedSeconds = PlayingClock.PlayedSeconds(pair.Plan(note).Cues);
                if (row.Outcome == Outcome.CannotTell)
                {
                    entry.Outcome = Outcome.CannotTell;
                    payload = payload with { Verdict = row with { Findings = [] }, Values = [] };
                }

                return new WrittenTake<EarPayload>(frozen, entry, payload);
            },
            take =>
                Task.FromResult<IActionResult>(Partial("_Told", new ToldView(Pupil!, FaultPair.Get(take.Entry.Subject), take, Own: true)))
        );

    private Task<IActionResult> OnStageAsync(Shown<EarPayload> take) =>
        Task.FromResult<IActionResult>(
            Partial("_Told", new ToldView(Pupil!, FaultPair.Get(take.Entry.Subject), take, take.Entry.Source is not null))
        );

    private RedirectToPageResult Onward(Shown<EarPayload> take, NextStep next)
    {
        var all = FaultPair.All;
        var at = all.ToList().FindIndex(pair => pair.Id == take.Entry.Subject);
        // What came gives way to the next pair.
        var pair = take.Entry.Outcome == Outcome.Passed ? all[(at + 1) % all.Count] : all[at];
        return RedirectToPage(new { pupilId = Pupil!.Id, drill = pair.Id });
    }

    private (Entry Entry, EarPayload Payload) Answered(
        FaultPair pair,
        int seed,
        string was,
        string said,
        bool right,
        string summary,
        JudgedPupil judged
    )
    {
        IReadOnlyList<Finding> findings = right ? [] : [new Finding(judged.Symptoms.Get("earLost"), [], 0, 0, "", summary)];
        var next = right
            ? new NextStep(EarDrill.Place, EarStop.Faults, "Go on: the next pair.", summary)
            : AdvisedStep.Of(judged, findings, judged.Tense, EarDrill.Place, EarStop.Faults);
        var verdict = new Verdict(right ? Outcome.Passed : Outcome.Repeat, summary, [], findings, next);
        var entry = new Entry
        {
            PupilId = Pupil!.Id,
            Kind = EarStop.Answers.Id,
            DrillId = EarStop.Faults,
            Subject = pair.Id,
            Came = right ? 1 : 0,
            Asked = 1,
            At = Clock.Now,
            Outcome = verdict.Outcome,
            Summary = summary,
        };
        var tapped = new EarFigure(EarFigures.Tapped.Name, right ? 1 : 0, 1, "");
        return (entry, new EarPayload(0, seed, "", [was], [said], [], [], 1, 0, 0, [], [tapped], verdict));
    }

    private OwnTakeRequest RequestOf(string pair)
    {
        var note = StoredNote.Of(FaultPair.Get(pair).Plan(Note()).Notes[0]);
        return OwnTakeRequest.Of(pair, note, Situation(), Terms);
    }

    private PlayerSituation Situation() => new(Pupil!.Instrument, Pupil.Reading, Room.Tuning);

    private MeantNote Note() =>
        MeantNote.Of(
            Pupil!.Instrument,
            Pupil.Reading,
            Pupil.Reading.ToWritten(Bocca.Core.Instruments.StartNotes.Of(Pupil.Instrument).ConcertBb)
        );

    private FileStreamResult Sounding(FaultPair pair, MeantNote note, PlayerSituation player, bool faulty, int seed)
    {
        var (row, faults) = pair.Play(player.Tuning.Frequency(note.Sounding), faulty);
        return Played(SimulatedPlayer.PlayRow(player.Instrument, row, FaultPair.Tempo, faults, seed).Sound, pair.Id, 60 / FaultPair.Tempo);
    }

    internal static string Word(string which) => which == "1" ? "first" : "second";
}

/// <summary>An answer as it is told; <c>Own</c> where it is about the pupil's own take.</summary>
public sealed record ToldView(Pupil Pupil, FaultPair Pair, Shown<EarPayload> Take, bool Own);
