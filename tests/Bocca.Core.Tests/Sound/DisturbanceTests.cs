using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using MathNet.Numerics.IntegralTransforms;

namespace Bocca.Core.Tests.Sound;

/// <summary>What is no buzz is told by name and not judged; the sounds are made here, from what is known of them.</summary>
public sealed class DisturbanceTests
{
    private const int Rate = 44100;
    private const double Seconds = 32;
    private static readonly BuzzDrill Drill = BuzzDrill.Get("sound4-rest4");

    [Fact]
    public void A_muted_microphone() => Expect(DisturbanceKind.Muted, Made((_, _) => 0));

    [Fact]
    public void A_silent_room() => Expect(DisturbanceKind.Silence, Made((_, random) => 0.0005 * Noise(random)));

    [Theory]
    [InlineData(50)]
    [InlineData(60)]
    [InlineData(100)]
    public void Mains_hum(double hertz) =>
        Expect(
            DisturbanceKind.Hum,
            Made(
                (t, random) =>
                    (0.05 * Math.Sin(2 * Math.PI * hertz * t))
                    + (0.02 * Math.Sin(4 * Math.PI * hertz * t))
                    + (0.01 * Math.Sin(6 * Math.PI * hertz * t))
                    + (0.001 * Noise(random))
            )
        );

    /// <summary>Rumble over it, as of traffic, hides the hum most of the time.</summary>
    [Fact]
    public void Mains_hum_under_rumble()
    {
        var (random, rumble) = (new Random(4), 0.0);
        var samples = new float[8 * Rate];
        for (var i = 0; i < samples.Length; i++)
        {
            rumble = (0.998 * rumble) + (0.0045 * Noise(random));
            var t = (double)i / Rate;
            samples[i] = (float)((0.05 * Math.Sin(2 * Math.PI * 50 * t)) + (0.03 * Math.Sin(2 * Math.PI * 100 * t)) + rumble);
        }

        var sound = new MonoSound(samples, Rate);
        Assert.InRange(PitchTrack.Of(sound).Frames.Count(frame => frame.Voiced) / 800.0, 0.1, 0.6);
        Expect(DisturbanceKind.Hum, sound);
    }

    [Fact]
    public void A_clipped_take() => Expect(DisturbanceKind.Clipped, Take([Fault.Parse("clipped=20")]));

    [Fact]
    public void A_microphone_pulled_out_in_mid_take()
    {
        var samples = Take([]).Samples.ToArray();
        Array.Clear(samples, samples.Length / 2, samples.Length - (samples.Length / 2));
        Expect(DisturbanceKind.Unplugged, new MonoSound(samples, Rate));
    }

    [Fact]
    public void A_link_of_8000_samples_a_second_even_in_a_file_of_44100() => Expect(DisturbanceKind.Narrow, Below(Take([]), 3900));

    // Syllables of a fifth of a second, three or four a second, each sliding by a third or so: common practice of speech.
    [Theory]
    [InlineData(110)]
    [InlineData(220)]
    public void Speech(double hertz)
    {
        var phase = 0.0;
        var (spoken, start, slide) = (-1, 0.0, 0.0);
        Expect(
            DisturbanceKind.Speech,
            Made(
                (t, random) =>
                {
                    var syllable = (int)(t / 0.29);
                    var within = (t / 0.29) - syllable;
                    if (syllable != spoken)
                    {
                        var voice = new Random(syllable);
                        (spoken, start, slide) = (syllable, voice.NextDouble() * 6, 2 + (voice.NextDouble() * 3));
                    }

                    phase += 2 * Math.PI * hertz * Math.Pow(2, (start - (slide * within)) / 12) / Rate;
                    var loud = within < 0.7 && syllable % 7 != 6 ? Math.Sin(Math.PI * within / 0.7) : 0;
                    return (0.1 * loud * ((Math.Exp(8 * (Math.Cos(phase) - 1)) * 2) - 0.4)) + (0.001 * Noise(random));
                }
            )
        );
    }

    [Fact]
    public void Music_in_the_room()
    {
        int[] tune = [0, 4, 7, 4, 9, 5, 2, 7];
        Expect(
            DisturbanceKind.Music,
            Made(
                (t, random) =>
                {
                    var hertz = 220 * Math.Pow(2, tune[(int)(t / 0.5) % tune.Length] / 12.0);
                    return (0.1 * Math.Sin(2 * Math.PI * hertz * t)) + (0.04 * Math.Sin(4 * Math.PI * hertz * t)) + (0.001 * Noise(random));
                }
            )
        );
    }

    [Theory]
    [InlineData("tuba-bb-3v", "")]
    [InlineData("trumpet-bb", "air-first=700")]
    [InlineData("horn-f", "wander=120")]
    [InlineData("trombone", "wobble=90")]
    [InlineData("euphonium-4v-comp", "silent=1@1,2,3")]
    public void A_buzz_is_none_of_these(string id, string fault)
    {
        var take = SimulatedPlayer.Play(
            Catalogue.Get(id),
            SoundStage.Mouthpiece,
            Drill.Plan,
            fault == "" ? [] : [Fault.Parse(fault)],
            4,
            Tuning.Standard
        );
        Assert.NotEqual(Outcome.CannotTell, Hear(take.Sound).Outcome);
    }

    private static void Expect(DisturbanceKind kind, MonoSound sound)
    {
        var found = Disturbance.Find(
            sound,
            PitchTrack.Of(sound),
            [.. Drill.Plan.Cues.Select(cue => (cue + 4.5, cue + 7.5))],
            voiceAsked: false
        );
        Assert.Equal(kind, found?.Kind);
        var verdict = Hear(sound with { CueSeconds = Drill.Plan.Cues });
        Assert.Equal(Outcome.CannotTell, verdict.Outcome);
        Assert.Empty(verdict.Findings);
        Assert.Equal(found!.Remedy, verdict.Next.Cue);
    }

    private static Verdict Hear(MonoSound sound) =>
        TakeListener
            .Hear(sound, new AskedTake(Drill, Drill.Plan, SoundStage.Mouthpiece, LearningStage.FirstNotes), SoundingPupil.Unknown)
            .Verdict;

    private static MonoSound Take(IReadOnlyList<Fault> faults) =>
        SimulatedPlayer.Play(Catalogue.Get("trumpet-bb"), SoundStage.Mouthpiece, Drill.Plan, faults, 4, Tuning.Standard).Sound;

    private static MonoSound Made(Func<double, Random, double> sample)
    {
        var random = new Random(1);
        return new MonoSound([.. Enumerable.Range(0, (int)(Seconds * Rate)).Select(i => (float)sample((double)i / Rate, random))], Rate);
    }

    private static double Noise(Random random) => (2 * random.NextDouble()) - 1;

    /// <summary>Everything over a frequency taken out, block by block.</summary>
    private static MonoSound Below(MonoSound sound, double hertz)
    {
        const int Block = 1 << 17;
        var samples = new float[sound.Samples.Length];
        for (var start = 0; start < samples.Length; start += Block)
        {
            var bins = new System.Numerics.Complex[Block];
            for (var i = 0; i < Block && start + i < samples.Length; i++)
                bins[i] = sound.Samples[start + i];
            Fourier.Forward(bins);
            for (var bin = (int)(hertz * Block / Rate); bin <= Block - (int)(hertz * Block / Rate); bin++)
                bins[bin] = 0;
            Fourier.Inverse(bins);
            for (var i = 0; i < Block && start + i < samples.Length; i++)
                samples[start + i] = (float)bins[i].Real;
        }

        return sound with
        {
            Samples = samples,
        };
    }
}
