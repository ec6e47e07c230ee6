using Bocca.Core;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Ear;
using Bocca.Core.Judging;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Ear;

/// <summary>A question as the page sends it back.</summary>
public sealed record AskedOfEar(string Drill, double? Tempo, int Level, int Seed, string? Line);

/// <summary>A recording of an answer as sent by the page.</summary>
public sealed record SentEar(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    double? Tempo,
    int Level,
    int Seed,
    string? Line,
    string? Tapped
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill)
{
    public AskedOfEar Asked => new(Drill, Tempo, Level, Seed, Line);
}

/// <summary>The ear: heard, tapped, sung and played, each by itself.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class IndexModel(Journal journal) : TakePage<EarPayload>(journal)
{
    private const int Seeds = 100,
        AnswersThatCount = 60;

    private EarPlayer? _player;
    private PlayerSituation? _situation;
    private VoiceRange _voice = VoiceRange.Usual;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    /// <summary>A line of somebody's own, as it is read.</summary>
    [BindProperty(SupportsGet = true, Name = "line")]
    public string? Line { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    /// <summary>The step asked for, from 0, and the question of it; null for what the pupil's answers lead to.</summary>
    [BindProperty(SupportsGet = true, Name = "level")]
    public int? Level { get; set; }

    [BindProperty(SupportsGet = true, Name = "seed")]
    public int? Seed { get; set; }

    /// <summary>The drills offered to the pupil.</summary>
    public IReadOnlyList<EarDrill> Offered { get; private set; } = [];

    /// <summary>What is on the stage.</summary>
    public EarView? View { get; private set; }

    /// <summary>Why there is nothing on it.</summary>
    public string? Trouble { get; private set; }

    /// <summary>How many questions are due to be asked again.</summary>
    public int Due { get; private set; }

    protected override TakeRules<EarPayload> Rules =>
        new(EarStop.Answers, OnStageAsync, Onward)
        {
            KeptWords = "The answer is saved.",
            IsPlaying = drill => EarDrill.All.FirstOrDefault(each => each.Id == drill)?.Plays != false,
            IsShownHere = drill => drill != EarStop.Faults,
            Kept = KeptAsync,
        };

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = await AskedTakeAsync();
        if (TakeId is not null && take is null)
            return NotFound();
        await LoadAsync();
        // A drill of somebody else's, or of another approach, is nowhere here.
        var id = take?.Entry.DrillId ?? DrillId;
        if (id is not null && take is null && Offered.All(drill => drill.Id != id))
            return NotFound();
        var drill = EarDrill.All.FirstOrDefault(each => each.Id == id) ?? Offered[0];
        drill = Offered.FirstOrDefault(each => each.Id == drill.Id) ?? drill;
        try
        {
            View = take is not null ? ViewOf(take) : ViewOf(await AskAsync(drill));
        }
        catch (Exception problem) when (problem is ArgumentException or FormatException)
        {
            Trouble = OneLine.Of(problem);
        }

        Due = await Journal.RecalledOf(Pupil.Id, EarStop.OfEar).CountAsync(card => card.DueAt <= Clock.Now);
        await LoadPastAsync();
        return Page();
    }

    /// <summary>The question beat by beat: what is heard before, what is sung, what is played.</summary>
    public async Task<IActionResult> OnGetBeginAsync(AskedOfEar asked) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var question = await QuestionAsync(asked);
                var cues = question.Cues;
                if (cues.Times == 0)
                    throw new ArgumentException("This one is tapped alone: listen, and tap.");
                var counted = Asking(
                    CountedDrill.Of(cues, []) with
                    {
                        Lead = Model(question).Notes,
                        Along = EarModel.Along(question),
                    },
                    EarRequest.Kind,
                    RequestOf(question, asked.Line)
                );
                // Who only sings wears no lips out.
                return question.Played.Count == 0 ? new JsonResult(counted) : await CountedAsync(counted, EarStop.LipsOf(question));
            });

    /// <summary>The practice player's answer as a WAV.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfEar asked, string? request, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var frozen = await FrozenAsync(EarRequest.Kind, request, async () => RequestOf(await QuestionAsync(asked), asked.Line));
                await LoadAsync();
                var (question, player, situation) = (
                    frozen.Asked.Asked(),
                    frozen.Asked.Player().Player,
                    frozen.Asked.PlayerAs(_situation!)
                );
                var how = EarCharacter.Get(character);
                return await PlayedInTurnAsync(
                    question.Cues.TotalSeconds,
                    () => Played(how.Answer(question, player, situation, seed), character)
                );
            });

    /// <summary>Hears an answer out; nothing is kept of its sound.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentEar sent)
    {
        EarPayload? told = null;
        return await HearAsync(
            sent,
            async sounded =>
            {
                var frozen = await FrozenAsync(
                    EarRequest.Kind,
                    sent.Request,
                    async () => RequestOf(await QuestionAsync(sent.Asked), sent.Line)
                );
                var request = frozen.Asked;
                var (question, (player, tuning)) = (request.Asked(), request.Player());
                var heard = EarHearing.Hear(question, Tapped(sent.Tapped), sounded.Sound, sent.FirstCue, player, tuning);
                var judged = await Takes.JudgedAsync(frozen.Terms, SoundStage.Instrument, sent.Tense, sounded.Before);
                var (entry, payload) = await TakeOfAsync(question, heard, judged, sent.Source, request.Line ?? "");
                if (sent.Private != true)
                    return new WrittenTake<EarPayload>(frozen, entry, payload);
                // What was sung for nobody else is told once; with what was played nothing of it is written.
                told = payload;
                var others = heard with { Sung = [], Midi = [] };
                (entry, payload) = await TakeOfAsync(question, others, judged, sent.Source, request.Line ?? "");
                return new WrittenTake<EarPayload>(frozen, entry, payload);
            },
            async take =>
            {
                await LoadAsync();
                return await OnStageAsync(told is null ? take : take with { Payload = told });
            }
        );
    }

    /// <summary>Takes an answer that is tapped alone, and keeps it.</summary>
    public async Task<IActionResult> OnPostAnswerAsync([FromForm] AskedOfEar asked, [FromForm] string? tapped) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var question = await QuestionAsync(asked);
                if (question.Answer.Count == 0 || question.Cues.Times > 0)
                    throw new ArgumentException("This one is not answered by a tap alone.");
                var heard = EarHearing.Hear(question, Tapped(tapped), null, null, _player!, Room.Tuning);
                if (heard.Tapped.Count != question.Answer.Count)
                    throw new ArgumentException($"Tap {question.Answer.Count} of them.");
                var judged = await Takes.JudgedAsync(Terms, SoundStage.Instrument, tense: false);
                var (entry, payload) = await TakeOfAsync(question, heard, judged, null, "");
                entry.Kept = true;
                var take = await Journal.WriteAsync(EarStop.Answers, entry, payload, Approach.ToString());
                await KeptAsync(take);
                return await OnStageAsync(take);
            });

    private Task<IActionResult> OnStageAsync(Shown<EarPayload> take) => Task.FromResult<IActionResult>(Partial("_Heard", ViewOf(take)));

    private RedirectToPageResult Onward(Shown<EarPayload> take, NextStep next) =>
        RedirectToPage(
            new
            {
                pupilId = Pupil!.Id,
                drill = next.DrillId,
                line = take.Payload.Line == "" ? null : take.Payload.Line,
                // Once more is the same question.
                level = take.Entry.Outcome == Outcome.Passed ? (int?)null : take.Payload.Level,
                seed = take.Entry.Outcome == Outcome.Passed ? (int?)null : take.Payload.Seed,
            }
        );

    private Task KeptAsync(Shown<EarPayload> take) =>
        take.Entry.Outcome == Outcome.CannotTell || take.Payload.Line != ""
            ? Task.CompletedTask
            : Journal.RecallAsync(
                Pupil!.Id,
                EarStop.OfEar,
                [(Item(take.Entry.DrillId!, take.Payload.Level, take.Payload.Seed), take.Entry.Outcome == Outcome.Passed)],
                onlyMissed: true
            );

    private static string Item(string drill, int level, int seed) => $"{drill}.{level}.{seed}";

    private static string[] Tapped(string? tapped) =>
        tapped?.Split(' ', StringSplitOptions.RemoveEmptyEntries) is { Length: <= EarLine.MostNotes } parts ? parts : [];

    private EarRequest RequestOf(EarQuestion question, string? line) => EarRequest.Of(question, line, _situation!, Terms);

    private async Task<(Entry Entry, EarPayload Payload)> TakeOfAsync(
        EarQuestion question,
        EarHearing heard,
        SoundingPupil judged,
        EntrySource? source,
        string line
    )
    {
        var answer = EarStop.Answer(Pupil!, question, heard, EarJudge.Judge(heard, judged), source, line, Clock.Now);
        if (!await IsOnStaircaseAsync(question, answer.Payload.Line))
            answer.Entry.Result = EntryResult.None;
        return answer;
    }

    /// <summary>
    /// Whether an answer moves the staircase: asked anew and as hard as it stands. What was missed before and is asked again, what somebody
    /// chose harder or easier, and lines of one's own say nothing of where four in five come.
    /// </summary>
    private async Task<bool> IsOnStaircaseAsync(EarQuestion question, string line)
    {
        var item = Item(question.Drill.Id, question.Level, question.Seed);
        return line == ""
            && question.Level == (await StaircaseAsync(question.Drill)).Level
            && !await Journal.RecalledOf(Pupil!.Id, EarStop.OfEar).AnyAsync(card => card.Item == item);
    }

    private EarModel Model(EarQuestion question) => EarModel.Of(question, Room.Tuning, _voice, Approach.Of(Points.Singing));

    private async Task LoadAsync()
    {
        if (_player is not null)
            return;
        Offered = EarDrill.For(Pupil!.Stage, Approach);
        var played = await Journal.PlayedAsync(Pupil, Approach, Room.Conditions.Tuning);
        _player = played.Ear(Pupil, Approach);
        if (Offered.Any(drill => drill.Sings))
            _voice = await Journal.VoiceAsync(Pupil.Id);
        _situation = played.Situation(Pupil.Reading, Room.Tuning);
    }

    private async Task<EarQuestion> QuestionAsync(AskedOfEar asked)
    {
        await LoadAsync();
        var drill =
            Offered.FirstOrDefault(each => each.Id == asked.Drill)
            ?? throw new ArgumentException("This drill is not offered to the pupil now. Choose another.");
        return Write(drill, asked.Level, asked.Seed, asked.Line, asked.Tempo);
    }

    private EarQuestion Write(EarDrill drill, int level, int seed, string? line, double? tempo)
    {
        if (tempo is { } asked)
            drill = drill with { Tempo = Math.Clamp(asked, CuePlan.TempoRange.Slowest, CuePlan.TempoRange.Fastest) };
        return EarWriter.Write(drill, level, seed, _player!, Room.Tuning, line is null ? null : EarLine.Parse(line));
    }

    /// <summary>
    /// The next question of a drill: what is due to be asked again, else a new one as hard as the pupil's answers have it.
    /// </summary>
    private async Task<EarQuestion> AskAsync(EarDrill drill)
    {
        if (Level is { } chosen && Seed is { } known)
            return Write(drill, chosen, known, Line, Tempo);
        var prefix = $"{drill.Id}.";
        var waiting = await Journal
            .RecalledOf(Pupil!.Id, EarStop.OfEar)
            .Where(card => card.Item.StartsWith(prefix))
            .OrderBy(card => card.DueAt)
            .Select(card => new { card.Item, card.DueAt })
            .ToListAsync();
        if (
            (Level, Line) is (null, null)
            && waiting.Find(card => card.DueAt <= Clock.Now)?.Item.Split('.') is [_, var level, var seed]
            && int.TryParse(level, out var hard)
            && int.TryParse(seed, out var same)
        )
            return Write(drill, hard, same, null, Tempo);
        var asked = Level ?? (await StaircaseAsync(drill)).Level;
        return Write(drill, asked, NewSeed(drill, asked, [.. waiting.Select(card => card.Item)]), Line, Tempo);
    }

    /// <summary>What a new question is made from: none of those that wait to be asked again, while there are others.</summary>
    private static int NewSeed(EarDrill drill, int level, HashSet<string> waiting)
    {
        var others = Enumerable.Range(0, Seeds).Where(seed => !waiting.Contains(Item(drill.Id, level, seed))).ToList();
        return others.Count > 0 ? others[Random.Shared.Next(others.Count)] : Random.Shared.Next(Seeds);
    }

    private async Task<Staircase> StaircaseAsync(EarDrill drill)
    {
        var stands = $"\"{EarStop.Level.Name}\":";
        var answers = await Takes
            .All.Where(take =>
                take.Kept && take.ResultText!.Contains(stands) && take.DrillId == drill.Id && take.Outcome != Outcome.CannotTell
            )
            .Take(AnswersThatCount)
            .Select(take => new { take.ResultText, take.Outcome })
            .ToListAsync();
        answers.Reverse();
        return Staircase.Of(
            answers.ConvertAll(answer => ((int)EntryResult.Parse(answer.ResultText)[EarStop.Level]!, answer.Outcome == Outcome.Passed)),
            drill.Hardest
        );
    }

    private EarView ViewOf(EarQuestion question)
    {
        var model = Model(question);
        return new EarView(Pupil!, question, _player!, _situation!, Room.Tuning, null)
        {
            Heard = model.Notes,
            Sings = Approach.Of(Points.Singing),
            Octaves = model.Octaves,
        };
    }

    private EarView ViewOf(Shown<EarPayload> take)
    {
        var payload = take.Payload;
        var drill = EarDrill.Get(take.Entry.DrillId!) with { Tempo = take.Entry.Tempo ?? EarDrill.Get(take.Entry.DrillId!).Tempo };
        var question = new EarQuestion(drill, payload.Level, payload.Seed)
        {
            Answer = payload.Answer,
            Sung = [.. payload.Sung.Select(note => note.Target)],
            Played = [.. payload.Played.Select(note => note.Target)],
            SungLengths = payload.Line == "" ? [] : EarLine.Parse(payload.Line).Beats,
            NoteBeats = payload.NoteBeats,
            AsideCents = payload.AsideCents,
            Item = take.Entry.Subject,
        };
        var request = AskedIn(EarRequest.Kind, take);
        return new EarView(
            Pupil!,
            // What somebody sang for nobody else is not in the record: then it is not drawn either.
            request is null
                ? question
                : request.Asked() with
                {
                    Sung = question.Sung,
                    Played = question.Played,
                },
            request?.Player().Player ?? _player!,
            request?.PlayerAs(_situation!) ?? _situation!,
            request?.Player().Tuning ?? Room.Tuning,
            take
        )
        {
            Sings = Approach.Of(Points.Singing),
        };
    }
}
