using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Class;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Slurs;

/// <summary>Slurs written over true partials, in the order of tubes, inside the range.</summary>
public sealed class SlurWriterTests
{
    private static SlurPlayer Player(string id, LearningStage stage = LearningStage.Pieces) =>
        SlurPlayer.Of(Catalogue.Get(id), Catalogue.Get(id).Readings[0], stage, Approach.Of(ApproachPreset.MouthpieceFirst));

    private static (ClassMember, SlurPlayer) Member(string id, LearningStage stage) =>
        (
            new ClassMember(id, Catalogue.Get(id), Catalogue.Get(id).Readings[0], stage)
            {
                Approach = Approach.Of(ApproachPreset.MouthpieceFirst),
            },
            Player(id, stage)
        );

    private static string Written(Slur slur) => string.Join(' ', slur.Notes.Select(note => note.Written));

    [Fact]
    public void Every_slur_stays_on_one_tube_and_inside_the_range_and_every_note_is_one_the_finder_gives()
    {
        foreach (var instrument in Catalogue.All)
        foreach (var stage in Enum.GetValues<LearningStage>())
        {
            var player = Player(instrument.Id, stage);
            var slurs = SlurWriter.All(player).ToList();
            Assert.NotEmpty(slurs);
            Assert.All(
                slurs,
                slur =>
                {
                    Assert.True(slur.Shape.Neighbours || slur.Notes.Select(note => note.Tube.Setting).Distinct().Count() == 1, slur.Text);
                    Assert.All(
                        slur.Notes,
                        note =>
                        {
                            Assert.True(player.Range.Holds(note.Sounding), $"{instrument.Id} {slur.Text}");
                            Assert.Contains(
                                FingeringFinder.Find(instrument, player.Reading, note.Written, player.Weights, player.Hand),
                                way => way.Setting == note.Tube.Setting && way.Partial == note.Partial
                            );
                            Assert.Equal(note.Sounding.Midi, player.Reading.ToSounding(note.Written).Midi);
                        }
                    );
                }
            );
            Assert.Equal(slurs.Count, slurs.Select(slur => (slur.Id, slur.Text)).Distinct().Count());
        }
    }

    // Computed: neighbours by semitones from a note down to the floor of the instrument.
    [Theory]
    [InlineData("trumpet-bb", "Bb3", 6, "F3")]
    [InlineData("trombone", "Bb2", 6, "Eb2")]
    [InlineData("trombone-f", "Bb2", 10, "B1")]
    [InlineData("tuba-eb-3v", "Bb1", 1, "Ab1")]
    [InlineData("tuba-eb-3v", "Bb2", 13, "Ab1")]
    public void Neighbours_stop_at_the_floor_and_say_so(string id, string from, int fit, string needs)
    {
        var sheet = SlurWriter.Neighbours(Player(id), Pitch.Parse(from));
        Assert.Equal(fit, sheet.Slurs.Count);
        Assert.Contains($"needs {needs}", sheet.StoppedBecause, StringComparison.Ordinal);
        Assert.All(sheet.Slurs, slur => Assert.Equal(8, slur.Beats));
    }

    // Computed: euphonium 3-4-3-2-3, then the next six settings down.
    [Fact]
    public void Five_notes_go_down_through_the_seven_settings()
    {
        var sheet = SlurWriter.Sheet(Player("euphonium-3v"), SlurShape.Get("five-note"), 3);
        Assert.Equal("F3 Bb3 F3 Bb2 F3", Written(sheet.Slurs[0]));
        Assert.Equal(["F3", "E3", "Eb3", "D3", "C#3", "C3", "B2"], sheet.Slurs.Select(slur => slur.Notes[0].Written.ToString()));
        Assert.Equal(["0", "2", "1", "1-2", "2-3", "1-3", "1-2-3"], sheet.Slurs.Select(slur => slur.Setting.ToString()));
        Assert.Equal("Every setting taught has been through.", sheet.StoppedBecause);
    }

    [Fact]
    public void The_fourth_valve_goes_by_the_approach()
    {
        var euphonium = Catalogue.Get("euphonium-4v");
        string[] Settings(ApproachPreset preset) =>
            [
                .. SlurPlayer
                    .Of(euphonium, euphonium.Readings[0], LearningStage.Pieces, Approach.Of(preset))
                    .Tubes()
                    .Select(tube => tube.Setting.ToString()),
            ];
        Assert.Equal(["0", "2", "1", "1-2", "2-3", "4", "2-4"], Settings(ApproachPreset.MouthpieceFirst));
        Assert.Equal(["0", "2", "1", "1-2", "2-3", "1-3", "1-2-3"], Settings(ApproachPreset.AirFirst));
    }

