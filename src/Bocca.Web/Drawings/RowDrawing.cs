using System.Text;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;

namespace Bocca.Web.Drawings;

/// <summary>
/// A beat within a meant note: a bead on its wire.
/// </summary>
/// <param name="X">Where.</param>
/// <param name="Y">On which height.</param>
/// <param name="Beat">The beat it is, from the first note.</param>
public readonly record struct Bead(double X, double Y, double Beat);

/// <summary>The head of a meant note: as large as there is room, open from two beats on.</summary>
/// <param name="Radius">Half its width.</param>
/// <param name="Open">Whether it is a half or a whole note.</param>
public readonly record struct NoteHead(double Radius, bool Open);

/// <summary>A meant note on its wire, and what came of it.</summary>
public sealed record DrawnNote(
    int Number,
    double X,
    double Width,
    double Y,
    string Written,
    bool Came,
    string Miss,
    double MissX,
    double MissY,
    string Wanted,
    string Heard
)
{
    /// <summary>Its head, and a bead at each further beat.</summary>
    public NoteHead Head { get; init; }

    public IReadOnlyList<Bead> Beads { get; init; } = [];

    /// <summary>Whether the tongue begins it.</summary>
    public bool Tongued => Wanted == "T";
}

/// <summary>
/// A partial of the tube as a short rung at a side of the drawing, named by its note, or by its number where notes are hidden.
/// </summary>
public sealed record SideRung(int Partial, double Y, string Name, bool Meant);

/// <summary>
/// A row of notes over time, the same before, while and after it is played: the tube's partials as rungs at the sides, at true height;
/// each meant note as its head on its rung with a wire along it and a bead at every beat, the wire bending to the next rung in a slur; what
/// was heard as a thread about it.
/// The axes follow from what is written alone, so that a thread drawn while it sounds stays where it is.
/// </summary>
public sealed class RowDrawing
{
    public const double Width = 760;
    public const double Height = 470;
    public const double Left = 96;
    public const double Right = Width - 52;
    public const double Top = 16;

    /// <summary>Under the wires two lines of starts have room.</summary>
    public const double Bottom = Height - 46;

    /// <summary>The first note begins so many beats after the left end; the last one ends so many before the right.</summary>
    private const double EdgeBeats = 0.6;

    /// <summary>Over the highest rung shown, and under the lowest.</summary>
    private const double EdgeSemitones = 1.2;

    /// <summary>A neighbour partial further off than this does not spread the drawing.</summary>
    private const double FurthestNeighbour = 7;

    /// <summary>The largest and the smallest head, and from how many beats on one is open (common practice: a half note).</summary>
    private const double LargestHead = 13,
        SmallestHead = 6,
        OpenBeats = 2;

    private const int StartPoints = 2;
    private const double LetterWidth = 9.5;
    private readonly bool _named;
    private readonly Tuning _tuning;
    private readonly double _tempo;
    private readonly IReadOnlyList<double> _starts;

    /// <param name="trace">The row, as meant or as heard.</param>
    /// <param name="instrument">The instrument it is played on.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="tuning">The room's reference A, for a row that does not say its own.</param>
    /// <param name="heard">Whether it was played: how notes began is shown only then.</param>
    /// <param name="named">Whether the notes carry their names.</param>
    public RowDrawing(
        RowTrace trace,
        Instrument instrument,
        Reading reading,
        double tempo,
        Tuning tuning,
        bool heard = true,
        bool named = true
    )
    {
        (_named, _tempo, _tuning) = (named, tempo, trace.A4Hz is { } own ? new Tuning(own) : tuning);
        Rows =
            heard
            && trace.Notes.Count is > 1 and <= 48
            && (
                trace.Notes.Any(note => note.SlurredToNext)
                || trace.Notes.Zip(trace.Notes.Skip(1)).Any(pair => !pair.First.EndsPhrase && pair.First.Midi == pair.Second.Midi)
            );
        _starts = [.. trace.Notes.Select((note, i) => note.DueSeconds ?? note.StartSeconds ?? i)];
        var edge = EdgeBeats * 60 / tempo;
        (From, Seconds) = (_starts[0] - edge, _starts[^1] + trace.Notes[^1].AskedSeconds - _starts[0] + (2 * edge));
        Beats = Seconds * tempo / 60;
        (Low, High) = Heights(trace);
        LeftRungs = [.. SideOf(trace.Notes[0], trace, instrument, reading)];
        RightRungs = [.. SideOf(trace.Notes[^1], trace, instrument, reading)];
        Wires = [.. WiresOf(trace)];
        Notes = [.. trace.Notes.Select((note, i) => Draw(note, i > 0 ? trace.Notes[i - 1] : null, _starts[i]))];
        Misses = [.. Apart(Notes)];
        Thread = [.. Runs(trace)];
    }

