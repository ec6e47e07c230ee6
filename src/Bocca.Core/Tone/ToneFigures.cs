using Bocca.Core.Breath;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone;

/// <summary>What a take of notes says of the figures that are followed over weeks.</summary>
public static class ToneFigures
{
    /// <summary>Whether a single note came at the first try (1) or not (0); the item is the note as read.</summary>
    public static FigureKind FirstTry { get; } = new("first try", "%", "comes less often", "comes more often", IsShare: true);

    /// <summary>How often a note came, 0 to 1; the item is the note as read, its setting and its partial.</summary>
    public static FigureKind Note { get; } = new("note", "%", "comes less often", "comes more often", IsShare: true);

    /// <summary>Notes missed by partial, in a take.</summary>
    public static FigureKind MissedPartial { get; } = new("missed by partial", "notes", "fewer", "more");

    /// <summary>Notes missed by valves or slide, in a take.</summary>
    public static FigureKind MissedSetting { get; } = new("missed by setting", "notes", "fewer", "more");

    /// <summary>Where an open note lies, hertz; the item is its place in the row.</summary>
    public static FigureKind OpenNote { get; } = new("open note", "Hz", "lower", "higher");

    /// <summary>The level of the pupil's own medium loudness, dB below full scale.</summary>
    public static FigureKind Medium { get; } = new("medium loudness", "dB", "softer", "louder");

    /// <summary>
    /// The longest note held in one breath, seconds; the item is its register (low, middle or high) and its level, dB below full scale.
    /// </summary>
    public static FigureKind LongestNote { get; } = new("longest note", "s", "shorter", "longer");

    /// <summary>
    /// Only a note that was asked for so long says something of the breath (seconds; eight counts at 80): what is asked shorter ends with
    /// breath to spare.
    /// </summary>
    private const double AskedLongSeconds = 6;

    /// <summary>The figures of a take.</summary>
    /// <param name="trace">What was meant and what came of it.</param>
    /// <param name="chosen">Whether the notes were chosen for it, so that the first one is a first try.</param>
    /// <param name="told">Whether it could be judged at all.</param>
    /// <param name="aim">What the drill is for; null for a drill that is no more.</param>
    public static IEnumerable<Figure> Of(RowTrace trace, bool chosen, bool told, ToneAim? aim)
    {
        static double Share(bool came) => came ? 1 : 0;
        if (chosen && told && trace.Notes is [var first, ..])
            yield return new Figure(FirstTry, Share(first.Outcome == NoteOutcome.Right), Item: first.Written);
        foreach (var note in trace.Notes.GroupBy(note => $"{note.Written} {note.Setting} {note.Partial}"))
            yield return new Figure(
                Note,
                note.Average(each => Share(each.Outcome == NoteOutcome.Right)),
                Count: note.Count(),
                Item: note.Key
            );
        var partials = trace.Notes.Count(note => note.Outcome is NoteOutcome.PartialLow or NoteOutcome.PartialHigh);
        var settings = trace.Notes.Count(note => note.Outcome is NoteOutcome.OtherSetting or NoteOutcome.SlideOff);
        if (partials > 0)
            yield return new Figure(MissedPartial, partials);
        if (settings > 0)
            yield return new Figure(MissedSetting, settings);
        if (aim == ToneAim.Tuning && told)
            foreach (var note in trace.Notes.Where(note => note is { Outcome: NoteOutcome.Right, HeardHz: not null }))
                yield return new Figure(OpenNote, note.HeardHz!.Value, Item: $"{note.Number}");
        if (aim == ToneAim.Held && told)
            foreach (var longest in Held(trace).GroupBy(held => held.Register).Select(register => register.MaxBy(held => held.Seconds)))
                yield return new Figure(LongestNote, longest.Seconds, Item: $"{longest.Register} {longest.LevelDb:0}");
        var medium = trace.Notes.Where(note => note.Part == DrillPart.Medium).Select(note => note.LevelDb).OfType<double>().ToList();
        if (aim == ToneAim.Levels && medium.Count > 0)
            yield return new Figure(Medium, medium.Average(), Count: medium.Count);
    }

    /// <summary>A held note as its figure tells it, beside the pupil's own medium.</summary>
    /// <param name="item">The figure's item: the register, and the level where it was kept.</param>
    /// <param name="seconds">Its value.</param>
    /// <param name="mediumDb">The own medium, dB below full scale; null where it is not known.</param>
    public static HeldNote HeldOf(string item, double seconds, double? mediumDb) =>
        item.Split(' ') is [var register, var level] && double.TryParse(level, out var db)
            ? new HeldNote(register, seconds, db - mediumDb)
            : new HeldNote(item, seconds, null);

    /// <summary>Right notes asked long, none of the lead pipe's: partials 1 and 2 are low, up to 4 middle, above high.</summary>
    private static IEnumerable<(string Register, double Seconds, double? LevelDb)> Held(RowTrace trace) =>
        trace
            .Notes.Where(note =>
                note
                    is {
                        Outcome: NoteOutcome.Right,
                        Cents: not null,
                        StartSeconds: not null,
                        EndSeconds: not null,
                        AskedSeconds: >= AskedLongSeconds
                    }
            )
            .Select(note =>
                (
                    Register: note.Partial <= 2 ? "low"
                    : note.Partial <= 4 ? "middle"
                    : "high",
                    Seconds: note.EndSeconds!.Value - note.StartSeconds!.Value,
                    note.LevelDb
                )
            );
}
