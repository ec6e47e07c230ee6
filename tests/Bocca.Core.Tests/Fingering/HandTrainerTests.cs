using Bocca.Core.Fingering;
using Bocca.Core.Fingering.Trainer;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Practice;

namespace Bocca.Core.Tests.Fingering;

/// <summary>Silent drills: what is asked, how often, and what it came to.</summary>
public sealed class HandTrainerTests
{
    private static TrainedHand Trained(string id, params string[] notes) =>
        new(Catalogue.Get(id), Catalogue.Get(id).Readings[0], [.. notes.Select(Pitch.Parse)], Tuning.Standard);

    private static readonly string[] FirstFive = ["C4", "D4", "E4", "F4", "G4"];

    [Fact]
    public void The_seven_combinations_come_in_order_and_backward()
    {
        var prompts = HandTrainer.Prompts(HandDrill.Get("in-order"), Trained("trumpet-bb"), new Random(1));
        Assert.Equal(["0", "2", "1", "1-2", "2-3", "1-3", "1-2-3"], prompts.Take(7).Select(prompt => prompt.Answer));
        Assert.Equal(14, prompts.Count);
        Assert.Equal(
            ["1-2-3", "1-3", "2-3"],
            HandTrainer.Prompts(HandDrill.Get("backward"), Trained("trumpet-bb"), new Random(1)).Take(3).Select(prompt => prompt.Answer)
        );
    }

    [Fact]
    public void A_slide_is_only_asked_as_far_as_the_arm_reaches() =>
        Assert.All(
            HandTrainer.Prompts(
                HandDrill.Get("called"),
                Trained("trombone") with
                {
                    Hand = Hand.Free with { ReachCm = 40 },
                },
                new Random(3)
            ),
            prompt => Assert.InRange(int.Parse(prompt.Answer, System.Globalization.CultureInfo.InvariantCulture), 1, 5)
        );

    [Fact]
    public void Nothing_follows_itself_and_every_answer_is_the_finders()
    {
        foreach (var drill in HandDrill.All.Where(drill => !drill.Slide))
        {
            var prompts = HandTrainer.Prompts(drill, Trained("trumpet-bb", FirstFive), new Random(5));
            Assert.Equal(drill.Count, prompts.Count);
            Assert.All(prompts, prompt => Assert.Contains(prompt.Answer, prompt.Accepted));
            if (drill.Task is not (HandTask.InOrder or HandTask.Backward))
                Assert.All(prompts.Zip(prompts.Skip(1)), pair => Assert.NotEqual(pair.First.Item, pair.Second.Item));
        }

        Assert.All(
            HandTrainer.Prompts(HandDrill.Get("by-note"), Trained("trumpet-bb", FirstFive), new Random(5)),
            prompt =>
                Assert.Equal(
                    FingeringFinder
                        .Find(Catalogue.Get("trumpet-bb"), Catalogue.Get("trumpet-bb").Readings[0], prompt.Written!.Value)[0]
                        .Setting.ToString(),
                    prompt.Answer
                )
        );
    }

    [Fact]
    public void What_is_due_comes_first_and_drills_follow_each_other_as_the_instrument_has_them()
    {
        var (trumpet, trombone) = (Catalogue.Get("trumpet-bb"), Catalogue.Get("trombone"));
        Assert.Equal("by-note", HandDrill.First(trumpet, isDue: true, "called").Id);
        Assert.Equal("called", HandDrill.First(trumpet, isDue: false, "called").Id);
        Assert.Equal(HandDrill.All[0], HandDrill.First(trumpet, isDue: false, null));
        Assert.DoesNotContain(HandDrill.For(trumpet), drill => drill.Slide);
        Assert.Equal(HandDrill.All, HandDrill.For(trombone));
        Assert.All(
            HandDrill.For(trombone).Zip(HandDrill.For(trombone).Skip(1)),
            pair => Assert.Equal(pair.Second, pair.First.Next(trombone))
        );
        Assert.Null(HandDrill.For(trumpet)[^1].Next(trumpet));
    }

    [Fact]
    public void An_answer_is_told_at_once_with_what_was_set_or_how_far_off()
    {
        var valves = HandTrainer.Prompts(HandDrill.Get("by-note"), Trained("trumpet-bb", "C4", "D4"), new Random(1))[1];
        Assert.Equal($"{valves.Answer}: yes. A step on paper, another partial for the lips.", valves.Words.Right);
        Assert.Equal($"{valves.Answer} it was; you set {{given}}.", valves.Words.Above);
        var slide = HandTrainer.Prompts(HandDrill.All.First(drill => drill.Slide), Trained("trombone"), new Random(1))[0];
        Assert.Equal("{off} cm too far out.", slide.Words.Above);
        Assert.Equal("{off} cm too far in.", slide.Words.Below);
        Assert.Equal("1-2 to 2-3: 1.4 s, missed 1 of 5", new HandChange("1-2", "2-3", 1.42, 5, 1).Words);
    }

