using BenchmarkDotNet.Attributes;
using Bocca.Core.Instruments;
using Bocca.Core.Score;
using Bocca.Core.Slurs;
using Bocca.Core.Teaching;

namespace Bocca.Bench;

/// <summary>
/// A thousand slurs written, weighed and set as a score; the score's text alone, of one note a thousand times, is the reference.
/// </summary>
[MemoryDiagnoser]
public class SlurBenchmarks
{
    private const int Count = 1000;

    [Benchmark(Baseline = true, Description = "a score of a thousand measures with a note each")]
    public int Plain() =>
        MusicXmlWriter
            .Write(
                new MusicScore(
                    "",
                    72,
                    [
                        new ScorePart(
                            "",
                            Bocca.Core.Music.Clef.Treble,
                            default,
                            [.. Enumerable.Repeat(ScoreMeasure.Row(new ScoreNote(Bocca.Core.Music.Pitch.FromMidi(60), 2)), Count)]
                        ),
                    ]
                )
            )
            .Length;

    [Benchmark(Description = "a thousand slurs, with difficulty, as a score")]
    public int Slurs()
    {
        var length = 0;
        var left = Count;
        foreach (var instrument in Catalogue.All)
        {
            var player = SlurPlayer.Of(
                instrument,
                instrument.Readings[0],
                LearningStage.Pieces,
                Approach.Of(ApproachPreset.MouthpieceFirst)
            );
            var slurs = SlurWriter.All(player).Take(left).ToList();
            length +=
                slurs.Count(slur => SlurDifficulty.Of(slur, player, 72).Points > 5)
                + MusicXmlWriter.Write(SlurScore.Of("", player, slurs, 72)).Length;
            if ((left -= slurs.Count) <= 0)
                return length;
        }

        throw new InvalidOperationException($"{left} slurs too few.");
    }
}
