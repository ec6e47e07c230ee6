using System.Text;
using Bocca.Core.Buzz.Aims;

namespace Bocca.Web.Drawings;

/// <summary>A block of a strip: what was asked.</summary>
public sealed record AskedBlock(double X, double Width, string Path, string Label, bool ShowLabel);

/// <summary>A line of a strip.</summary>
public sealed record StripRow(double Y, double From, IReadOnlyList<AskedBlock> Asked, IReadOnlyList<string> Heard);

/// <summary>
/// A whole take on a few lines, read like text: pale bands at the height asked, the heard pitch over them. Heights are
/// in semitones from the pupil's own middle. Its lines and its heights follow from what is asked alone, so that the same drawing stands
/// before, during and after a take.
/// </summary>
public sealed class StripDrawing
{
    public const double Width = 740;
    public const double Left = 8;
    public const double Right = Left + Inner;
    private const double Inner = 724;
    private const double Gap = 18;
    private const double LabelHeight = 16;
    private const double BandSemitones = 0.8;
    private const double LongestRowBeats = 45;

    /// <summary>Room over and under what is asked: at least a major third, and a third of its range (ours).</summary>
    private const double LeastRoom = 4,
        RoomShare = 0.33;
    private readonly double _rowSeconds;

    /// <param name="strip">What was asked, and what was heard.</param>
    /// <param name="tempo">Beats a minute.</param>
    public StripDrawing(TakeStrip strip, double tempo)
    {
        var beats = strip.Seconds * tempo / 60;
        var rows = Math.Clamp((int)Math.Ceiling(beats / LongestRowBeats), 1, 8);
        _rowSeconds = strip.Seconds / rows;
        RowBeats = beats / rows;
        var heights = strip.Asked.SelectMany(span => span.Heights).ToList();
        var room = Math.Max(LeastRoom, RoomShare * (heights.Max() - heights.Min()));
        (Low, High) = (heights.Min() - room, heights.Max() + room);
        First = heights[0];
        RowHeight = Math.Min(170, (460 / rows) - Gap - LabelHeight);
        Rows = [.. Enumerable.Range(0, rows).Select(row => Row(strip, row))];
        Height = rows * LineHeight;
    }

    public double RowHeight { get; }

    /// <summary>Semitones from the middle at the lower and the upper edge of a line.</summary>
    public double Low { get; }

    public double High { get; }

    /// <summary>Semitones from the middle at which the take begins.</summary>
    public double First { get; }

    /// <summary>Beats on a line.</summary>
    public double RowBeats { get; }

    public double Height { get; }

    /// <summary>From one line to the next.</summary>
    public double LineHeight => RowHeight + Gap + LabelHeight;

    public IReadOnlyList<StripRow> Rows { get; }

    private StripRow Row(TakeStrip strip, int row)
    {
        var top = (row * LineHeight) + LabelHeight;
        var (from, to) = (row * _rowSeconds, (row + 1) * _rowSeconds);
        var last = "";
        var blocks = new List<AskedBlock>();
        foreach (var span in strip.Asked.Where(span => span.Seconds < to - 0.01 && span.Seconds + span.Length > from + 0.01))
        {
            blocks.Add(
                new AskedBlock(
                    X(Math.Max(span.Seconds, from), from),
                    Scale(Math.Min(span.Seconds + span.Length, to) - Math.Max(span.Seconds, from)),
                    Band(span, from, to, top),
                    span.Label,
                    span.Label != last
                )
            );
            last = span.Label;
        }

        return new StripRow(top, from, blocks, Lines(strip, from, to, top));
    }

    private double X(double seconds, double from) => Left + Scale(seconds - from);

    private double Scale(double seconds) => seconds / _rowSeconds * Inner;

    private double Y(double semitones, double top) => top + ((High - Math.Clamp(semitones, Low, High)) / (High - Low) * RowHeight);

    private string Band(AskedSpan span, double from, double to, double top)
    {
        const int Steps = 48;
        var upper = new StringBuilder();
        var lower = new List<string>();
        for (var i = 0; i <= Steps; i++)
        {
            var seconds = span.Seconds + (span.Length * i / Steps);
            if (seconds < from - 0.01 || seconds > to + 0.01)
                continue;
            var height = HeightAt(span, (double)i / Steps);
            upper.Append($"{(upper.Length == 0 ? "M" : "L")}{X(seconds, from):0.#} {Y(height + BandSemitones, top):0.#}");
            lower.Add($"L{X(seconds, from):0.#} {Y(height - BandSemitones, top):0.#}");
        }

        lower.Reverse();
        return $"{upper}{string.Concat(lower)}Z";
    }

    private static double HeightAt(AskedSpan span, double share)
    {
        if (!span.Glides)
            return span.Heights[Math.Min(span.Heights.Count - 1, (int)(share * span.Heights.Count))];
        var at = share * (span.Heights.Count - 1);
        var next = Math.Min(span.Heights.Count - 1, (int)at + 1);
        return span.Heights[(int)at] + ((at - (int)at) * (span.Heights[next] - span.Heights[(int)at]));
    }

    private List<string> Lines(TakeStrip strip, double from, double to, double top)
    {
        var lines = new List<string>();
        var path = new StringBuilder();
        void Close()
        {
            if (path.Length > 0)
                lines.Add(path.ToString());
            path.Clear();
        }

        for (var i = Math.Max(0, (int)(from / TakeStrip.StepSeconds)); i < strip.Heard.Count && i * TakeStrip.StepSeconds <= to; i++)
        {
            if (strip.Heard[i] is not { } semitones)
            {
                Close();
                continue;
            }

            path.Append($"{(path.Length == 0 ? "M" : "L")}{X(i * TakeStrip.StepSeconds, from):0.#} {Y(semitones, top):0.#}");
        }

        Close();
        return lines;
    }
}
