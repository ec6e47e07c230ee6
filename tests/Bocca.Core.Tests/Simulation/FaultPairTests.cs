using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tests.Simulation;

public sealed class FaultPairTests
{
    public static TheoryData<string> Pairs => [.. FaultPair.All.Where(pair => pair.HearsOwn).Select(pair => pair.Id)];

    /// <summary>What a pupil is to hear, the listener hears: the fault in the one with it, and not in the other.</summary>
    [Theory, MemberData(nameof(Pairs))]
    public void Every_pair_is_told_apart_by_the_listener(string id)
    {
        var pair = FaultPair.Get(id);
        foreach (var name in new[] { "trumpet-bb", "trombone", "horn-f", "tuba-bb-4v" })
        {
            var instrument = Catalogue.Get(name);
            var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
            var note = MeantNote.Of(instrument, player.Reading, player.Reading.ToWritten(StartNotes.Of(instrument).ConcertBb));
            foreach (var faulty in new[] { true, false })
            {
                var (row, faults) = pair.Play(Tuning.Standard.Frequency(note.Sounding), faulty);
                var sound = SimulatedPlayer.PlayRow(instrument, row, FaultPair.Tempo, faults, 4).Sound;
                var (verdict, found) = pair.Hear(sound, 60 / FaultPair.Tempo, note, player, LearningStage.Second, SoundingPupil.Unknown);
                Assert.True(
                    found is not null == faulty,
                    $"{id} on {name}, {(faulty ? "with" : "without")}: {string.Join(" ", verdict.Findings.Select(each => each.Symptom.Id))}"
                );
            }
        }
    }
}
