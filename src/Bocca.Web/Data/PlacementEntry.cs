using System.ComponentModel.DataAnnotations;
using Bocca.Core.Embouchure;
using Bocca.Core.Practice;

namespace Bocca.Web.Data;

/// <summary>Where the marks of a placement were put.</summary>
public enum PlacementSource
{
    Camera,
    Photo,
    Drawing,
}

/// <summary>A placement as measured: the marks and what they came to, never the picture.</summary>
public sealed class PlacementEntry : IRecorded
{
    public int Id { get; set; }

    public int PupilId { get; set; }

    public PlacementSource Source { get; set; }

    public double RimMm { get; set; }

    public required string MarksJson { get; set; }

    public required string MeasuresJson { get; set; }

    public double ShareAbove { get; set; }

    [MaxLength(800)]
    public required string Sentences { get; set; }

    /// <summary>The signals for advice, parted by spaces.</summary>
    [MaxLength(200)]
    public string Signals { get; set; } = "";

    [MaxLength(1500)]
    public string ApproachText { get; set; } = "";

    public DateTime At { get; set; }

    public DateTime? DeletedAt { get; set; }

    /// <summary>A placement as its marks say, judged against the approach and the earlier ones, the oldest first.</summary>
    /// <exception cref="ArgumentException">The marks can be no mouth with a ring.</exception>
    public static PlacementEntry Of(
        Pupil pupil,
        PlacementSource source,
        FrontMarks marks,
        double rimMm,
        Approach approach,
        IReadOnlyList<Placement> earlier,
        DateTime now
    )
    {
        var measures = Placement.Measure(marks, rimMm);
        var verdict = PlacementJudge.Judge(measures, pupil.Instrument.Family, rimMm, approach, earlier);
        return new PlacementEntry
        {
            PupilId = pupil.Id,
            Source = source,
            RimMm = rimMm,
            MarksJson = Stored.Write(marks),
            MeasuresJson = Stored.Write(measures),
            ShareAbove = measures.ShareAbove,
            Sentences = string.Join(' ', verdict.Sentences),
            Signals = string.Join(' ', verdict.Evidence.Select(item => item.Signal)),
            ApproachText = approach.ToString(),
            At = now,
        };
    }

    public FrontMarks Marks => Stored.Read<FrontMarks>(MarksJson);

    public Placement Measures => Stored.Read<Placement>(MeasuresJson);
}
