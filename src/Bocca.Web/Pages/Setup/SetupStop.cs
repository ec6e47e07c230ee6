using Bocca.Core.Embouchure;
using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Setup;

/// <summary>Marks as put and what they came to; never the picture.</summary>
public sealed record PlacementPayload(double RimMm, FrontMarks Marks, Placement Measures);

/// <summary>Advice that a teacher took, or overruled.</summary>
/// <param name="SuggestedId">What the evidence pointed to; another than the entry's own where the teacher overruled it.</param>
/// <param name="Why">The evidence in words.</param>
public sealed record AdvicePayload(string SuggestedId, string Why) : StoredShape;

/// <summary>The Set-up stop, and what it writes into the record.</summary>
public static class SetupStop
{
    /// <summary>The share of the ring above the line of the lips, 0 to 1.</summary>
    public static ResultNumber Above { get; } = new("above");

    /// <summary>How far the head moved, as a share of the picture's width.</summary>
    public static ResultNumber Moved { get; } = new("moved");

    private static readonly FigureKind ShareAbove = new("share above", "of the ring", "lower", "higher");

    /// <summary>A placement as measured: its subject are the signals for advice, parted by spaces.</summary>
    public static EntryKind<PlacementPayload> Placements { get; } =
        new("placement", "placement")
        {
            Shape = StoredPlacement.Shape,
            OfOlderLevel = level => EntryResult.Of(Above, level),
            Title = placed => $"Placement, {100 * Above.Of(placed):0} % above",
            Opens = placed => $"/set-up/{placed.PupilId}",
            Gone = "The placement is gone.",
            Figures = (placed, _) => [new Figure(ShareAbove, Above.Of(placed)!.Value)],
        };

    /// <summary>A check that was ticked.</summary>
    public static PlainKind Ticks { get; } =
        new("tick", "tick")
        {
            Title = tick =>
                SetupCheck.All.FirstOrDefault(check => check.Id == tick.DrillId)?.Name is { } name ? $"Looked at: {name}" : "Looked at",
            Opens = tick => $"/set-up/{tick.PupilId}/checks",
            DueAfterDays = tick => SetupCheck.All.FirstOrDefault(check => check.Id == tick.DrillId)?.AgainDays,
        };

    /// <summary>What is to be looked at again, for a child grows.</summary>
    private static StopDue ToLookAt { get; } =
        new(count => $"{count} of the hold to look at again", pupil => $"/set-up/{pupil}/checks", "hold") { Of = Ticks };

    /// <summary>A fixed gaze, measured: its level is how far the head moved, a share of the picture's width.</summary>
    public static PlainKind Gazes { get; } =
        new("gaze", "measurement")
        {
            OfOlderLevel = level => EntryResult.Of(Moved, level),
            Title = _ => "Fixed gaze",
            Opens = gaze => $"/set-up/{gaze.PupilId}/checks#gaze",
            Gone = "The measurement is gone.",
        };

    /// <summary>Something seen in a lesson, or an answer of the pupil: its subject is the signal for advice.</summary>
    public static PlainKind Seen { get; } =
        new("seen", "remark")
        {
            Title = seen => (seen.Summary == "" ? Words(seen).Sentence : seen.Summary).TrimEnd('.'),
            Opens = seen => $"/set-up/{seen.PupilId}/watch",
        };

    /// <summary>Advice taken; its subject is the symptom, its summary the cue.</summary>
    public static EntryKind<AdvicePayload> Advice { get; } =
        new("advice", "advice")
        {
            Shape = PayloadShape.Itself<AdvicePayload>(),
            Plural = "advice taken",
            Title = advice => $"Advice: {SymptomName(advice.Subject)}",
            Opens = advice => $"/set-up/{advice.PupilId}/watch",
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '3',
            Path = "set-up",
            Name = "Set-up",
            Promise = "Posture, the hold, and where the mouthpiece sits, kept from week to week.",
            Kinds = [Placements, Ticks, Gazes, Seen, Advice],
            Dues = [ToLookAt],
            DrillName = id => id == "placement" ? "the placement" : "body and hold",
            Steps = (pupil, drill) => drill == "placement" ? $"/set-up/{pupil}" : $"/set-up/{pupil}/checks",
        };

    /// <summary>A placement as its marks say, judged against the approach and the shares of earlier ones, the oldest first.</summary>
    /// <exception cref="ArgumentException">The marks can be no mouth with a ring.</exception>
    public static (Entry Entry, PlacementPayload Payload) Placement(
        Pupil pupil,
        EntrySource source,
        FrontMarks marks,
        double rimMm,
        Core.Teaching.Approach approach,
        IReadOnlyList<double> earlier,
        DateTime at
    )
    {
        var measures = Core.Embouchure.Placement.Measure(marks, rimMm);
        var verdict = PlacementJudge.Judge(measures, pupil.Instrument.Family, rimMm, approach, earlier);
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Placements.Id,
            Subject = string.Join(' ', verdict.Evidence.Select(item => item.Signal)),
            InstrumentId = pupil.InstrumentId,
            Source = source,
            Result = EntryResult.Of(Above, measures.ShareAbove),
            At = at,
            Summary = string.Join(' ', verdict.Sentences),
        };
        return (entry, new PlacementPayload(rimMm, marks, measures));
    }

    /// <summary>What was seen or answered, as evidence in words.</summary>
    public static Evidence Words(Entry seen) =>
        seen.Subject.Split('.') switch
        {
            ["seen", var id] when Observation.All.Any(known => known.Id == id) => Observation.Get(id).AsEvidence,
            [var answer, var id] when SymptomTable.Shipped.Question(id) is { } ask => Evidence.Answered(ask, answer == "yes"),
            _ => new Evidence(seen.Subject, ""),
        };

    public static string SymptomName(string id) => SymptomTable.Shipped.Find(id)?.Name ?? id;
}
