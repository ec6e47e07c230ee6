using System.IO.Compression;
using System.Text;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Score;

/// <summary>Scores written and read; files that mean harm.</summary>
public sealed class MusicScoreTests
{
    private static MusicScore Slurs(string id, string? reading = null)
    {
        var instrument = Catalogue.Get(id);
        var player = SlurPlayer.Of(
            instrument,
            instrument.ReadingOf(reading),
            LearningStage.Pieces,
            Approach.Of(ApproachPreset.MouthpieceFirst)
        );
        return SlurScore.Of("Harbour lights", player, [.. SlurWriter.All(player).Take(12)], 72);
    }

    [Fact]
    public void What_is_written_is_read_again()
    {
        foreach (var instrument in Catalogue.All)
        foreach (var reading in instrument.Readings)
        {
            var score = Slurs(instrument.Id, reading.Id);
            var back = MusicXmlReader.Read(Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score)));
            Assert.Equal((score.Title, score.Tempo), (back.Title, back.Tempo));
            Assert.Equal((reading.Clef, reading.WrittenAboveSounding.Inverse), (back.Parts[0].Clef, back.Parts[0].ToSounding));
            Assert.Equal(
                score
                    .Parts[0]
                    .Measures.SelectMany(measure => measure.Notes)
                    .Select(note =>
                        (
                            note.Written,
                            note.Length,
                            note.SlurBegins,
                            note.SlurEnds,
                            note.BreathAfter,
                            string.Join('|', note.Lines).TrimEnd('|')
                        )
                    ),
                back.Parts[0]
                    .Measures.SelectMany(measure => measure.Notes)
                    .Select(note =>
                        (
                            note.Written,
                            note.Length,
                            note.SlurBegins,
                            note.SlurEnds,
                            note.BreathAfter,
                            string.Join('|', note.Lines).TrimEnd('|')
                        )
                    )
            );
        }
    }

    [Fact]
    public void A_length_that_no_head_shows_is_tied()
    {
        var score = new MusicScore(
            "",
            60,
            [new ScorePart("x", Clef.Treble, default, [ScoreMeasure.Row(new ScoreNote(Pitch.Parse("C4"), 5))])]
        );
        var notes = MusicXmlReader.Read(Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score))).Parts[0].Measures[0].Notes;
        Assert.Equal([true, false], notes.Select(note => note.TiedToNext));
        Assert.Equal([4, 1], notes.Select(note => note.Length.Value));
        Assert.Throws<ArgumentException>(() =>
            MusicXmlWriter.Write(
                score with
                {
                    Parts = [score.Parts[0] with { Measures = [ScoreMeasure.Row(new ScoreNote(null, new Rational(1, 7)))] }],
                }
            )
        );
    }

    // Standard MIDI Files 1.0: header of six bytes, format 1, tracks, division; 60 000 000 / 72 microseconds a quarter.
    [Fact]
    public void A_midi_file_is_one()
    {
        var midi = MidiWriter.Write(Slurs("trumpet-bb"));
        Assert.Equal("MThd"u8.ToArray(), midi[..4]);
        Assert.Equal([0, 0, 0, 6, 0, 1, 0, 2, 1, 0xE0], midi[4..14]);
        Assert.Equal([0x51, 3, 0x0C, 0xB7, 0x35], midi[24..29]);
    }

    [Fact]
    public void A_packed_score_is_read()
    {
        var score = Slurs("horn-f");
        var packed = Packed(
            (
                "META-INF/container.xml",
                Encoding.UTF8.GetBytes("<container><rootfiles><rootfile full-path=\"a/b.xml\"/></rootfiles></container>")
            ),
            ("a/b.xml", Encoding.UTF8.GetBytes(MusicXmlWriter.Write(score)))
        );
        Assert.Equal(score.Parts[0].Measures.Count, MusicXmlReader.Read(packed).Parts[0].Measures.Count);
    }

    [Fact]
    public void Document_types_are_passed_over_and_entities_not_expanded()
    {
        var xml = MusicXmlWriter.Write(Slurs("trumpet-bb"));
        var typed = xml.Replace(
            "<score-partwise",
            "<!DOCTYPE score-partwise PUBLIC \"-//Recordare//DTD MusicXML 4.0 Partwise//EN\" "
                + "\"http://nowhere.invalid/partwise.dtd\">\n<score-partwise",
            StringComparison.Ordinal
        );
        Assert.NotEmpty(MusicXmlReader.Read(Encoding.UTF8.GetBytes(typed)).Parts);
        var laughs = "<!DOCTYPE a [<!ENTITY l \"lol\"><!ENTITY m \"&l;&l;&l;&l;&l;&l;&l;&l;\">]>\n";
        var bomb = xml.Replace("<score-partwise", laughs + "<score-partwise", StringComparison.Ordinal)
            .Replace("Harbour lights", "&m;", StringComparison.Ordinal);
        Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read(Encoding.UTF8.GetBytes(bomb)));
        var outside = "<!DOCTYPE a [<!ENTITY f SYSTEM \"file:///etc/passwd\">]>\n";
        Assert.Throws<InvalidDataException>(() =>
            MusicXmlReader.Read(
                Encoding.UTF8.GetBytes(
                    xml.Replace("<score-partwise", outside + "<score-partwise", StringComparison.Ordinal)
                        .Replace("Harbour lights", "&f;", StringComparison.Ordinal)
                )
            )
        );
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("hello", "not a MusicXML file")]
    [InlineData("<score-timewise/>", "no part")]
    [InlineData("<html/>", "outermost element is 'html'")]
    [InlineData("<score-partwise/>", "no part")]
    [InlineData(
        "<score-partwise><part><measure "
            + "number='3'><note><pitch><step>H</step><octave>4</octave></pitch><duration>1</duration></note>"
            + "</measure></part></score-partwise>",
        "Measure 3 has a pitch 'H'"
    )]
    [InlineData("<score-partwise><part><measure number='1'><note><rest/></note></measure></part></score-partwise>", "without a duration")]
    [InlineData(
        "<score-partwise><part><measure number='1'><attributes><divisions>0</divisions></attributes></measure></part></score-partwise>",
        "divisions"
    )]
    public void What_is_no_score_says_so(string text, string says) =>
        Assert.Contains(
            says,
            Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read(Encoding.UTF8.GetBytes(text))).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public void Depth_size_and_packing_are_bounded()
    {
        Assert.Contains(
            "deep",
            Assert
                .Throws<InvalidDataException>(() =>
                    MusicXmlReader.Read(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("<a>", 100_000))))
                )
                .Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "larger than 5 MB",
            Assert
                .Throws<InvalidDataException>(() =>
                    MusicXmlReader.Read(
                        new byte[MusicXmlReader.MostBytes + 1]
                            .Select(_ => (byte)' ')
                            .ToArray()
                    )
                )
                .Message,
            StringComparison.Ordinal
        );
        var bomb = Packed(
            ("META-INF/container.xml", Encoding.UTF8.GetBytes("<c><rootfile full-path='b.xml'/></c>")),
            ("b.xml", new byte[60_000_000])
        );
        Assert.True(bomb.Length < 200_000);
        Assert.Contains(
            "unpacked is larger",
            Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read(bomb)).Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "container",
            Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read(Packed(("b.xml", [])))).Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "damaged",
            Assert.Throws<InvalidDataException>(() => MusicXmlReader.Read([0x50, 0x4B, 3, 4, 9, 9, 9])).Message,
            StringComparison.Ordinal
        );
    }

    private static byte[] Packed(params (string Name, byte[] Content)[] files)
    {
        var memory = new MemoryStream();
        using (var zip = new ZipArchive(memory, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, content) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }

        return memory.ToArray();
    }
}
