using Bocca.Core.Music;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using Bocca.Web.Frame;

namespace Bocca.Web.Drawings;

/// <summary>A meant note as drawn: its gate, and what came of it.</summary>
public sealed record DrawnNote(
    int Number,
    double X,
    double Width,
    double Y,
    double HalfHeight,
    string Written,
    bool Came,
    string Miss,
    double MissX,
    double MissY,
    string Wanted,
    string Heard
);

/// <summary>A rung behind a row: its height as a MIDI number, and its partial.</summary>
public sealed record DrawnRungLine(double Midi, string Partial);

/// <summary>
/// A row over time: each meant note as a gate at its height, as long as it was to sound, and the pitch heard as a thread
/// through the gates.
/// </summary>
public sealed class RowDrawing
{
    private const double Margin = 14;
    private const double NamesWidth = 58;
    private const int StartPoints = 2;
    private const double LetterWidth = 9.5;
    private const double Top = 34;
    private const double Floor = 60;
    private const double FewestSemitones = 7;
    private const double GateSemitones = 0.5;
    private readonly bool _named;
    private readonly Tuning _tuning;
    private readonly double _left;
    private readonly double _from;
    private readonly double _seconds;
    private readonly double _low;
    private readonly double _high;

    /// <param name="trace">The row.</param>
    /// <param name="width">Width of the picture.</param>
    /// <param name="height">Its height.</param>
    /// <param name="tuning">The room's reference A, for a row that does not say its own.</param>
    /// <param name="rungs">The rungs of the tube behind it; null for none.</param>
    /// <param name="heard">Whether it was played: how notes began is shown only then.</param>
    /// <param name="named">Whether the gates carry the names of their notes.</param>
    public RowDrawing(
        RowTrace trace,
        double width,
        double height,
        Tuning tuning,
        IReadOnlyList<DrawnRungLine>? rungs = null,
        bool heard = true,
        bool named = true
    )
    {
        (Width, Height, _named) = (width, height, named);
        _tuning = trace.A4Hz is { } own ? new Tuning(own) : tuning;
        Rows =
            heard
            && trace.Notes.Count is > 1 and <= 48
            && (
                trace.Notes.Any(note => note.SlurredToNext)
                || trace.Notes.Zip(trace.Notes.Skip(1)).Any(pair => !pair.First.EndsPhrase && pair.First.Midi == pair.Second.Midi)
            );
        _left = Rows || rungs is not null ? NamesWidth : Margin;
        var starts = trace.Notes.Select((note, i) => note.DueSeconds ?? note.StartSeconds ?? i).ToList();
        _from = Math.Max(0, Math.Min(starts.Min(), trace.Notes.Min(note => note.StartSeconds ?? double.MaxValue)) - 0.3);
        _seconds = Math.Max(
            1,
            Math.Max(starts[^1] + trace.Notes[^1].AskedSeconds, trace.Notes.Max(note => note.EndSeconds ?? 0)) + 0.3 - _from
        );
        var heights = trace.Notes.Select(note => (double)note.Midi).Concat(trace.Notes.Select(Heard).OfType<double>()).ToList();
        var middle = (heights.Min() + heights.Max()) / 2;
        var half = Math.Max(FewestSemitones, heights.Max() - heights.Min() + 3) / 2;
        (_low, _high) = (middle - half, middle + half);
        Rungs = [.. (rungs ?? []).Where(rung => rung.Midi > _low && rung.Midi < _high).Select(rung => (Y(rung.Midi), rung.Partial))];
        Notes = [.. trace.Notes.Select((note, i) => Draw(note, i > 0 ? trace.Notes[i - 1] : null, starts[i]))];
        Misses = [.. Apart(Notes)];
        Thread = [.. Runs(trace)];
    }

    public double Width { get; }

    public double Height { get; }

    public IReadOnlyList<DrawnNote> Notes { get; }

    /// <summary>The rungs of the tube behind it: their height, and their partial.</summary>
    public IReadOnlyList<(double Y, string Partial)> Rungs { get; }

    /// <summary>The notes whose miss is written out: those with room for the words.</summary>
    public IReadOnlyList<DrawnNote> Misses { get; }

    /// <summary>The pitch heard, one path a tone.</summary>
    public IReadOnlyList<string> Thread { get; }

    /// <summary>Whether how notes begin is shown beside how they were meant to.</summary>
    public bool Rows { get; }

    /// <summary>The same in words.</summary>
    public static string Words(RowTrace trace) => string.Join(" ", trace.Notes.Select(note => note.Sentence));

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
        return new DrawnNote(
            note.Number,
            X(start),
            Math.Max(4, note.AskedSeconds / _seconds * (Width - _left - Margin)),
            Y(note.Midi),
            Math.Abs(Y(note.Midi) - Y(note.Midi + GateSemitones)),
            // A note repeated in one phrase is named once.
            !_named || (before is { EndsPhrase: false } && before.Midi == note.Midi)
                ? ""
                : Wording.Spelled(note.Written),
            came,
            came ? "" : Wording.Miss(note),
            Math.Min(
                Width - (LetterWidth * Wording.Miss(note).Length),
                came || note.StartSeconds is null ? X(start) : X(note.StartSeconds.Value)
            ),
            came || heard is null ? Y(note.Midi) : Y(heard.Value) + (heard > note.Midi ? -12 : 24),
            before is { SlurredToNext: true } ? "–" : "T",
            note.Tongued switch
            {
                true => "T",
                false => "–",
                null => "·",
            }
        );
    }

    private double? Heard(TracedNote note) => note.HeardHz is { } hertz ? _tuning.Midi(hertz) : null;

    private IEnumerable<string> Runs(RowTrace trace)
    {
        var points = new List<string>();
        for (var i = 0; i <= trace.Midi.Count; i++)
        {
            var midi = i < trace.Midi.Count ? trace.Midi[i] : null;
            var at = i * RowTrace.StepSeconds;
            if (midi is { } height && height > _low - 1 && height < _high + 1 && at >= _from && at <= _from + _seconds)
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

    private double X(double seconds) => _left + ((seconds - _from) / _seconds * (Width - _left - Margin));

    private double Y(double midi) => Height - Floor - ((midi - _low) / (_high - _low) * (Height - Floor - Top));
}
