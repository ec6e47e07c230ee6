using Bocca.Core.Practice;

namespace Bocca.Core.Tests.Practice;

/// <summary>The recall schedule beside ts-fsrs 5.4.2 (npm; FSRS-6 with its default parameters, no fuzz), which made these values.</summary>
public sealed class RecallTests
{
    // Days since the answer before, grade, then stability, difficulty and days until due as that package gives them.
    [Theory]
    [InlineData("0 3 2.3065 2.11810397 2|3 3 13.82690327 2.11121424 14|8 4 66.71021003 1 67|30 3 162.71177458 1 163")]
    [InlineData(
        "0 1 0.212 6.4133 1|0 3 0.24668919 6.40211507 1|1 2 1.31404672 7.59678469 1|4 1 0.44357449 9.19530784 1|1 3 1.27797453 9.1813409 1"
    )]
    [InlineData(
        "0 2 1.2931 5.11217071 1|2 3 6.57470191 5.10228691 7|0 3 6.57470191 5.09241299 7|10 1 1.17151339 8.37213789 1|0 3 1.21817825 "
            + "8.35899412 1|3 4 6.79872318 7.79587479 7"
    )]
    [InlineData("0 4 8.2956 1 8|20 3 63.44573842 1 63|60 2 162.35570418 4.01060897 162")]
    public void Goes_as_the_reference_goes(string answers)
    {
        Recall? known = null;
        foreach (
            var answer in answers
                .Split('|')
                .Select(answer =>
                    answer.Split(' ').Select(number => double.Parse(number, System.Globalization.CultureInfo.InvariantCulture)).ToArray()
                )
        )
        {
            var grade = (RecallGrade)(int)answer[1];
            known = known?.After((int)answer[0], grade) ?? Recall.First(grade);
            Assert.Equal(answer[2], known.Value.StabilityDays, 1e-4 * answer[2]);
            Assert.Equal(answer[3], known.Value.Difficulty, 1e-4);
            Assert.Equal((int)answer[4], known.Value.DaysUntilDue);
        }
    }

    // From the same package: forgetting curve after 10 days.
    [Theory]
    [InlineData(2.3065, 0.77436692)]
    [InlineData(13.82690327, 0.92068408)]
    [InlineData(0.212, 0.5518455)]
    public void Is_forgotten_as_the_reference_forgets(double stability, double likelihood) =>
        Assert.Equal(likelihood, new Recall(stability, 5).LikelihoodAfter(10), 1e-6);

    [Fact]
    public void An_answer_is_counted_in_whole_days_and_due_on_a_day()
    {
        var monday = new DateOnly(2026, 3, 2);
        var (first, due) = Recall.Answered(null, default, monday, RecallGrade.Good);
        Assert.Equal((Recall.First(RecallGrade.Good), monday.AddDays(2)), (first, due));
        Assert.Equal(first.After(2, RecallGrade.Good), Recall.Answered(first, monday, due, RecallGrade.Good).Recall);
        // A clock set back makes it the same day.
        Assert.Equal(first.After(0, RecallGrade.Good), Recall.Answered(first, monday, monday.AddDays(-3), RecallGrade.Good).Recall);
    }

    [Fact]
    public void Days_do_not_run_backward() =>
        Assert.Throws<ArgumentOutOfRangeException>(() => Recall.First(RecallGrade.Good).After(-1, RecallGrade.Good));
}
