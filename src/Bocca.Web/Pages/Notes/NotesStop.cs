using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Web.Frame;
using Bocca.Web.Record;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Notes;

/// <summary>The fingering taught for a written note.</summary>
public sealed record NotePayload(string Setting, int Partial, double Cents) : StoredShape;

/// <summary>The answers of a silent drill.</summary>
public sealed record HandPayload(IReadOnlyList<HandMark> Marks, double MedianSeconds);

/// <summary>What somebody measured on a pupil's very instrument: its slide and its valves.</summary>
/// <param name="SlideTubeMetres">Length of the tube with the trombone's slide closed; null where it was not calibrated.</param>
/// <param name="SlideTravelCm">How far it goes.</param>
/// <param name="ThirdForTwoThree">Whether the third valve is drawn for 2-3.</param>
/// <param name="ValveCents">Cents by which each valve alone lies above its place.</param>
public sealed record MeasuredPayload(
    double? SlideTubeMetres,
    double? SlideTravelCm,
    bool ThirdForTwoThree,
    IReadOnlyDictionary<int, double> ValveCents
)
{
    /// <summary>What the eye finds third and fourth by; null for the usual.</summary>
    public SlideMarks? Marks { get; init; }
}

/// <summary>The Notes stop, and what it writes into the record.</summary>
public static class NotesStop
{
    /// <summary>A saved note; its subject is the note, its drill how that is read.</summary>
    public static EntryKind<NotePayload> Notes { get; } =
        new("note", "note")
        {
            Shape = PayloadShape.Itself<NotePayload>(),
            StepDrill = _ => null,
            Title = note => $"Note {Wording.Spelled(note.Subject)}",
            Opens = note => $"/notes/{note.PupilId}?note={Uri.EscapeDataString(note.Subject)}",
        };

    /// <summary>The median time of a right answer, seconds.</summary>
    public static ResultNumber MedianSeconds { get; } = new("seconds");

    /// <summary>A silent drill of the hand.</summary>
    public static EntryKind<HandPayload> Hands { get; } =
        new("hand", "drill")
        {
            Shape = StoredHandDrill.Shape,
            OfOlderLevel = level => EntryResult.Of(MedianSeconds, level),
            Title = drill => $"The hand: {HandName(drill.DrillId!) ?? drill.DrillId}",
            Opens = drill => $"/notes/{drill.PupilId}/hand?drill={drill.DrillId}",
            Figures = (_, drill) => HandFigures.Of(drill.Marks, drill.MedianSeconds),
        };

    public static EntryKind<MeasuredPayload> Measured { get; } =
        new("measured", "measurement")
        {
            Shape = StoredMeasured.Shape,
            Title = _ => "The instrument measured",
            Opens = measured => $"/notes/{measured.PupilId}/instrument",
            Gone = "The measurement is gone.",
            Figures = (_, measured) => InstrumentFigures(measured),
        };

    /// <summary>
    /// A look at the instrument; its subject is the fault that was found, <see cref="AllWell"/>, or <see cref="Missing"/>. What waits for
    /// a repairer stands open until it is done.
    /// </summary>
    public static PlainKind Looks { get; } =
        new("look", "look")
        {
            Title = look => $"The instrument: {LookedWords(look)}",
            Opens = look => $"/notes/{look.PupilId}/instrument#look",
            Gone = "The look is gone.",
        };

    /// <summary>The valves oiled, or the slide wiped.</summary>
    public static PlainKind Oiled { get; } = Care("oiled", "oiling", InstrumentCare.OilDays);

    /// <summary>The instrument and its mouthpiece washed.</summary>
    public static PlainKind Washed { get; } = Care("washed", "wash", InstrumentCare.WashDays);

    public const string AllWell = "well",
        Missing = "missing";

    private static PlainKind Care(string id, string noun, double days) =>
        new(id, noun)
        {
            Plural = id,
            DueAfterDays = _ => days,
            Title = care => care.Summary,
            Opens = care => $"/notes/{care.PupilId}/instrument#care",
            Gone = "It is no longer noted.",
        };

    /// <summary>What was found, in words.</summary>
    public static string LookedWords(Entry look) =>
        look.Subject switch
        {
            AllWell => "nothing found",
            Missing => $"missing: {look.Summary}",
            var id => InstrumentFault.Find(id)?.Name ?? id,
        };

    public static FigureKind SlideStay { get; } = new("stay in third", "cm", "nearer to the rim", "further from the rim");

    public static FigureKind SlideEnd { get; } = new("slide's end in fourth", "cm", "nearer", "further out");

    public static FigureKind ValveCents { get; } = new("valve", "cents", "flatter", "sharper");

    public static FigureKind ThirdDrawn { get; } = new("third drawn for 2-3", "", "in", "out");

    public static FigureKind SlideTube { get; } = new("slide tube", "m", "shorter", "longer");

