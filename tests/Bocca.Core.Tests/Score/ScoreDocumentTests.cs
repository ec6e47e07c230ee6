using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Pieces;
using Bocca.Core.Pieces.Breathing;
using Bocca.Core.Pieces.Lines;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Score;

/// <summary>Other people's scores: read, planned, written into, and given back as they were.</summary>
public sealed class ScoreDocumentTests
{
    public static TheoryData<string> Names => [.. OwnConventions.All.Keys];

    private static (PieceSource Source, LineChoice Choice) Read(string name)
    {
        var (xml, _, part) = OwnConventions.All[name];
        var source = PieceSource.OfFile(Encoding.UTF8.GetBytes(xml));
        return (source, LineChoice.Choose(source.Score, part));
    }

    private static PiecePlan Plan(PieceSource source, LineChoice choice, string id, bool fromConcert = false, int octaves = 0)
    {
        var instrument = Catalogue.Get(id);
        return PiecePlan.Of(
            PieceLine.Of(source.Score, choice, instrument.ReadingOf(null), fromConcert: fromConcert, octaves: octaves),
            PiecePlayer.Of(instrument, Approach.Of(ApproachPreset.MouthpieceFirst), LearningStage.Pieces, Hand.Free),
            new PieceBreather(20)
        );
    }

    private static string Notes(PieceLine line) => string.Join(' ', line.Notes.Select(note => note.Written));

