using Bocca.Core;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Tone;

/// <summary>What the page sends about a take of notes.</summary>
public sealed record AskedOfTone(string Drill, double Tempo, string? Notes, string? Settings, string? Ways, double? A4, double? Target);

/// <summary>A recording of notes as sent by the page.</summary>
public sealed record SentTone(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    double Tempo,
    string? Notes,
    string? Settings,
    string? Ways,
    double? A4,
    double? Celsius,
    double? Target,
    bool? Rhythm
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill)
{
    public AskedOfTone Asked => new(Drill, Tempo, Notes, Settings, Ways, A4, Target);
}

/// <summary>The Tone stop: notes played, held against what was meant.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class IndexModel(Journal journal) : TakePage<TonePayload>(journal)
{
    /// <summary>So many takes back passes in a row are counted.</summary>
    private const int TakesOfPasses = 4;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "notes")]
    public string? Notes { get; set; }

    [BindProperty(SupportsGet = true, Name = "settings")]
    public string? Settings { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    public ToneView? View { get; private set; }

    /// <summary>The way of first notes.</summary>
    public FirstNotePath? NotePath { get; private set; }

    /// <summary>What today's takes add up to.</summary>
    public SessionTone? Session { get; private set; }

    /// <summary>What was wrong with the notes asked for.</summary>
    public string? Trouble { get; private set; }

    /// <summary>All drills as they are played here.</summary>
    private IReadOnlyList<ToneDrill> Drills => field ??= [.. ToneDrill.All.Select(drill => drill.With(TeachersOwn))];

    /// <summary>The drills for the pupil's stage; the one on the stage is among them.</summary>
    public IReadOnlyList<ToneDrill> Offered =>
        [.. Drills.Where(drill => drill.Id == View?.Drill.Id || drill.IsOffered(_player!, Approach, Pupil!.Stage))];

    protected override TakeRules<TonePayload> Rules => new(ToneStop.Takes, OnStageAsync, Onward);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = await AskedTakeAsync();
        if (TakeId is not null && take is null)
            return NotFound();
        var asked = DrillId ?? take?.Entry.DrillId ?? (Notes is null ? await Takes.LastDrillAsync() : null) ?? ToneDrill.All[0].Id;
        var drill = Drills.FirstOrDefault(known => known.Id == asked);
        if (drill is null)
            return NotFound();
        var (player, path) = await PlayerAsync(drill);
        NotePath = path;
        // Where no note was chosen, it is the next one of the way.
        if (take is null && drill.TakesNotes && string.IsNullOrWhiteSpace(Notes))
            Notes = path.Current.Note.Written.ToString();
        View = await ViewAsync(player, take, drill, AskedOf(drill, take));
        await LoadPastAsync();
        Session = await SessionAsync();
        return Page();
    }

    /// <summary>Begins a take: the drill beat by beat, and what is asked, sealed.</summary>
    public async Task<IActionResult> OnGetBeginAsync(AskedOfTone asked, double? celsius, bool? rhythm) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var drill = ToneDrill.Get(asked.Drill).With(TeachersOwn);
                var (player, _) = await PlayerAsync(drill, asked.A4);
                var plan = PlanOf(drill, asked, player);
                var counted = CountedDrill.Of(plan.Cues, plan.Model(note => player.Tuning.Frequency(note.Sounding)));
                return await CountedAsync(
                    Asking(counted, ToneRequest.Kind, RequestOf(asked, plan, player, celsius, rhythm)),
                    plan.Cues,
                    SecondsAbove(plan)
                );
            });

    /// <summary>The practice player's take as a WAV.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfTone asked, string? request, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var frozen = await FrozenAsync(ToneRequest.Kind, request, () => RequestNowAsync(asked, null, null));
                var drill = ToneDrill.Get(frozen.Asked.Drill).With(frozen.Terms.Own);
                var row = frozen.Asked.Asked((await PlayerAsync(drill)).Player, drill);
                var (plan, player) = (row.Plan, row.Player);
                var how = RowCharacter.Get(character);
                return await PlayedInTurnAsync(
                    plan.TotalSeconds,
                    () =>
                    {
                        var played = PlayedNote.Row(plan, player, how);
                        var take = SimulatedPlayer.PlayRow(player.Instrument, played, plan.Tempo, how.Faults, seed);
                        return Played(take.Sound, character, plan.BeatSeconds);
                    }
                );
            });

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentTone sent) =>
        await HearAsync(
            sent,
            async take =>
            {
                var frozen = await FrozenAsync(
                    ToneRequest.Kind,
                    sent.Request,
                    () => RequestNowAsync(sent.Asked, sent.Celsius, sent.Rhythm)
                );
                var asked = frozen.Asked;
                var drill = ToneDrill.Get(asked.Drill).With(frozen.Terms.Own);
                var (today, _) = await PlayerAsync(drill);
                var row = asked.Asked(today, drill) with { FirstCueSeconds = sent.FirstCue, MissingSeconds = sent.MissingSeconds };
                var whole = row.Plan.Notes.Count;
                row = sent.Finished is { } beats ? row with { Plan = row.Plan.UpTo(beats) } : row;
                var judged = await Takes.JudgedAsync(frozen.Terms, SoundStage.Instrument, sent.Tense, take.Before);
                var heard = RowTake.Hear(take.Sound, row, judged, await PassesBeforeAsync(drill, row.Plan.Tempo));
                var written = ToneStop.Take(Pupil!, heard, (asked.Notes, asked.Settings), sent.Source, Clock.Now);
                written.Entry.HighSeconds = SecondsAbove(row.Plan);
                return WrittenTake.Of(frozen, written, row.Plan.Notes.Count, whole);
            }
        );

    private async Task<ToneRequest> RequestNowAsync(AskedOfTone asked, double? celsius, bool? rhythm)
    {
        var drill = ToneDrill.Get(asked.Drill).With(TeachersOwn);
        var (player, _) = await PlayerAsync(drill, asked.A4);
        return RequestOf(asked, PlanOf(drill, asked, player), player, celsius, rhythm);
    }

    private ToneRequest RequestOf(AskedOfTone asked, RowPlan plan, PlayerSituation player, double? celsius, bool? rhythm) =>
        ToneRequest.Of(asked.Drill, (asked.Notes, asked.Settings), plan, player, Terms) with
        {
            RhythmOnly = rhythm == true ? true : null,
            Celsius = celsius is >= 0 and <= 40 ? celsius : null,
        };

    private async Task<IActionResult> OnStageAsync(Shown<TonePayload> take)
    {
        var drill = ToneDrill.Get(take.Entry.DrillId!).With(TeachersOwn);
        var (player, _) = await PlayerAsync(drill);
        return Partial("_Heard", await ViewAsync(player, take, drill, AskedOf(drill, take)));
    }

    /// <summary>What the take on the stage was asked, or the address asks.</summary>
    private AskedOfTone AskedOf(ToneDrill drill, Shown<TonePayload>? take) =>
        new(
            drill.Id,
            take?.Entry.Tempo ?? Tempo ?? drill.Tempo,
            take?.Entry.Subject ?? Notes ?? "",
            take?.Payload.Settings ?? Settings ?? "",
            null,
            null,
            null
        );

    private RedirectToPageResult Onward(Shown<TonePayload> take, NextStep next)
    {
        var (entry, payload) = take;
        static string? Chosen(string text) => text == "" ? null : text;
        var row = new ChosenRow(entry.DrillId, Chosen(entry.Subject), Chosen(payload.Settings), entry.Tempo).Then(entry.Outcome, next);
        return RedirectToPage(
            new
            {
                pupilId = Pupil!.Id,
                drill = row.DrillId,
                notes = row.Notes,
                settings = row.Settings,
                tempo = row.Tempo,
            }
        );
    }

    private double SecondsAbove(RowPlan plan) => plan.SecondsAbove(LearnersRange.Of(_player!.Instrument, Pupil!.Stage, Approach).Highest);

    /// <summary>Passes of a drill at a tempo in a row, up to the last take.</summary>
    private async Task<int> PassesBeforeAsync(ToneDrill drill, double tempo)
    {
        var outcomes = await Takes
            .All.Where(take => take.DrillId == drill.Id && take.Tempo == tempo)
            .Take(TakesOfPasses)
            .Select(take => take.Outcome)
            .ToListAsync();
        return outcomes.TakeWhile(outcome => outcome == Outcome.Passed).Count();
    }

    private async Task<SessionTone?> SessionAsync()
    {
        var today = Clock.DayStart;
        var takes = await Takes
            .All.Where(take => take.At >= today)
            .Select(take => new
            {
                take.At,
                take.ElapsedSeconds,
                take.SoundedSeconds,
                take.Asked,
                take.LevelDb,
            })
            .ToListAsync();
        return SessionTone.Of(
            takes.Select(take => new SessionTake(
                take.At,
                take.ElapsedSeconds ?? 0,
                take.SoundedSeconds ?? 0,
                take.Asked ?? 0,
                take.LevelDb
            ))
        );
    }

    private async Task<ToneView> ViewAsync(PlayerSituation player, Shown<TonePayload>? take, ToneDrill drill, AskedOfTone asked)
    {
        RowPlan plan;
        try
        {
            // What was played is what was asked then, whatever would be asked now.
            var request = AskedIn(ToneRequest.Kind, take);
            player = request?.Player(player) ?? player;
            plan = request?.Row.Read(player.Instrument) ?? PlanOf(drill, asked, player);
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException)
        {
            // What was typed stays in its field; the stage shows the first note instead.
            Trouble = OneLine.Of(problem);
            plan = drill.Plan(player, Approach, asked.Tempo);
        }

        var guess = Asks(take);
        return new ToneView(
            Pupil!,
            guess is null ? take : null,
            drill,
            plan,
            asked.Notes?.Trim() ?? "",
            asked.Settings?.Trim() ?? "",
            await Takes.OpenStepAsync(),
            _openAt is { } at ? new MeasuredPassport(player.Passport, at) : null
        )
        {
            Guessing = guess,
            Ask = drill.AskFor(Approach),
            Clock = Clock,
            Player = player,
        };
    }

    /// <summary>When the open notes of the pupil's very instrument were measured; null for never.</summary>
    private DateTime? _openAt;

    /// <summary>Who plays, once the record has been asked.</summary>
    private PlayerSituation? _player;

    /// <summary>Everything known about the pupil's instrument and misses, and the way of first notes.</summary>
    private async Task<(PlayerSituation Player, FirstNotePath Path)> PlayerAsync(ToneDrill drill, double? a4 = null)
    {
        var tuning = PlayingConditions.Of(a4 ?? Room.A4Hz, Room.Celsius).Tuning;
        var played = await Journal.PlayedAsync(Pupil!, Approach, tuning);
        _openAt = played.OpenAt;
        var player = played.Situation(Pupil!.Reading, tuning) with
        {
            Misses = await Journal.RecentMissesAsync(Pupil.Id),
            Clean = drill.OneByOne ? await Takes.All.CountAsync(take => take.DrillId == drill.Id && take.Outcome == Outcome.Passed) : 0,
        };
        var path = FirstNotePath.Of(player, Approach, await Journal.FirstTriesAsync(Pupil.Id));
        _player = player with { Learnt = path.InPatterns };
        return (_player, path);
    }

    private RowPlan PlanOf(ToneDrill drill, AskedOfTone asked, PlayerSituation player)
    {
        var notes =
            drill.TakesNotes && !string.IsNullOrWhiteSpace(asked.Notes)
                ? MeantNote.Row(
                    player.Instrument,
                    player.Reading,
                    asked.Notes,
                    string.IsNullOrWhiteSpace(asked.Settings) ? null : asked.Settings,
                    player.Weights
                )
                : null;
        var ways = asked.Ways?.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return drill.Plan(player, Approach, asked.Tempo, notes, ways, asked.Target / 100);
    }
}
