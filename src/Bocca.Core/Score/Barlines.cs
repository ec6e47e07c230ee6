using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Bar lines of a measure as MusicXML: repeats, endings, double and final ones.</summary>
internal static class Barlines
{
    public static XElement? Left(ScoreMeasure measure)
    {
        if (!measure.RepeatBegins && measure.EndingBegins.Count == 0)
            return null;
        return new XElement(
            "barline",
            new XAttribute("location", "left"),
            measure.RepeatBegins ? new XElement("bar-style", "heavy-light") : null,
            measure.EndingBegins.Count > 0 ? Ending(measure.EndingBegins, "start") : null,
            measure.RepeatBegins ? new XElement("repeat", new XAttribute("direction", "forward")) : null
        );
    }

    /// <param name="measure">The measure.</param>
    /// <param name="isLast">Whether the piece ends with it.</param>
    /// <param name="ending">The times through of the ending it stands under; empty for none.</param>
    public static XElement? Right(ScoreMeasure measure, bool isLast, IReadOnlyList<int> ending)
    {
        var style =
            measure.RepeatTimes > 0 || isLast ? "light-heavy"
            : measure.EndsSection ? "light-light"
            : null;
        if (style is null && !measure.EndingEnds)
            return null;
        return new XElement(
            "barline",
            new XAttribute("location", "right"),
            style is null ? null : new XElement("bar-style", style),
            measure.EndingEnds ? Ending(ending, measure.RepeatTimes > 0 ? "stop" : "discontinue") : null,
            measure.RepeatTimes > 0
                ? new XElement(
                    "repeat",
                    new XAttribute("direction", "backward"),
                    measure.RepeatTimes == 2 ? null : new XAttribute("times", measure.RepeatTimes)
                )
                : null
        );
    }

    private static XElement Ending(IReadOnlyList<int> times, string type) =>
        new("ending", new XAttribute("number", string.Join(", ", times)), new XAttribute("type", type));
}
