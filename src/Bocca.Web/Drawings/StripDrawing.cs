using System.Text;
using Bocca.Core.Buzz.Aims;

namespace Bocca.Web.Drawings;

/// <summary>A block of a strip: what was asked.</summary>
public sealed record AskedBlock(double X, double Width, string Path, string Label, bool ShowLabel);

/// <summary>A line of a strip.</summary>
public sealed record StripRow(double Y, double From, IReadOnlyList<AskedBlock> Asked, IReadOnlyList<string> Heard);

/// <summary>
/// A whole take on a few lines, read like text: pale bands at the height asked, the heard pitch over them. Heights are
/// in semitones from the pupil's own middle.
/// </summary>
public sealed class StripDrawing
{
    public const double Width = 740;
    public const double Left = 8;
    private const double Inner = 724;
    private const double Gap = 18;
    private const double LabelHeight = 16;
    private const double BandSemitones = 0.8;
    private const double LongestRowSeconds = 34;
    private readonly double _low;
    private readonly double _high;
    private readonly double _rowSeconds;

    public StripDrawing(TakeStrip strip)
    {
        var rows = Math.Clamp((int)Math.Ceiling(strip.Seconds / LongestRowSeconds), 1, 8);
        _rowSeconds = strip.Seconds / rows;
        var heights = strip.Asked.SelectMany(span => span.Heights).ToList();
        var heard = strip.Heard.OfType<double>().Order().ToList();
        var reach =
            heard.Count == 0 ? (Low: 0.0, High: 0.0) : (Low: heard[heard.Count / 50], High: heard[heard.Count - 1 - (heard.Count / 50)]);
        _low = Math.Max(-30, Math.Min(heights.Min(), reach.Low) - 1.5);
        _high = Math.Min(30, Math.Max(heights.Max(), reach.High) + 1.5);
        RowHeight = Math.Min(170, (460 / rows) - Gap - LabelHeight);
        Rows = [.. Enumerable.Range(0, rows).Select(row => Row(strip, row))];
        Height = rows * (RowHeight + Gap + LabelHeight);
    }

    public double RowHeight { get; }

    public double Height { get; }

    public IReadOnlyList<StripRow> Rows { get; }

    private StripRow Row(TakeStrip strip, int row)
    {
        var top = (row * (RowHeight + Gap + LabelHeight)) + LabelHeight;
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

    private double Y(double semitones, double top) => top + ((_high - Math.Clamp(semitones, _low, _high)) / (_high - _low) * RowHeight);

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
