using Bocca.Core.Health;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Health;

/// <summary>Complaints, the day they leave, and the clock of playing and rest (common practice).</summary>
public sealed class HealthTests
{
    private static readonly DateTime Noon = new(2026, 11, 3, 12, 0, 0, DateTimeKind.Utc);

    private static HealthDay Told(params string[] today) => new([.. today.Select(Tap)], [], MouthNote.None);

    private static HealthTap Tap(string id) => new(Complaint.Find(id)!, Noon);

    [Theory]
    [InlineData("lipsSore", true, true, false)]
    [InlineData("lipsNumb", true, true, false)]
    [InlineData("lipCut", true, true, false)]
    [InlineData("lipsSwollen", true, true, false)]
    [InlineData("earJaw", true, true, true)]
    [InlineData("noseAir", true, true, true)]
    [InlineData("headache", true, true, true)]
    [InlineData("fever", true, true, true)]
    [InlineData("chestIll", true, true, true)]
    [InlineData("sore", true, true, true)]
    [InlineData("dizzy", false, true, false)]
    [InlineData("lipsTingle", false, false, false)]
    [InlineData("newBraces", false, false, false)]
    [InlineData("coldSore", false, false, false)]
    public void What_hurts_ends_the_day_and_what_tingles_shortens_it(string id, bool playing, bool breath, bool hands)
    {
        var (day, later) = (Told(id), Noon.AddHours(2));
        Assert.Equal(playing, day.Refusal(HealthActivity.Playing, later) is not null);
        Assert.Equal(breath, day.Refusal(HealthActivity.Breathing, later) is not null);
        Assert.Equal(hands, day.Refusal(HealthActivity.Hands, later) is not null);
        Assert.NotEmpty(day.Words);
    }

    [Fact]
    public void Light_headed_means_five_minutes_of_rest_before_anything()
    {
        var day = Told("dizzy");
        Assert.Contains("2 minutes more", day.Refusal(HealthActivity.Playing, Noon.AddMinutes(3)));
        Assert.Null(day.Refusal(HealthActivity.Playing, Noon.AddMinutes(5)));
        Assert.Contains("Sit down. Breathe as usual. Tell an adult.", day.Refusal(HealthActivity.Breathing, Noon.AddHours(5)));
    }

    [Fact]
    public void Sore_lips_halve_the_next_day_and_a_second_day_goes_to_the_teacher()
    {
        var after = new HealthDay([], [Tap("lipsSore")], MouthNote.None);
        Assert.True(after.Halves);
        Assert.Null(after.Refusal(HealthActivity.Playing, Noon));
        var again = new HealthDay([Tap("lipsSore")], [Tap("lipsNumb")], MouthNote.None);
        Assert.Contains("The second day: show your teacher before you play again.", again.Words);
        Assert.DoesNotContain(Told("lipsSore").Words, words => words.Contains("second day"));
    }

    [Fact]
    public void A_complaint_that_ends_more_is_said_before_one_that_ends_less() =>
        Assert.Equal("fever", Told("lipsSore", "fever", "dizzy").Ends!.Id);

    [Theory]
    [InlineData(LearningStage.FirstNotes, 3, 120, 120)]
    [InlineData(LearningStage.FirstNotes, 7, 240, 60)]
    [InlineData(LearningStage.Second, 200, 600, 120)]
    [InlineData(LearningStage.Pieces, 500, 900, 180)]
    public void Minutes_on_and_off_go_by_the_stage(LearningStage stage, int days, double on, double off)
    {
        var limits = PlayingLimits.For(stage, days);
        Assert.Equal((on, off), (limits.OnSeconds, limits.OffSeconds));
        Assert.Equal((on / 2, 2 * off), (limits.Halved.OnSeconds, limits.Halved.OffSeconds));
    }

    [Fact]
    public void Takes_of_all_stops_add_up_until_a_rest_was_long_enough()
    {
        var limits = PlayingLimits.For(LearningStage.FirstNotes, 30);
        // Three takes of 70 s, ten seconds apart; then a minute's rest, then one of 40 s.
        PlayedSpan[] played = [new(Noon, 70, 70, 0), new(Noon.AddSeconds(80), 70, 70, 0), new(Noon.AddSeconds(160), 70, 70, 0)];
        var clock = PlayingClock.Of(played, limits, Noon.AddSeconds(170));
        Assert.Equal(210, clock.OnSeconds);
        Assert.Null(clock.Refusal(30, 0, Noon.AddSeconds(170)));
        var wait = clock.Refusal(31, 0, Noon.AddSeconds(170))!.Value;
        Assert.Equal(50, wait.RestSeconds);
        Assert.Equal("Instrument down: you have played 3 min 30 s. Rest for 50 seconds.", wait.Sentence);
        Assert.Equal(0, PlayingClock.Of(played, limits, Noon.AddSeconds(220)).OnSeconds);
        var later = PlayingClock.Of([.. played, new(Noon.AddSeconds(270), 40, 40, 0)], limits, Noon.AddSeconds(280));
        Assert.Equal(40, later.OnSeconds);
    }

    [Fact]
    public void What_alone_is_longer_than_the_limit_is_never_begun() =>
        Assert.Contains(
            "two minutes at a time".Replace("two", "2"),
            PlayingClock.Fresh(PlayingLimits.For(LearningStage.FirstNotes, 0)).Refusal(121, 0, Noon)!.Value.Sentence
        );

    [Fact]
    public void Above_the_ceiling_two_minutes_a_day_are_the_most()
    {
        var limits = PlayingLimits.For(LearningStage.Second, 100);
        var clock = PlayingClock.Of([new(Noon.AddHours(-3), 110, 110, 110)], limits, Noon);
        Assert.Null(clock.Refusal(60, 10, Noon));
        Assert.Contains("above the ceiling", clock.Refusal(60, 11, Noon)!.Value.Sentence);
        Assert.Null(clock.Refusal(60, 0, Noon));
    }

    [Fact]
    public void A_rest_as_long_as_the_sound_before_it_is_rest_and_a_shorter_one_is_playing()
    {
        Assert.Equal(16, PlayingClock.PlayedSeconds(new CuePlan(60, 4, 4, 4)));
        Assert.Equal(28, PlayingClock.PlayedSeconds(new CuePlan(60, 4, 3, 4)));
    }

    /// <summary>What hurts is never given a dose or a name, only whom to ask: it teaches and never diagnoses.</summary>
    [Fact]
    public void Every_complaint_says_what_to_do_and_whoever_hurts_is_sent_to_an_adult_a_dentist_or_a_doctor()
    {
        foreach (var complaint in Complaint.All)
        {
            Assert.NotEmpty(complaint.Say);
            if (complaint.Effect >= HealthEffect.LocksBreath)
                Assert.Matches("adult|teacher|dentist|doctor", complaint.Words);
        }
    }

    [Fact]
    public void A_consent_holds_from_its_first_day_to_its_last()
    {
        var consent = new HealthConsent("her mother", new DateOnly(2026, 9, 1), new DateOnly(2027, 7, 31), "", false);
        Assert.False(consent.InForce(new DateOnly(2026, 8, 31)));
        Assert.True(consent.InForce(new DateOnly(2027, 7, 31)));
        Assert.False(consent.InForce(new DateOnly(2027, 8, 1)));
    }
}
