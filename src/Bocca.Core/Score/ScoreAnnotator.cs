using System.Xml.Linq;

namespace Bocca.Core.Score;

/// <summary>Writes marks at a note of a document, each element with an id by which it is found again.</summary>
internal static class ScoreAnnotator
{
    /// <summary>Elements of a note that stand behind its notations (published: MusicXML 4.0).</summary>
    private static readonly string[] Behind = ["lyric", "play", "listen"];

    public static void Write(XElement note, ScoreAnnotation mark, string ours)
    {
        var number = note.Parent!.Elements("note").TakeWhile(each => each != note).Count();
        var place = $"{ours}{note.Parent.Attribute("number")?.Value.Replace(' ', '-')}-{number}";
        var hasBreath = note.Elements("notations").Elements("articulations").Elements("breath-mark").Any();
        if (mark.Setting != "" || (mark.Breath && !hasBreath))
        {
            var notations = NotationsOf(note, place);
            if (mark.Setting != "")
                notations.Add(
                    new XElement(
                        "technical",
                        new XAttribute("id", $"{place}-t"),
                        new XElement("fingering", new XAttribute("placement", "below"), mark.Setting)
                    )
                );
            if (mark.Breath && !hasBreath)
                notations.Add(new XElement("articulations", new XAttribute("id", $"{place}-b"), new XElement("breath-mark")));
        }

        if (mark.Words != "")
            FirstOfChord(note)
                .AddBeforeSelf(
                    new XElement(
                        "direction",
                        new XAttribute("id", $"{place}-w"),
                        new XAttribute("placement", "above"),
                        new XElement("direction-type", new XElement("words", new XAttribute("font-style", "italic"), mark.Words)),
                        note.Element("voice") is { } voice ? new XElement("voice", voice.Value) : null,
                        note.Element("staff") is { } staff ? new XElement("staff", staff.Value) : null
                    )
                );
    }

    /// <summary>The note's own notations, or new ones where a note has them.</summary>
    private static XElement NotationsOf(XElement note, string place)
    {
        if (note.Elements("notations").LastOrDefault() is { } own)
            return own;
        var made = new XElement("notations", new XAttribute("id", place));
        if (note.Elements().FirstOrDefault(element => Behind.Contains(element.Name.LocalName)) is { } behind)
            behind.AddBeforeSelf(made);
        else
            note.Add(made);
        return made;
    }

    /// <summary>Nothing may stand between the notes of a chord.</summary>
    private static XElement FirstOfChord(XElement note)
    {
        while (note.Element("chord") is not null && note.ElementsBeforeSelf("note").LastOrDefault() is { } before)
            note = before;
        return note;
    }
}
