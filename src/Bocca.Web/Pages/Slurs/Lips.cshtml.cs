using Bocca.Core.Simulation;
using Bocca.Core.Slurs;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Slurs;

/// <summary>What the handles gave: the path over the rungs, words, and the sound as base64 of a WAV.</summary>
public sealed record TriedSlur(RowDrawing Row, string Words, string Sentence, string Why, string Next, bool Slurred, string Wav);

/// <summary>Try the lips on a slur: three handles on the lip model, to hear and see what carries it across and what breaks it.</summary>
public sealed class LipsModel(Journal journal) : StagePage(journal)
{
    /// <summary>The slur tried.</summary>
    public SlurView? View { get; private set; }

    /// <summary>The slurs along one tube that the pupil has on the settings in use, the one tried first.</summary>
    public IReadOnlyList<Slur> Offered { get; private set; } = [];

    /// <summary>It starts from a slur of today, where one goes along one tube.</summary>
    public async Task<IActionResult> OnGetAsync(string? drill, double? tempo)
    {
        if (Pupil is null)
            return NotFound();
        var own = await PupilSlurs.LoadAsync(Journal, Pupil, Approach, Room);
        var slurs = SlurWriter.AllAlongTubes(own.Player).ToList();
        tempo = PupilSlurs.TempoOr(tempo);
        var today = drill is null
            ? (await own.DayAsync(tempo.Value)).Slurs.FirstOrDefault(each => !each.Slur.Shape.Neighbours)?.Slur
            : null;
        if ((drill is null ? today ?? slurs.FirstOrDefault() : own.Find(drill)) is not { } chosen)
            return drill is null ? Page() : NotFound();
        View = new SlurView(Pupil, own.Player, Room.Tuning, null, chosen, tempo.Value, 1, "");
        Offered =
        [
            .. slurs
                .Where(slur => slur.Shape.Id == chosen.Shape.Id || slur.Setting == chosen.Setting)
                .Append(chosen)
                .DistinctBy(slur => slur.Id),
        ];
        return Page();
    }

    /// <summary>Plays the slur with the handles where they stand.</summary>
    public async Task<IActionResult> OnGetTryAsync(string drill, double? tempo, double reach, double opening, double air)
    {
        if (Pupil is null)
            return NotFound();
        var own = await PupilSlurs.LoadAsync(Journal, Pupil, Approach, Room);
        if (own.Find(drill) is not { } slur)
            return NotFound();
        return await RefusingAsync(() =>
        {
            var bands = SlurBands.For(Pupil.Stage);
            var asked = new AskedSlur(slur, PupilSlurs.TempoOr(tempo), 1, own.Situation, Pupil.Stage) { Bands = bands };
            var lips = new SlurLips(Math.Clamp(reach, 0, 200), opening, air);
            return PlayedInTurnAsync(asked.Plan.TotalSeconds, () => Tried(asked, lips));
        });
    }

    private PartialViewResult Tried(AskedSlur asked, SlurLips lips)
    {
        var trial = SlurTrial.Play(asked, lips, 1);
        var wav = new MemoryStream();
        WavFile.Write(wav, trial.Sound);
        var trace = RowTrace.Of(
            trial.Heard.Row,
            new AskedRow(asked.Plan, asked.Player, asked.Pupil) { FirstCueSeconds = asked.Plan.BeatSeconds }
        );
        return Partial(
            "_Tried",
            new TriedSlur(
                new RowDrawing(trace, asked.Player.Instrument, asked.Player.Reading, asked.Tempo, Room.Tuning),
                RowDrawing.Words(trace),
                trial.Sentence,
                trial.Why,
                trial.Next,
                trial.Slurred,
                Convert.ToBase64String(wav.ToArray())
            )
        );
    }
}