    /// <summary>The take's second at the left end, and how many seconds the drawing is wide.</summary>
    public double From { get; }

    public double Seconds { get; }

    /// <summary>How many beats the drawing is wide, and on which of them the first note is due: the same at every tempo.</summary>
    public double Beats { get; }

    public double Lead => EdgeBeats;

    /// <summary>The MIDI numbers of its lower and upper end.</summary>
    public double Low { get; }

    public double High { get; }

    /// <summary>The reference A it is drawn by, hertz.</summary>
    public double A4Hz => _tuning.A4Hz;

    public IReadOnlyList<SideRung> LeftRungs { get; }

    public IReadOnlyList<SideRung> RightRungs { get; }

    /// <summary>The written way: a wire for all that follows without the tongue.</summary>
    public IReadOnlyList<string> Wires { get; }

    public IReadOnlyList<DrawnNote> Notes { get; }

    /// <summary>The notes whose miss is written out: those with room for the words.</summary>
    public IReadOnlyList<DrawnNote> Misses { get; }

    /// <summary>The pitch heard, one path a tone.</summary>
    public IReadOnlyList<string> Thread { get; }

    /// <summary>Whether how notes begin is shown beside how they were meant to.</summary>
    public bool Rows { get; }

    /// <summary>When the first note that did not come was due or sounded, seconds into the take; null where all came.</summary>
    public static string? Place(RowTrace? trace) =>
        trace?.Focus is { Outcome: not (NoteOutcome.Right or NoteOutcome.CannotTell) } missed
        && (missed.StartSeconds ?? missed.DueSeconds) is { } at
            ? $"{at:0.##}"
            : null;

    /// <summary>The same in words.</summary>
    public static string Words(RowTrace trace) => string.Join(" ", trace.Notes.Select(note => note.Sentence));

    /// <summary>From the partial under the lowest note to the one over the highest.</summary>
    private static (double Low, double High) Heights(RowTrace trace)
    {
        double To(TracedNote note, int by)
        {
            var partial = Math.Clamp(note.Partial + by, 1, HarmonicSeries.Highest);
            var apart = HarmonicSeries.ExactSemitones(partial) - HarmonicSeries.ExactSemitones(note.Partial);
            return note.Midi + Math.Clamp(apart, -FurthestNeighbour, FurthestNeighbour);
        }

        return (trace.Notes.Min(note => To(note, -1)) - EdgeSemitones, trace.Notes.Max(note => To(note, 1)) + EdgeSemitones);
    }

    private IEnumerable<SideRung> SideOf(TracedNote note, RowTrace trace, Instrument instrument, Reading reading) =>
        Rung.Of(instrument, note.TubeOn(instrument), HarmonicSeries.Highest, _tuning)
            .Select(rung => (rung, Midi: _tuning.Midi(rung.Hertz)))
            .Where(each => each.Midi > Low && each.Midi < High)
            .Select(each => new SideRung(
                each.rung.Partial,
                Y(each.Midi),
                _named ? Wording.Pitch(each.rung.Written(reading, Pitch.Parse(note.Written))) : $"{each.rung.Partial}",
                trace.Notes.Any(other => other.Setting == note.Setting && other.Partial == each.rung.Partial)
            ));

    /// <summary>One wire for all that follows without the tongue.</summary>
    private IEnumerable<string> WiresOf(RowTrace trace)
    {
        var path = new StringBuilder();
        for (var i = 0; i < trace.Notes.Count; i++)
        {
            var note = trace.Notes[i];
            var (x, y) = (X(_starts[i]), Y(note.Midi));
            var goesOn = i > 0 && trace.Notes[i - 1] is { SlurredToNext: true, EndsPhrase: false };
            // A note that another start follows leaves the tongue a little room.
            var end = Math.Max(x + 4, X(_starts[i] + note.AskedSeconds) - (note.SlurredToNext ? 0 : 8));
            var bend = Math.Min(22, (end - x) / 4);
            if (goesOn)
                path.Append($"C{x:0.#} {Y(trace.Notes[i - 1].Midi):0.#} {x - 2:0.#} {y:0.#} {x + bend:0.#} {y:0.#}");
            else
                path.Clear().Append($"M{x:0.#} {y:0.#}");
            var slurs = note is { SlurredToNext: true, EndsPhrase: false } && i + 1 < trace.Notes.Count;
            path.Append($"L{(slurs ? end - bend : end):0.#} {y:0.#}");
            if (!slurs)
                yield return path.ToString();
        }
    }

