using Bocca.Core.Judging;

namespace Bocca.Web.Drawings;

/// <summary>A measure over weeks: a dot a take by its day, and the pupil's own spread round the earlier takes as a band.</summary>
public sealed class HistoryDrawing
{
    public const double Width = 300;
    public const double Height = 110;
    private const double Margin = 10;
    private const double Left = 44;

    public HistoryDrawing(FigureHistory history)
    {
        var values = history
            .Points.Select(point => point.Value)
            .Concat([history.Earlier - history.Spread, history.Earlier + history.Spread])
            .ToList();
        // Shares are told from nothing to all.
        (Bottom, Top) = history.Kind.IsShare ? (0, 100) : (values.Min(), values.Max());
        if (history.Points.All(point => point.Value >= 0))
            Bottom = Math.Max(0, Bottom);
        if (Top - Bottom < 1e-9)
            Top = Bottom + 1;
        var (first, last) = (history.Points[0].At, history.Points[^1].At);
        var days = Math.Max(1e-6, (last - first).TotalDays);
        Dots =
        [
            .. history.Points.Select(point => (Left + ((point.At - first).TotalDays / days * (Width - Left - Margin)), Y(point.Value))),
        ];
        SpreadTop = Math.Max(0, Y(history.Earlier + history.Spread));
        SpreadHeight = Math.Max(1, Math.Min(Height, Y(history.Earlier - history.Spread)) - SpreadTop);
    }

    public double Top { get; }

    public double Bottom { get; }

    public double SpreadTop { get; }

    public double SpreadHeight { get; }

    public IReadOnlyList<(double X, double Y)> Dots { get; }

    public string Line => string.Join(' ', Dots.Select(dot => $"{dot.X:0.#},{dot.Y:0.#}"));

    private double Y(double value) => Margin + ((Top - value) / (Top - Bottom) * (Height - (2 * Margin)));
}
