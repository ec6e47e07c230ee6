using Bocca.Core.Instruments;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tests.Slurs;

/// <summary>What comes next: the pupil's own success, the map, the slurs of a day.</summary>
public sealed class SlurDayTests
{
    private static readonly DateTime Now = new(2026, 3, 5, 16, 0, 0, DateTimeKind.Utc);

    private static SlurPlayer Player(LearningStage stage = LearningStage.Second) =>
        SlurPlayer.Of(
            Catalogue.Get("trumpet-bb"),
            Catalogue.Get("trumpet-bb").Readings[0],
            stage,
            Approach.Of(ApproachPreset.MouthpieceFirst)
        );

    private static SlurTry Try(int low, double difficulty, bool clean, int daysAgo = 1) =>
        new($"pair:0:{low}", [(low, low + 1)], difficulty, clean, Now.AddDays(-daysAgo));

    [Fact]
    public void Success_moves_the_ability_and_a_pair_that_breaks_stands_out()
    {
        var fresh = SlurSuccess.From([]);
        Assert.Equal(1 / (1 + Math.Exp(-2.6)), fresh.Likelihood(4, [(3, 4)]), 1e-9);
        var good = SlurSuccess.From([.. Enumerable.Range(0, 12).Select(_ => Try(3, 4, true))]);
        Assert.True(good.Likelihood(4, [(3, 4)]) > 0.85);
        Assert.True(good.Likelihood(8, [(3, 4)]) < good.Likelihood(4, [(3, 4)]));
        var mixed = SlurSuccess.From([
            .. Enumerable.Range(0, 10).Select(_ => Try(3, 4, true)),
            .. Enumerable.Range(0, 10).Select(_ => Try(4, 4, false)),
        ]);
        Assert.True(mixed.Likelihood(4, [(3, 4)]) > mixed.Likelihood(4, [(4, 5)]) + 0.3);
    }

    [Fact]
    public void The_likeliest_ability_is_found()
    {
        // With one pair and no room for its own ease the slope of the posterior is nought at the ability found.
        SlurTry[] tries = [.. Enumerable.Range(0, 9).Select(i => new SlurTry("x", [], 4 + i, i < 5, Now))];
        var success = SlurSuccess.From(tries);
        var slope = ((4 - success.Ability) / 6.25) + tries.Sum(each => (each.Clean ? 1 : 0) - success.Likelihood(each.Difficulty, []));
        Assert.Equal(0, slope, 1e-6);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(2)]
    public void A_day_has_three_to_five_slurs_each_with_its_reason_inside_the_minutes(int history)
    {
        SlurTry[] tries = history switch
        {
            0 => [],
            1 => [.. Enumerable.Range(0, 8).Select(i => Try(3, 9, true, 8 - (i / 2)))],
            _ => [.. Enumerable.Range(0, 8).Select(i => Try(3, 9, i % 2 == 0)), .. Enumerable.Range(0, 6).Select(_ => Try(2, 9, false))],
        };
        var day = SlurDay.Of(Player(), tries, Now, 80, 6);
        Assert.InRange(day.Slurs.Count, 3, 5);
        Assert.True(day.Seconds <= 360);
        Assert.All(day.Slurs, chosen => Assert.False(string.IsNullOrWhiteSpace(chosen.Reason)));
        Assert.Equal(day.Slurs.Count, day.Slurs.Select(chosen => chosen.Slur.Id).Distinct().Count());
        Assert.Equal(day.Slurs.Select(chosen => chosen.Difficulty.Points).Order(), day.Slurs.Select(chosen => chosen.Difficulty.Points));
        // The lips are what a day of slurs is for: at most one that changes valves.
        Assert.InRange(day.Slurs.Count(chosen => chosen.Slur.Shape.Neighbours), 0, 1);
        if (history == 1)
            Assert.Contains(day.Slurs, chosen => chosen.Reason.StartsWith("Due", StringComparison.Ordinal));
        Assert.Contains(
            day.Slurs,
            chosen =>
                chosen.Reason.StartsWith("New and harder", StringComparison.Ordinal)
                || chosen.Reason.StartsWith("Nearly", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Tired_lips_get_nothing_high_and_nothing_new()
    {
        var day = SlurDay.Of(Player(), [], Now, 80, 6, tired: true);
        Assert.All(day.Slurs, chosen => Assert.True(chosen.Slur.Notes.Max(note => note.Sounding.Midi) <= Player().Comfortable.Midi));
        Assert.DoesNotContain(day.Slurs, chosen => chosen.Reason.StartsWith("New and harder", StringComparison.Ordinal));
        Assert.Contains("Tired", day.Note, StringComparison.Ordinal);
    }

    [Fact]
    public void A_day_without_room_says_so()
    {
        Assert.NotEqual("", SlurDay.Of(Player(), [], Now, 60, 0.5).Note);
        var one = Player() with { Range = new PlayingRange(Player().Range.Lowest, Player().Range.Lowest) };
        Assert.Empty(SlurDay.Of(one, [], Now, 80, 6).Slurs);
    }

    // Wilson 1927, 8 of 10 at 90 %: 0.541 to 0.931 (computed from the formula).
    [Fact]
    public void The_map_says_how_sure_it_is_and_where_the_wall_is()
    {
        var map = SlurMap.Of(
            Player(LearningStage.Pieces),
            [
                .. Enumerable.Range(0, 10).Select(i => new SlurMap.Change("0", 3, 4, i < 8, Now)),
                .. Enumerable.Range(0, 8).Select(i => new SlurMap.Change("0", 4, 5, false, Now)),
            ]
        );
        var pair = map.Places.First(place => place is { Setting: "0", Low: 3 });
        Assert.Equal((10, 8), (pair.Tried, pair.Clean));
        Assert.Equal(0.541, pair.Between.Least, 0.001);
        Assert.Equal(0.931, pair.Between.Most, 0.001);
        Assert.True(pair.IsSafe);
        Assert.Equal((4, 5), (map.Wall!.Low, map.Wall.High));
        Assert.Contains(map.Places, place => place is { Setting: "1-3", Tried: 0, Last: null });
    }
}
