using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Pieces;

namespace Bocca.Core.Tests.Pieces;

/// <summary>Scales and arpeggios: common practice, key by key.</summary>
public sealed class ScaleTextTests
{
    private static string Write(ScalePattern pattern, string tonic, int octaves = 1, bool slurred = false)
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        return ScaleText.Write(trumpet, trumpet.ReadingOf(null), Pitch.Parse(tonic), pattern, octaves, 72, slurred: slurred);
    }

    [Theory]
    [InlineData(ScalePattern.Major, "D4", "4/4 D: =72 q D4 E4 F#4 G4 | A4 B4 C#5 D5 | C#5 B4 A4 G4 | F#4 E4 h D4 |")]
    [InlineData(ScalePattern.HarmonicMinor, "D4", "4/4 F: =72 q D4 E4 F4 G4 | A4 Bb4 C#5 D5 | C#5 Bb4 A4 G4 | F4 E4 h D4 |")]
    [InlineData(ScalePattern.MelodicMinor, "C4", "4/4 Eb: =72 q C4 D4 Eb4 F4 | G4 A4 B4 C5 | Bb4 Ab4 G4 F4 | Eb4 D4 h C4 |")]
    [InlineData(ScalePattern.MajorArpeggio, "C4", "4/4 C: =72 q C4 E4 G4 C5 | G4 E4 h C4 |")]
    [InlineData(ScalePattern.DominantSeventh, "G3", "4/4 C: =72 q G3 B3 D4 F4 | G4 F4 D4 B3 | w G3 |")]
    public void A_scale_has_its_notes(ScalePattern pattern, string tonic, string text) => Assert.Equal(text, Write(pattern, tonic));

    [Fact]
    public void A_chromatic_scale_has_sharps_up_and_flats_down()
    {
        var text = Write(ScalePattern.Chromatic, "C4");
        Assert.Contains("C4 C#4 D4 D#4 | E4 F4 F#4 G4 | G#4 A4 A#4 B4 | C5 B4 Bb4 A4 | Ab4", text);
    }

    /// <summary>Every scale of every instrument is a piece that is read, goes up and comes back to where it began.</summary>
    [Fact]
    public void Every_scale_is_a_piece()
    {
        var written = 0;
        foreach (var instrument in Catalogue.All)
        foreach (var pattern in Enum.GetValues<ScalePattern>())
        {
            var reading = instrument.Readings[0];
            foreach (var midi in Enumerable.Range(instrument.Range.Lowest.Midi, 12))
            {
                var tonic = reading.ToWritten(Pitch.FromMidi(midi));
                string text;
                try
                {
                    text = ScaleText.Write(instrument, reading, tonic, pattern, 1, 80, eighths: midi % 2 == 0, slurred: midi % 3 == 0);
                }
                catch (ArgumentException problem)
                {
                    Assert.Matches("is not on the|has no key", problem.Message);
                    continue;
                }

                written++;
                var measures = PieceText.Read(text, "", reading).Parts[0].Measures;
                var notes = measures.SelectMany(measure => measure.Notes).Where(note => note.Sounds).ToList();
                Assert.Equal((tonic.Midi, tonic.Midi), (notes[0].Written!.Value.Midi, notes[^1].Written!.Value.Midi));
                Assert.Equal(tonic.Midi + 12, notes.Max(note => note.Written!.Value.Midi));
            }
        }

        Assert.True(written > 1000, $"{written} written");
    }
}
