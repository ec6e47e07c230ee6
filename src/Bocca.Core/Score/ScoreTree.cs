using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>A part as it stands in a document.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name; empty for none.</param>
/// <param name="Measures">
/// The elements that hold its measures: <c>measure</c> part by part, <c>part</c> where the document is written time by time.
/// </param>
internal sealed record PartTree(string Id, string Name, IReadOnlyList<MeasureTree> Measures)
{
    /// <summary>Its notes in the order in which they stand: a note of the model names its own by its place.</summary>
    public IEnumerable<XElement> Notes => Measures.SelectMany(measure => measure.Content.Elements("note"));
}

/// <summary>A measure as it stands in a document.</summary>
/// <param name="Content">What holds the notes of the part.</param>
/// <param name="Head">What holds the measure's number.</param>
internal readonly record struct MeasureTree(XElement Content, XElement Head)
{
    /// <summary>Its number as printed.</summary>
    public string Number => Head.Attribute("number")?.Value ?? "";
}

/// <summary>Where the parts are in a document, whether it is written part by part or time by time.</summary>
internal static class ScoreTree
{
    /// <summary>The parts in order.</summary>
    /// <exception cref="InvalidDataException">It is no score.</exception>
    public static IReadOnlyList<PartTree> Parts(XElement root)
    {
        var names = root.Elements("part-list")
            .Elements("score-part")
            .Where(part => part.Attribute("id") is not null)
            .GroupBy(part => part.Attribute("id")!.Value)
            .ToDictionary(group => group.Key, group => group.First().Element("part-name")?.Value.Trim() ?? "");
        var measures = root.Name.LocalName switch
        {
            "score-partwise" => root.Elements("part")
                .Select(part =>
                    (Id: IdOf(part), Measures: part.Elements("measure").Select(measure => new MeasureTree(measure, measure)).ToList())
                ),
            "score-timewise" => root.Elements("measure")
                .SelectMany(measure => measure.Elements("part").Select(part => (Id: IdOf(part), Measure: new MeasureTree(part, measure))))
                .GroupBy(each => each.Id)
                .Select(part => (Id: part.Key, Measures: part.Select(each => each.Measure).ToList())),
            var other => throw new InvalidDataException($"This is not a score: its outermost element is '{other}'."),
        };
        return [.. measures.Select(part => new PartTree(part.Id, names.GetValueOrDefault(part.Id, ""), part.Measures))];
    }

    private static string IdOf(XElement part) => part.Attribute("id")?.Value ?? "";
}
