using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tests.Instruments;

public sealed class CatalogueTests
{
    public static TheoryData<string> Ids => [.. Catalogue.All.Select(instrument => instrument.Id)];

    [Fact]
    public void Holds_every_instrument_once() =>
        Assert.Equal(
            [
                "trumpet-bb",
                "cornet-bb",
                "flugelhorn-bb",
                "trumpet-c",
                "tenor-horn-eb",
                "horn-f",
                "horn-bb",
                "horn-double",
                "trombone",
                "trombone-f",
                "bass-trombone",
                "baritone-3v",
                "euphonium-3v",
                "euphonium-4v",
                "euphonium-4v-comp",
                "tuba-bb-3v",
                "tuba-bb-4v",
                "tuba-bb-3plus1-comp",
                "tuba-cc-4v",
                "tuba-eb-3v",
                "tuba-eb-4v",
                "tuba-eb-4v-comp",
                "tuba-f-4v",
            ],
            Catalogue.All.Select(instrument => instrument.Id)
        );

    // Common practice: what a written note sounds on each instrument.
    [Theory]
    [InlineData("trumpet-bb", "treble", "C4", "Bb3")]
    [InlineData("horn-f", "treble", "C4", "F3")]
    [InlineData("euphonium-3v", "treble-bb", "C4", "Bb2")]
    [InlineData("tuba-bb-3v", "treble-bb", "C4", "Bb1")]
    [InlineData("tuba-eb-3v", "treble-eb", "G4", "Bb2")]
    [InlineData("tenor-horn-eb", "treble", "G4", "Bb3")]
    [InlineData("trumpet-bb", "treble", "E4", "D4")]
    [InlineData("horn-f", "treble", "A4", "D4")]
    [InlineData("trombone", "bass", "Bb2", "Bb2")]
    public void Sounds_what_is_written(string id, string reading, string written, string sounding)
    {
        var read = Catalogue.Get(id).ReadingOf(reading);
        Assert.Equal(sounding, read.ToSounding(Pitch.Parse(written)).ToString());
        Assert.Equal(written, read.ToWritten(Pitch.Parse(sounding)).ToString());
    }

    // Computed: speed of sound over twice partial 1, at 345 m/s.
    [Theory]
    [InlineData("trumpet-bb", 1.480)]
    [InlineData("trumpet-c", 1.319)]
    [InlineData("tenor-horn-eb", 2.218)]
    [InlineData("euphonium-3v", 2.960)]
    [InlineData("horn-f", 3.952)]
    [InlineData("tuba-eb-3v", 4.435)]
    [InlineData("tuba-cc-4v", 5.275)]
    [InlineData("tuba-bb-3v", 5.921)]
    public void Has_its_length(string id, double metres) => Assert.Equal(metres, Catalogue.Get(id).OpenMetres, 0.001);

    [Theory]
    [MemberData(nameof(Ids))]
    public void Starts_inside_its_range_and_reads_there_and_back(string id)
    {
        var instrument = Catalogue.Get(id);
        Assert.All(instrument.FirstNotes, note => Assert.InRange(note.Midi, instrument.Range.Lowest.Midi, instrument.Range.Highest.Midi));
        Assert.All(
            instrument.Readings,
            reading => Assert.All(instrument.FirstNotes, note => Assert.Equal(note, reading.ToSounding(reading.ToWritten(note))))
        );
        Assert.Equal(instrument.Tubes.Count, instrument.Tubes.Select(tube => tube.Setting.ToString()).Distinct().Count());
    }

    [Theory]
    [InlineData("""[{"id":"x","partialOne":"H2","valves":[2],"readings":[{"id":"treble","clef":"treble"}],"range":["C4","C5"]}]""", "'x'")]
    [InlineData("""[{"id":"y","partialOne":"C2","readings":[{"id":"treble","clef":"treble"}],"range":["C4","C5"]}]""", "valves or a slide")]
    [InlineData("""[{"id":"z","partialOne":"C2","valves":[2],"readings":[{"id":"alto","clef":"alto"}],"range":["C4","C5"]}]""", "clef")]
    public void Refuses_a_catalogue_that_makes_no_instrument(string json, string named) =>
        Assert.Contains(named, Assert.Throws<InvalidDataException>(() => Catalogue.Read(json)).Message);

    [Fact]
    public void Names_what_it_knows_when_asked_for_something_else() =>
        Assert.Contains("trumpet-bb", Assert.Throws<ArgumentException>(() => Catalogue.Get("kazoo")).Message);

    // Computed: 50 L 2^(5/12) (2^((p-1)/12) - 1) cm on 2.75 m; what a plain slide calls it from the same table: 1, 2.3, 3.6, 4.9, 6.2.
    [Theory]
    [InlineData("trombone-f", "T1", 0, "1st")]
    [InlineData("trombone-f", "T2", 10.9, "flat 2nd")]
    [InlineData("trombone-f", "T3", 22.5, "between 3rd and 4th")]
    [InlineData("trombone-f", "T4", 34.7, "sharp 5th")]
    [InlineData("trombone-f", "T5", 47.7, "flat 6th")]
    [InlineData("trombone-f", "T6", 61.5, "past 7th")]
    [InlineData("bass-trombone", "TS3", 26.7, "4th")]
    public void Positions_of_an_attachment_are_its_own(string id, string setting, double cm, string plain)
    {
        var trombone = Catalogue.Get(id);
        Assert.True(Setting.TryParse(setting, slide: true, out var parsed));
        var place = SlidePlace.Of(trombone.Slide!, trombone.TubeOf(parsed)!.Value.SlideOutCm);
        Assert.Equal(cm, place.Cm, 0.05);
        Assert.Equal(plain, place.OnPlainSlide);
    }

    // Common practice: F and G flat.
    [Fact]
    public void Triggers_are_called_by_their_note() =>
        Assert.Equal(
            ["F trigger", "Gb trigger", "both triggers"],
            new[] { "T", "S", "TS" }.Select(Catalogue.Get("bass-trombone").TriggerName)
        );

    [Fact]
    public void Marks_of_a_slide_are_as_measured_and_bounded()
    {
        Assert.Contains("2 to 3 cm", SlideMarks.Usual.Third, StringComparison.Ordinal);
        Assert.Contains("level with", SlideMarks.Usual.Fourth, StringComparison.Ordinal);
        Assert.Contains("4.5 cm", SlideMarks.Measured(4.5, null).Third, StringComparison.Ordinal);
        Assert.Contains("1 cm on the player's side", SlideMarks.Measured(null, -1).Fourth, StringComparison.Ordinal);
        Assert.Throws<ArgumentException>(() => SlideMarks.Measured(40, null));
        Assert.Throws<ArgumentException>(() => SlideMarks.Measured(null, double.NaN));
    }
}
