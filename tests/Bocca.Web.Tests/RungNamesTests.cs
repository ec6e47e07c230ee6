using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Web.Drawings;

namespace Bocca.Web.Tests;

/// <summary>
/// What is printed at every rung of every combination, held against a table of its own: the fundamental of the open tube (common practice),
/// the semitones a combination lowers it by, and the partial's interval (computed). A sharp tube keeps its names.
/// </summary>
public sealed class RungNamesTests
{
    /// <summary>Sounding partial 1 of the open tube (common practice).</summary>
    private static readonly (string Id, string One)[] Fundamentals =
    [
        ("trumpet-bb", "Bb2"),
        ("cornet-bb", "Bb2"),
        ("flugelhorn-bb", "Bb2"),
        ("trumpet-c", "C3"),
        ("tenor-horn-eb", "Eb2"),
        ("horn-f", "F1"),
        ("horn-bb", "Bb1"),
        ("horn-double", "F1"),
        ("trombone", "Bb1"),
        ("trombone-f", "Bb1"),
        ("bass-trombone", "Bb1"),
        ("baritone-3v", "Bb1"),
        ("euphonium-3v", "Bb1"),
        ("euphonium-4v", "Bb1"),
        ("euphonium-4v-comp", "Bb1"),
        ("tuba-bb-3v", "Bb0"),
        ("tuba-bb-4v", "Bb0"),
        ("tuba-bb-3plus1-comp", "Bb0"),
        ("tuba-cc-4v", "C1"),
        ("tuba-eb-3v", "Eb1"),
        ("tuba-eb-4v", "Eb1"),
        ("tuba-eb-4v-comp", "Eb1"),
        ("tuba-f-4v", "F1"),
    ];

    /// <summary>Semitones of partials 1 to 12; the charts leave out 7 and 11.</summary>
    private static readonly int[] Intervals = [0, 12, 19, 24, 28, 31, -1, 36, 38, 40, -1, 43];

    /// <summary>Four plain valves together are too short: they are named by the nearest note they can be pulled to (computed).</summary>
    private static readonly Dictionary<string, int> PlainFour = new()
    {
        ["2-3-4"] = 8,
        ["1-3-4"] = 9,
        ["1-2-3-4"] = 10,
    };

    private static readonly int[] Steps = [0, 2, 1, 3, 5];
    private static readonly string[] Sharps = ["C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"];

    private static int Lowered(Instrument instrument, string setting)
    {
        if (instrument.Slide is not null)
            return setting[^1]
                - '1'
                + setting[..^1] switch
                {
                    "" => 0,
                    "T" => 5,
                    "S" => 4,
                    _ => 8,
                };
        var plain = setting.Replace("T-", "", StringComparison.Ordinal);
        var side = plain == setting ? 0 : -5;
        var four = instrument.Id.EndsWith("-comp", StringComparison.Ordinal) || !PlainFour.TryGetValue(plain, out var named) ? 0 : named;
        return side + (four > 0 ? four : plain.Split('-').Sum(valve => Steps[valve[0] - '0']));
    }

    private static string Printed(Reading reading, int sounding) =>
        sounding + reading.WrittenAboveSounding.Semitones is var midi ? $"{Sharps[midi % 12]}{(midi / 12) - 1}" : "";

    [Fact]
    public void Every_rung_carries_the_note_of_its_combination_and_partial()
    {
        var read = 0;
        Assert.Equal(Fundamentals.Select(each => each.Id).Order(), Catalogue.All.Select(each => each.Id).Order());
        foreach (var (id, one) in Fundamentals)
        {
            var instrument = Catalogue.Get(id);
            foreach (var reading in instrument.Readings)
            foreach (var column in new TubeDrawing(instrument, reading, FingeringWeights.Default, Hand.Free).Columns)
            foreach (var rung in column.Rungs.Where(rung => Intervals[rung.Partial - 1] >= 0))
            {
                var due = Pitch.Parse(one).Midi + Intervals[rung.Partial - 1] - Lowered(instrument, column.Setting);
                Assert.True(Printed(reading, due) == rung.Note, $"{id} {reading.Id} {column.Setting} partial {rung.Partial}: {rung.Note}");
                read++;
            }
        }

        Assert.True(read > 3000, $"{read} rungs were read.");
    }

    [Fact]
    public void A_note_stands_on_two_tubes_only_where_it_can_be_fingered_on_both()
    {
        foreach (var instrument in Catalogue.All)
        {
            var reading = instrument.Readings[0];
            foreach (var column in new TubeDrawing(instrument, reading, FingeringWeights.Default, Hand.Free).Columns)
            foreach (var rung in column.Rungs.Where(rung => Intervals[rung.Partial - 1] >= 0))
            {
                var written = Pitch.Parse(rung.Note.Replace('♯', '#').Replace('♭', 'b'));
                var tube = instrument.Tubes.Single(tube => tube.Setting.ToString() == column.Setting);
                var fingered = FingeringFinder
                    .FindSounding(instrument, reading.ToSounding(written))
                    .Any(way => way.Setting == tube.Setting && way.Partial == rung.Partial);
                // What is more than 80 cents off, as 1-2-4 is with its third partial, is bent to its note by nobody.
                Assert.True(fingered || !tube.Gives(rung.Partial), $"{instrument.Id} {column.Setting}: {rung.Note}");
            }
        }
    }

    [Theory]
    [InlineData("trumpet-bb", "1-2-3", "F♯3 +54, C♯4 +56, F♯4 +54, B♭4 +40, C♯5 +56")]
    [InlineData("tuba-bb-3v", "1-2-3", "E1 +54, B1 +56, E2 +54, A♭2 +40, B2 +56")]
    public void A_sharp_tube_says_how_sharp_in_cents(string id, string setting, string notes)
    {
        var instrument = Catalogue.Get(id);
        var drawing = new TubeDrawing(instrument, instrument.Readings[0], FingeringWeights.Default, Hand.Free);
        Assert.StartsWith(
            notes.Replace(" +", "\u00A0+", StringComparison.Ordinal),
            drawing.Columns.Single(column => column.Setting == setting).Notes,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("Ab4", "2-3", "A♭4")]
    [InlineData("G#4", "2-3", "G♯4")]
    [InlineData("C#4", "1-2-3", "C♯4")]
    [InlineData("Db4", "1-2-3", "D♭4")]
    public void The_rung_wanted_is_called_as_the_note_above_it(string written, string setting, string printed)
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var way = FingeringFinder.Find(trumpet, trumpet.Readings[0], Pitch.Parse(written)).First(way => way.Setting.ToString() == setting);
        var drawing = new RungsDrawing(trumpet, trumpet.Readings[0], Pitch.Parse(written), way, Tuning.Standard);
        Assert.Equal(printed, drawing.Rungs.Single(rung => rung.Wanted).Note);
    }
}