    [Fact]
    public void A_flat_adds_one()
    {
        var prompts = HandTrainer.Prompts(HandDrill.Get("one-lower"), Trained("trombone", "Bb2", "F3", "Bb3"), new Random(2));
        Assert.All(prompts, prompt => Assert.Equal("2", prompt.Answer));
    }

    [Fact]
    public void A_step_that_hides_another_partial_is_marked()
    {
        // Common practice: on the trumpet C4 to D4 is a step on paper, and from partial 2 to 3 for the lips.
        var prompts = HandTrainer.Prompts(HandDrill.Get("by-note"), Trained("trumpet-bb", "C4", "D4"), new Random(1));
        Assert.All(prompts.Skip(1), prompt => Assert.True(prompt.HidesChange));
        Assert.All(
            HandTrainer.Prompts(HandDrill.Get("by-note"), Trained("trumpet-bb", "D4", "E4"), new Random(1)),
            prompt => Assert.False(prompt.HidesChange)
        );
    }

    [Fact]
    public void What_is_missed_or_slow_comes_more_often()
    {
        HandMark[] marks =
        [
            .. Enumerable
                .Range(0, 6)
                .SelectMany(_ =>
                    new[] { "0", "2", "1", "1-2", "1-3", "1-2-3" }.Select(setting => new HandMark(setting, setting, "0", setting, 1, true))
                ),
            .. Enumerable.Range(0, 6).Select(_ => new HandMark("2-3", "2-3", "1-2", "1-3", 4, false)),
        ];
        var prompts = Enumerable
            .Range(0, 40)
            .SelectMany(seed =>
                HandTrainer.Prompts(HandDrill.Get("called"), Trained("trumpet-bb") with { Marks = marks }, new Random(seed))
            )
            .ToList();
        var weak = prompts.Count(prompt => prompt.Answer == "2-3");
        Assert.True(weak > 2 * prompts.Count / 7.0, $"{weak} of {prompts.Count}");
    }

    [Fact]
    public void The_slide_is_judged_in_centimetres()
    {
        var prompt = HandTrainer.Prompts(HandDrill.Get("by-eye"), Trained("trombone"), new Random(1)).First(prompt => prompt.Answer == "4");
        Assert.Equal(26.0, prompt.Cm!.Value, 0.05);
        Assert.True(prompt.Accepts("27.5", 2));
        Assert.False(prompt.Accepts("29", 2));
        Assert.False(prompt.Accepts("", 2));
        Assert.Contains(
            "needs a slide",
            Assert
                .Throws<ArgumentException>(() => HandTrainer.Prompts(HandDrill.Get("by-eye"), Trained("trumpet-bb"), new Random(1)))
                .Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_gate_is_seven_in_twenty_seconds_and_the_slowest_change_is_named()
    {
        static HandMark[] Marks(double seconds, double slow) =>
            [
                .. HandTrainer
                    .Order(Catalogue.Get("trumpet-bb"), Hand.Free)
                    .Select(setting => setting.ToString())
                    .Aggregate(
                        new List<HandMark>(),
                        (list, setting) =>
                            [
                                .. list,
                                new HandMark(
                                    setting,
                                    setting,
                                    list.Count == 0 ? "" : list[^1].Answer,
                                    setting,
                                    setting == "2-3" ? slow : seconds,
                                    true
                                ),
                            ]
                    ),
            ];

        var quick = HandOutcome.Of(HandDrill.Get("in-order"), Marks(1.5, 4));
        Assert.True(quick.Passed);
        Assert.Equal(("1-2", "2-3"), (quick.Weakest[0].From, quick.Weakest[0].To));
        Assert.Contains("1-2 to 2-3", quick.Next, StringComparison.Ordinal);
        Assert.False(HandOutcome.Of(HandDrill.Get("in-order"), Marks(3.5, 4)).Passed);
        Assert.False(HandOutcome.Of(HandDrill.Get("in-order"), []).Passed);
    }

    [Theory]
    [InlineData(true, 1, RecallGrade.Good)]
    [InlineData(true, 2.1, RecallGrade.Hard)]
    [InlineData(true, 0.5, RecallGrade.Easy)]
    [InlineData(false, 1, RecallGrade.Again)]
    public void Time_makes_the_grade(bool right, double seconds, RecallGrade grade) =>
        Assert.Equal(grade, HandRecall.Grade(new HandMark("D4", "1-3", "0", "1-3", seconds, right), 1));
}
