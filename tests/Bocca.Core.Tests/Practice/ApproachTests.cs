using Bocca.Core.Buzz.Measures;
using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;
using Bocca.Core.Teaching;
using CsCheck;

namespace Bocca.Core.Tests.Practice;

public class ApproachTests
{
    private static readonly Approach LipsFirst = Approach.Of(ApproachPreset.LipsFirst);
    private static readonly Approach AirFirst = Approach.Of(ApproachPreset.AirFirst);

    private static readonly Gen<Approach> Any = Gen.Select(
            Gen.Enum<ApproachPreset>(),
            Gen.OneOfConst([.. ApproachPoint.All])
                .SelectMany(point => Gen.OneOfConst([.. point.Options]).Select(option => (point.Id, option.Id)))
                .List[0, 12]
        )
        .Select((preset, points) => points.Aggregate(Approach.Of(preset), (approach, point) => approach.With(point.Item1, point.Item2)));

    [Fact]
    public void What_is_written_is_read_back() => Any.Sample(approach => Approach.Parse(approach.ToString()).Equals(approach));

    [Fact]
    public void A_point_settled_holds_and_settled_back_leaves_no_trace() =>
        Gen.Select(Any, Gen.OneOfConst([.. ApproachPoint.All]))
            .Sample(
                (approach, point) =>
                {
                    foreach (var option in point.Options)
                        Assert.Equal(option.Id, approach.With(point.Id, option.Id)[point.Id]);
                    Assert.Equal(approach, approach.With(point.Id, point.Options[^1].Id).With(point.Id, approach[point.Id]));
                }
            );

    [Fact]
    public void Every_choice_says_what_it_changes_and_whence_it_comes() =>
        Assert.All(
            ApproachPoint.All,
            point =>
            {
                Assert.True(point.Options.Count >= 2);
                Assert.All(point.Options, option => Assert.EndsWith(".", option.Then));
                Assert.NotEmpty(point.Basis);
            }
        );

    [Theory]
    [InlineData("")]
    [InlineData("Nobody")]
    [InlineData("AirFirst mp.share")]
    public void What_is_no_approach_is_refused(string text) => Assert.Throws<FormatException>(() => Approach.Parse(text));

    [Fact]
    public void An_unknown_point_or_option_is_named()
    {
        Assert.Contains("'nose'", Assert.Throws<ArgumentException>(() => AirFirst.With("nose", "a")).Message);
        Assert.Contains("'z'", Assert.Throws<ArgumentException>(() => AirFirst.With("valve4", "z")).Message);
    }

    [Fact]
    public void The_order_of_steps_follows_the_approach()
    {
        string[] Steps(Approach approach, string family = "horn") => [.. LessonPath.Of(approach, family).Select(step => step.Step.Id)];
        Assert.Contains("lips", Steps(LipsFirst));
        Assert.DoesNotContain("lips", Steps(AirFirst));
        Assert.True(Array.IndexOf(Steps(LipsFirst), "breath") > Array.IndexOf(Steps(LipsFirst), "mouthpiece"));
        Assert.True(Array.IndexOf(Steps(AirFirst), "breath") < Array.IndexOf(Steps(AirFirst), "face"));
        Assert.True(Array.IndexOf(Steps(LipsFirst), "tongue") < Array.IndexOf(Steps(LipsFirst), "first-sound"));
        Assert.True(Array.IndexOf(Steps(AirFirst), "silent-settings") < Array.IndexOf(Steps(AirFirst), "first-sound"));
        Assert.Contains("leadpipe", Steps(AirFirst, "trumpet"));
        Assert.DoesNotContain("leadpipe", Steps(AirFirst));
        Any.Sample(approach => Steps(approach).Distinct().Count() == Steps(approach).Length);
    }

    [Fact]
    public void Thresholds_follow_the_approach()
    {
        var bands = BandTable.Shipped.For(SoundStage.Mouthpiece, LearningStage.FirstNotes);
        Assert.Equal(400, bands.Under(LipsFirst).AirBeforeToneMs);
        Assert.Equal(600, bands.Under(AirFirst).AirBeforeToneMs);
    }

    [Fact]
    public void Cues_follow_the_approach()
    {
        string Cue(Approach approach) => Bocca.Core.Judging.SymptomTable.Shipped.Get("airy").FixFor(approach, tense: false).Cue;
        Assert.StartsWith("Make the opening a little smaller", Cue(LipsFirst));
        Assert.StartsWith("Same air", Cue(LipsFirst.With("lips.centre", "b")));
    }

    [Fact]
    public void Preferred_fingerings_follow_the_approach()
    {
        string Best(Approach approach, string instrument, string written, LearningStage stage = LearningStage.FirstNotes)
        {
            var player = Catalogue.Get(instrument);
            return FingeringFinder
                .Find(player, player.Readings[0], Pitch.Parse(written), FingeringWeights.Default.Under(approach, stage))[0]
                .Setting.ToString();
        }

        Assert.Equal("4", Best(LipsFirst, "euphonium-4v-comp", "C3"));
        Assert.Equal("1-3", Best(LipsFirst.With("valve4", "b"), "euphonium-4v-comp", "C3"));
        Assert.Equal("2-4", Best(LipsFirst.With("valve4", "b"), "euphonium-4v-comp", "B2"));
        Assert.Equal("T-0", Best(AirFirst, "horn-double", "C5"));
        Assert.Equal("0", Best(LipsFirst, "horn-double", "C5"));
        Assert.Equal("T-0", Best(LipsFirst, "horn-double", "C5", LearningStage.Pieces));
    }

    [Fact]
    public void The_first_note_of_a_horn_and_the_choice_left_to_the_teacher_follow_the_approach()
    {
        var horn = Catalogue.Get("horn-f");
        string First(Approach approach) => FirstNotes.Of(horn, horn.Readings[0], approach)[0].ToString();
        Assert.Equal(["F4", "C4", "A3"], new[] { First(LipsFirst), First(AirFirst), First(Approach.Of(ApproachPreset.MouthpieceFirst)) });
        var euphonium = Catalogue.Get("euphonium-4v");
        var ways = FingeringFinder.Find(euphonium, euphonium.Readings[0], Pitch.Parse("C3"));
        Assert.Null(TeacherChoice.Between(ways, LipsFirst));
        Assert.Contains("4, or 1-3", TeacherChoice.Between(ways, LipsFirst.With("valve4", "c")));
    }
}