    /// <summary>The head, no larger than its note has room, and its beads: one for each further beat that it lasts.</summary>
    private (NoteHead Head, IReadOnlyList<Bead> Beads) Wired(TracedNote note, double start)
    {
        var (beat, beats) = (60 / _tempo, note.AskedSeconds * _tempo / 60);
        var room = note.AskedSeconds / Seconds * (Right - Left);
        var first = (start - _starts[0]) / beat;
        return (
            new NoteHead(Math.Clamp(room * 0.35, SmallestHead, LargestHead), beats >= OpenBeats - 0.01),
            [
                .. Enumerable
                    .Range(1, Math.Max(0, (int)Math.Floor(beats + 0.01) - 1))
                    .Select(each => new Bead(X(start + (each * beat)), Y(note.Midi), first + each)),
            ]
        );
    }

    private static IEnumerable<DrawnNote> Apart(IReadOnlyList<DrawnNote> notes)
    {
        var free = double.MinValue;
        foreach (var note in notes.Where(note => note.Miss.Length > 0))
        {
            if (note.MissX < free)
                continue;
            free = note.MissX + (LetterWidth * (note.Miss.Length + 1));
            yield return note;
        }
    }

    private DrawnNote Draw(TracedNote note, TracedNote? before, double start)
    {
        var came = note.Outcome == NoteOutcome.Right;
        var heard = Heard(note);
        var (head, beads) = Wired(note, start);
        return new DrawnNote(
            note.Number,
            X(start),
            Math.Max(4, note.AskedSeconds / Seconds * (Right - Left)),
            Y(note.Midi),
            // A note repeated in one phrase is named once.
            !_named || (before is { EndsPhrase: false } && before.Midi == note.Midi)
                ? ""
                : Wording.Spelled(note.Written),
            came,
            came ? "" : Wording.Miss(note),
            Math.Clamp(
                came || note.StartSeconds is null ? X(start) : X(note.StartSeconds.Value),
                Left,
                Math.Max(Left, Right + 40 - (LetterWidth * Wording.Miss(note).Length))
            ),
            came || heard is null ? Y(note.Midi) + 5 : MissHeight(heard.Value, note.Midi),
            before is { SlurredToNext: true } ? "–" : "T",
            note.Tongued switch
            {
                true => "T",
                false => "–",
                null => "·",
            }
        )
        {
            Head = head,
            Beads = beads,
        };
    }

    /// <summary>On the far side of the thread from the wire, and inside the drawing.</summary>
    private double MissHeight(double heard, double meant) => Math.Clamp(Y(heard) + (heard > meant ? -16 : 28), Top + 14, Bottom - 4);

    private double? Heard(TracedNote note) => note.HeardHz is { } hertz ? _tuning.Midi(hertz) : null;

    private IEnumerable<string> Runs(RowTrace trace)
    {
        var points = new List<string>();
        for (var i = 0; i <= trace.Midi.Count; i++)
        {
            var midi = i < trace.Midi.Count ? trace.Midi[i] : null;
            var at = i * RowTrace.StepSeconds;
            if (midi is { } height && at >= From && at <= From + Seconds)
            {
                points.Add($"{X(at):0.#} {Y(height):0.#}");
                continue;
            }

            // A tone takes a moment to settle.
            if (points.Count > StartPoints + 1)
                yield return $"M{string.Join(" L", points.Skip(StartPoints))}";
            points.Clear();
        }
    }

    private double X(double seconds) => Left + ((seconds - From) / Seconds * (Right - Left));

    /// <summary>What lies beyond an end is drawn at it.</summary>
    private double Y(double midi) => Math.Clamp(Bottom - ((midi - Low) / (High - Low) * (Bottom - Top)), Top - 8, Bottom + 8);
}
