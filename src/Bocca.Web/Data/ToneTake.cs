using System.ComponentModel.DataAnnotations;
using Bocca.Core.Buzz;
using Bocca.Core.Practice;
using Bocca.Core.Tone;

namespace Bocca.Web.Data;

/// <summary>A take on the instrument: the notes meant, and what came of them. The sound itself is not kept.</summary>
public sealed class ToneTake : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    [MaxLength(40)]
    public required string DrillId { get; set; }

    /// <summary>The notes chosen for it; empty where the drill has its own.</summary>
    [MaxLength(2000)]
    public string Notes { get; set; } = "";

    /// <summary>A setting for each of them; empty for the first choice of each.</summary>
    [MaxLength(2000)]
    public string Settings { get; set; } = "";

    public double Tempo { get; set; }

    public SoundSource Source { get; set; }

    public DateTime RecordedAt { get; set; }

    /// <summary>False until somebody saves it; what is not saved within a day goes.</summary>
    public bool Kept { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>The approach it was judged under.</summary>
    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public TakeOutcome Outcome { get; set; }

    /// <summary>How many notes came, of how many, for lists without reading the rest.</summary>
    public int Came { get; set; }

    public int Asked { get; set; }

    [MaxLength(600)]
    public required string Summary { get; set; }

    public required string TraceJson { get; set; }

    public required string VerdictJson { get; set; }

    public RowTrace Trace => Stored.Read<RowTrace>(TraceJson);

    public TakeVerdict Verdict => Stored.Read<TakeVerdict>(VerdictJson);

    /// <summary>A take as heard, not yet kept.</summary>
    public static ToneTake Of(
        Pupil pupil,
        AskedRow asked,
        string notes,
        string settings,
        SoundSource source,
        HeardRow heard,
        TakeVerdict verdict,
        Approach approach,
        DateTime now
    ) =>
        new()
        {
            PupilId = pupil.Id,
            DrillId = asked.Drill!.Id,
            Notes = notes,
            Settings = settings,
            Tempo = asked.Plan.Tempo,
            Source = source,
            ApproachText = approach.ToString(),
            RecordedAt = now,
            Outcome = verdict.Outcome,
            Came = heard.Notes.Count(note => note.Judged.Outcome == NoteOutcome.Right),
            Asked = heard.Notes.Count,
            Summary = verdict.Summary.Length <= 600 ? verdict.Summary : verdict.Summary[..600],
            TraceJson = Stored.Write(RowTrace.Of(heard, asked)),
            VerdictJson = Stored.Write(verdict),
        };
}
