using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Fingering;

/// <summary>Fingerings as the very hand and the very instrument have them.</summary>
public sealed class HandTests
{
    private static IReadOnlyList<Core.Fingering.Fingering> Ways(
        string id,
        string written,
        Hand? hand = null,
        Passport? passport = null,
        double target = 0
    )
    {
        var instrument = (passport ?? Passport.Unmeasured).Applied(Catalogue.Get(id));
        return FingeringFinder.Find(instrument, instrument.Readings[0], Pitch.Parse(written), null, hand, passport, target);
    }

    // Computed: 100 x st - 1200 log2(1 + sum of 2^(st/12) - 1), every combination of every plain valve instrument.
    [Fact]
    public void Every_combination_is_as_sharp_as_the_closed_formula_says() =>
        Assert.All(
            Catalogue
                .All.Where(instrument => instrument.Slide is null && instrument.Compensation == Compensation.None)
                .SelectMany(instrument => instrument.Tubes.Select(tube => (instrument, tube))),
            pair =>
            {
                var sum = pair.tube.Setting.Valves.Sum(valve => Math.Pow(2, pair.instrument.Valves[valve - 1].Semitones / 12.0) - 1);
                var side = pair.tube.Setting.Attachment == "T" ? pair.instrument.ThumbSide!.RaisesSemitones : 0;
                Assert.Equal((100 * (pair.tube.Semitones + side)) - (1200 * Math.Log2(1 + sum)), pair.tube.CentsSharp, 1e-9);
            }
        );

    // The third valve drawn for 2-3 (computed): 3 -16.3, 1-3 +15.5, 1-2-3 +39.4, 2-3 0, 1-2-4 unchanged.
    [Theory]
    [InlineData("3", -16.3)]
    [InlineData("2-3", 0)]
    [InlineData("1-3", 15.5)]
    [InlineData("1-2-3", 39.4)]
    [InlineData("3-4", 57.8)]
    [InlineData("2-3-4", -8.0)]
    [InlineData("1-2-4", 78.8)]
    public void A_third_valve_can_be_drawn_for_second_and_third(string setting, double cents)
    {
        var tuba = (Passport.Unmeasured with { ThirdForTwoThree = true }).Applied(Catalogue.Get("tuba-bb-4v"));
        Assert.True(Setting.TryParse(setting, slide: false, out var pressed));
        var tube = tuba.TubeOf(pressed)!.Value;
        Assert.Equal(cents, tube.CentsSharp, 0.1);
    }

    [Fact]
    public void A_third_valve_drawn_for_second_and_third_leaves_every_note_where_it_was()
    {
        foreach (var instrument in Catalogue.All.Where(instrument => instrument.Slide is null))
        {
            var drawn = (Passport.Unmeasured with { ThirdForTwoThree = true }).Applied(instrument);
            Assert.Equal(
                instrument.Tubes.Select(tube => (tube.Setting, tube.Semitones)),
                drawn.Tubes.Select(tube => (tube.Setting, tube.Semitones))
            );
        }
    }

    // Pulls (computed): trumpet 1-3 17 mm, 1-2-3 32 mm of third slide; throws from memory.
    [Theory]
    [InlineData("trumpet-bb", "G3", "1-3", "Pull the third slide 17 mm.")]
    [InlineData("trumpet-bb", "F#3", "1-2-3", "Pull the third slide 26 mm and the first slide 6 mm.")]
    [InlineData("trumpet-bb", "A3", "1-2", "Pull the first slide 5 mm.")]
    [InlineData("trumpet-bb", "E5", "0", "The lips bring it up.")]
    [InlineData("cornet-bb", "F#3", "1-2-3", "Pull the third slide 20 mm, as far as it goes; the lips bring it down the last 20 cents.")]
    [InlineData("horn-f", "E4", "0", "Open the hand in the bell a little; the lips do the rest.")]
    public void Says_what_to_pull_how_far(string id, string written, string setting, string sentence)
    {
        var way = Ways(id, written).First(way => way.Setting.ToString() == setting);
        Assert.Equal(sentence, way.Correction!.Sentence);
    }

