using System.Text;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Frame.Takes;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A slur on the stage: written, and heard once it was played.</summary>
public sealed record SlurView(
    Pupil Pupil,
    SlurPlayer Player,
    Tuning Tuning,
    Shown<SlurPayload>? Take,
    Slur Slur,
    double Tempo,
    int Times,
    string Reason
)
{
    /// <summary>The take that the pupil is to guess at first; null for none.</summary>
    public GuessAsked? Guessing { get; init; }

    public SlurDifficulty Difficulty { get; } = SlurDifficulty.Of(Slur, Player, Tempo);

    /// <summary>How likely slurs come for this pupil.</summary>
    public SlurSuccess Success { get; init; } = SlurSuccess.From([]);

    /// <summary>How likely this one comes clean, 0 to 1.</summary>
    public double Likely => Success.Likelihood(Difficulty.Points, [.. Slur.Pairs]);

    public string ScoreXml => MusicXmlWriter.Write(SlurScore.OnStage(Player, Slur));

    /// <summary>Where in the take it went otherwise first, seconds into it; null where it did not.</summary>
    public string? Place => RowDrawing.Place(Take?.Payload.Trace);

    /// <summary>
    /// What is written on the rungs of its tube, and what was heard upon it; without the names of its notes where it is learnt by ear.
    /// </summary>
    public (RowDrawing Row, string Words) Drawing
    {
        get
        {
            if (Take?.Payload.Trace is { } trace)
                return (new RowDrawing(trace, Player.Instrument, Player.Reading, Tempo, Tuning), RowDrawing.Words(trace));
            var plan = new AskedSlur(Slur, Tempo, Times, new PlayerSituation(Player.Instrument, Player.Reading, Tuning), Pupil.Stage).Plan;
            return (
                new RowDrawing(RowTrace.Meant(plan), Player.Instrument, Player.Reading, Tempo, Tuning, heard: false, named: !Player.ByEar),
                $"The written path: partials {string.Join(", ", Slur.Notes.Select(note => note.Partial))}."
            );
        }
    }

    /// <summary>The slur as it should sound: hertz and beats, for playing it.</summary>
    public string Model => string.Join(' ', Slur.Notes.Select(note => $"{Tuning.Frequency(note.Sounding):0.##}:{note.Beats:0.##}"));
}

/// <summary>What the page sends about a slur.</summary>
public sealed record AskedOfSlur(string Drill, double Tempo, int? Times);

/// <summary>A recording of a slur as sent by the page.</summary>
public sealed record SentSlur(
    IFormFile? Sound,
    EntrySource Source,
    double? FirstCue,
    bool Tense,
    double Missing,
    string Drill,
    double Tempo,
    int? Times
) : SentSound(Sound, Source, FirstCue, Tense, Missing, Drill);

/// <summary>The Slurs stop: the slurs of the day, written and heard.</summary>
[UploadLimit(WavFile.MaximumBytes, WavFile.TooLarge)]
public sealed class IndexModel(Journal journal) : TakePage<SlurPayload>(journal)
{
    [BindProperty(SupportsGet = true, Name = "drill")]
    public string? SlurId { get; set; }

    [BindProperty(SupportsGet = true, Name = "tempo")]
    public double? Tempo { get; set; }

    [BindProperty(SupportsGet = true, Name = "tired")]
    public bool Tired { get; set; }

    /// <summary>The pupil's slurs; null while nobody is chosen.</summary>
    public PupilSlurs? Slurs { get; private set; }

    public SlurView? View { get; private set; }

    public SlurDay? Day { get; private set; }

    /// <summary>The slurs offered: the day's, and the one on the stage.</summary>
    public IReadOnlyList<Slur> Offered =>
        View is null ? [] : [.. Day!.Slurs.Select(chosen => chosen.Slur).Append(View.Slur).DistinctBy(slur => slur.Id)];

