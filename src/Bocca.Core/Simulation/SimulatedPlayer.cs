using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;

namespace Bocca.Core.Simulation;

/// <summary>A tone as the practice player meant it, for checking what is heard.</summary>
/// <param name="StartSeconds">When the tone is to be heard: a third of its amplitude, after any air.</param>
/// <param name="EndSeconds">When it has fallen to a third.</param>
/// <param name="FrequencyHz">Its frequency before drift, wobble and the like.</param>
public sealed record SimulatedTone(double StartSeconds, double EndSeconds, double FrequencyHz)
{
    /// <summary>When it comes out of the silence or the air before it: a twentieth of its amplitude.</summary>
    public double BegunSeconds { get; init; }
}

/// <summary>What the practice player played.</summary>
/// <param name="Sound">The sound.</param>
/// <param name="Tones">Its tones, in order; a silent try has none.</param>
public sealed record SimulatedTake(MonoSound Sound, IReadOnlyList<SimulatedTone> Tones);

/// <summary>
/// The practice player: a stand-in for a pupil and a microphone. It makes lip-like pulses with jitter, shimmer and
/// breath noise, and known faults in known amounts. The same seed gives the same samples.
/// </summary>
public static class SimulatedPlayer
{
    /// <summary>Samples a second of what it plays.</summary>
    public const int SampleRate = 44100;

    /// <summary>How far a note reaches past its length: lips take about as long to speak.</summary>
    private const double TouchSeconds = 0.05;

    /// <summary>The pitch a beginner of an instrument first aims at, in hertz: the first of its first notes.</summary>
    public static double StartHz(Instrument instrument, Tuning tuning) => tuning.Frequency(instrument.FirstNotes[0]);

    /// <summary>Plays a take about the beginner's first note in a tuning.</summary>
    public static SimulatedTake Play(
        Instrument instrument,
        SoundStage stage,
        CuePlan plan,
        IReadOnlyList<Fault> faults,
        int seed,
        Tuning tuning
    ) => Play(instrument, stage, plan, faults, seed, StartHz(instrument, tuning));

    /// <summary>Plays a take.</summary>
    /// <param name="instrument">What it is played on.</param>
    /// <param name="stage">What it is played on: lips are dull and rough, an instrument clear and bright.</param>
    /// <param name="plan">When each try is due.</param>
    /// <param name="faults">What goes wrong.</param>
    /// <param name="seed">Same seed, same samples.</param>
    /// <param name="hertz">The middle pitch.</param>
    public static SimulatedTake Play(
        Instrument instrument,
        SoundStage stage,
        CuePlan plan,
        IReadOnlyList<Fault> faults,
        int seed,
        double hertz
    )
    {
        var random = new Random(seed);
        var samples = Room(random, plan.TotalSeconds);
        var tones = new List<SimulatedTone>();
        for (var attempt = 1; attempt <= plan.Times; attempt++)
        {
            var cue = plan.Tries[attempt - 1];
            double Amount(FaultKind kind) => faults.Where(fault => fault.Kind == kind && fault.Befalls(attempt)).Sum(fault => fault.Amount);
            var buzz = new SimulatedBuzz(cue.On ?? stage, instrument, hertz, cue.Heights, cue.Glides, Amount, random);
            if (buzz.AddTo(samples, plan.Cues[attempt - 1], plan.SecondsOf(cue)) is { } tone)
                tones.Add(tone);
        }

        return new SimulatedTake(new MonoSound(Recorded(samples, faults), SampleRate, plan.Cues), tones);
    }

    /// <summary>Plays a row of notes on the instrument, after some rest and with a beat of it afterwards.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="notes">The notes.</param>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="faults">What goes wrong with the sound; tries are notes.</param>
    /// <param name="seed">Same seed, same samples.</param>
    /// <param name="restBeats">Beats of rest before the first note.</param>
    public static SimulatedTake PlayRow(
        Instrument instrument,
        IReadOnlyList<PlayedNote> notes,
        double tempo,
        IReadOnlyList<Fault> faults,
        int seed,
        double restBeats = 1
    )
    {
        var (random, beat) = (new Random(seed), 60 / tempo);
        var samples = Room(random, (notes.Sum(note => note.Beats) + restBeats + 1) * beat);
        var tones = new List<SimulatedTone>();
        var starts = new List<double>();
        for (var (first, at) = (0, restBeats * beat); first < notes.Count; )
        {
            // Slurred notes are one tone whose height steps.
            var last = first;
            while (last + 1 < notes.Count && notes[last].SlurredToNext)
                last++;
            var group = notes.Skip(first).Take(last - first + 1).ToList();
            double Amount(FaultKind kind) =>
                faults.Where(fault => fault.Kind == kind && fault.Befalls(first + 1)).Sum(fault => fault.Amount);
            IReadOnlyList<double> heights = group[0].Heights ?? Heights(group);
            // What lips take to speak is made up at the end, unless the tongue closes it.
            var touch = Amount(FaultKind.ClosedEnd) == 0 ? TouchSeconds : 0;
            var tone = new SimulatedBuzz(
                SoundStage.Instrument,
                instrument,
                group[0].Hertz,
                heights,
                glides: group[0].Heights is not null,
                Amount,
                random
            ).AddTo(samples, at, touch + ((group.SkipLast(1).Sum(note => note.Beats) + (group[^1].Beats * group[^1].Share)) * beat));
            if (tone is not null)
                tones.Add(tone);
            foreach (var note in group)
            {
                starts.Add(at);
                at += note.Beats * beat;
            }

            first = last + 1;
        }

        return new SimulatedTake(new MonoSound(Recorded(samples, faults), SampleRate, starts), tones);
    }

    /// <summary>The heights of slurred notes in equal steps of time: a note twice as long as the shortest stands there twice.</summary>
    private static List<double> Heights(List<PlayedNote> group)
    {
        var lengths = group.Select((note, i) => i + 1 < group.Count ? note.Beats : note.Beats * note.Share).ToList();
        var step = lengths.Min();
        return
        [
            .. group.SelectMany(
                (note, i) =>
                    Enumerable.Repeat(Tuning.Cents(group[0].Hertz, note.Hertz) / 100, Math.Max(1, (int)Math.Round(lengths[i] / step)))
            ),
        ];
    }

    /// <summary>A recording of the room alone.</summary>
    private static float[] Room(Random random, double seconds)
    {
        var samples = new float[(int)Math.Ceiling(seconds * SampleRate)];
        var room = new BreathNoise(random, 0.0004);
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)room.Next();
        return samples;
    }

    /// <summary>What a recording keeps of it: too loud a sound is cut off.</summary>
    private static float[] Recorded(float[] samples, IReadOnlyList<Fault> faults)
    {
        var gain = Math.Pow(10, faults.Where(fault => fault.Kind == FaultKind.Clipped).Sum(fault => fault.Amount) / 20);
        // A usual take peaks near a quarter of full scale.
        var loud = gain > 1 ? 4 * gain : 1;
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)Math.Clamp(samples[i] * loud, -1, 1);
        return samples;
    }
}
