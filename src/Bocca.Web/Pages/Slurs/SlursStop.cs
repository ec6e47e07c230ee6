using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Listening;
using Bocca.Web.Frame;
using Bocca.Web.Record;

namespace Bocca.Web.Pages.Slurs;

/// <summary>
/// What a take of a slur has beside its columns: how often it was played, and how each change came. The sound itself is not kept.
/// </summary>
public sealed record SlurPayload(int Times, RowTrace Trace, IReadOnlyList<SlurMap.Change> Changes, Verdict Verdict)
    : IJudgedPayload<SlurPayload>
{
    public SlurPayload With(Verdict verdict) => this with { Verdict = verdict };
}

/// <summary>The Slurs stop, and what it writes into the record.</summary>
public static class SlursStop
{
    /// <summary>How hard a slur was, points.</summary>
    public static ResultNumber Points { get; } = new("points");

    /// <summary>A take of a slur; its drill is the slur, its subject the written notes.</summary>
    public static EntryKind<SlurPayload> Takes { get; } =
        new("slur", "slur")
        {
            Shape = StoredSlurTake.Shape,
            OfOlderLevel = level => EntryResult.Of(Points, level),
            IsTake = true,
            DueAfterDays = _ => SlurDay.DueDays,
            Title = take => $"Slur {Wording.Spelled(take.Subject.Replace("~", " "))}",
            Opens = take => $"/slurs/{take.PupilId}?take={take.Id}",
            Columns = (entry, take) => take.Trace.FillIn(entry),
            Figures = (_, take) => [.. SlurFigures.Of(take.Changes), .. Guess.Of(take.Verdict), .. CueHistory.FiguresOf(take.Verdict)],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '7',
            Path = "slurs",
            Name = "Slurs",
            Promise = "The next lip slur for this pupil, written and heard.",
            Kinds = [Takes],
            Requests = [SlurRequest.Kind],
            Followed = [SlurFigures.Clean],
            Styles = ["notes"],
            KeyPlaces = ["call"],
            Dues =
            [
                new StopDue(count => $"{count} {(count == 1 ? "slur" : "slurs")} due again", pupil => $"/slurs/{pupil}", "slurs-due")
                {
                    Of = Takes,
                    Drill = "slurs",
                },
            ],
        };

    /// <summary>A take as heard, not yet kept.</summary>
    public static (Entry Entry, SlurPayload Payload) Take(Pupil pupil, SlurTake take, SlurPlayer player, EntrySource source, DateTime at)
    {
        var (asked, heard, verdict, _) = take;
        var bands = asked.Bands.In(heard.Row.RoomDecaySeconds);
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Takes.Id,
            DrillId = asked.Slur.Id,
            Subject = asked.Slur.Text,
            InstrumentId = pupil.InstrumentId,
            Stage = SoundStage.Instrument,
            Source = source,
            Tempo = asked.Tempo,
            PlayedSeconds = PlayingClock.PlayedSeconds(asked.Plan.Cues),
            HighSeconds = asked.Plan.SecondsAbove(player.Range.Highest),
            Result = EntryResult.Of(Points, SlurDifficulty.Of(asked.Slur, player, asked.Tempo).Points),
            Came = heard.Changes.Count(change => change.Fault(bands) is null),
            Asked = heard.Changes.Count,
            At = at,
            Outcome = verdict.Outcome,
            Summary = verdict.Summary,
        };
        return (entry, new SlurPayload(asked.Times, take.Trace, SlurMap.Changes(heard, bands, at), verdict));
    }
}
