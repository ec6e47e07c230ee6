using Bocca.Core.Buzz;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Tone;
using Bocca.Web.Data;
using Bocca.Web.Frame;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Tone;

/// <summary>Where the pupil's very instrument lies, and since when that is known.</summary>
public sealed record MeasuredPassport(Passport Passport, DateTime At)
{
    public string Words =>
        Math.Abs(Passport.LiesCents) < 5
            ? "in tune as a whole."
            : $"{Math.Abs(Passport.LiesCents):0} cents {(Passport.LiesCents > 0 ? "sharp" : "flat")} as a whole.";
}

/// <summary>A take of notes on the stage, or what will be asked.</summary>
public sealed record ToneView(
    Pupil Pupil,
    ToneTake? Take,
    ToneDrill Drill,
    RowPlan Plan,
    string Notes,
    string Settings,
    AcceptedStep? Open,
    MeasuredPassport? Passport
)
{
    private const int MostShown = 10;

    /// <summary>What to do, in the approach's words.</summary>
    public string Ask { get; init; } = Drill.Ask;

    /// <summary>The words an experiment's ways had in the take on the stage.</summary>
    public string Ways => Take is null ? "" : string.Join(", ", Take.Trace.Notes.Select(note => note.Label).Distinct());

    /// <summary>The notes meant, each once, as many as are engraved.</summary>
    public IReadOnlyList<MeantNote> Shown { get; } =
    [
        .. (
            Drill.TakesNotes && Plan.Phrases is [var first, ..] ? Plan.Meant.Take(first.End) : Plan.Meant.DistinctBy(note => note.Written)
        ).Take(MostShown),
    ];

    public IReadOnlyList<Pitch> Written => [.. Shown.Select(note => note.Written)];

    public string RowXml => MusicXmlWriter.Write(new NoteRow(Pupil.Reading.Clef, Written));

    public double Hertz => Tuning.Standard.Frequency(Shown[0].Sounding);
}

/// <summary>What the page sends about a take of notes.</summary>
public sealed record AskedOfTone(string Drill, double Tempo, string? Notes, string? Settings, string? Ways, double? A4, double? Target);

/// <summary>A recording as sent by the page.</summary>
public sealed record SentTone(
    IFormFile? Sound,
    string Drill,
    double Tempo,
    string? Notes,
    string? Settings,
    string? Ways,
    double? A4,
    double? Celsius,
    double? Target,
    bool? Rhythm,
    SoundSource Source,
    double? FirstCue,
    bool Tense,
    double Missing
);

/// <summary>The Tone stop: notes played, held against what was meant.</summary>
[RequestFormLimits(MultipartBodyLengthLimit = WavFile.MaximumBytes + 1_000_000)]
public sealed class IndexModel(BoccaDb db, TimeProvider time) : StagePage(db)
{
    private const int PastTakes = 12;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? DrillId { get; set; }

    [BindProperty(SupportsGet = true, Name = "take")]
    public int? TakeId { get; set; }

    [BindProperty(SupportsGet = true, Name = "notes")]
    public string? Notes { get; set; }

    [BindProperty(SupportsGet = true, Name = "settings")]
    public string? Settings { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    public ToneView? View { get; private set; }

    /// <summary>The way of first notes.</summary>
    public FirstNotePath? NotePath { get; private set; }

    public IReadOnlyList<ToneTake> Past { get; private set; } = [];

    /// <summary>What today's takes add up to.</summary>
    public SessionTone? Session { get; private set; }

    /// <summary>What was wrong with the notes asked for.</summary>
    public string? Trouble { get; private set; }

    /// <summary>The drills for the pupil's stage; the one on the stage is among them.</summary>
    public IReadOnlyList<ToneDrill> Offered =>
        [
            .. ToneDrill.All.Where(drill =>
                drill == View?.Drill
                || (drill.IsFor(Pupil!.Instrument, Approach) && (drill.From <= LearningStage.FirstNotes || drill.From <= Pupil.Stage))
            ),
        ];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = await Takes().FirstOrDefaultAsync(candidate => TakeId == null ? candidate.Kept : candidate.Id == TakeId);
        if (TakeId is not null && take is null)
            return NotFound();
        // What is asked for in the address starts with an empty stage.
        if (TakeId is null && (DrillId is not null || Notes is not null))
            take = null;
        var drill = ToneDrill.All.FirstOrDefault(known => known.Id == (DrillId ?? take?.DrillId ?? ToneDrill.All[0].Id));
        if (drill is null)
            return NotFound();
        NotePath = FirstNotePath.Of(await PlayerAsync(), Approach, await Db.FirstTriesAsync(Pupil.Id));
        // Where no note was chosen, it is the next one of the way.
        if (take is null && drill.TakesNotes && string.IsNullOrWhiteSpace(Notes))
            Notes = (NotePath.Next ?? NotePath.Notes[^1]).Note.Written.ToString();
        View = await ViewAsync(
            take,
            drill,
            take?.Notes ?? Notes ?? "",
            take?.Settings ?? Settings ?? "",
            take?.Tempo ?? Tempo ?? drill.Tempo
        );
        Past = await Takes().Where(past => past.Kept).Take(PastTakes).ToListAsync();
        var today = Today.Start(time);
        Session = SessionTone.Of(
            (await Takes().Where(past => past.RecordedAt >= today).ToListAsync()).Select(past => (past.RecordedAt, past.Trace))
        );
        return Page();
    }

