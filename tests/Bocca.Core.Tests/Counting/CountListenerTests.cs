using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;

namespace Bocca.Core.Tests.Counting;

public sealed class CountListenerTests
{
    private const double Lead = 1;

    private static CountAsked Asked(string card, CountWays ways = CountWays.Said | CountWays.Clapped, double tempo = 80) =>
        new([RhythmCard.Parse(card, Metre.Common)], tempo, 0, ways);

    [Theory]
    [InlineData("right", "Said and clapped right.")]
    [InlineData("clap-missing", "Clap missing on the & of 2; said right.")]
    [InlineData("clap-extra", "1 clap too many; said right.")]
    [InlineData("word-missing", "Count missing on the & of 2; clapped right.")]
    public void What_the_stand_in_does_is_told(string character, string sentence)
    {
        var asked = Asked("q. e q q");
        for (var seed = 0; seed < 6; seed++)
        {
            var sound = ClappingHands.Play(asked, CountCharacter.Get(character), seed, Lead);
            Assert.Equal(sentence, CountListener.Hear(sound, asked, Lead, 60).Sentence);
        }
    }

    [Fact]
    public void A_late_clap_has_its_milliseconds_and_the_voice_its_own_verdict()
    {
        var asked = Asked("q. e q q");
        var heard = CountListener.Hear(ClappingHands.Play(asked, CountCharacter.Get("clap-late"), 3, Lead), asked, Lead, 60);
        Assert.True(heard.SaidPassed);
        Assert.False(heard.ClappedPassed);
        Assert.InRange(heard.Cards[0].Clapped!.Beats[1].ErrorMs!.Value, 150, 210);
        Assert.Matches("^Clap on the & of 2 1[5-9][0-9]|20[0-9] ms late; said right.$", heard.Sentence);
    }

    [Fact]
    public void Two_cards_with_a_gap_are_each_judged_on_their_own_grid()
    {
        CountAsked asked = new(
            [RhythmCard.Parse("q q h", Metre.Common), RhythmCard.Parse("q. e h", Metre.Common)],
            96,
            2,
            CountWays.Clapped
        );
        var heard = CountListener.Hear(ClappingHands.Play(asked, CountCharacter.Get("clap-missing"), 1, Lead), asked, Lead, 60);
        Assert.Equal(2, heard.Cards.Count);
        Assert.Equal([true, false, true], heard.Cards[0].Clapped!.Beats.Select(beat => beat.ErrorMs is not null));
        Assert.Equal([true, false, true], heard.Cards[1].Clapped!.Beats.Select(beat => beat.ErrorMs is not null));
        Assert.Equal("Clap missing on 2, card 1.", heard.Sentence);
    }

    [Fact]
    public void Taps_are_laid_on_the_same_grid_and_a_stuck_key_is_said()
    {
        var asked = Asked("q. e q q", CountWays.Tapped);
        var sound = new MonoSound([.. Noise(4)], 44100);
        var beat = asked.BeatSeconds;
        var taps = new[] { 0, 1.5, 2, 3 }.Select(at => Lead + (at * beat) + 0.02).ToList();
        Assert.True(CountListener.Hear(sound, asked, Lead, 60, taps).Passed);
        // A room in which nothing sounds is no matter where nothing was to sound.
        Assert.True(CountListener.Hear(new MonoSound(new float[sound.Samples.Length], 44100), asked, Lead, 60, taps).Passed);
        Assert.Equal("Tap missing on the & of 2.", CountListener.Hear(sound, asked, Lead, 60, [taps[0], taps[2], taps[3]]).Sentence);
        var stuck = Enumerable.Range(0, 60).Select(i => Lead + (i * 0.033)).ToList();
        Assert.Contains("stuck", CountListener.Hear(sound, asked, Lead, 60, stuck).Problem, StringComparison.Ordinal);
    }

    [Fact]
    public void Two_who_clap_and_a_metronome_are_said_and_not_judged()
    {
        var asked = Asked("h h", CountWays.Clapped, 90);
        var clicks = ClappingHands.Play(Asked("q q q q", CountWays.Clapped, 90), CountCharacter.Get("right"), 2, Lead);
        // A stand-in is not as even as a machine: that is what a metronome is known by.
        Assert.Null(CountListener.Hear(clicks, Asked("q q q q", CountWays.Clapped, 90), Lead, 60).Problem);
        var quarters = Asked("q q q q", CountWays.Clapped, 70);
        var one = ClappingHands.Play(quarters, CountCharacter.Get("right"), 4, Lead);
        var other = ClappingHands.Play(quarters, CountCharacter.Get("right"), 5, Lead + 0.08);
        var both = new MonoSound([.. one.Samples.Zip(other.Samples, (a, b) => Math.Clamp(a + b, -1, 1))], one.SampleRate);
        Assert.Contains("two people", CountListener.Hear(both, quarters, Lead, 60).Problem, StringComparison.Ordinal);
    }

    [Fact]
    public void A_cough_is_no_clap_and_no_count()
    {
        var random = new Random(1);
        var samples = Noise(4).ToArray();
        // Noise that swells for 60 ms and dies away for 250.
        for (var i = 0; i < (int)(0.31 * 44100); i++)
            samples[(int)(1.9 * 44100) + i] += (float)(
                0.5 * ((2 * random.NextDouble()) - 1) * Math.Min(1, i / (0.06 * 44100)) * Math.Exp(-i / (0.1 * 44100))
            );
        var sound = new MonoSound(samples, 44100);
        Assert.Empty(ClapFinder.Find(sound));
        Assert.Equal("No count was heard.", CountListener.Hear(sound, Asked("q q q q", CountWays.Said), Lead, 60).Sentence);
    }

    private static IEnumerable<float> Noise(double seconds)
    {
        var random = new Random(11);
        return Enumerable.Range(0, (int)(seconds * 44100)).Select(_ => (float)(0.003 * ((2 * random.NextDouble()) - 1)));
    }
}
