using Bocca.Core.Instruments;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Web.Drawings;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Pages.Buzz;

/// <summary>What the three handles gave: where on the ladder, what was heard and why, and the sound.</summary>
public sealed record TriedLips(
    string Sentence,
    LipOutcome Outcome,
    int? Partial,
    double? HeardY,
    double LevelDb,
    double? NoiseDb,
    string Wav
);

/// <summary>Try the lips: three handles on the lip model, to hear and see which partial speaks.</summary>
public sealed class LipsModel(Journal journal) : StagePage(journal)
{
    /// <summary>The ladder of the open tube, for the page.</summary>
    public LadderDrawing? Ladder { get; private set; }

    public IReadOnlyList<Tube> Tubes { get; private set; } = [];

    public void OnGet()
    {
        if (Pupil is null)
            return;
        Tubes = [.. Pupil.Instrument.Tubes.DistinctBy(tube => tube.Semitones).OrderBy(tube => tube.Semitones).Take(7)];
        Ladder = new LadderDrawing(Pupil.Instrument, Pupil.Reading, Pupil.Instrument.Tubes[0], Room.Tuning);
    }

    /// <summary>The ladder of a tube.</summary>
    public IActionResult OnGetLadder(string? setting) =>
        Pupil is null || TubeOf(setting) is not { } tube
            ? NotFound()
            : Partial("_Ladder", new LadderDrawing(Pupil.Instrument, Pupil.Reading, tube, Room.Tuning));

    /// <summary>Plays a setting of the handles.</summary>
    public async Task<IActionResult> OnGetTryAsync(double tension, double opening, double air, SoundStage on, string? setting, int seed) =>
        Pupil is null || TubeOf(setting) is not { } tube
            ? NotFound()
            : await PlayedInTurnAsync(LipTrial.Seconds, () => Tried(tube, new LipSetting(tension, opening, air), on, seed));

    private JsonResult Tried(Tube tube, LipSetting lips, SoundStage on, int seed)
    {
        var trial = LipTrial.Play(Pupil!.Instrument, on, tube, lips, seed);
        var wav = new MemoryStream();
        WavFile.Write(wav, trial.Sound);
        var ladder = new LadderDrawing(Pupil.Instrument, Pupil.Reading, tube, Room.Tuning);
        return new JsonResult(
            new TriedLips(
                trial.Sentence,
                trial.Outcome,
                trial.Partial,
                trial.Hertz is { } hertz ? ladder.Y(hertz) : null,
                Math.Round(trial.LevelDb, 1),
                trial.NoiseDb,
                Convert.ToBase64String(wav.ToArray())
            )
        );
    }

    private Tube? TubeOf(string? setting)
    {
        foreach (var tube in Pupil!.Instrument.Tubes)
            if (setting is null || tube.Setting.ToString() == setting)
                return tube;
        return null;
    }
}