    [Theory]
    [MemberData(nameof(Names))]
    public void Every_convention_is_read(string name)
    {
        var (source, choice) = Read(name);
        Assert.Equal(OwnConventions.All[name].Notes, Notes(PieceLine.Of(source.Score, choice, Catalogue.Get("trumpet-c").ReadingOf(null))));
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void What_is_written_in_is_read_and_taken_out_again(string name)
    {
        var (source, choice) = Read(name);
        // The lowest note of them lies on a horn, and on a trumpet an octave higher.
        var plan = Plan(source, choice, "horn-f");
        var original = XDocument.Parse(Encoding.UTF8.GetString(source.Document.Write()), LoadOptions.PreserveWhitespace);
        var marked = ScoreDocument.Read(source.Document.Annotated(choice.Part, PieceMarks.Of(plan)).Write());
        var again = PieceSource.OfFile(marked.Write());
        // Read again it is the same line, and our marks stand in it.
        Assert.Equal(Notes(plan.Line), Notes(PieceLine.Of(again.Score, choice, plan.Line.Reading)));
        var fingerings = XDocument.Parse(Encoding.UTF8.GetString(marked.Write())).Descendants("technical").Elements("fingering").ToList();
        Assert.True(fingerings.Count >= plan.Line.Notes.Count);
        Assert.Subset(
            fingerings.Select(each => each.Value).ToHashSet(),
            plan.Fingered.Notes.Select(note => $"{note.Fingering.Setting}").ToHashSet()
        );
        // Taken out, the document is what it was, to the last space; written in twice, it is as written in once.
        Assert.True(XNode.DeepEquals(original, XDocument.Parse(Text(marked.WithoutAnnotations()), LoadOptions.PreserveWhitespace)));
        Assert.Equal(Text(marked), Text(marked.Annotated(choice.Part, PieceMarks.Of(plan))));
        Assert.Equal(Notes(plan.Line), Notes(PieceLine.Of(MusicXmlReader.Read(marked.WritePacked()), choice, plan.Line.Reading)));
    }

    private static string Text(ScoreDocument document) => Encoding.UTF8.GetString(document.Write());

    [Fact]
    public void The_document_type_and_comments_stay()
    {
        Assert.Contains("DTD MusicXML 3.0 Partwise", Text(Read("version-2-with-a-document-type").Source.Document));
        Assert.Contains("<!-- typed by hand -->", Text(Read("version-4-with-ids-and-a-comment").Source.Document));
    }

    [Fact]
    public void What_else_is_in_a_package_stays_in_it()
    {
        using var memory = new MemoryStream();
        using (var zip = new ZipArchive(memory, ZipArchiveMode.Create, leaveOpen: true))
            foreach (
                var (name, content) in new[]
                {
                    ("META-INF/container.xml", "<container><rootfiles><rootfile full-path=\"a/b.xml\"/></rootfiles></container>"),
                    ("a/b.xml", OwnConventions.All["version-2-with-a-document-type"].Xml),
                    ("a/picture.png", "not a score"),
                }
            )
            {
                using var entry = new StreamWriter(zip.CreateEntry(name).Open());
                entry.Write(content);
            }

        var document = ScoreDocument.Read(memory.ToArray()).Annotated(0, [new ScoreAnnotation(0) { Setting = "1-3" }]);
        var packed = document.WritePacked();
        using var read = new ZipArchive(new MemoryStream(packed));
        Assert.Equal(["META-INF/container.xml", "a/b.xml", "a/picture.png"], read.Entries.Select(entry => entry.FullName));
        using var picture = new StreamReader(read.GetEntry("a/picture.png")!.Open());
        Assert.Equal("not a score", picture.ReadToEnd());
        Assert.Contains("DTD MusicXML 3.0 Partwise", Text(ScoreDocument.Read(packed)));
        Assert.Contains("<fingering placement=\"below\">1-3</fingering>", Text(ScoreDocument.Read(packed)));
    }

    [Fact]
    public void A_part_stands_alone_and_keeps_its_name()
    {
        var (source, choice) = Read("a-score-of-three-the-second-chosen-by-name");
        var alone = PieceSource.OfFile(source.Document.PartAlone(choice.Part).Write());
        Assert.Equal("Horn in F", Assert.Single(alone.Score.Parts).Name);
    }

    // Computed: what a trumpet in B flat reads as C4 sounds as B flat 3, which a horn in F reads as F4 and a trombone as B flat 3.
    [Theory]
    [InlineData("horn-f", "F4 G4 A4 Bb4", -1)]
    [InlineData("trombone", "Bb3 C4 D4 Eb4", -2)]
    [InlineData("tuba-eb-3v", "Bb3 C4 D4 Eb4", -2)]
    public void A_part_for_another_instrument_is_written_at_its_concert_pitch(string id, string written, int fifths)
    {
        var xml = OwnConventions
            .All["transposing-with-words-for-numbers-of-measures"]
            .Xml.Replace("<fifths>1", "<fifths>0", StringComparison.Ordinal);
        var source = PieceSource.OfFile(Encoding.UTF8.GetBytes(xml));
        var reading = Catalogue.Get(id).ReadingOf(null);
        var choice = LineChoice.Choose(source.Score, null);
        var line = PieceLine.Of(source.Score, choice, reading, fromConcert: true);
        Assert.StartsWith(written, Notes(line), StringComparison.Ordinal);
        Assert.Equal("Bb3 C4 D4 Eb4", string.Join(' ', line.Notes.Take(4).Select(note => note.Sounding)));
        // The document written anew says the same, with its own key and transposition.
        var anew = MusicXmlReader.Read(source.Document.Transposed(choice.Part, reading, 0).Write());
        Assert.Equal((fifths, reading.Clef), (anew.Parts[0].Fifths, anew.Parts[0].Clef));
        Assert.True(reading.WrittenAboveSounding.Inverse == anew.Parts[0].ToSounding);
        Assert.Equal(Notes(line), Notes(PieceLine.Of(anew, choice, reading)));
        var lower = MusicXmlReader.Read(source.Document.Transposed(choice.Part, reading, -1).Write());
        Assert.Equal(
            line.Notes.Select(note => note.Sounding.Midi - 12),
            PieceLine.Of(lower, choice, reading).Notes.Select(note => note.Sounding.Midi)
        );
    }

    [Fact]
    public void A_part_read_as_it_stands_is_only_moved_by_octaves()
    {
        var (source, choice) = Read("transposing-with-words-for-numbers-of-measures");
        var reading = Catalogue.Get("trumpet-c").ReadingOf(null);
        var line = PieceLine.Of(source.Score, choice, reading, octaves: 1);
        Assert.StartsWith("C5 D5", Notes(line), StringComparison.Ordinal);
        var moved = MusicXmlReader.Read(source.Document.Transposed(choice.Part, null, 1).Write());
        Assert.Equal(Notes(line), Notes(PieceLine.Of(moved, choice, reading)));
        Assert.Equal((1, -2), (moved.Parts[0].Fifths, moved.Parts[0].ToSounding.Semitones));
    }

    [Fact]
    public void What_is_no_piece_is_refused_in_a_sentence()
    {
        string Why(string xml, string? part = null) =>
            Assert
                .Throws<InvalidDataException>(() =>
                {
                    var source = PieceSource.OfFile(Encoding.UTF8.GetBytes(xml));
                    LineChoice.Choose(source.Score, part);
                })
                .Message;
        const string Open =
            "<score-partwise><part-list><score-part id=\"P1\"><part-name>A</part-name></score-part></part-list><part id=\"P1\">";
        Assert.Contains(
            "rests alone",
            Why(Open + "<measure number=\"1\"><note><rest/><duration>4</duration></note></measure></part></score-partwise>")
        );
        Assert.Contains(
            "percussion",
            Why(Open + "<measure number=\"1\"><note><unpitched/><duration>4</duration></note></measure></part></score-partwise>")
        );
        Assert.Contains(
            "Choose a line with --part: 1.1 Piano, staff 1, 1.2 Piano, staff 2",
            Why(OwnConventions.All["two-staves-the-lower-chosen"].Xml)
        );
        Assert.Contains("'Tuba' is no part", Why(OwnConventions.All["plain"].Xml, "Tuba"));
        Assert.Contains(
            "Measure 1 has a tuplet of nothing",
            Why(
                Open
                    + "<measure number=\"1\"><note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration>"
                    + "<time-modification/></note></measure></part></score-partwise>"
            )
        );
        Assert.Contains(
            "goes back behind",
            Why(Open + "<measure number=\"7\"><backup><duration>4</duration></backup></measure></part></score-partwise>")
        );
    }

    // Computed: 60 000 000 / 60 and / 120 microseconds a quarter; 3/8 as 3 and a power of two of 3 (published: Standard MIDI Files 1.0).
    [Fact]
    public void A_midi_file_has_the_changes_of_tempo_and_metre_and_its_repeats()
    {
        var read = PieceText.Read("4/4 =60 |: q C4 D4 E4 F4 :| 3/8 =240 e G4 A4 B4 |", "", Catalogue.Get("trumpet-c").ReadingOf(null));
        var midi = MidiWriter.Write(read);
        int Count(params byte[] what) =>
            Enumerable.Range(0, midi.Length - what.Length).Count(at => midi.AsSpan(at, what.Length).SequenceEqual(what));
        Assert.True(Count(0xFF, 0x51, 3, 0x0F, 0x42, 0x40) >= 1 && Count(0xFF, 0x51, 3, 0x07, 0xA1, 0x20) == 1);
        Assert.True(Count(0xFF, 0x58, 4, 3, 3) == 1 && Count(0xFF, 0x58, 4, 4, 2) >= 1);
        // Four notes twice and three.
        Assert.Equal((2, 2, 2, 2), (Count(0x90, 60), Count(0x90, 62), Count(0x90, 64), Count(0x90, 65)));
        Assert.Equal((1, 1, 1), (Count(0x90, 67), Count(0x90, 69), Count(0x90, 71)));
    }
}
