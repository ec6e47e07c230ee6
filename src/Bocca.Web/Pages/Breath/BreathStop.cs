using Bocca.Core.Breath;
using Bocca.Core.Judging;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Breath;

/// <summary>What a breath drill has beside its columns.</summary>
/// <param name="AskedCounts">Counts of the longest out-breath asked.</param>
/// <param name="AskedSeconds">The same in seconds.</param>
/// <param name="HeardSeconds">Seconds of the shortest unbroken out-breath, where a microphone heard it.</param>
/// <param name="VariationPercent">How much its level varied, where it was heard.</param>
/// <param name="Stopped">Whether it was stopped.</param>
public sealed record BreathPayload(double AskedCounts, double AskedSeconds, double? HeardSeconds, double? VariationPercent, bool Stopped)
    : StoredShape;

/// <summary>A full breath into a balloon, as measured.</summary>
public sealed record BalloonPayload(double CircumferenceCm) : StoredShape;

/// <summary>The Breath stop, and what it writes into the record.</summary>
public static class BreathStop
{
    /// <summary>The rung of a drill's ladder, from 0.</summary>
    public static ResultNumber Rung { get; } = new("rung");

    /// <summary>What went into a balloon, litres.</summary>
    public static ResultNumber Litres { get; } = new("litres");

    /// <summary>
    /// A breath drill, whole or stopped; its level is the rung. Seconds sounded are those of the out-breath, heard or asked;
    /// seconds elapsed are those that count towards the day. What nobody heard has no source: somebody tapped it.
    /// </summary>
    public static EntryKind<BreathPayload> Drills { get; } =
        new("breath", "drill")
        {
            Shape = PayloadShape.Itself<BreathPayload>(),
            OfOlderLevel = level => EntryResult.Of(Rung, level),
            Title = drill => DrillName(drill.DrillId!) ?? drill.DrillId!,
            Gone = "The entry is gone; what was breathed still counts for today.",
            Back = "The entry is back.",
            Figures = (drill, _) => BreathFigures.Of(Pass(drill)),
        };

    /// <summary>A balloon reading; its level is what it comes to, litres.</summary>
    public static EntryKind<BalloonPayload> Balloons { get; } =
        new("balloon", "reading")
        {
            Shape = PayloadShape.Itself<BalloonPayload>(),
            OfOlderLevel = level => EntryResult.Of(Litres, level),
            Title = _ => "Full breath, balloon",
            Gone = "The reading is gone.",
            Figures = (reading, _) => [new Figure(BreathFigures.Litres, Litres.Of(reading)!.Value)],
        };

    public static Stop Stop { get; } =
        new()
        {
            Key = '2',
            Path = "breath",
            Name = "Breath",
            Promise = "Paced breaths, an even stream measured, and limits that keep breathing drills safe.",
            Kinds = [Drills, Balloons],
            KeyPlaces = ["breath"],
            Followed = [BreathFigures.EvenStream],
            DrillName = DrillName,
            OffersDrill = (drill, pupil, approach, day) =>
                BreathDrill.OfferedTo(pupil.Breathing(day, StoredOwn.Read(pupil.Own)), approach).Any(offered => offered.Id == drill),
        };

    /// <summary>A drill done, as judged.</summary>
    public static (Entry Entry, BreathPayload Payload) Drill(
        Pupil pupil,
        BreathPlan plan,
        int rung,
        BreathVerdict verdict,
        EntrySource? source,
        Guid key,
        DateTime at
    )
    {
        var longest = plan.OutBreaths.MaxBy(phase => phase.Seconds);
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Drills.Id,
            DrillId = plan.Drill.Id,
            InstrumentId = pupil.InstrumentId,
            Source = source,
            Tempo = plan.Tempo,
            Result = EntryResult.Of(Rung, rung),
            At = at,
            Key = key,
            Outcome = verdict.Even ? Outcome.Passed : Outcome.Repeat,
            Summary = verdict.Summary,
            SoundedSeconds = verdict.HeardSeconds ?? longest.Seconds,
            ElapsedSeconds = plan.DrilledSeconds,
        };
        var payload = new BreathPayload(
            plan.OutBreaths.Max(phase => phase.Counts),
            longest.Seconds,
            verdict.HeardSeconds,
            verdict.VariationPercent,
            false
        );
        return (entry, payload);
    }

    /// <summary>The drill as breath planning reckons with it.</summary>
    public static BreathPass Pass(Entry drill) =>
        new(
            drill.DrillId!,
            (int)(Rung.Of(drill) ?? 0),
            drill.Tempo ?? 0,
            drill.SoundedSeconds ?? 0,
            drill.Outcome == Outcome.Passed,
            drill.Source is not null,
            drill.At
        );

    private static string? DrillName(string id) => BreathDrill.All.FirstOrDefault(drill => drill.Id == id)?.Name;
}
