using System.ComponentModel.DataAnnotations;
using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Core.Slurs;
using Bocca.Core.Tone;

namespace Bocca.Web.Data;

/// <summary>A take of a slur: what was written, and how each change came. The sound itself is not kept.</summary>
public sealed class SlurTake : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string InstrumentId { get; set; }

    /// <summary>Shape, setting and first partial.</summary>
    [MaxLength(60)]
    public required string SlurId { get; set; }

    /// <summary>The written notes, slurs between them.</summary>
    [MaxLength(300)]
    public required string Text { get; set; }

    public double Tempo { get; set; }

    public int Times { get; set; }

    public SoundSource Source { get; set; }

    public DateTime RecordedAt { get; set; }

    /// <summary>False until somebody saves it; what is not saved within a day goes.</summary>
    public bool Kept { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>The approach it was judged under.</summary>
    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public TakeOutcome Outcome { get; set; }

    /// <summary>How many changes were clean, of how many, for lists without reading the rest.</summary>
    public int Clean { get; set; }

    public int Changes { get; set; }

    /// <summary>How hard it was then, points.</summary>
    public double Difficulty { get; set; }

    [MaxLength(600)]
    public required string Summary { get; set; }

    public required string TraceJson { get; set; }

    public required string ChangesJson { get; set; }

    public required string VerdictJson { get; set; }

    public RowTrace Trace => Stored.Read<RowTrace>(TraceJson);

    public IReadOnlyList<SlurMap.Change> Heard => Stored.Read<List<SlurMap.Change>>(ChangesJson);

    public TakeVerdict Verdict => Stored.Read<TakeVerdict>(VerdictJson);

    /// <summary>The take as a try, for the pupil's own success.</summary>
    public SlurTry Try =>
        new(SlurId, [.. Heard.Select(change => (change.Low, change.High))], Difficulty, Outcome == TakeOutcome.Passed, RecordedAt);

    /// <summary>A take as heard, not yet kept.</summary>
    public static SlurTake Of(
        Pupil pupil,
        AskedSlur asked,
        SlurPlayer player,
        SoundSource source,
        double? firstCueSeconds,
        HeardSlur heard,
        TakeVerdict verdict,
        Approach approach,
        DateTime now
    )
    {
        var bands = SlurBands.For(asked.Pupil);
        return new SlurTake
        {
            PupilId = pupil.Id,
            InstrumentId = pupil.InstrumentId,
            SlurId = asked.Slur.Id,
            Text = asked.Slur.Text,
            Tempo = asked.Tempo,
            Times = asked.Times,
            Source = source,
            RecordedAt = now,
            ApproachText = approach.ToString(),
            Outcome = verdict.Outcome,
            Clean = heard.Changes.Count(change => change.Fault(bands) is null),
            Changes = heard.Changes.Count,
            Difficulty = SlurDifficulty.Of(asked.Slur, player, asked.Tempo).Points,
            Summary = verdict.Summary.Length <= 600 ? verdict.Summary : verdict.Summary[..600],
            TraceJson = Stored.Write(
                RowTrace.Of(heard.Row, new AskedRow(asked.Plan, asked.Player, asked.Pupil) { FirstCueSeconds = firstCueSeconds })
            ),
            ChangesJson = Stored.Write(
                heard
                    .Changes.Where(change => Math.Abs(change.Partials.To - change.Partials.From) >= 1)
                    .Select(change => new SlurMap.Change(
                        change.Setting,
                        Math.Min(change.Partials.From, change.Partials.To),
                        Math.Max(change.Partials.From, change.Partials.To),
                        change.Fault(bands) is null,
                        now
                    ))
                    .ToList()
            ),
            VerdictJson = Stored.Write(verdict),
        };
    }
}
