using Bocca.Core.Counting;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Sound;
using Bocca.Core.Tests.Sound;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Counting;

/// <summary>Cards on notes: written, read back, and heard on plain sums of sines that nothing of ours made.</summary>
public sealed class CardPitchesTests
{
    private const int Rate = 44100;
    private const double Lead = 1;
    private static readonly Partials Ninefold = new(9, k => 1.0 / k, k => k);

    [Theory]
    [InlineData("q.:C4 e:D4 q:E4 r", "q. e q r")]
    [InlineData("3(e:C4 e:Eb4 e:F#4) q:G4 h:C5", "3(e e e) q h")]
    [InlineData("h:C4~ q re e:D4", "h~ q re e")]
    public void A_card_with_notes_is_read_and_has_its_rhythm(string text, string rhythm)
    {
        var card = RhythmCard.Parse(text, Metre.Common);
        Assert.Equal((text, rhythm), (card.Text, card.Rhythm));
        Assert.Equal(card.Onsets.Count(), card.Written.Count);
        Assert.Equal(text, RhythmCard.Parse(rhythm, Metre.Common).On(card.Written).Text);
    }

    [Theory]
    [InlineData("q:C4 q q q", "of none")]
    [InlineData("q:C4 rq:D4 h:C4", "a rest has no note")]
    [InlineData("h:C4~ h:C4", "name it once")]
    [InlineData("q:H4 q q q", "no value on a note")]
    [InlineData(":C4 q q q", "no value on a note")]
    public void What_is_no_card_on_notes_says_why(string text, string why) =>
        Assert.Contains(
            why,
            Assert.Throws<ArgumentException>(() => RhythmCard.Parse(text, Metre.Common)).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public void A_card_without_notes_is_not_heard_on_notes()
    {
        var asked = new CountAsked([RhythmCard.Parse("q q q q", Metre.Common)], 80, 0, CountWays.Played | CountWays.OnNotes);
        var refused = Assert.Throws<ArgumentException>(() => CountListener.Hear(new MonoSound(new float[Rate], Rate), asked, null, 60));
        Assert.StartsWith("These cards have no notes", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Notes_that_are_written_for_a_card_go_by_steps_and_come_home()
    {
        Pitch[] scale = [.. "C4 D4 E4 F4 G4".Split(' ').Select(Pitch.Parse)];
        for (var seed = 0; seed < 200; seed++)
        {
            var card = CardPitches.Written(CardWriter.Write(Metre.Common, [.. RhythmValue.All.Take(5)], 2, seed), scale, seed);
            var places = card.Written.Select(note => Array.IndexOf(scale, note)).ToList();
            if (places.Count == 0)
                continue;
            Assert.Equal((0, 0), (places[0], places[^1]));
            Assert.All(places.Zip(places.Skip(1)), step => Assert.InRange(Math.Abs(step.First - step.Second), 0, 1));
        }
    }

    [Fact]
    public void A_card_with_notes_is_engraved_with_them()
    {
        var score = CardScore.Write(RhythmCard.Parse("q:F#4 q:F#4 q:F4 q:C4", Metre.Common), [], Clef.Bass);
        var xml = System.Xml.Linq.XDocument.Parse(score);
        Assert.Equal(["sharp", "natural"], xml.Descendants("accidental").Select(sign => sign.Value));
        Assert.Equal(["F", "F", "F", "C"], xml.Descendants("step").Select(step => step.Value));
        Assert.Equal("F", xml.Descendants("sign").Single().Value);
        Assert.Empty(xml.Descendants("staff-lines"));
    }

    [Theory]
    [InlineData("trumpet-bb", "q.:C4 e:D4 q:E4 q:C4")]
    [InlineData("trombone", "q:Bb2 e:C3 e:D3 q:F3 r")]
    public void Played_on_its_notes_rhythm_and_notes_are_told_apart(string id, string text)
    {
        var instrument = Catalogue.Get(id);
        var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var card = RhythmCard.Parse(text, Metre.Common);
        Assert.Equal(
            "Played right: every note came in its place.",
            Hear(card, player, card.Written, late: 0) is var right && right.Passed ? right.Sentence : right.Sentence + " (not passed)"
        );
        Assert.All(right.Notes, note => Assert.Equal(NoteOutcome.Right, note?.Outcome));

        // A third too high, in its place: the rhythm stands.
        List<Pitch> other = [.. card.Written];
        other[2] = Pitch.FromMidi(other[2].Midi + 4);
        var wrong = Hear(card, player, other, late: 0);
        Assert.False(wrong.Passed);
        Assert.True(wrong.ClappedPassed);
        Assert.Contains($" {card.Written[2]}: ", wrong.Sentence, StringComparison.Ordinal);
        Assert.Equal([0, 1, 3], Enumerable.Range(0, 4).Where(i => wrong.Notes[i]?.Outcome == NoteOutcome.Right));

        // Where nobody says when the first was due, it was due when it came.
        Assert.True(Hear(card, player, card.Written, late: 0, due: null).Passed);

        // The second 150 ms late, and right: the notes stand.
        var late = Hear(card, player, card.Written, late: 0.15);
        Assert.True(late.NotesPassed);
        Assert.False(late.ClappedPassed);
    }

    private static HeardCount Hear(RhythmCard card, PlayerSituation player, IReadOnlyList<Pitch> played, double late, double? due = Lead)
    {
        var asked = new CountAsked([card], 80, 0, CountWays.Played | CountWays.OnNotes);
        var samples = new float[(int)((Lead + (asked.TotalBeats * asked.BeatSeconds) + 0.5) * Rate)];
        var random = new Random(2);
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)(0.0005 * ((2 * random.NextDouble()) - 1));
        var begun = 0;
        foreach (var note in card.Notes.Where(note => note.Begins))
        {
            var start = Lead + (note.At.Value * asked.QuarterSeconds) + (begun == 1 ? late : 0);
            var seconds = (note.Length.Value * asked.QuarterSeconds) - 0.08 - (begun == 1 ? late : 0);
            Add(samples, player.Tuning.Frequency(player.Reading.ToSounding(played[begun++])), start, seconds);
        }

        return CountListener.Hear(new MonoSound(samples, Rate), asked, due, 60, null, player);
    }

    private static void Add(float[] into, double hertz, double start, double seconds)
    {
        for (var i = 0; i < seconds * Rate; i++)
        {
            var t = (double)i / Rate;
            var height = 0.12 * Math.Clamp(Math.Min(t / 0.012, (seconds - t) / 0.03), 0, 1);
            into[(int)(start * Rate) + i] += (float)(height * Ninefold.At(2 * Math.PI * hertz * t));
        }
    }
}
