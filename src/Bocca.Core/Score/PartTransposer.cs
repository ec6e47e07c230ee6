using System.Globalization;
using System.Xml.Linq;
using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>Writes a part of a document as another player reads it: pitches, keys, clef, transposition and accidentals.</summary>
internal static class PartTransposer
{
    /// <summary>Sharps or flats that a key signature has at most.</summary>
    private const int MostFifths = 7;

    public static void Write(PartTree part, Reading? reading, int octaves)
    {
        // The model says where pitches and keys are; the document is changed note by note beside it.
        var model = new PartReader(part.Name).Read(part.Measures);
        var up = new Interval(7 * octaves, 12 * octaves);
        var enharmonic = reading is null ? default : Enharmonic(model, reading);
        var toSounding = model.ToSounding;
        for (var i = 0; i < part.Measures.Count; i++)
        {
            toSounding = model.Measures[i].ToSounding ?? toSounding;
            var anew = reading is null ? default : Sum(toSounding, reading.WrittenAboveSounding);
            var interval = Sum(anew, Sum(up, enharmonic));
            foreach (var attributes in reading is null ? [] : part.Measures[i].Content.Elements("attributes").ToList())
                Attributes(attributes, interval);
            var notes = part.Measures[i].Content.Elements("note").ToList();
            for (var j = 0; j < notes.Count; j++)
                if (model.Measures[i].Notes[j].Written is { } written)
                    Pitch(notes[j].Element("pitch")!, written.Transpose(interval));
            foreach (var harmony in part.Measures[i].Content.Elements("harmony").Elements())
                Harmony(harmony, interval);
        }

        if (reading is not null)
            Head(part, reading, model.Staves);
        Accidentals(part);
    }

    private static Interval Sum(Interval one, Interval other) => new(one.Steps + other.Steps, one.Semitones + other.Semitones);

    /// <summary>Sharps that an interval adds to a key: seven a semitone, less twelve a step of the staff (computed).</summary>
    private static int FifthsOf(Interval interval) => (7 * interval.Semitones) - (12 * interval.Steps);

    /// <summary>Another spelling of the whole part where a key would have more than seven sharps or flats.</summary>
    private static Interval Enharmonic(ScorePart model, Reading reading)
    {
        var interval = Sum(model.ToSounding, reading.WrittenAboveSounding);
        var keys = model.Measures.Select(measure => measure.Fifths).OfType<int>().Append(model.Fifths).ToList();
        return new[] { new Interval(0, 0), new Interval(1, 0), new Interval(-1, 0) }
            .OrderBy(other => keys.Max(key => Math.Max(0, Math.Abs(key + FifthsOf(Sum(interval, other))) - MostFifths)))
            .First();
    }

    private static void Attributes(XElement attributes, Interval interval)
    {
        foreach (var fifths in attributes.Elements("key").Elements("fifths"))
            if (int.TryParse(fifths.Value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var sharps))
                fifths.Value = $"{Math.Clamp(sharps + FifthsOf(interval), -MostFifths, MostFifths)}";
        attributes.Elements("transpose").Remove();
        attributes.Elements("clef").Remove();
    }

    private static void Pitch(XElement element, Pitch pitch)
    {
        element.SetElementValue("step", $"{pitch.Letter}");
        element.Elements("alter").Remove();
        if (pitch.Alter != 0)
            element.Element("step")!.AddAfterSelf(new XElement("alter", pitch.Alter));
        element.SetElementValue("octave", pitch.Octave);
    }

    private static void Harmony(XElement part, Interval interval)
    {
        var name = part.Name.LocalName;
        if (
            name is not ("root" or "bass")
            || !Music.Pitch.TryLetter(part.Element($"{name}-step")?.Value.Trim(), out var letter)
            || !int.TryParse(
                part.Element($"{name}-alter")?.Value ?? "0",
                NumberStyles.AllowLeadingSign,
                CultureInfo.InvariantCulture,
                out var alter
            )
        )
            return;
        var moved = new Pitch(letter, Math.Clamp(alter, -2, 2), 4).Transpose(interval);
        part.SetElementValue($"{name}-step", $"{moved.Letter}");
        part.Elements($"{name}-alter").Remove();
        if (moved.Alter != 0)
            part.Element($"{name}-step")!.AddAfterSelf(new XElement($"{name}-alter", moved.Alter));
    }

    /// <summary>Clef and transposition of the reading at the beginning.</summary>
    private static void Head(PartTree part, Reading reading, int staves)
    {
        if (part.Measures.Count == 0)
            return;
        var content = part.Measures[0].Content;
        var attributes = content.Element("attributes");
        if (attributes is null)
            content.AddFirst(attributes = new XElement("attributes"));
        var head = MusicXmlWriter.Attributes(
            null,
            null,
            null,
            staves,
            [.. Enumerable.Range(1, staves).Select(staff => (staff, reading.Clef))],
            reading.WrittenAboveSounding.Inverse
        );
        attributes.Add(head.Elements().Where(each => each.Name.LocalName == "clef" || reading.WrittenAboveSounding != default));
    }

    /// <summary>Accidentals as the new key needs them; stems and their like are left to whoever engraves.</summary>
    private static void Accidentals(PartTree part)
    {
        var model = new PartReader(part.Name).Read(part.Measures);
        var fifths = model.Fifths;
        var tied = new HashSet<int>();
        for (var i = 0; i < part.Measures.Count; i++)
        {
            fifths = model.Measures[i].Fifths ?? fifths;
            var state = new Dictionary<int, Accidentals>();
            var notes = part.Measures[i].Content.Elements("note").ToList();
            foreach (var note in model.Measures[i].Notes.OrderBy(note => note.At).ThenBy(note => note.Source))
            {
                var element = notes[note.Source - model.Measures[i].Notes[0].Source];
                element.Elements("stem").Remove();
                if (note.Written is not { } pitch)
                    continue;
                element.Elements("accidental").Remove();
                var staff = state.TryGetValue(note.Staff, out var known) ? known : state[note.Staff] = new Accidentals(fifths);
                if (staff.Before(pitch, tied.Remove(pitch.Midi)) is { } sign)
                    Place(element, new XElement("accidental", sign));
                if (note.TiedToNext)
                    tied.Add(pitch.Midi);
            }
        }
    }

    /// <summary>An accidental stands behind type and dots (published: MusicXML 4.0).</summary>
    private static void Place(XElement note, XElement accidental)
    {
        var before =
            note.Elements("dot").LastOrDefault()
            ?? note.Element("type")
            ?? note.Element("voice")
            ?? note.Elements("tie").LastOrDefault()
            ?? note.Element("duration")
            ?? note.Element("pitch");
        before!.AddAfterSelf(accidental);
    }
}
