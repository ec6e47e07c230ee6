using Bocca.Core.Embouchure;
using Bocca.Core.Instruments;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Embouchure;

public class PlacementTests
{
    private static readonly Approach HalfAndHalf = Approach.Of(ApproachPreset.LipsFirst);

    /// <summary>Marks of a known placement: a face drawn to scale, then turned, moved and enlarged.</summary>
    private static FrontMarks Draw(
        double share,
        double offsetMm,
        double tiltDegrees,
        double headDegrees,
        double rimMm = 27,
        double pixelsPerMm = 4,
        bool mirrored = true,
        int edge = 6,
        Func<double>? miss = null
    )
    {
        var (sine, cosine) = Math.SinCos(headDegrees * Math.PI / 180);
        // Millimetres from the middle of the lips, to the pupil's left and upwards.
        PicturePoint At(double left, double up)
        {
            var (x, y) = ((left * cosine) + (up * sine), (up * cosine) - (left * sine));
            var side = mirrored ? -1 : 1;
            return new PicturePoint(
                900 + (side * x * pixelsPerMm) + (miss?.Invoke() ?? 0),
                700 - (y * pixelsPerMm) + (miss?.Invoke() ?? 0)
            );
        }

        var slope = Math.Tan(tiltDegrees * Math.PI / 180);
        // The centre lies off the lip line by the share, measured across that line.
        var up = ((2 * share) - 1) * rimMm / 2 * Math.Sqrt(1 + (slope * slope));
        var centreUp = up + (offsetMm * slope);
        return new FrontMarks(
            [
                .. Enumerable
                    .Range(0, edge)
                    .Select(i => 2 * Math.PI * i / edge)
                    .Select(angle => At(offsetMm + (rimMm / 2 * Math.Cos(angle)), centreUp + (rimMm / 2 * Math.Sin(angle)))),
            ],
            At(22, 22 * slope),
            At(-22, -22 * slope),
            At(0, 35),
            At(0, -40),
            mirrored
        );
    }

    [Theory]
    [InlineData(0.5, 0, 0, 0, true)]
    [InlineData(0.667, 2.5, 4, 3, true)]
    [InlineData(0.4, -3, -6, -8, false)]
    [InlineData(0.62, 1, 0, 12, false)]
    public void A_known_placement_is_measured_exactly(double share, double offset, double tilt, double head, bool mirrored)
    {
        var placement = Placement.Measure(Draw(share, offset, tilt, head, mirrored: mirrored), 27);
        Assert.Equal(share, placement.ShareAbove, 6);
        Assert.Equal(offset, placement.OffsetMm, 6);
        Assert.Equal(tilt, placement.TiltDegrees, 6);
        Assert.Equal(head, placement.HeadTiltDegrees, 6);
        Assert.Equal(0.25, placement.MillimetresPerPixel, 6);
    }

    [Fact]
    public void Any_placement_is_measured_exactly_whatever_the_picture() =>
        Gen.Select(
                Gen.Double[0.1, 0.9],
                Gen.Double[-6, 6],
                Gen.Double[-15, 15],
                Gen.Double[-25, 25],
                Gen.Double[15, 50],
                // A ring of 15 mm is 25 pixels wide at least: smaller ones are refused.
                Gen.Double[1.7, 20],
                Gen.Bool,
                Gen.Int[3, 12]
            )
            .Sample(
                (share, offset, tilt, head, rim, pixels, mirrored, edge) =>
                {
                    var placement = Placement.Measure(Draw(share, offset, tilt, head, rim, pixels, mirrored, edge), rim);
                    Assert.Equal(share, placement.ShareAbove, 6);
                    Assert.Equal(offset, placement.OffsetMm, 1e-5);
                    Assert.Equal(tilt, placement.TiltDegrees, 1e-5);
                }
            );

    [Fact]
    public void The_error_stated_is_the_error_made()
    {
        var random = new Random(3);
        double Miss() => 2 * Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var made = Enumerable.Range(0, 400).Select(_ => Placement.Measure(Draw(0.6, 1, 0, 0, miss: Miss), 27)).ToList();
        var spread = MathNet.Numerics.Statistics.Statistics.StandardDeviation(made.Select(placement => placement.ShareAbove));
        Assert.InRange(spread / made[0].ShareError, 0.75, 1.35);
        var aside = MathNet.Numerics.Statistics.Statistics.StandardDeviation(made.Select(placement => placement.OffsetMm));
        Assert.InRange(aside / made[0].OffsetErrorMm, 0.6, 1.4);
    }

