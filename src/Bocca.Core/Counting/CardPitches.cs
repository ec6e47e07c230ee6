using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Counting;

/// <summary>Cards played on their notes: the rhythm is judged as ever, and each note that began against its own.</summary>
public static class CardPitches
{
    /// <summary>A sound belongs to a beginning that was found so near to its own (seconds).</summary>
    private const double SameSeconds = 0.03;

    /// <summary>A rhythm on notes that go by steps, from the first of a scale and back to it.</summary>
    /// <param name="card">The rhythm.</param>
    /// <param name="scale">The notes, as they are read, ascending; at least one.</param>
    /// <param name="seed">Another seed, other notes.</param>
    public static RhythmCard Written(RhythmCard card, IReadOnlyList<Pitch> scale, int seed)
    {
        var random = new Random(seed);
        var (count, at) = (card.Onsets.Count(), 0);
        var written = new List<Pitch>();
        for (var left = count - 1; left >= 0; left--)
        {
            written.Add(scale[at]);
            var next = at + (random.Next(3) - 1);
            // Home again in time.
            at = Math.Clamp(next, 0, Math.Min(scale.Count - 1, Math.Max(0, left - 1)));
        }

        return card.On(written);
    }

    /// <summary>Cards as they are, those of rhythm alone on notes of a scale: the same card comes on the same notes each time.</summary>
    /// <param name="cards">The cards.</param>
    /// <param name="scale">The notes, as they are read, ascending; at least one.</param>
    public static IEnumerable<RhythmCard> OnNotes(IEnumerable<RhythmCard> cards, IReadOnlyList<Pitch> scale) =>
        cards.Select(card => card.Written.Count > 0 ? card : Written(card, scale, card.Text.Sum(sign => sign)));

    /// <summary>Adds to what was heard of the rhythm what came of the notes.</summary>
    /// <param name="heard">The rhythm.</param>
    /// <param name="asked">What was asked: cards with notes.</param>
    /// <param name="sounded">The notes that were heard, from the first beat.</param>
    /// <param name="player">Who played.</param>
    public static HeardCount Judged(HeardCount heard, CountAsked asked, IReadOnlyList<SoundedNote> sounded, PlayerSituation player)
    {
        var notes = new List<JudgedNote?>();
        foreach (var (at, card) in heard.Cards.Index())
        foreach (var (beat, written) in (card.Clapped?.Beats ?? []).Zip(card.Card.Written))
        {
            var begun = asked.StartSeconds(at) + (beat.At.Value * asked.QuarterSeconds) + (beat.ErrorMs / 1000);
            var sound = begun is { } moment ? sounded.FirstOrDefault(each => Math.Abs(each.StartSeconds - moment) < SameSeconds) : null;
            var meant = MeantNote.Of(player.Instrument, player.Reading, written, player.Weights, player.Hand);
            notes.Add(sound is null ? null : NoteDecider.Decide(meant, sound.MedianHz, player));
        }

        var wrong = notes.Find(note => note is { Outcome: not NoteOutcome.Right });
        return heard with
        {
            Notes = notes,
            Sentence = wrong is null ? heard.Sentence : $"{heard.Sentence} {wrong.Meant.Written}: {wrong.Sentence}",
        };
    }
}