    /// <summary>The drill beat by beat.</summary>
    public async Task<IActionResult> OnGetPlanAsync(AskedOfTone asked) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var plan = PlanOf(
                    ToneDrill.Get(asked.Drill),
                    asked.Notes,
                    asked.Settings,
                    asked.Tempo,
                    await PlayerAsync(asked.A4),
                    asked.Ways,
                    asked.Target
                );
                var cues = plan.Cues;
                return new JsonResult(new Buzz.CountedDrill(plan.BeatSeconds, plan.TotalBeats, cues.SoundSeconds, 0, BeatSheet.Of(cues)));
            });

    /// <summary>The practice player's take as a WAV.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfTone asked, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var player = await PlayerAsync(asked.A4);
                var plan = PlanOf(ToneDrill.Get(asked.Drill), asked.Notes, asked.Settings, asked.Tempo, player, asked.Ways, asked.Target);
                var how = RowCharacter.Get(character);
                var take = SimulatedPlayer.PlayRow(player.Instrument, PlayedNote.Row(plan, player, how), plan.Tempo, how.Faults, seed);
                // The player rests a beat before the first note; the page counts in itself.
                var lead = (int)(plan.BeatSeconds * take.Sound.SampleRate);
                var wav = new MemoryStream();
                WavFile.Write(wav, new MonoSound(take.Sound.Samples[lead..], take.Sound.SampleRate));
                wav.Position = 0;
                return File(wav, "audio/wav", $"practice-{character}.wav");
            });

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentTone sent)
    {
        if (Pupil is null)
            return NotFound();
        if (sent.Sound is null || !ModelState.IsValid)
            return Refuse("The recording did not arrive whole. Record it once more.");
        return await RefusingAsync(async () =>
        {
            var drill = ToneDrill.Get(sent.Drill);
            var player = await PlayerAsync(sent.A4);
            var asked = new AskedRow(
                PlanOf(drill, sent.Notes, sent.Settings, sent.Tempo, player, sent.Ways, sent.Target),
                player,
                Pupil.Stage
            )
            {
                Drill = drill,
                FirstCueSeconds = sent.FirstCue,
                MissingSeconds = Math.Max(0, sent.Missing),
                UsesMarks = false,
                IgnoresPitch = sent.Rhythm == true,
                RoomCelsius = sent.Celsius is >= 0 and <= 40 ? sent.Celsius : null,
            };
            using var stream = sent.Sound.OpenReadStream();
            var heard = RowListener.Hear(WavFile.Read(stream, Path.GetFileName(sent.Sound.FileName)), asked);
            var (scale, own) = await Db.OwnSoundAsync(Pupil.Id, SoundStage.Instrument);
            var judged = new JudgedPupil(Approach, own, sent.Tense || await Db.TenseTodayAsync(Pupil.Id, time))
            {
                Scale = scale,
                Known = await Db.KnownAsync(Pupil.Id, time),
                Day = Today.Date(time),
            };
            var verdict = RowJudge.Judge(heard, asked, judged, await PassesBeforeAsync(drill, asked.Plan.Tempo));
            var take = ToneTake.Of(
                Pupil,
                asked,
                sent.Notes?.Trim() ?? "",
                sent.Settings?.Trim() ?? "",
                sent.Source,
                heard,
                verdict,
                Approach,
                time.GetUtcNow().UtcDateTime
            );
            Db.Tones.Add(take);
            await Db.SaveChangesAsync();
            return Partial("_Heard", await ViewAsync(take, drill, take.Notes, take.Settings, take.Tempo));
        });
    }

    public async Task<IActionResult> OnPostKeepAsync(int id)
    {
        if (await OneAsync(id) is not { } take)
            return NotFound();
        await KeepAsync(take);
        TempData["Told"] = "The take stands in the record.";
        return RedirectToPage(new { pupilId = PupilId, take = id });
    }

    /// <summary>Accepting keeps the take too: it is the reason for the step.</summary>
    public async Task<IActionResult> OnPostAcceptAsync(int id)
    {
        if (await OneAsync(id) is not { } take)
            return NotFound();
        await KeepAsync(take);
        var next = take.Verdict.Next;
        await AcceptAsync(NextPlace.Tone, next, time.GetUtcNow().UtcDateTime);
        // A note that came makes way for the next one; one that did not is tried again.
        var same = next.DrillId == take.DrillId && (take.Outcome != TakeOutcome.Passed || take.Notes == "");
        return RedirectToPage(
            new
            {
                pupilId = PupilId,
                drill = next.DrillId,
                notes = same && take.Notes != "" ? take.Notes : null,
                settings = same && take.Settings != "" ? take.Settings : null,
                tempo = next.Tempo ?? (next.DrillId == take.DrillId ? take.Tempo : null),
            }
        );
    }

    public async Task<IActionResult> OnPostDeleteAsync(int id) =>
        await MarkAsync<ToneTake>(id, time.GetUtcNow().UtcDateTime, "The take is gone from the record.", "Restore") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    public async Task<IActionResult> OnPostRestoreAsync(int id) =>
        await MarkAsync<ToneTake>(id, null, "The take is back.", "Delete") is not null
            ? RedirectToPage(new { pupilId = PupilId, take = id })
            : NotFound();

    private IQueryable<ToneTake> Takes() =>
        Db
            .Tones.AsNoTracking()
            .Where(take => take.PupilId == Pupil!.Id)
            .OrderByDescending(take => take.RecordedAt)
            .ThenByDescending(take => take.Id);

    private Task<ToneTake?> OneAsync(int id) => Db.Tones.FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId);

    private async Task KeepAsync(ToneTake take)
    {
        take.Kept = true;
        foreach (
            var step in await Db
                .Steps.Where(step =>
                    step.PupilId == take.PupilId && step.DoneAt == null && step.Place == NextPlace.Tone && step.DrillId == take.DrillId
                )
                .ToListAsync()
        )
            step.DoneAt = time.GetUtcNow().UtcDateTime;
        await Db.SaveChangesAsync();
    }

    /// <summary>Passes of a drill at a tempo in a row, up to the last take.</summary>
    private async Task<int> PassesBeforeAsync(ToneDrill drill, double tempo)
    {
        var outcomes = await Takes()
            .Where(take => take.DrillId == drill.Id && take.Tempo == tempo)
            .Take(4)
            .Select(take => take.Outcome)
            .ToListAsync();
        return outcomes.TakeWhile(outcome => outcome == TakeOutcome.Passed).Count();
    }

    private async Task<ToneView> ViewAsync(ToneTake? take, ToneDrill drill, string notes, string settings, double tempo)
    {
        var player = await PlayerAsync();
        RowPlan plan;
        try
        {
            plan = PlanOf(drill, notes, settings, tempo, player);
        }
        catch (ArgumentException problem)
        {
            // What was typed stays in its field; the stage shows the first note instead.
            Trouble = problem.Message;
            plan = drill.Plan(player, Approach, tempo);
        }

        var open = await Db
            .Steps.AsNoTracking()
            .Where(step => step.PupilId == Pupil!.Id && step.DoneAt == null)
            .OrderByDescending(step => step.AcceptedAt)
            .FirstOrDefaultAsync();
        var measured = await Db.TuningTakeAsync(Pupil!.Id) is { } tuning ? new MeasuredPassport(player.Passport, tuning.RecordedAt) : null;
        return new ToneView(Pupil, take, drill, plan, notes, settings, open, measured) { Ask = drill.AskFor(Approach) };
    }

    /// <summary>Everything known about the pupil's instrument and misses.</summary>
    private async Task<PlayerSituation> PlayerAsync(double? a4 = null)
    {
        var tuning = PlayingConditions.Of(a4 ?? Room.A4Hz, Room.Celsius).Tuning;
        var played = await Db.PlayedAsync(Pupil!, Approach, tuning);
        var player = new PlayerSituation(played.Instrument, Pupil!.Reading)
        {
            Tuning = tuning,
            Passport = played.Passport,
            Weights = played.Weights,
            Misses = await Db.RecentMissesAsync(Pupil.Id),
        };
        // Patterns are made of what has been learnt, and of the note being learnt.
        player = player with
        {
            Learnt = FirstNotePath.Of(player, Approach, await Db.FirstTriesAsync(Pupil.Id)).Notes.TakeWhile(note => note.Known).Count() + 1,
        };
        return player with
        {
            PatternsClean = await Takes().CountAsync(take => take.DrillId == "patterns" && take.Outcome == TakeOutcome.Passed),
        };
    }

    private RowPlan PlanOf(
        ToneDrill drill,
        string? notes,
        string? settings,
        double tempo,
        PlayerSituation player,
        string? ways = null,
        double? targetPercent = null
    )
    {
        var asked =
            drill.TakesNotes && !string.IsNullOrWhiteSpace(notes)
                ? MeantNote.Row(
                    player.Instrument,
                    player.Reading,
                    notes,
                    string.IsNullOrWhiteSpace(settings) ? null : settings,
                    player.Weights
                )
                : null;
        return drill.Plan(
            player,
            Approach,
            tempo,
            asked,
            ways?.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
            targetPercent / 100
        );
    }

    private static async Task<IActionResult> RefusingAsync(Func<Task<IActionResult>> act)
    {
        try
        {
            return await act();
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException)
        {
            return Refuse(problem.Message);
        }
    }
}