    [Fact]
    public void Marks_that_can_be_no_ring_or_no_mouth_are_refused_in_a_sentence()
    {
        var good = Draw(0.5, 0, 0, 0);
        string Why(FrontMarks marks, double rim = 27) => Assert.Throws<ArgumentException>(() => Placement.Measure(marks, rim)).Message;
        Assert.Contains("three marks", Why(good with { RingEdge = [.. good.RingEdge.Take(2)] }));
        Assert.Contains("one line", Why(good with { RingEdge = [new(10, 10), new(20, 20), new(30, 30), new(44, 44)] }));
        Assert.Contains(
            "no circle",
            Why(good with { RingEdge = [new(100, 0), new(25, 43), new(-50, 87), new(-50, 0), new(-50, -87), new(25, -43)] })
        );
        Assert.Contains("come closer", Why(Draw(0.5, 0, 0, 0, pixelsPerMm: 0.5)));
        Assert.Contains("does not cross", Why(good with { LipLeft = new(800, 100), LipRight = new(1000, 100) }));
        Assert.Contains("too close", Why(good with { LipRight = good.LipLeft }));
        Assert.Contains("three marks", Why(good with { RingEdge = [new(double.NaN, 0), new(1, 1), new(2, 3)] }));
        Assert.Contains("no mouthpiece", Why(good, 2));
    }

    [Theory]
    [InlineData("trumpet", 0.5, true)]
    [InlineData("trumpet", 0.67, false)]
    [InlineData("horn", 0.67, true)]
    [InlineData("horn", 0.5, false)]
    public void The_span_is_the_approachs_and_the_horns_own(string family, double share, bool inside)
    {
        var rim = Mouthpiece.Of(family).RimMm;
        var placement = Placement.Measure(Draw(share, 0, 0, 0, rim), rim);
        Assert.Equal(inside, PlacementJudge.Judge(placement, family, rim, HalfAndHalf, []).Inside);
        Assert.True(PlacementJudge.Judge(placement, family, rim, HalfAndHalf.With("mp.share", "b"), []).Inside || share > 0.66);
    }

    [Fact]
    public void A_move_counts_only_beyond_the_spread_so_far()
    {
        Placement At(double share) => Placement.Measure(Draw(share, 0, 0, 0, pixelsPerMm: 12), 27);
        double[] steady = [0.50, 0.51, 0.50, 0.49];
        var moved = PlacementJudge.Judge(At(0.57), "trumpet", 27, HalfAndHalf, steady);
        Assert.Contains("placed.moved", moved.Evidence.Select(item => item.Signal));
        Assert.DoesNotContain(
            "placed.moved",
            PlacementJudge.Judge(At(0.51), "trumpet", 27, HalfAndHalf, steady).Evidence.Select(item => item.Signal)
        );
        var own = PlacementJudge.Judge(At(0.6), "trumpet", 27, HalfAndHalf.With("mp.share", "c"), [0.6, 0.61, 0.62]);
        Assert.True(own.Inside);
    }

    [Fact]
    public void Higher_or_lower_is_told_only_when_the_takes_tell_it()
    {
        PlacedTakes low = new(0.48, [40, 42, 38]),
            high = new(0.58, [20, 22, 18]);
        Assert.StartsWith("A little higher", PlacementOutcome.Of([low, high]).Sentence);
        Assert.StartsWith("A little lower", PlacementOutcome.Of([low with { ShareAbove = 0.6 }, high with { ShareAbove = 0.5 }]).Sentence);
        Assert.StartsWith("No difference", PlacementOutcome.Of([low, high with { SteadinessCents = [39, 41, 43] }]).Sentence);
        Assert.Contains("needed", PlacementOutcome.Of([low, high with { SteadinessCents = [20] }]).Sentence);
    }

    /// <summary>Schools of placement (common practice): a third above on the trumpet, two thirds above on horn and low brass.</summary>
    [Theory]
    [InlineData("trumpet", 0.33, true)]
    [InlineData("trumpet", 0.5, false)]
    [InlineData("horn", 0.66, true)]
    [InlineData("tuba", 0.66, true)]
    [InlineData("euphonium", 0.5, false)]
    [InlineData("tenor horn", 0.5, true)]
    public void A_third_or_two_thirds_is_a_school_too(string family, double share, bool inside)
    {
        var span = PlacementSpan.Of(family, HalfAndHalf.With("mp.share", "d"), []);
        Assert.Equal(inside, share >= span.Least && share <= span.Most);
    }

