using System.Xml.Linq;
using Bocca.Core.Music;
using Bocca.Core.Score;

namespace Bocca.Core.Counting;

/// <summary>
/// A card as MusicXML: its metre, beams within beats, triplets, ties and rests, and what is counted under it; on one line without a pitch,
/// or on the staff where it has notes.
/// </summary>
public static class CardScore
{
    /// <summary>Parts of a quarter: 32nds with a dot and triplets of sixteenths come out whole.</summary>
    private const int Divisions = 96;

    private static readonly Dictionary<char, string> Types = new()
    {
        ['w'] = "whole",
        ['h'] = "half",
        ['q'] = "quarter",
        ['e'] = "eighth",
        ['s'] = "16th",
        ['t'] = "32nd",
    };

    /// <summary>Writes a card.</summary>
    /// <param name="card">The card.</param>
    /// <param name="under">What stands under each note that begins, in order; empty for nothing.</param>
    /// <param name="clef">The clef of a card with notes.</param>
    public static string Write(RhythmCard card, IReadOnlyList<string> under, Clef clef = Clef.Treble)
    {
        var measures = new List<XElement>();
        var said = 0;
        Pitch? written = null;
        for (var bar = 0; bar < card.Bars; bar++)
        {
            var from = card.Metre.Bar * new Rational(bar);
            var notes = card.Notes.Where(note => note.At >= from && note.At < from + card.Metre.Bar).ToList();
            var beams = Beams(notes, card.Metre);
            var signs = new Accidentals(fifths: 0);
            // What is tied goes on with its note.
            List<XElement> heights = [.. notes.Select(note => Height(note, written = note.Written ?? written))];
            List<string?> accidentals = [.. notes.Select(note => note.Written is { } pitch ? signs.Before(pitch, tied: false) : null)];
            measures.Add(
                new XElement(
                    "measure",
                    new XAttribute("number", bar + 1),
                    bar == 0 ? Attributes(card.Metre, card.Written.Count > 0 ? clef : null) : null,
                    notes.Select(
                        (note, i) =>
                            Note(
                                (heights[i], accidentals[i]),
                                note,
                                i,
                                notes,
                                beams[i],
                                note.Begins && said < under.Count ? under[said++] : ""
                            )
                    )
                )
            );
        }

        var score = new XElement(
            "score-partwise",
            new XAttribute("version", "4.0"),
            new XElement("part-list", new XElement("score-part", new XAttribute("id", "P1"), new XElement("part-name"))),
            new XElement("part", new XAttribute("id", "P1"), measures)
        );
        return $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{score}";
    }

    private static XElement Height(CardNote note, Pitch? written) =>
        note.IsRest ? new XElement("rest")
        : written is { } pitch ? MusicXmlWriter.PitchOf(pitch)
        : new XElement("unpitched", new XElement("display-step", "E"), new XElement("display-octave", 4));

    private static XElement Attributes(Metre metre, Clef? clef) =>
        new(
            "attributes",
            new XElement("divisions", Divisions),
            new XElement("key", new XElement("fifths", 0)),
            new XElement(
                "time",
                metre == new Metre(2, 2) ? new XAttribute("symbol", "cut") : null,
                new XElement("beats", metre.Above),
                new XElement("beat-type", metre.Below)
            ),
            clef is { } read ? MusicXmlWriter.ClefOf(read, null) : new XElement("clef", new XElement("sign", "percussion")),
            clef is null ? new XElement("staff-details", new XElement("staff-lines", 1)) : null
        );

    private static XElement Note(
        (XElement Height, string? Accidental) head,
        CardNote note,
        int at,
        List<CardNote> notes,
        string? beam,
        string under
    )
    {
        var value = note.Token.TrimStart('r') is [var letter, ..] ? letter : 'q';
        var dots = note.Token.Count(sign => sign == '.');
        var duration = note.Length * Divisions;
        var (begins, ends) = (StartsTriplet(notes, at), EndsTriplet(notes, at));
        return new XElement(
            "note",
            head.Height,
            new XElement("duration", duration.Floor),
            note.TiedFromBefore ? new XElement("tie", new XAttribute("type", "stop")) : null,
            note.TiedToNext ? new XElement("tie", new XAttribute("type", "start")) : null,
            new XElement("type", Types[value]),
            Enumerable.Range(0, dots).Select(_ => new XElement("dot")),
            head.Accidental is { } sign ? new XElement("accidental", sign) : null,
            note.InTriplet ? new XElement("time-modification", new XElement("actual-notes", 3), new XElement("normal-notes", 2)) : null,
            head.Height.Name.LocalName == "unpitched" ? new XElement("stem", "up") : null,
            beam is null ? null : new XElement("beam", new XAttribute("number", 1), beam),
            note.TiedFromBefore || note.TiedToNext || begins || ends
                ? new XElement(
                    "notations",
                    note.TiedFromBefore ? new XElement("tied", new XAttribute("type", "stop")) : null,
                    note.TiedToNext ? new XElement("tied", new XAttribute("type", "start")) : null,
                    begins ? new XElement("tuplet", new XAttribute("type", "start"), new XAttribute("bracket", "yes")) : null,
                    ends ? new XElement("tuplet", new XAttribute("type", "stop")) : null
                )
                : null,
            under == ""
                ? null
                : new XElement("lyric", new XAttribute("number", 1), new XElement("syllabic", "single"), new XElement("text", under))
        );
    }

    private static bool StartsTriplet(List<CardNote> notes, int at) =>
        notes[at].InTriplet && (at == 0 || !notes[at - 1].InTriplet || IsWhole(notes[at].At));

    private static bool EndsTriplet(List<CardNote> notes, int at) =>
        notes[at].InTriplet && (at + 1 == notes.Count || !notes[at + 1].InTriplet || IsWhole(notes[at + 1].At));

    private static bool IsWhole(Rational at) => (at * 2).IsWhole;

    /// <summary>Eighths and shorter are beamed within a beat (common practice).</summary>
    private static List<string?> Beams(List<CardNote> notes, Metre metre)
    {
        // In halves, as in cut time, quarters of the metre's beat are beamed by the quarter.
        var beat = metre.Beat > Rational.One && !metre.IsCompound ? Rational.One : metre.Beat;
        bool Beamed(int at) => at >= 0 && at < notes.Count && !notes[at].IsRest && notes[at].Token[0] is 'e' or 's' or 't';
        bool Together(int one, int other) => Beamed(one) && Beamed(other) && (notes[one].At / beat).Floor == (notes[other].At / beat).Floor;
        return
        [
            .. notes.Select(
                (_, i) =>
                    (Together(i - 1, i), Together(i, i + 1)) switch
                    {
                        (true, true) => "continue",
                        (true, false) => "end",
                        (false, true) => "begin",
                        _ => null,
                    }
            ),
        ];
    }
}