    [Fact]
    public void The_seventh_partial_only_on_purpose()
    {
        var trombone = Player("trombone");
        Assert.DoesNotContain(SlurWriter.All(trombone), slur => slur.Notes.Any(note => note.Partial == 7));
        Assert.Contains(SlurWriter.All(trombone with { Seventh = true }), slur => slur.Notes.Any(note => note.Partial == 7));
    }

    [Fact]
    public void Vowels_follow_the_contour_of_every_shape()
    {
        var slur = SlurWriter.Sheet(Player("trumpet-bb"), SlurShape.Get("five-note"), 3).Slurs[0];
        // 3-4-3-2-3 (common practice).
        Assert.Equal(["ah", "ee", "ah", "oh", "ah"], slur.Notes.Select(note => note.Vowel));
        string[] heights = ["oh", "ah", "ee"];
        foreach (var id in (string[])["trumpet-bb", "horn-f", "trombone", "tuba-bb-3v"])
        foreach (var each in SlurWriter.All(Player(id)))
        {
            var vowels = each.Notes.Select(note => (note.Partial, Height: Array.IndexOf(heights, note.Vowel))).ToList();
            // A note on a higher partial has no lower vowel, the lowest and the highest differ, and one partial has one vowel.
            Assert.All(vowels, one => Assert.All(vowels, other => Assert.True(one.Partial <= other.Partial || one.Height >= other.Height)));
            Assert.All(vowels.GroupBy(note => note.Partial), partial => Assert.Single(partial.Select(note => note.Height).Distinct()));
            if (vowels.Select(note => note.Partial).Distinct().Count() > 1)
                Assert.True(vowels.MaxBy(note => note.Partial).Height > vowels.MinBy(note => note.Partial).Height);
        }
    }

