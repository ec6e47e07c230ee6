using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record.Requests;

/// <summary>A note of a row as it was asked.</summary>
/// <param name="Written">As it is read: <c>F#4</c>.</param>
/// <param name="Sounding">At concert pitch.</param>
/// <param name="Setting">Valves or slide: <c>1-2</c>, <c>4</c>, <c>T1</c>.</param>
/// <param name="Partial">The partial, from 1.</param>
/// <param name="Start">Beats from the first note.</param>
/// <param name="Beats">Its written length.</param>
public sealed record StoredNote(string Written, string Sounding, string Setting, int Partial, double Start, double Beats) : StoredShape
{
    /// <summary>The most beats that a note or a rest lasts, and the latest beat on which one begins (ours): no drill comes near.</summary>
    private const double MostBeats = 64,
        MostStart = 100_000;

    /// <summary>Beats of rest after it; null for none.</summary>
    public double? Rest { get; init; }

    /// <summary>How much of its length is to sound; null for all of it.</summary>
    public double? Share { get; init; }

    /// <summary>What it is called while it is counted; null for nothing.</summary>
    public string? Label { get; init; }

    /// <summary>What it is for: a name of <see cref="StoredNames.DrillParts"/>; null for nothing.</summary>
    public string? Part { get; init; }

    /// <summary>Whether the next follows without the tongue; null for no, as in the others.</summary>
    public bool? Slurred { get; init; }

    public bool? AnyPartial { get; init; }

    public bool? Air { get; init; }

    /// <summary>Semitones that the tone glides through; null where it keeps its height.</summary>
    public IReadOnlyList<double>? Heights { get; init; }

    public static StoredNote Of(AskedNote note) =>
        new($"{note.Meant.Written}", $"{note.Meant.Sounding}", $"{note.Meant.Setting}", note.Meant.Partial, note.StartBeat, note.Beats)
        {
            Rest = note.RestBeats == 0 ? null : note.RestBeats,
            Share = note.Share == 1 ? null : note.Share,
            Label = note.Label == "" ? null : note.Label,
            Part = StoredNames.PartName(note.Part),
            Slurred = note.Meant.SlurredToNext ? true : null,
            AnyPartial = note.AnyPartial ? true : null,
            Air = note.Air ? true : null,
            Heights = note.Heights,
        };

    /// <summary>The note on an instrument.</summary>
    /// <exception cref="InvalidDataException">The instrument has no such setting, or the note is none.</exception>
    public AskedNote Read(Instrument instrument)
    {
        if (
            !Pitch.TryParse(Written, out var written)
            || !Pitch.TryParse(Sounding, out var sounding)
            || !Core.Instruments.Setting.TryParse(Setting, instrument.Slide is not null, out var setting)
            || instrument.TubeOf(setting) is not { } tube
            || Partial is < 1 or > HarmonicSeries.Highest
            || !(Beats is > 0 and <= MostBeats && Rest is null or (>= 0 and <= MostBeats) && Start is >= 0 and <= MostStart)
        )
            throw new InvalidDataException($"{Written} on {Setting} is no note of {instrument.Id}.");
        return new AskedNote(
            new MeantNote(written, sounding, tube, Partial, Slurred ?? false),
            Start,
            Beats,
            Rest ?? 0,
            Share ?? 1,
            Label ?? "",
            AnyPartial ?? false
        )
        {
            Part = StoredNames.PartOf(Part, Label),
            Heights = Heights,
            Air = Air ?? false,
        };
    }
}

/// <summary>A row of notes as it was asked, with its times.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Notes">The notes, in order.</param>
public sealed record StoredRow(double Tempo, IReadOnlyList<StoredNote> Notes) : StoredShape
{
    public static StoredRow Of(RowPlan plan) => new(plan.Tempo, [.. plan.Notes.Select(StoredNote.Of)]);

    /// <summary>The row on an instrument.</summary>
    /// <exception cref="InvalidDataException">No take is as long, or a note of it is none.</exception>
    public RowPlan Read(Instrument instrument) =>
        Notes.Count is > 0 and <= MeantNote.MostNotes && Tempo >= CuePlan.TempoRange.Slowest && Tempo <= CuePlan.TempoRange.Fastest
            ? new RowPlan(Tempo, [.. Notes.Select(note => note.Read(instrument))])
            : throw new InvalidDataException($"{Notes.Count} notes at {Tempo} are no row.");
}
