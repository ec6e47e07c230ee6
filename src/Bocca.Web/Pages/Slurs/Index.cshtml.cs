using System.Text;
using Bocca.Core.Buzz;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Web.Data;
using Bocca.Web.Drawings;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A slur on the stage: written, and heard once it was played.</summary>
public sealed record SlurView(Pupil Pupil, SlurPlayer Player, SlurTake? Take, Slur Slur, double Tempo, int Times, string Reason)
{
    public SlurDifficulty Difficulty { get; } = SlurDifficulty.Of(Slur, Player, Tempo);

    public string ScoreXml => MusicXmlWriter.Write(SlurScore.OnStage(Player, Slur));

    /// <summary>The rungs of its tube, for the path.</summary>
    public IReadOnlyList<DrawnRungLine> Rungs =>
        [
            .. Core
                .Instruments.Rung.Of(Player.Instrument, Slur.Notes[0].Tube, 12, Tuning.Standard)
                .Select(rung => new DrawnRungLine(Tuning.Standard.Midi(rung.Hertz), $"{rung.Partial}")),
        ];

    /// <summary>The path as it is written, on the rungs of its tube; without the names of its notes where it is learnt by ear.</summary>
    public (RowDrawing Row, string Words) Written
    {
        get
        {
            var plan = new AskedSlur(Slur, Tempo, 1, new Core.Tone.PlayerSituation(Player.Instrument, Player.Reading), Pupil.Stage).Plan;
            return (
                new RowDrawing(Core.Tone.RowTrace.Meant(plan), 760, 230, Rungs, heard: false, named: !Player.ByEar),
                $"The written path: partials {string.Join(", ", Slur.Notes.Select(note => note.Partial))}."
            );
        }
    }

    /// <summary>The slur as it should sound: hertz and beats, for playing it.</summary>
    public string Model =>
        string.Join(' ', Slur.Notes.Select(note => $"{Tuning.Standard.Frequency(note.Sounding):0.##}:{note.Beats:0.##}"));
}

/// <summary>What the page sends about a slur.</summary>
public sealed record AskedOfSlur(string Drill, double Tempo, int? Times);

/// <summary>A recording as sent by the page.</summary>
public sealed record SentSlur(
    IFormFile? Sound,
    string Drill,
    double Tempo,
    int? Times,
    SoundSource Source,
    double? FirstCue,
    bool Tense,
    double Missing
);

/// <summary>The Slurs stop: the slurs of the day, written and heard.</summary>
[RequestFormLimits(MultipartBodyLengthLimit = WavFile.MaximumBytes + 1_000_000)]
public sealed class IndexModel(BoccaDb db, TimeProvider time) : SlursPage(db, time)
{
    private const int PastTakes = 12,
        MostTimes = 4;

    /// <summary>Minutes that a day's slurs may take (common practice).</summary>
    private const double Minutes = 5;

    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? SlurId { get; set; }

    [BindProperty(SupportsGet = true, Name = "take")]
    public int? TakeId { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    [BindProperty(SupportsGet = true, Name = "tired")]
    public bool Tired { get; set; }

    public SlurView? View { get; private set; }

    public SlurDay? Day { get; private set; }

    public IReadOnlyList<SlurTake> Past { get; private set; } = [];

    /// <summary>The slurs offered: the day's, and the one on the stage.</summary>
    public IReadOnlyList<Slur> Offered =>
        View is null ? [] : [.. Day!.Slurs.Select(chosen => chosen.Slur).Append(View.Slur).DistinctBy(slur => slur.Id)];

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var take = TakeId is { } id ? await Takes().FirstOrDefaultAsync(candidate => candidate.Id == id) : null;
        if (TakeId is not null && take is null)
            return NotFound();
        await LoadDayAsync();
        var slur = Find(SlurId ?? take?.SlurId ?? (Day!.Slurs.Count > 0 ? Day.Slurs[0].Slur.Id : null));
        if (slur is null && SlurId is not null)
            return NotFound();
        View = slur is null
            ? null
            : ViewOf(
                take,
                slur,
                take?.Tempo ?? Tempo ?? Day!.Slurs.FirstOrDefault(chosen => chosen.Slur.Id == slur.Id)?.Tempo ?? UsualTempo,
                take?.Times ?? SlurDay.Times
            );
        Past = await Takes().Where(past => past.Kept).Take(PastTakes).ToListAsync();
        return Page();
    }

    /// <summary>The slur beat by beat.</summary>
    public IActionResult OnGetPlan(AskedOfSlur asked) =>
        Pupil is null
            ? NotFound()
            : Refusing(() =>
            {
                var plan = AskedOf(asked.Drill, asked.Tempo, asked.Times).Plan;
                return new JsonResult(
                    new Buzz.CountedDrill(plan.BeatSeconds, plan.TotalBeats, plan.Cues.SoundSeconds, 0, BeatSheet.Of(plan.Cues))
                );
            });