    public static FigureKind SlideTravel { get; } = new("slide travel", "cm", "shorter", "longer");

    public static Stop Stop { get; } =
        new()
        {
            Key = '6',
            Path = "notes",
            Name = "Notes",
            Promise = "The valve combination or slide position of every written note, and why.",
            Kinds = [Notes, Hands, Measured, Looks, Oiled, Washed],
            Steps = (pupil, drill) =>
                drill is null ? $"/notes/{pupil}"
                : drill == InstrumentFirst.Look ? $"/notes/{pupil}/instrument#look"
                : $"/notes/{pupil}/hand?drill={Uri.EscapeDataString(drill)}",
            Followed = [HandFigures.Settings],
            Styles = ["notes"],
            KeyPlaces = ["notes", "tube", "slide", "hand", "hand-drill", "call"],
            Dues =
            [
                new StopDue(
                    count => $"{count} {(count == 1 ? "note" : "notes")} to recall",
                    pupil => $"/notes/{pupil}/hand?drill=by-note",
                    "recall"
                )
                {
                    Recalls = RecallCard.Notes,
                    Drill = "notes:by-note",
                },
                CareDue(Oiled, "to oil", "oil"),
                CareDue(Washed, "to wash", "wash"),
            ],
            DrillName = id => id == InstrumentFirst.Look ? "a look at the instrument" : HandName(id),
        };

    private static StopDue CareDue(PlainKind care, string words, string name) =>
        new(_ => $"instrument {words}", pupil => $"/notes/{pupil}/instrument#care", name) { Of = care };

    /// <summary>A note saved with a way to play it.</summary>
    public static (Entry Entry, NotePayload Payload) Note(Pupil pupil, Pitch written, Fingering way, DateTime at)
    {
        var entry = new Entry
        {
            PupilId = pupil.Id,
            Kind = Notes.Id,
            DrillId = pupil.ReadingId,
            Subject = written.ToString(),
            InstrumentId = pupil.InstrumentId,
            At = at,
            Summary = $"{Wording.Setting(pupil.Instrument, way.Setting)}, partial {way.Partial}",
        };
        return (entry, new NotePayload(way.Setting.ToString(), way.Partial, way.Cents));
    }

    /// <summary>A silent drill as judged.</summary>
    public static Entry Hand(Pupil pupil, HandDrill drill, HandOutcome outcome, DateTime at) =>
        new()
        {
            PupilId = pupil.Id,
            Kind = Hands.Id,
            DrillId = drill.Id,
            InstrumentId = pupil.InstrumentId,
            Result = EntryResult.Of(MedianSeconds, outcome.MedianSeconds),
            Came = outcome.Right,
            Asked = outcome.Asked,
            At = at,
            Outcome = outcome.Passed ? Outcome.Passed : Outcome.Repeat,
            Summary = outcome.Summary,
            ElapsedSeconds = outcome.TotalSeconds,
        };

    /// <summary>A measurement, told in its summary.</summary>
    public static Entry Measurement(Pupil pupil, MeasuredPayload measured, string remark, DateTime at)
    {
        var parts = measured
            .ValveCents.OrderBy(valve => valve.Key)
            .Select(valve => $"valve {valve.Key} {valve.Value:+0;−0;0} cents")
            .ToList();
        if (measured.ThirdForTwoThree)
            parts.Add("third slide drawn for 2-3");
        if (measured.SlideTubeMetres is { } metres)
            parts.Add($"slide of {metres:0.00} m, {measured.SlideTravelCm:0} cm of travel");
        if (measured.Marks is { } marks)
            parts.Add($"3rd: {marks.Third}; 4th: {marks.Fourth}");
        if (remark != "")
            parts.Add(remark);
        return new Entry
        {
            PupilId = pupil.Id,
            Kind = Measured.Id,
            InstrumentId = pupil.InstrumentId,
            At = at,
            Summary = parts.Count == 0 ? "As usual." : string.Join("; ", parts),
        };
    }

    private static string? HandName(string id) => HandDrill.All.FirstOrDefault(drill => drill.Id == id)?.Name;

    private static IEnumerable<Figure> InstrumentFigures(MeasuredPayload measured)
    {
        foreach (var (valve, cents) in measured.ValveCents)
            yield return new Figure(ValveCents, cents, Item: $"{valve}");
        if (measured.ThirdForTwoThree)
            yield return new Figure(ThirdDrawn, 1);
        if (measured is { SlideTubeMetres: { } metres, SlideTravelCm: { } travel })
        {
            yield return new Figure(SlideTube, metres);
            yield return new Figure(SlideTravel, travel);
        }

        if (measured.Marks?.StayCm is { } stay)
            yield return new Figure(SlideStay, stay);
        if (measured.Marks?.EndCm is { } end)
            yield return new Figure(SlideEnd, end);
    }
}
