using Bocca.Core.Judging;

namespace Bocca.Core.Breath;

/// <summary>What breath drills say of the figures that are followed over weeks.</summary>
public static class BreathFigures
{
    /// <summary>How long an even stream lasts.</summary>
    public static FigureKind EvenStream { get; } = new("even stream", "s", "shorter", "longer");

    /// <summary>What a full breath holds.</summary>
    public static FigureKind Litres { get; } = new("full breath", "l", "less", "more");

    /// <summary>The figures of a drill.</summary>
    public static IEnumerable<Figure> Of(BreathPass pass) => pass.Even ? [new Figure(EvenStream, pass.Seconds)] : [];
}