    /// <summary>The practice player's take as a WAV.</summary>
    public IActionResult OnGetPractice(AskedOfSlur asked, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : Refusing(() =>
            {
                var slur = AskedOf(asked.Drill, asked.Tempo, asked.Times);
                var how = SlurCharacter.Get(character);
                var take = SimulatedPlayer.PlayRow(slur.Player.Instrument, how.Play(slur), slur.Tempo, [], seed);
                // The player rests a beat before the first note; the page counts in itself.
                var lead = (int)(slur.Plan.BeatSeconds * take.Sound.SampleRate);
                var wav = new MemoryStream();
                WavFile.Write(wav, new MonoSound(take.Sound.Samples[lead..], take.Sound.SampleRate));
                wav.Position = 0;
                return File(wav, "audio/wav", $"practice-{character}.wav");
            });

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public async Task<IActionResult> OnPostHearAsync([FromForm] SentSlur sent)
    {
        if (Pupil is null)
            return NotFound();
        if (sent.Sound is null || !ModelState.IsValid)
            return Refuse("The recording did not arrive whole. Record it once more.");
        try
        {
            var asked = AskedOf(sent.Drill, sent.Tempo, sent.Times);
            using var stream = sent.Sound.OpenReadStream();
            var heard = HeardSlur.Hear(
                WavFile.Read(stream, Path.GetFileName(sent.Sound.FileName)),
                asked,
                sent.FirstCue,
                Math.Max(0, sent.Missing)
            );
            var (scale, own) = await Db.OwnSoundAsync(Pupil.Id, SoundStage.Instrument);
            var judged = new JudgedPupil(Approach, own, sent.Tense || await Db.TenseTodayAsync(Pupil.Id, Time))
            {
                Scale = scale,
                Known = await Db.KnownAsync(Pupil.Id, Time),
                Day = Today.Date(Time),
            };
            var verdict = SlurJudge.Judge(heard, asked, judged, SlurWriter.Onward(Player!, asked.Slur));
            var take = SlurTake.Of(
                Pupil,
                asked,
                Player!,
                sent.Source,
                sent.FirstCue,
                heard,
                verdict,
                Approach,
                Time.GetUtcNow().UtcDateTime
            );
            Db.Slurs.Add(take);
            await Db.SaveChangesAsync();
            return Partial("_Heard", ViewOf(take, asked.Slur, asked.Tempo, asked.Times));
        }
        catch (Exception problem) when (problem is ArgumentException or InvalidDataException)
        {
            return Refuse(problem.Message);
        }
    }

    public async Task<IActionResult> OnPostKeepAsync(int id)
    {
        if (await OneAsync(id) is not { } take)
            return NotFound();
        take.Kept = true;
        await Db.SaveChangesAsync();
        TempData["Told"] = "The slur stands in the record.";
        return RedirectToPage(new { pupilId = PupilId, take = id });
    }

    /// <summary>Accepting keeps the take too: it is the reason for the step.</summary>
    public async Task<IActionResult> OnPostAcceptAsync(int id)
    {
        if (await OneAsync(id) is not { } take)
            return NotFound();
        var next = take.Verdict.Next;
        take.Kept = true;
        await AcceptAsync(NextPlace.Slurs, next, Time.GetUtcNow().UtcDateTime);
        return RedirectToPage(
            new
            {
                pupilId = PupilId,
                drill = next.DrillId,
                tempo = take.Tempo,
            }
        );
    }

    public async Task<IActionResult> OnPostDeleteAsync(int id) =>
        await MarkAsync<SlurTake>(id, Time.GetUtcNow().UtcDateTime, "The slur is gone from the record.", "Restore") is not null
            ? RedirectToPage(new { pupilId = PupilId })
            : NotFound();

    public async Task<IActionResult> OnPostRestoreAsync(int id) =>
        await MarkAsync<SlurTake>(id, null, "The slur is back.", "Delete") is not null
            ? RedirectToPage(new { pupilId = PupilId, take = id })
            : NotFound();

    /// <summary>The slurs of the day as a score.</summary>
    public async Task<IActionResult> OnGetMusicXmlAsync() =>
        await SentAsync("musicxml", "application/vnd.recordare.musicxml+xml", score => Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score)));

    /// <summary>The slurs of the day, to be listened to.</summary>
    public async Task<IActionResult> OnGetMidiAsync() => await SentAsync("mid", "audio/midi", MidiWriter.Write);

    private async Task<IActionResult> SentAsync(string ending, string type, Func<MusicScore, byte[]> write)
    {
        if (Pupil is null)
            return NotFound();
        await LoadDayAsync();
        return Day!.Slurs.Count == 0
            ? Refuse(Day.Note)
            : File(
                write(SlurScore.Of($"Slurs for {Pupil.Name}", Player!, [.. Day.Slurs.Select(chosen => chosen.Slur)], TempoOr(Tempo))),
                type,
                $"slurs.{ending}"
            );
    }

    private async Task LoadDayAsync() =>
        Day = SlurDay.Of(
            Player!,
            [.. (await KeptAsync()).Select(take => take.Try)],
            Time.GetUtcNow().UtcDateTime,
            TempoOr(Tempo),
            Minutes,
            Tired
        );

    private AskedSlur AskedOf(string id, double tempo, int? times)
    {
        var slur = Find(id) ?? throw new ArgumentException("This slur does not fit the pupil's range and tubes any more. Choose another.");
        var (slowest, fastest) = CuePlan.TempoRange;
        return new AskedSlur(
            slur,
            tempo >= slowest && tempo <= fastest
                ? tempo
                : throw new ArgumentException($"Slurs go at {slowest:0} to {fastest:0} beats a minute, not {tempo:0}."),
            Math.Clamp(times ?? SlurDay.Times, 1, MostTimes),
            Situation,
            Pupil!.Stage
        );
    }

    private Slur? Find(string? id) => id is null ? null : SlurWriter.Find(Player!, id);

    private SlurView ViewOf(SlurTake? take, Slur slur, double tempo, int times) =>
        new(Pupil!, Player!, take, slur, tempo, times, Day?.Slurs.FirstOrDefault(chosen => chosen.Slur.Id == slur.Id)?.Reason ?? "");

    private Task<SlurTake?> OneAsync(int id) => Db.Slurs.FirstOrDefaultAsync(take => take.Id == id && take.PupilId == PupilId);

    private static IActionResult Refusing(Func<IActionResult> act)
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
