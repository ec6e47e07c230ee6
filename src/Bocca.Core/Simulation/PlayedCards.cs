using Bocca.Core.Counting;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Simulation;

/// <summary>Rhythm cards played on an instrument as they should be, by the practice player.</summary>
public static class PlayedCards
{
    /// <summary>The share of its length that a note sounds: the next one is tongued.</summary>
    private const double Share = 0.85;

    /// <summary>
    /// Plays a row of cards: on their own notes where it is asked so and they have some, else on the note that beginners start from.
    /// </summary>
    /// <param name="asked">The row, with something to play in it.</param>
    /// <param name="instrument">What it is played on.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="tuning">The room's.</param>
    /// <param name="seed">The same seed makes the same sound.</param>
    /// <returns>The sound, from the first beat on; its notes speak on their beats.</returns>
    public static MonoSound Play(CountAsked asked, Instrument instrument, Reading reading, Tuning tuning, int seed)
    {
        var start = StartNotes.Of(instrument).ConcertBb;
        var tones = Tones(asked);
        var ends = tones.Select(tone => tone.Beat).Skip(1).Append(asked.TotalBeats);
        var row = tones.Zip(
            ends,
            (tone, end) =>
            {
                var pitch = asked.Ways.HasFlag(CountWays.OnNotes) && tone.Written is { } written ? reading.ToSounding(written) : start;
                return new PlayedNote(tuning.Frequency(pitch), end - tone.Beat, Share * tone.Beats / (end - tone.Beat), false);
            }
        );
        // Played with a beat of rest before, so that it can begin as much earlier as the lips take to speak: who plays in time does.
        var take = SimulatedPlayer.PlayRow(instrument, [.. row], asked.Tempo, [], seed, 1 + (tones.Count > 0 ? tones[0].Beat : 0));
        var late = take.Tones.Zip(tones, (sounded, tone) => sounded.BegunSeconds - ((1 + tone.Beat) * asked.BeatSeconds)).ToList();
        var first = asked.BeatSeconds + (late.Count > 0 ? late.Median() : 0);
        return take.Sound with { Samples = take.Sound.Samples[(int)(first * take.Sound.SampleRate)..] };
    }

    /// <summary>What begins: at which beat of the row, how many beats it lasts with what is tied to it, and its note.</summary>
    private static List<(double Beat, double Beats, Pitch? Written)> Tones(CountAsked asked)
    {
        var tones = new List<(double Beat, double Beats, Pitch? Written)>();
        foreach (var (at, card) in asked.Cards.Index())
        foreach (var note in card.Notes)
        {
            var beats = note.Length.Value / asked.Metre.Beat.Value;
            if (note.Begins)
                tones.Add(((asked.StartSeconds(at) / asked.BeatSeconds) + (note.At.Value / asked.Metre.Beat.Value), beats, note.Written));
            else if (note.TiedFromBefore && tones is [.., var before])
                tones[^1] = before with { Beats = before.Beats + beats };
        }

        return tones;
    }
}
