using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Fingering;

/// <summary>First notes of every instrument, both ways (common practice), in reach, and in a teacher's own order.</summary>
public sealed class FirstNotesTests
{
    [Theory]
    [InlineData("trumpet-bb", "G4 F4 E4 D4 C4", "C4 D4 E4 F4 G4")]
    [InlineData("tenor-horn-eb", "G4 F4 E4 D4 C4", "C4 D4 E4 F4 G4")]
    [InlineData("euphonium-3v", "F3 Eb3 D3 C3 Bb2", "Bb2 C3 D3 Eb3 F3")]
    [InlineData("trombone", "F3 Eb3 D3 Bb2 C3", "Bb2 D3 Eb3 F3 C3")]
    [InlineData("trombone-f", "F3 Eb3 D3 C3 Bb2", "Bb2 C3 D3 Eb3 F3")]
    [InlineData("tuba-bb-3v", "F2 Eb2 D2 C2 Bb1", "Bb1 C2 D2 Eb2 F2")]
    [InlineData("tuba-eb-3v", "Bb2 Ab2 G2 F2 Eb2", "Eb2 F2 G2 Ab2 Bb2")]
    public void They_go_down_on_one_partial_or_up_by_steps(string id, string onOnePartial, string stepwise)
    {
        Assert.Equal(onOnePartial, Of(id, ("first.notes", "a")));
        Assert.Equal(stepwise, Of(id, ("first.notes", "b")));
    }

    /// <summary>On one partial means that: all but the last lie on the partial of the first.</summary>
    [Fact]
    public void On_one_partial_lies_on_one_partial()
    {
        foreach (var instrument in Catalogue.All.Where(instrument => !instrument.Id.StartsWith("horn", StringComparison.Ordinal)))
        {
            var approach = With(("first.notes", "a"));
            var partials = FirstNotes
                .Taught(instrument, approach)
                .Select(note => FingeringFinder.FindSounding(instrument, note, FingeringWeights.Default)[0].Partial)
                .ToList();
            Assert.True(
                partials.Count(partial => partial == partials[0]) >= partials.Count - 1 - (instrument.Slide is null ? 0 : 1),
                instrument.Id
            );
        }
    }

    [Theory]
    [InlineData("a", "C4 D4 E4 F4 G4")]
    [InlineData("b", "F4 G4 A4 Bb4 C5")]
    [InlineData("c", "A3 C4 D4 E4 F4 G4")]
    [InlineData("d", "A4 G4 F4 Bb4 C5")]
    public void A_horn_begins_where_the_approach_begins_and_its_ceiling_follows(string start, string notes)
    {
        Assert.Equal(notes, Of("horn-f", ("horn.start", start)));
        var horn = Catalogue.Get("horn-f");
        var range = LearnersRangeOf(horn, With(("horn.start", start)));
        Assert.All(FirstNotes.Taught(horn, With(("horn.start", start))), note => Assert.True(range.Holds(note), $"{note}"));
    }

    /// <summary>The class five of a horn: 1, 0, 1-2, 1, 0 on partials 6 6 8 8 8 (common practice, computed).</summary>
    [Fact]
    public void The_class_five_of_a_horn_are_fingered_as_taught()
    {
        var horn = Catalogue.Get("horn-f");
        var ways = "F4 G4 A4 Bb4 C5".Split(' ').Select(note => FingeringFinder.Find(horn, horn.Readings[0], Pitch.Parse(note))[0]);
        Assert.Equal("1/6 0/6 1-2/8 1/8 0/8", string.Join(' ', ways.Select(way => $"{way.Setting}/{way.Partial}")));
    }

    [Fact]
    public void What_lies_beyond_the_reach_waits()
    {
        var trombone = Catalogue.Get("trombone");
        var notes = FirstNotes.Of(
            trombone,
            trombone.Readings[0],
            With(("first.notes", "a")),
            new Hand { ReachCm = 37 },
            FingeringWeights.Default
        );
        Assert.Equal("F3 Eb3 D3 Bb2", string.Join(' ', notes));
    }

    [Fact]
    public void A_teachers_own_order_goes_before_all_of_them()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        var own = new Hand { FirstNotes = [Pitch.Parse("D4"), Pitch.Parse("C4")] };
        var notes = FirstNotes.Of(trumpet, trumpet.Readings[0], With(("first.notes", "a")), own, FingeringWeights.Default);
        Assert.Equal("E4 D4", string.Join(' ', notes));
    }

    private static PlayingRange LearnersRangeOf(Instrument instrument, Approach approach) =>
        Core.Fingering.Class.LearnersRange.Of(instrument, LearningStage.FirstNotes, approach);

    private static Approach With(params (string Point, string Option)[] points) =>
        Approach.Of(ApproachPreset.MouthpieceFirst).With(points.ToDictionary(point => point.Point, point => point.Option));

    private static string Of(string id, params (string Point, string Option)[] points)
    {
        var instrument = Catalogue.Get(id);
        return string.Join(' ', FirstNotes.Of(instrument, instrument.Readings[0], With(points)));
    }
}