    protected override TakeRules<SlurPayload> Rules => new(SlursStop.Takes, OnStageAsync, Onward);

    public async Task<IActionResult> OnGetAsync()
    {
        if (Pupil is null)
            return Page();
        var slurs = await SlursAsync();
        var take = await AskedTakeAsync(slurs.Takes());
        if (TakeId is not null && take is null)
            return NotFound();
        await LoadDayAsync();
        if (take is not null)
        {
            View = ViewOf(slurs, take);
        }
        else
        {
            var slur = slurs.Find(SlurId ?? (Day!.Slurs.Count > 0 ? Day.Slurs[0].Slur.Id : null));
            if (slur is null && SlurId is not null)
                return NotFound();
            View = slur is null ? null : ViewOf(slurs, slur);
        }

        await LoadPastAsync();
        return Page();
    }

    /// <summary>The slur beat by beat.</summary>
    public async Task<IActionResult> OnGetBeginAsync(AskedOfSlur asked) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var slurs = await SlursAsync();
                var slur = AskedOf(slurs, asked.Drill, asked.Tempo, asked.Times);
                var plan = slur.Plan;
                return await CountedAsync(
                    Asking(
                        CountedDrill.Of(plan.Cues, plan.Model(note => Room.Tuning.Frequency(note.Sounding))),
                        SlurRequest.Kind,
                        SlurRequest.Of(slur, Terms)
                    ),
                    plan.Cues,
                    plan.SecondsAbove(slurs.Player.Range.Highest)
                );
            });

    /// <summary>The practice player's take as a WAV.</summary>
    public async Task<IActionResult> OnGetPracticeAsync(AskedOfSlur asked, string? request, string character, int seed) =>
        Pupil is null
            ? NotFound()
            : await RefusingAsync(async () =>
            {
                var slurs = await SlursAsync();
                var frozen = await FrozenAsync(SlurRequest.Kind, request, () => Task.FromResult(RequestNow(slurs, asked)));
                var slur = frozen.Asked.Asked(frozen.Asked.PlayerAs(slurs.Situation));
                var how = SlurCharacter.Get(character);
                return await PlayedInTurnAsync(
                    slur.Plan.TotalSeconds,
                    () =>
                    {
                        var take = SimulatedPlayer.PlayRow(slur.Player.Instrument, how.Play(slur), slur.Tempo, how.Faults, seed);
                        return Played(take.Sound, character, slur.Plan.BeatSeconds);
                    }
                );
            });

    /// <summary>Hears a recording out and puts it on the stage; nothing is kept of its sound.</summary>
    public Task<IActionResult> OnPostHearAsync([FromForm] SentSlur sent) =>
        HearAsync(
            sent,
            async take =>
            {
                var slurs = await SlursAsync();
                var frozen = await FrozenAsync(
                    SlurRequest.Kind,
                    sent.Request,
                    () => Task.FromResult(RequestNow(slurs, new AskedOfSlur(sent.Drill, sent.Tempo, sent.Times)))
                );
                var asked = frozen.Asked.Asked(frozen.Asked.PlayerAs(slurs.Situation));
                var player = slurs.PlayerOf(asked, frozen.Terms.Approach);
                var whole = asked.Times;
                asked = sent.Finished is { } beats ? asked.UpTo(beats) : asked;
                var judged = await Takes.JudgedAsync(frozen.Terms, SoundStage.Instrument, sent.Tense, take.Before);
                var onward = SlurWriter.Onward(player, asked.Slur);
                var heard = SlurTake.Hear(take.Sound, asked, judged, onward, sent.FirstCue, sent.MissingSeconds);
                return WrittenTake.Of(frozen, SlursStop.Take(Pupil!, heard, player, sent.Source, Clock.Now), asked.Times, whole);
            }
        );

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
        if (Day!.Slurs.Count == 0)
            return Refuse(Day.Note);
        IReadOnlyList<Slur> slurs = [.. Day.Slurs.Select(chosen => chosen.Slur)];
        var score = SlurScore.Of($"Slurs for {Pupil.Name}", Slurs!.Player, slurs, PupilSlurs.TempoOr(Tempo));
        return File(write(score), type, $"slurs.{ending}");
    }

    private async Task<PupilSlurs> SlursAsync() => Slurs ??= await PupilSlurs.LoadAsync(Journal, Pupil!, Approach, Room);

    private async Task LoadDayAsync() => Day = await (await SlursAsync()).DayAsync(PupilSlurs.TempoOr(Tempo), Tired);

    private SlurRequest RequestNow(PupilSlurs slurs, AskedOfSlur asked) =>
        SlurRequest.Of(AskedOf(slurs, asked.Drill, asked.Tempo, asked.Times), Terms);

    private AskedSlur AskedOf(PupilSlurs slurs, string id, double tempo, int? times)
    {
        var slur =
            slurs.Find(id) ?? throw new ArgumentException("This slur does not fit the pupil's range and tubes any more. Choose another.");
        var (slowest, fastest) = CuePlan.TempoRange;
        if (!(tempo >= slowest && tempo <= fastest))
            throw new ArgumentException($"Slurs go at {slowest:0} to {fastest:0} beats a minute, not {tempo:0}.");
        return new AskedSlur(slur, tempo, Math.Clamp(times ?? SlurDay.Times, 1, AskedSlur.MostTimes), slurs.Situation, Pupil!.Stage)
        {
            Bands = SlurBands.For(Pupil.Stage),
        };
    }

    private async Task<IActionResult> OnStageAsync(Shown<SlurPayload> take) =>
        ViewOf(await SlursAsync(), take) is { } view ? Partial("_Heard", view) : Refuse("The slur of this take is not written any more.");

    private RedirectToPageResult Onward(Shown<SlurPayload> take, NextStep next) =>
        RedirectToPage(
            new
            {
                pupilId = Pupil!.Id,
                drill = next.DrillId,
                tempo = take.Entry.Tempo,
            }
        );

    /// <summary>A slur that is to be played.</summary>
    private SlurView ViewOf(PupilSlurs slurs, Slur slur)
    {
        var chosen = Day?.Slurs.FirstOrDefault(each => each.Slur.Id == slur.Id);
        return ViewOf(slurs.Player, Room.Tuning, null, slur, Tempo ?? chosen?.Tempo ?? PupilSlurs.UsualTempo, SlurDay.Times);
    }

    /// <summary>
    /// A slur that was played, as it was asked; null where it was played before that was kept, and the pupil has no such slur any more.
    /// </summary>
    private SlurView? ViewOf(PupilSlurs slurs, Shown<SlurPayload> take)
    {
        if (AskedIn(SlurRequest.Kind, take) is { } request)
        {
            var asked = request.Asked(request.PlayerAs(slurs.Situation));
            var player = slurs.PlayerOf(asked, Approach.Parse(request.Approach));
            return ViewOf(player, asked.Player.Tuning, take, asked.Slur, asked.Tempo, take.Payload.Times);
        }

        return slurs.Find(take.Entry.DrillId) is { } slur
            ? ViewOf(slurs.Player, Room.Tuning, take, slur, take.Entry.Tempo ?? PupilSlurs.UsualTempo, take.Payload.Times)
            : null;
    }

    private SlurView ViewOf(SlurPlayer player, Tuning tuning, Shown<SlurPayload>? take, Slur slur, double tempo, int times) =>
        new(
            Pupil!,
            player,
            tuning,
            Asks(take) is null ? take : null,
            slur,
            tempo,
            times,
            Day?.Slurs.FirstOrDefault(chosen => chosen.Slur.Id == slur.Id)?.Reason ?? ""
        )
        {
            Guessing = Asks(take),
            Success = Day?.Success ?? SlurSuccess.From([]),
        };
}
