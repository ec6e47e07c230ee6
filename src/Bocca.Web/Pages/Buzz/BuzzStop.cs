using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Buzz;

/// <summary>What a take of buzzes has beside its columns. The sound itself is not kept, only measures and the pitch line.</summary>
public sealed record BuzzPayload(TakeMeasures Measures, Verdict Verdict, TakeThreads Threads) : IJudgedPayload<BuzzPayload>
{
    public BuzzPayload With(Verdict verdict) => this with { Verdict = verdict };
}

/// <summary>The Buzz stop, and what it writes into the record.</summary>
public static class BuzzStop
{
    public static EntryKind<BuzzPayload> Takes { get; } =
        new("buzz", "take")
        {
            Shape = StoredBuzzTake.Shape,
            IsTake = true,
            Title = take => $"{DrillName(take.DrillId!) ?? take.DrillId}, {Wording.On(take.Stage ?? SoundStage.Mouthpiece)}",
            Opens = take => $"/buzz/{take.PupilId}?take={take.Id}",
            Columns = Complete,
            Figures = (_, take) =>
                [
                    .. BuzzFigures.Of(take.Measures, take.Verdict.OnOwnScale, take.Threads.Strip),
                    .. Guess.Of(take.Verdict),
                    .. CueHistory.FiguresOf(take.Verdict),
                ],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '4',
            Path = "buzz",
            Name = "Buzz",
            Promise = "Buzzes heard, measured and laid over each other.",
            Kinds = [Takes],
            Requests = [BuzzRequest.Kind],
            Followed = [BuzzFigures.Steadiness, BuzzFigures.SirenRange],
            DrillName = DrillName,
        };

    /// <summary>A take as heard, not yet kept.</summary>
    public static (Entry Entry, BuzzPayload Payload) Take(Pupil pupil, AskedTake asked, EntrySource source, HeardTake heard, DateTime at)
    {
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Takes.Id,
            DrillId = asked.Drill.Id,
            InstrumentId = pupil.InstrumentId,
            Stage = asked.On,
            Source = source,
            Tempo = asked.Plan.Tempo,
            ElapsedSeconds = asked.Plan.TotalSeconds,
            PlayedSeconds = PlayingClock.PlayedSeconds(asked.Plan),
            At = at,
            Outcome = heard.Verdict.Outcome,
            Summary = heard.Verdict.Summary,
        };
        return (entry, new BuzzPayload(heard.Measures, heard.Verdict, TakeThreads.Of(heard, asked.Plan.SoundSeconds)));
    }

    private static void Complete(Entry entry, BuzzPayload take)
    {
        var measures = take.Measures;
        var gate = GateTake.Of(measures, take.Verdict.Findings.Select(finding => finding.Tries), default, take.Verdict.Outcome);
        (entry.Came, entry.Asked) = (gate.Good, gate.Tries);
        entry.LevelDb = measures.Median(attempt => attempt.LevelDb);
        entry.SoundedSeconds = measures.Spoken.Sum(attempt => attempt.SoundingSeconds);
        entry.ElapsedSeconds ??= Known(entry.DrillId!)?.Plan.At(entry.Tempo ?? 0).TotalSeconds ?? measures.DurationSeconds;
    }

    private static BuzzDrill? Known(string id) => BuzzDrill.All.FirstOrDefault(drill => drill.Id == id);

    private static string? DrillName(string id) => Known(id)?.Name;
}