    [Fact]
    public void Vowels_go_by_the_approach()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        Assert.All(
            SlurWriter.All(SlurPlayer.Of(trumpet, trumpet.Readings[0], LearningStage.Pieces, Approach.Of(ApproachPreset.AirFirst))),
            each => Assert.All(each.Notes, note => Assert.Equal("", note.Vowel))
        );
        var own = SlurPlayer.Of(
            trumpet,
            trumpet.Readings[0],
            LearningStage.Pieces,
            Approach.Of(ApproachPreset.MouthpieceFirst).With("slur.vowels", "c")
        );
        Assert.All(SlurWriter.All(own), each => Assert.All(each.Notes, note => Assert.Equal("____", note.Vowel)));
    }

    [Fact]
    public void What_cannot_be_written_says_why()
    {
        var player = Player("trumpet-bb");
        var one = player with { Range = new PlayingRange(Pitch.Parse("F4"), Pitch.Parse("F4")) };
        Assert.Empty(SlurWriter.All(one));
        Assert.Contains("above the range", SlurWriter.Sheet(one, SlurShape.Get("pair"), 3).StoppedBecause, StringComparison.Ordinal);
        Assert.Contains(
            "No setting is taught",
            Assert
                .Throws<ArgumentException>(() =>
                    SlurWriter.Sheet(player with { Taught = new HashSet<Setting>() }, SlurShape.Get("pair"), 3)
                )
                .Message,
            StringComparison.Ordinal
        );
        Assert.Throws<ArgumentException>(() => SlurWriter.Sheet(player, SlurShape.Get("neighbours"), 3));
        var stops = SlurWriter.Sheet(player with { Range = player.Range with { Lowest = Pitch.Parse("Eb4") } }, SlurShape.Get("pair"), 3);
        Assert.Equal(3, stops.Slurs.Count);
        Assert.Contains("on 1-2, needs E4, below the range, which starts at F4", stops.StoppedBecause, StringComparison.Ordinal);
    }

    [Fact]
    public void Difficulty_grows_with_each_of_its_parts() =>
        Gen.Select(Gen.Int[1, 12], Gen.Int[2, 9], Gen.Int[0, 3], Gen.Int[-5, 12], Gen.Int[40, 160])
            .SelectMany(a => Gen.Int[0, 6].Select(b => (a, b)))
            .Sample(
                (a, b) =>
                {
                    double Points(
                        int widest = 0,
                        int notes = 0,
                        int skipped = 0,
                        int above = 0,
                        bool down = false,
                        int tempo = 0,
                        bool crowded = false,
                        int place = 0
                    ) =>
                        SlurDifficulty
                            .Of(
                                a.Item1 + widest,
                                a.Item2 + notes,
                                a.Item3 + skipped,
                                a.Item4 + above,
                                down,
                                a.Item5 + tempo,
                                crowded,
                                b + place
                            )
                            .Points;
                    var plain = Points();
                    Assert.All(
                        (double[])
                            [
                                Points(widest: 1),
                                Points(notes: 1),
                                Points(skipped: 1),
                                Points(above: 1),
                                Points(down: true),
                                Points(tempo: 10),
                                Points(crowded: true),
                                Points(place: 1),
                            ],
                        harder => Assert.True(harder >= plain)
                    );
                }
            );

    // The order in which slurs are introduced (common practice): two neighbours mid-range up, down, to and fro; three; five with
    // the one below; each tube after the open one; then wider, then faster.
    [Fact]
    public void Difficulty_puts_slurs_in_the_order_in_which_they_are_met()
    {
        var player = Player("trumpet-bb") with { BreathSeconds = 20 };
        double Of(string shape, int first, int tube = 0, double tempo = 60) =>
            SlurDifficulty
                .Of(
                    SlurWriter.OnTube(player, SlurShape.Get(shape), player.Tubes()[tube]).First(slur => slur.Notes[0].Partial == first),
                    player,
                    tempo
                )
                .Points;
        double[] met =
        [
            Of("pair-up", 3),
            Of("pair-down", 4),
            Of("pair", 3),
            Of("three", 3),
            Of("five-note", 3),
            Of("five-note", 3, 1),
            Of("five-note", 3, 2),
            Of("five-note", 3, 4),
            Of("five-note", 3, 6),
            Of("arpeggio", 3),
            Of("arpeggio", 3, 0, 120),
        ];
        Assert.Equal(met.Order(), met);
        Assert.All(met.Zip(met.Skip(5)), pair => Assert.True(pair.Second > pair.First));
    }

    /// <summary>A semitone with another valve is easier than a fifth; every setting of a shape comes before a wider one.</summary>
    [Fact]
    public void A_changed_valve_is_easier_than_a_fifth_and_settings_come_before_wider_shapes()
    {
        var player = Player("trumpet-bb");
        double Of(Slur slur) => SlurDifficulty.Of(slur, player, 60).Points;
        var valves = SlurWriter.Neighbours(player, Pitch.Parse("Bb3")).Slurs;
        var fifth = SlurWriter.OnTube(player, SlurShape.Get("pair"), player.Tubes()[0]).First(slur => slur.Notes[0].Partial == 2);
        Assert.All(valves, slur => Assert.True(Of(slur) < Of(fifth), slur.Id));
        var pairs = SlurWriter.Sheet(player, SlurShape.Get("pair"), 3).Slurs;
        var three = SlurWriter.Sheet(player, SlurShape.Get("three"), 3).Slurs[0];
        Assert.All(pairs, slur => Assert.True(Of(slur) < Of(three), slur.Id));
        // Whoever goes down first finds down the easier way.
        var down = SlurWriter.Sheet(player, SlurShape.Get("pair-down"), 4).Slurs[0];
        var up = SlurWriter.Sheet(player, SlurShape.Get("pair-up"), 3).Slurs[0];
        Assert.True(Of(up) < Of(down));
        var other = player with { DownFirst = true };
        Assert.True(SlurDifficulty.Of(down, other, 60).Points < SlurDifficulty.Of(up, other, 60).Points);
    }

    /// <summary>In the first weeks nothing is slurred that has not come: notes, settings and positions.</summary>
    [Fact]
    public void First_weeks_take_only_what_has_come()
    {
        foreach (var id in (string[])["trumpet-bb", "horn-f", "trombone", "tuba-bb-3v"])
        {
            var all = SlurWriter
                .All(Player(id))
                .SelectMany(slur => slur.Notes)
                .Select(note => (note.Tube.Setting, note.Partial))
                .Distinct();
            var met = all.Where((_, i) => i % 3 != 0).ToHashSet();
            var slurs = SlurWriter.All(Player(id) with { Met = met }).ToList();
            Assert.NotEmpty(slurs);
            Assert.All(
                slurs.SelectMany(slur => slur.Notes),
                note => Assert.Contains((note.Tube.Setting, note.Partial), (IEnumerable<(Setting, int)>)met)
            );
            var none = SlurDay.Of(Player(id) with { Met = new HashSet<(Setting, int)>() }, [], DateTime.UtcNow, 72, 5);
            Assert.Empty(none.Slurs);
            Assert.Contains("low note or the next one up", none.Note);
        }

        var first = Approach.Of(ApproachPreset.MouthpieceFirst);
        Assert.True(SlurPlayer.TakesOnlyMet(LearningStage.FirstNotes, first));
        Assert.False(SlurPlayer.TakesOnlyMet(LearningStage.Second, first));
        Assert.False(SlurPlayer.TakesOnlyMet(LearningStage.FirstNotes, first.With(Points.SlurNotes, SlurNotes.AllOfTheRange)));
    }

    [Fact]
    public void What_a_class_plays_is_a_slur_on_an_open_tube_in_b_flat_or_says_why_not()
    {
        var approach = Approach.Of(ApproachPreset.MouthpieceFirst);
        // The third and fourth partial of a tube in B flat (computed): concert F4 and B flat 4.
        Assert.Equal(["F4", "Bb4"], ClassSlur.Offered([], approach).Notes.Select(note => $"{note.Sounding}").Distinct());
        Assert.Equal(2, ClassSlur.Concert("pair", 2, approach).Notes[0].Partial);
        Assert.DoesNotContain(SlurShape.AlongTube, shape => shape.Neighbours);
        Assert.Contains("partial 12", Assert.Throws<ArgumentException>(() => ClassSlur.Concert("pair", 12, approach)).Message);
        Assert.Throws<ArgumentException>(() => ClassSlur.Concert("none such", 3, approach));
        Assert.Contains("semitones", Assert.Throws<ArgumentException>(() => ClassSlur.Concert("neighbours", 3, approach)).Message);
    }

    /// <summary>An E flat tuba and a C trumpet share little with B flat tubes: what is offered fits as many as anything does.</summary>
    [Theory]
    [InlineData("trumpet-bb euphonium-3v trombone")]
    [InlineData("tuba-eb-3v tenor-horn-eb trumpet-bb tuba-eb-4v")]
    [InlineData("horn-f tuba-f-4v trumpet-bb")]
    public void A_class_is_offered_a_slur_that_most_can_share(string instruments)
    {
        var approach = Approach.Of(ApproachPreset.MouthpieceFirst);
        var members = SlurMember.Of(instruments.Split(' ').Select(id => Member(id, LearningStage.Second)));
        int Sharing(Slur slur) => members.Count(member => ClassSlur.Of(member, slur).Slur is not null);
        var offered = ClassSlur.Offered(members, approach);
        Assert.Equal(
            SlurShape
                .AlongTube.SelectMany(shape => Enumerable.Range(2, 6).Select(first => Made(shape.Id, first)))
                .OfType<Slur>()
                .Max(Sharing),
            Sharing(offered)
        );

        Slur? Made(string shape, int first)
        {
            try
            {
                return ClassSlur.Concert(shape, first, approach);
            }
            catch (ArgumentException)
            {
                return null;
            }
        }
    }

    [Fact]
    public void Who_plays_alike_has_the_same_slurs_and_who_does_not_has_their_own()
    {
        var (one, slide) = (Member("trumpet-bb", LearningStage.Pieces), Member("trombone", LearningStage.Pieces));
        var members = SlurMember.Of([
            one,
            Member("trumpet-bb", LearningStage.Pieces),
            Member("trumpet-bb", LearningStage.FirstNotes),
            (slide.Item1, slide.Item2 with { Hand = new Hand { FurthestPosition = 3 } }),
            slide,
            Member("trombone", LearningStage.FirstNotes),
            (
                one.Item1,
                one.Item2 with
                {
                    Hand = one.Item2.Hand with { Pins = new Dictionary<int, Setting> { [60] = Setting.OfValves("", [1, 3]) } },
                }
            ),
        ]);
        var lists = members.Select(member => string.Join(' ', SlurShape.All.SelectMany(member.Of).Select(slur => slur.Id))).ToList();
        Assert.Equal(lists[0], lists[1]);
        // Slurs are written once for both, and for whoever has another way for a single note.
        Assert.All(
            [1, 6],
            each => Assert.Same(members[0].Of(SlurShape.Get("pair")).First(), members[each].Of(SlurShape.Get("pair")).First())
        );
        Assert.Equal(5, lists.Distinct().Count());
        Assert.Equal(
            string.Join(' ', SlurWriter.All(members[3].Player).Where(slur => !slur.Shape.Neighbours).Select(slur => slur.Id)),
            string.Join(' ', SlurShape.All.SelectMany(members[3].Of).Select(slur => slur.Id))
        );
    }

    [Fact]
    public void A_concert_slur_is_everybodys_where_a_tube_has_it()
    {
        var model = ClassSlur.Concert("pair", 3, Approach.Of(ApproachPreset.MouthpieceFirst));
        ClassSlur For(string id) => ClassSlur.Of(SlurMember.Of([Member(id, LearningStage.Pieces)])[0], model);
        foreach (var id in new[] { "trombone", "euphonium-3v", "tuba-bb-3v", "tuba-eb-3v", "horn-double" })
        {
            var own = For(id);
            Assert.True(own.Slur is not null, $"{id}: {own.WhyNot}");
            Assert.All(
                own.Slur.Notes.Zip(model.Notes),
                pair => Assert.Equal(0, (pair.First.Sounding.Midi - pair.Second.Sounding.Midi) % 12)
            );
        }

        // Computed: no tube of an F horn has F and B flat as neighbours inside its range.
        var horn = For("horn-f");
        Assert.Null(horn.Slur);
        Assert.NotNull(horn.Instead);
        Assert.Contains("concert F Bb", horn.WhyNot!, StringComparison.Ordinal);
    }
}
