using Bocca.Core.Counting;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Simulation;

namespace Bocca.Core.Tests.Simulation;

public class PlayedCardsTests
{
    // Each beginning comes in its place: after a rest at the start, over a tie, and after beats counted between two cards.
    [Theory]
    [InlineData("trumpet-bb", 0, "q q q q")]
    [InlineData("trumpet-bb", 0, "rq q q q")]
    [InlineData("horn-f", 0, "rq q q q")]
    [InlineData("trombone", 0, "rh q q")]
    [InlineData("tuba-bb-3v", 0, "q q~ q q")]
    [InlineData("euphonium-4v-comp", 2, "rq q q q", "q q~ q rq")]
    [InlineData("trombone", 2, "q. e rh", "rq q h")]
    public void A_card_is_played_as_it_stands(string id, int gap, params string[] cards)
    {
        var instrument = Catalogue.Get(id);
        var asked = CountAsked.Of(cards, Metre.Common, 80, gap, CountWays.Played);
        for (var seed = 1; seed <= 3; seed++)
        {
            var heard = CountListener.Hear(
                PlayedCards.Play(asked, instrument, instrument.Readings[0], Tuning.Standard, seed),
                asked,
                0,
                60
            );
            Assert.True(heard.Passed, $"{seed}: {heard.Sentence}");
            Assert.Equal(cards.Length, heard.Cards.Count);
            foreach (var (card, text) in heard.Cards.Zip(asked.Cards))
                Assert.Equal(text.Onsets.Count(), card.Clapped!.Beats.Count(beat => beat.ErrorMs is >= -60 and <= 60));
        }
    }

    [Fact]
    public void Every_instrument_speaks_on_its_beats()
    {
        var asked = CountAsked.Of(["rq q q q", "q q~ q rq"], Metre.Common, 80, 2, CountWays.Played);
        Assert.All(
            Catalogue.All,
            each =>
                Assert.True(CountListener.Hear(PlayedCards.Play(asked, each, each.Readings[0], Tuning.Standard, 5), asked, 0, 60).Passed)
        );
    }

    [Fact]
    public void A_card_of_rests_is_silent()
    {
        var horn = Catalogue.Get("horn-f");
        var asked = CountAsked.Of(["rw"], Metre.Common, 80, 0, CountWays.Played);
        var sound = PlayedCards.Play(asked, horn, horn.Readings[0], Tuning.Standard, 1);
        Assert.DoesNotContain(Bocca.Core.Sound.PitchTrack.Of(sound).Frames, frame => frame.Voiced);
    }

    [Fact]
    public void A_tied_note_sounds_on_and_a_rest_does_not()
    {
        var trumpet = Catalogue.Get("trumpet-bb");
        double Sounding(string card) =>
            Bocca
                .Core.Sound.PitchTrack.Of(
                    PlayedCards.Play(
                        CountAsked.Of([card], Metre.Common, 60, 0, CountWays.Played),
                        trumpet,
                        trumpet.Readings[0],
                        Tuning.Standard,
                        1
                    )
                )
                .Frames.Count(frame => frame.Voiced) * Bocca.Core.Sound.PitchTrack.HopSeconds;
        // At 60 a minute: 0.85 of what is written, within a tenth of a second.
        Assert.Equal(0.85 * 4, Sounding("h~ h"), 0.1);
        Assert.Equal(0.85 * 2, Sounding("h rh"), 0.1);
    }
}
