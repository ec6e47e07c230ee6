using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Tone;

/// <summary>
/// What a take of notes has beside its columns: a setting chosen for each note, and what came. The sound itself is not kept.
/// </summary>
public sealed record TonePayload(string Settings, RowTrace Trace, Verdict Verdict) : IJudgedPayload<TonePayload>
{
    public TonePayload With(Verdict verdict) => this with { Verdict = verdict };
}

/// <summary>The Tone stop, and what it writes into the record.</summary>
public static class ToneStop
{
    /// <summary>A take of notes; its subject are the notes chosen for it, empty where the drill has its own.</summary>
    public static EntryKind<TonePayload> Takes { get; } =
        new("tone", "take")
        {
            Shape = StoredToneTake.Shape,
            IsTake = true,
            Title = take => DrillName(take.DrillId!) + (take.Subject.Length is > 0 and < 40 ? $", {Wording.Spelled(take.Subject)}" : ""),
            Opens = take => $"/tone/{take.PupilId}?take={take.Id}",
            Columns = (entry, take) => take.Trace.FillIn(entry),
            Figures = (entry, take) =>
                [
                    .. ToneFigures.Of(take.Trace, entry.Subject != "", entry.Outcome != Outcome.CannotTell, Known(entry.DrillId!)?.Aim),
                    .. Guess.Of(take.Verdict),
                    .. CueHistory.FiguresOf(take.Verdict),
                ],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '5',
            Path = "tone",
            Name = "Tone",
            Promise = "What was just played, held against what was meant.",
            Kinds = [Takes],
            Requests = [ToneRequest.Kind],
            Followed = [ToneFigures.FirstTry, Guess.Right],
            DrillName = id => Known(id)?.Name,
            // Who is still on the mouthpiece has no notes yet.
            OffersDrill = (id, pupil, approach, _) =>
                pupil.Stage >= LearningStage.FirstNotes && Known(id)?.IsFor(pupil.Instrument, approach) == true,
        };

    /// <summary>A take as heard, not yet kept.</summary>
    public static (Entry Entry, TonePayload Payload) Take(
        Pupil pupil,
        RowTake take,
        (string Notes, string Settings) chosen,
        EntrySource source,
        DateTime at
    )
    {
        var (asked, heard, verdict) = take;
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Takes.Id,
            DrillId = asked.Drill!.Id,
            Subject = chosen.Notes,
            InstrumentId = pupil.InstrumentId,
            Stage = SoundStage.Instrument,
            Source = source,
            Tempo = asked.Plan.Tempo,
            PlayedSeconds = PlayingClock.PlayedSeconds(asked.Plan.Cues),
            Came = heard.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right),
            Asked = heard.Notes.Count,
            At = at,
            Outcome = verdict.Outcome,
            Summary = verdict.Summary,
        };
        return (entry, new TonePayload(chosen.Settings, take.Trace, verdict));
    }

    private static ToneDrill? Known(string id) => ToneDrill.All.FirstOrDefault(drill => drill.Id == id);

    private static string DrillName(string id) => Known(id)?.Name ?? id;
}
