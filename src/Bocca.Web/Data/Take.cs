using System.ComponentModel.DataAnnotations;
using Bocca.Core.Buzz;
using Bocca.Core.Practice;

namespace Bocca.Web.Data;

/// <summary>Where a take's sound came from.</summary>
public enum SoundSource
{
    Microphone,
    File,
    PracticePlayer,
}

/// <summary>A take: what was asked, and what was heard. The sound itself is not kept, only measures and the pitch line.</summary>
public sealed class Take : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    public Pupil? Pupil { get; set; }

    [MaxLength(40)]
    public required string DrillId { get; set; }

    public double Tempo { get; set; }

    public SoundStage On { get; set; }

    public SoundSource Source { get; set; }

    public DateTime RecordedAt { get; set; }

    /// <summary>False until somebody saves it; what is not saved within a day goes.</summary>
    public bool Kept { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>The approach it was judged under.</summary>
    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public TakeOutcome Outcome { get; set; }

    /// <summary>Median steadiness in cents, for the history without reading the rest.</summary>
    public double? SteadinessCents { get; set; }

    [MaxLength(600)]
    public required string Summary { get; set; }

    public required string MeasuresJson { get; set; }

    public required string VerdictJson { get; set; }

    public required string ThreadsJson { get; set; }

    public TakeMeasures Measures => Stored.Read<TakeMeasures>(MeasuresJson);

    public TakeVerdict Verdict => Stored.Read<TakeVerdict>(VerdictJson);

    public TakeThreads Threads => Stored.Read<TakeThreads>(ThreadsJson);

    /// <summary>A take as heard, not yet kept.</summary>
    public static Take Of(Pupil pupil, AskedTake asked, SoundSource source, HeardTake heard, Approach approach, DateTime now) =>
        new()
        {
            PupilId = pupil.Id,
            DrillId = asked.Drill.Id,
            Tempo = asked.Plan.Tempo,
            On = asked.On,
            Source = source,
            ApproachText = approach.ToString(),
            RecordedAt = now,
            Outcome = heard.Verdict.Outcome,
            SteadinessCents = heard.Measures.Median(attempt => attempt.SteadinessCents),
            Summary = heard.Verdict.Summary.Length <= 600 ? heard.Verdict.Summary : heard.Verdict.Summary[..600],
            MeasuresJson = Stored.Write(heard.Measures),
            VerdictJson = Stored.Write(heard.Verdict),
            ThreadsJson = Stored.Write(TakeThreads.Of(heard, asked.Plan.SoundSeconds)),
        };
}