    [Fact]
    public void A_tenor_horn_has_a_family_of_its_own()
    {
        Assert.Equal("tenor horn", Bocca.Core.Instruments.Catalogue.Get("tenor-horn-eb").Family);
        Assert.DoesNotContain(SetupCheck.Of("tenor horn"), check => check.Id == "right-hand-horn");
        Assert.Contains(SetupCheck.Of("tenor horn"), check => check.Id == "tenor-horn-hold");
        Assert.NotEqual(Mouthpiece.Of("horn").RimMm, Mouthpiece.Of("tenor horn").RimMm);
    }

    [Fact]
    public void Angles_from_the_side_are_measured_and_held_against_the_approach()
    {
        var marks = new SideMarks(
            new(500, 300),
            new(600, 317.632698),
            new(480, 200),
            new(480, 380),
            new(400, 500),
            new(400 + 100, 600),
            new(500, 480),
            new(400, 800)
        );
        var view = SideView.Measure(marks);
        Assert.Equal(10, view.MouthpieceDegrees, 4);
        Assert.Equal(45, view.ElbowDegrees, 4);
        Assert.Equal(45, view.ArmFromBodyDegrees, 4);
        Assert.True(view.Judge(HalfAndHalf, "trumpet")[0].Inside);
        Assert.False(SideView.Measure(marks with { Elbow = new(405, 640) }).Judge(HalfAndHalf, "trumpet")[0].Inside);
        // The mouthpiece is judged too: straight out or a little down, a horn's further down (common practice).
        Assert.True((view with { MouthpieceDegrees = 10 }).Judge(HalfAndHalf, "trumpet")[2].Inside);
        Assert.False((view with { MouthpieceDegrees = 35 }).Judge(HalfAndHalf, "trumpet")[2].Inside);
        Assert.False((view with { MouthpieceDegrees = -12 }).Judge(HalfAndHalf, "tuba")[2].Inside);
        Assert.True((view with { MouthpieceDegrees = 28 }).Judge(HalfAndHalf, "horn")[2].Inside);
        Assert.False((view with { MouthpieceDegrees = 0 }).Judge(HalfAndHalf, "horn")[2].Inside);
        Assert.Throws<ArgumentException>(() => SideView.Measure(marks with { Shank = marks.Rim }));
    }

    [Theory]
    [InlineData(70, 7)]
    [InlineData(56, 6)]
    [InlineData(45, 5)]
    [InlineData(25, 3)]
    public void An_arm_reaches_as_far_as_the_slide_lets_it(double arm, int furthest) =>
        Assert.Equal(furthest, ArmReach.Of(arm, Catalogue.Get("trombone")).Furthest);

    [Fact]
    public void No_arm_is_two_metres_long() => Assert.Throws<ArgumentException>(() => ArmReach.Of(200, Catalogue.Get("trombone")));

    [Fact]
    public void Every_check_can_be_put_under_every_approach_and_every_family_has_some()
    {
        foreach (var family in Catalogue.All.Select(instrument => instrument.Family).Distinct())
        foreach (var preset in Enum.GetValues<ApproachPreset>())
            Assert.True(
                SetupCheck
                    .Of(family)
                    .Count(check => check.Ask(Approach.Of(preset)).EndsWith('.') || check.Ask(Approach.Of(preset)).EndsWith('?')) >= 12
            );
    }

    // Computed: a sine of amplitude a has a root mean square of a over root two; a line from 0 to d has moved by 0.8 d between fifths.
    [Theory]
    [InlineData(0.008, 0, true, "stayed within 0.6 %")]
    [InlineData(0.04, 0, false, "to and fro by 2.8 %")]
    [InlineData(0, 0.1, false, "wandered off by 8")]
    public void A_head_is_still_or_moved(double amplitude, double drift, bool still, string said)
    {
        var motion = HeadMotion.Of([
            .. Enumerable.Range(0, 100).Select(i => new HeadShift(amplitude * Math.Sin(i * Math.PI / 5), drift * i / 100)),
        ]);
        Assert.Equal(still, motion.IsStill);
        Assert.Contains(said, motion.Sentence);
        Assert.Throws<ArgumentException>(() => HeadMotion.Of([new(0, 0)]));
        Assert.Throws<ArgumentException>(() => HeadMotion.Of([.. Enumerable.Repeat(new HeadShift(double.NaN, 0), 30)]));
    }
}
