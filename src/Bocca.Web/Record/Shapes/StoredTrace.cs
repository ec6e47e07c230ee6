using Bocca.Core.Tone.Listening;

namespace Bocca.Web.Record.Shapes;

/// <summary>A note of a row, what was meant and what was heard.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Written">As it is read.</param>
/// <param name="Setting">Valves or slide.</param>
/// <param name="Partial">The partial that was meant.</param>
/// <param name="Midi">Its key number at concert pitch.</param>
/// <param name="Outcome">A name of <see cref="StoredNames.NoteOutcomes"/>.</param>
/// <param name="Sentence">What is said of it.</param>
public sealed record StoredTracedNote(int Number, string Written, string Setting, int Partial, int Midi, string Outcome, string Sentence)
    : StoredShape
{
    public string? Label { get; init; }

    /// <summary>A name of <see cref="StoredNames.DrillParts"/>; null for none.</summary>
    public string? Part { get; init; }

    public double? DueSeconds { get; init; }

    public double? AskedSeconds { get; init; }

    public bool? SlurredToNext { get; init; }

    public bool? EndsPhrase { get; init; }

    public double? HeardHz { get; init; }

    public string? Heard { get; init; }

    public double? Cents { get; init; }

    public int? HeardPartial { get; init; }

    public int? By { get; init; }

    public double? Cm { get; init; }

    public string? OtherSetting { get; init; }

    public string? Miss { get; init; }

    public double? StartSeconds { get; init; }

    public double? EndSeconds { get; init; }

    public bool? Tongued { get; init; }

    public double? LevelDb { get; init; }

    public static StoredTracedNote Of(TracedNote note) =>
        new(note.Number, note.Written, note.Setting, note.Partial, note.Midi, StoredNames.NoteOutcomes[note.Outcome], note.Sentence)
        {
            Label = note.Label,
            Part = StoredNames.PartName(note.Part),
            DueSeconds = note.DueSeconds,
            AskedSeconds = note.AskedSeconds,
            SlurredToNext = note.SlurredToNext,
            EndsPhrase = note.EndsPhrase,
            HeardHz = note.HeardHz,
            Heard = note.Heard,
            Cents = note.Cents,
            HeardPartial = note.HeardPartial,
            By = note.By,
            Cm = note.Cm,
            OtherSetting = note.OtherSetting,
            Miss = note.Miss,
            StartSeconds = note.StartSeconds,
            EndSeconds = note.EndSeconds,
            Tongued = note.Tongued,
            LevelDb = note.LevelDb,
        };

    /// <exception cref="InvalidDataException">There is no such outcome.</exception>
    public TracedNote Read() =>
        new()
        {
            Number = Number,
            Written = Written,
            Setting = Setting,
            Partial = Partial,
            Midi = Midi,
            Outcome = StoredNames.NoteOutcomes.Read(Outcome),
            Sentence = Sentence,
            Label = Label ?? "",
            Part = StoredNames.PartOf(Part, Label),
            DueSeconds = DueSeconds,
            AskedSeconds = AskedSeconds ?? 0,
            SlurredToNext = SlurredToNext ?? false,
            EndsPhrase = EndsPhrase ?? false,
            HeardHz = HeardHz,
            Heard = Heard,
            Cents = Cents,
            HeardPartial = HeardPartial,
            By = By ?? 0,
            Cm = Cm,
            OtherSetting = OtherSetting,
            Miss = Miss,
            StartSeconds = StartSeconds,
            EndSeconds = EndSeconds,
            Tongued = Tongued,
            LevelDb = LevelDb,
        };
}

/// <summary>A row of notes as it was heard.</summary>
/// <param name="Seconds">How long it lasted.</param>
/// <param name="Notes">Its notes.</param>
/// <param name="Midi">The pitch at every step of <see cref="RowTrace.StepSeconds"/>; null where nothing sounded.</param>
public sealed record StoredTrace(double Seconds, IReadOnlyList<StoredTracedNote> Notes, IReadOnlyList<double?> Midi) : StoredShape
{
    public string? InstrumentId { get; init; }

    public double? A4Hz { get; init; }

    public string? LooksLikeId { get; init; }

    public static StoredTrace Of(RowTrace trace) =>
        new(trace.Seconds, [.. trace.Notes.Select(StoredTracedNote.Of)], trace.Midi)
        {
            InstrumentId = trace.InstrumentId,
            A4Hz = trace.A4Hz,
            LooksLikeId = trace.LooksLikeId,
        };

    /// <exception cref="InvalidDataException">A name in it is none.</exception>
    public RowTrace Read() =>
        new(Seconds, [.. Notes.Select(each => each.Read())], Midi)
        {
            InstrumentId = InstrumentId,
            A4Hz = A4Hz,
            LooksLikeId = LooksLikeId,
        };
}