    [Fact]
    public void When_slides_are_pulled_is_the_teachers()
    {
        var later = Hand.Free.Under(Approach.Of(ApproachPreset.MouthpieceFirst), LearningStage.FirstNotes);
        Assert.Equal("The lips bring it down; later the slide does.", Ways("trumpet-bb", "D4", later)[0].Correction!.Sentence);
        Assert.StartsWith(
            "Pull",
            Ways("trumpet-bb", "D4", Hand.Free.Under(Approach.Of(ApproachPreset.MouthpieceFirst), LearningStage.Second))[
                0
            ].Correction!.Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Nothing_beyond_the_arm_is_asked()
    {
        // F3 in first needs no arm; C3 in sixth stands 46 cm out.
        var shortArm = Hand.Free with
        {
            ReachCm = 40,
        };
        Assert.Equal("1", Ways("trombone", "F3", shortArm)[0].Setting.ToString());
        var c = Ways("trombone", "C3", shortArm)[0];
        Assert.Contains("46 cm", c.Barred!, StringComparison.Ordinal);
        Assert.Contains("40 cm", c.Barred!, StringComparison.Ordinal);
        Assert.Contains("Not for this hand yet", c.Reason, StringComparison.Ordinal);
        // With the attachment there is a way within reach, and it comes first.
        Assert.Equal("T1", Ways("trombone-f", "C3", shortArm)[0].Setting.ToString());
        Assert.Null(Ways("trombone-f", "C3", shortArm)[0].Barred);
    }

    [Fact]
    public void Valves_and_positions_not_taught_yet_wait()
    {
        Assert.Equal("1-3", Ways("euphonium-4v", "C3", Hand.Free with { HighestValve = 3 })[0].Setting.ToString());
        Assert.Equal("4", Ways("euphonium-4v", "C3")[0].Setting.ToString());
        Assert.NotNull(Ways("trombone", "E2", Hand.Free with { FurthestPosition = 4 })[0].Barred);
    }

    [Fact]
    public void A_pinned_choice_comes_first_and_is_shown_as_the_teachers()
    {
        Assert.True(Setting.TryParse("3", slide: false, out var third));
        var hand = Hand.Free with { Pins = new Dictionary<int, Setting> { [Pitch.Parse("D4").Midi] = third } };
        var ways = Ways("trumpet-bb", "E4", hand);
        Assert.True(ways[0].IsPinned);
        Assert.Equal("3", ways[0].Setting.ToString());
        Assert.Contains("teacher's own choice; else it would be 1-2", ways[0].Reason, StringComparison.Ordinal);
        Assert.False(ways[1].IsPinned);
    }

    // A chord's third lies 13.7 cents under equal temperament (computed): the fifth partial is true to it.
    [Fact]
    public void A_note_can_be_meant_for_a_chord()
    {
        var third = Ways("trumpet-bb", "E5", target: -13.7)[0];
        Assert.Equal((0, 5), (third.Setting.Pressed, third.Partial));
        Assert.InRange(third.Cents, -0.1, 0.1);
        Assert.Null(third.Correction);
    }

    [Fact]
    public void The_very_instrument_counts()
    {
        var passport = new Passport(
            new Dictionary<int, double>
            {
                [3] = 4,
                [4] = 4,
                [5] = 24,
            }
        )
        {
            ValveCents = new Dictionary<int, double> { [1] = 12 },
        };
        // Its fifth partial lies 20 cents above the rest of it, its first valve is short by 12 cents.
        Assert.Equal(-13.7 + 20, Ways("trumpet-bb", "E5", passport: passport)[0].Cents, 0.1);
        Assert.Equal(2 + 12, Ways("trumpet-bb", "F4", passport: passport)[0].Cents, 0.1);
        Assert.Equal(Catalogue.Get("trumpet-bb").Tubes.Count, passport.Applied(Catalogue.Get("trumpet-bb")).Tubes.Count);
    }

    // Computed: L = cm / (50 x (2^((q-1)/12) - 2^((p-1)/12))); the usual slide's 2nd lies 8.2 cm out, its 7th 57.0.
    [Theory]
    [InlineData(1, 2, 8.177, 2.75)]
    [InlineData(1, 7, 56.956, 2.75)]
    [InlineData(2, 4, 19.202, 2.96)]
    public void A_slide_is_calibrated_by_two_tuned_notes(int nearer, int further, double cm, double metres) =>
        Assert.Equal(metres, SlideCalibration.Of(nearer, further, cm, 62).TubeMetres, 0.002);

    // Computed: the usual slide's 4th lies 26.0 cm out, 300 cents down, 10.6 cents a centimetre.
    [Fact]
    public void Any_place_of_the_slide_has_its_cents()
    {
        var place = SlidePlace.Of(new Slide(2.75, 62), 27);
        Assert.Equal(4, place.Position);
        Assert.Equal(0.98, place.OffCm, 0.02);
        Assert.Equal(310.4, place.CentsDown, 0.2);
        Assert.Equal(10.5, place.CentsPerCm, 0.05);
    }

    [Theory]
    [InlineData(4, 2, 10, 62)]
    [InlineData(1, 2, 20, 62)]
    [InlineData(1, 2, double.NaN, 62)]
    [InlineData(1, 2, 8.2, 12)]
    public void A_slide_that_cannot_be_is_refused(int nearer, int further, double cm, double travel) =>
        Assert.Throws<ArgumentException>(() => SlideCalibration.Of(nearer, further, cm, travel));

    // Computed: 2.9 cents a degree about 20; A = 442 is 7.85 cents up.
    [Theory]
    [InlineData(440, 21, 2.95)]
    [InlineData(442, 20, -7.85)]
    [InlineData(440, 20, 0)]
    public void A_room_moves_the_whole_instrument(double a4, double celsius, double cents) =>
        Assert.Equal(cents, PlayingConditions.Of(a4, celsius).LiesCents, 0.02);

    [Fact]
    public void Every_note_in_range_has_a_fingering() =>
        Assert.All(
            Catalogue.All,
            instrument => Assert.All(FingeringChart.Of(instrument, instrument.Readings[0]), note => Assert.NotEmpty(note.Ways))
        );

    [Fact]
    public void Position_and_combination_of_the_same_place_lower_alike()
    {
        var (slide, valves) = (Catalogue.Get("trombone"), Catalogue.Get("euphonium-3v"));
        var pairs = HandTrainer.Order(slide, Hand.Free).Zip(HandTrainer.Order(valves, Hand.Free));
        Assert.All(pairs, pair => Assert.Equal(slide.TubeOf(pair.First)!.Value.Semitones, valves.TubeOf(pair.Second)!.Value.Semitones));
        Assert.Equal(7, pairs.Count());
    }

    [Fact]
    public void A_compensating_system_never_plays_sharper_than_its_plain_twin()
    {
        var (plain, compensating) = (Catalogue.Get("euphonium-4v"), Catalogue.Get("euphonium-4v-comp"));
        Assert.All(
            plain.Tubes,
            tube =>
            {
                var twin = compensating.TubeOf(tube.Setting)!.Value;
                Assert.True(twin.LengthRatio >= tube.LengthRatio - 1e-12, $"{tube.Setting}");
            }
        );
    }

    [Fact]
    public void Transposing_there_and_back_is_identity() =>
        Gen.OneOfConst([.. Catalogue.All.SelectMany(instrument => instrument.Readings)])
            .SelectMany(reading => Gen.Int[24, 90].Select(midi => (reading, midi)))
            .Sample((reading, midi) => reading.ToSounding(reading.ToWritten(Pitch.FromMidi(midi))) == Pitch.FromMidi(midi));

    // Common practice: horns read bass clef a fifth above what sounds, in old parts a fourth below it.
    [Theory]
    [InlineData("bass-new", "F3")]
    [InlineData("bass-old", "F2")]
    public void A_horn_reads_two_bass_clefs(string reading, string written) =>
        Assert.Equal(Pitch.Parse(written), Catalogue.Get("horn-f").ReadingOf(reading).ToWritten(Pitch.Parse("Bb2")));

    [Fact]
    public void Offers_the_nearest_notes_for_one_out_of_range()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        Assert.Equal(["F#3"], FingeringFinder.Nearest(trumpet, trumpet.Readings[0], Pitch.Parse("D3")).Select(note => note.ToString()));
        Assert.Contains(
            "nearest is F#3",
            Assert.Throws<ArgumentException>(() => Ways("trumpet-bb", "D2")).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_chart_comes_back_from_its_csv()
    {
        var horn = Catalogue.Get("horn-double");
        var chart = FingeringChart.Of(horn, horn.Readings[0]);
        using var text = new StringReader(ChartFile.Csv(chart));
        using var csv = new CsvHelper.CsvReader(text, System.Globalization.CultureInfo.InvariantCulture);
        var rows = csv.GetRecords<dynamic>().Select(row => ((string)row.written, (string)row.setting)).ToList();
        Assert.Equal(chart.Select(note => (note.Written.ToString(), note.Ways[0].Setting.ToString())), rows);
    }
}
