using Bocca.Core.Buzz.Aims;

namespace Bocca.Web.Drawings;

/// <summary>A curve as drawn: which means made it, its path, and where its name stands.</summary>
public sealed record DrawnCurve(int Means, string Label, string Path, double NameX, double NameY, bool Named);

/// <summary>Curves laid over each other: the way along, semitones about each one's own mean upwards.</summary>
public sealed class LaidDrawing
{
    public const double Width = 740,
        Height = 190,
        Left = 46,
        Right = 620,
        Top = 14,
        Bottom = 170;
    private const double LineHeight = 20;
    private readonly double _reach;

    public LaidDrawing(LaidCurves laid)
    {
        _reach = Math.Max(2, laid.Curves.Max(curve => curve.Semitones.Max(Math.Abs))) * 1.05;
        var labels = laid.Labels;
        Curves =
        [
            .. laid.Curves.Select(
                (curve, i) =>
                    new DrawnCurve(
                        labels.ToList().IndexOf(curve.Label) + 1,
                        curve.Label,
                        "M"
                            + string.Join(
                                " L",
                                curve.Semitones.Select(
                                    (semitones, point) =>
                                        $"{Left + ((Right - Left) * point / (LaidCurves.Points - 1)):0.#} {Y(semitones):0.#}"
                                )
                            ),
                        Right + 34,
                        Top + 20 + (LineHeight * labels.ToList().IndexOf(curve.Label)),
                        laid.Curves.ToList().FindIndex(each => each.Label == curve.Label) == i
                    )
            ),
        ];
        Ticks =
        [
            .. new[] { -Step, 0, Step }.Select(semitones =>
                (Y(semitones), $"{(semitones > 0 ? "+" : semitones < 0 ? "−" : "")}{Math.Abs(semitones):0}")
            ),
        ];
        Words = string.Join(
            "; ",
            labels.Skip(1).Select(label => $"{label} {Math.Max(0, laid.Likeness(label, labels[0])) * 100:0} % like {labels[0]}")
        );
    }

    public IReadOnlyList<DrawnCurve> Curves { get; }

    /// <summary>Heights written at the left, semitones.</summary>
    public IReadOnlyList<(double Y, string Text)> Ticks { get; }

    public string Words { get; }

    private double Step => Math.Max(1, Math.Floor(_reach * 0.8));

    private double Y(double semitones) => Top + ((_reach - semitones) / (2 * _reach) * (Bottom - Top));
}
