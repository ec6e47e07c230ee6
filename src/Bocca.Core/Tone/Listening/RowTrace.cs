using Bocca.Core.Instruments;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>A meant note and what came of it, as the record keeps it.</summary>
public sealed record TracedNote
{
    /// <summary>Its place in the row, from 1.</summary>
    public required int Number { get; init; }

    /// <summary>The note as read.</summary>
    public required string Written { get; init; }

    /// <summary>The setting meant.</summary>
    public required string Setting { get; init; }

    /// <summary>The partial meant.</summary>
    public required int Partial { get; init; }

    /// <summary>The MIDI number of the concert pitch meant.</summary>
    public required int Midi { get; init; }

    /// <summary>What it was called while it was counted.</summary>
    public string Label { get; init; } = "";

    /// <summary>What it was for, where the drill's aim holds parts against each other.</summary>
    public DrillPart Part { get; init; }

    /// <summary>When it was due, seconds into the take; null where nobody said.</summary>
    public double? DueSeconds { get; init; }

    /// <summary>How long it was to sound, seconds.</summary>
    public double AskedSeconds { get; init; }

    /// <summary>Whether the next was to follow without the tongue.</summary>
    public bool SlurredToNext { get; init; }

    /// <summary>Whether a rest follows it.</summary>
    public bool EndsPhrase { get; init; }

    /// <summary>What came of it.</summary>
    public required NoteOutcome Outcome { get; init; }

    /// <summary>The pitch heard, hertz; null for no tone.</summary>
    public double? HeardHz { get; init; }

    /// <summary>The written note heard; null for no tone.</summary>
    public string? Heard { get; init; }

    /// <summary>Cents from it, or from the note meant where that came.</summary>
    public double? Cents { get; init; }

    /// <summary>The partial heard.</summary>
    public int? HeardPartial { get; init; }

    /// <summary>Partials above the one meant.</summary>
    public int By { get; init; }

    /// <summary>Centimetres to move the slide, outwards positive.</summary>
    public double? Cm { get; init; }

    /// <summary>The setting heard instead.</summary>
    public string? OtherSetting { get; init; }

    /// <summary>What is written beside it where it was missed in a way of its own; null for what its outcome says.</summary>
    public string? Miss { get; init; }

    /// <summary>What was heard against what was meant.</summary>
    public required string Sentence { get; init; }

    /// <summary>When it began to sound; null for no tone.</summary>
    public double? StartSeconds { get; init; }

    /// <summary>When it ended.</summary>
    public double? EndSeconds { get; init; }

    /// <summary>Whether the tongue began it; null for no tone.</summary>
    public bool? Tongued { get; init; }

    /// <summary>Its level, decibels below full scale; null for no tone.</summary>
    public double? LevelDb { get; init; }

    /// <summary>What was meant, for drawing it again.</summary>
    public Tube TubeOn(Instrument instrument) =>
        Instruments.Setting.TryParse(Setting, instrument.Slide is not null, out var setting) && instrument.TubeOf(setting) is { } tube
            ? tube
            : instrument.Tubes[0];
}

/// <summary>A row as the record keeps it: its notes, and its pitch in steps of 20 ms.</summary>
/// <param name="Seconds">Length of the take.</param>
/// <param name="Notes">The notes.</param>
/// <param name="Midi">MIDI number with its fraction at each step; null where no tone sounds.</param>
public sealed record RowTrace(double Seconds, IReadOnlyList<TracedNote> Notes, IReadOnlyList<double?> Midi)
{
    /// <summary>Seconds from one step of the pitch to the next.</summary>
    public const double StepSeconds = 2 * PitchTrack.HopSeconds;

    /// <summary>The instrument it was heard as; null in old records.</summary>
    public string? InstrumentId { get; init; }

    /// <summary>The reference A it was heard against, hertz; null in old records.</summary>
    public double? A4Hz { get; init; }

    /// <summary>The instrument that it looks like instead; null where there is no such doubt.</summary>
    public string? LooksLikeId { get; init; }

    /// <summary>The note to look at first: the first that was missed, or the first.</summary>
    public TracedNote Focus => Notes.FirstOrDefault(note => note.Outcome is not (NoteOutcome.Right or NoteOutcome.CannotTell)) ?? Notes[0];

    /// <summary>A row as it is meant, before anything was heard.</summary>
    public static RowTrace Meant(RowPlan plan) =>
        new(
            plan.Starts[^1] + (plan.Notes[^1].Beats * plan.BeatSeconds),
            [
                .. plan.Notes.Select(
                    (note, i) =>
                        new TracedNote
                        {
                            Number = i + 1,
                            Written = note.Meant.Written.ToString(),
                            Setting = note.Meant.Setting.ToString(),
                            Partial = note.Meant.Partial,
                            Midi = note.Meant.Sounding.Midi,
                            DueSeconds = plan.Starts[i],
                            AskedSeconds = note.Beats * note.Share * plan.BeatSeconds,
                            SlurredToNext = note.Meant.SlurredToNext,
                            EndsPhrase = note.RestBeats > 0,
                            Outcome = NoteOutcome.Right,
                            Sentence = $"Partial {note.Meant.Partial}.",
                        }
                ),
            ],
            []
        );

    /// <summary>What a heard row comes down to.</summary>
    public static RowTrace Of(HeardRow row, AskedRow asked)
    {
        var first = asked.FirstCueSeconds;
        var starts = asked.Plan.Starts;
        return new RowTrace(
            row.Track.Frames.Count * PitchTrack.HopSeconds,
            [.. row.Notes.Select((note, i) => Trace(note, first + starts[i], asked))],
            [
                .. row
                    .Track.Frames.Where((_, i) => i % 2 == 0)
                    .Select(frame =>
                        frame is { Voiced: true, FrequencyHz: > 0 }
                            ? Math.Round(asked.Player.Tuning.Midi(frame.FrequencyHz), 3)
                            : (double?)null
                    ),
            ]
        )
        {
            InstrumentId = asked.Player.Instrument.Id,
            A4Hz = asked.Player.Tuning.A4Hz,
            LooksLikeId = row.Doubt?.InstrumentId,
        };
    }

    private static TracedNote Trace(RowNote note, double? due, AskedRow asked)
    {
        var (meant, judged) = (note.Asked.Meant, note.Judged);
        return new TracedNote
        {
            Number = note.Number,
            Written = meant.Written.ToString(),
            Setting = meant.Setting.ToString(),
            Partial = meant.Partial,
            Midi = meant.Sounding.Midi,
            Label = note.Asked.Label,
            Part = note.Asked.Part,
            DueSeconds = due,
            AskedSeconds = note.Asked.Beats * note.Asked.Share * asked.Plan.BeatSeconds,
            SlurredToNext = meant.SlurredToNext,
            EndsPhrase = note.Asked.RestBeats > 0,
            Outcome = judged.Outcome,
            HeardHz = judged.HeardHz,
            Heard = judged.HeardWritten?.ToString(),
            Cents = judged.Cents is { } cents ? Math.Round(cents, 1) : null,
            HeardPartial = judged.Partial,
            By = judged.By,
            Cm = judged.Cm is { } cm ? Math.Round(cm, 1) : null,
            OtherSetting = judged.OtherSetting?.ToString(),
            Sentence = judged.Sentence,
            StartSeconds = note.Sound?.StartSeconds,
            EndSeconds = note.Sound?.EndSeconds,
            Tongued = note.Sound?.Tongued,
            LevelDb = note.Sound is { } sounded ? Math.Round(sounded.LevelDb, 1) : null,
        };
    }
}
