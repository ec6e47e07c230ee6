using Bocca.Core.Ear;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tests.Sound;

namespace Bocca.Core.Tests.Ear;

/// <summary>Sung and played notes against what was meant, and the staircase.</summary>
public sealed class EarTests
{
    private const int Rate = 44100;

    private static readonly Partials OpenVowel = new(12, k => Math.Pow(k, -1.3));
    private static readonly Instrument Trombone = Catalogue.Get("trombone");

    /// <summary>Three down, one up settles where 79.4 % come (published: Levitt 1971), on a simulated ear.</summary>
    [Fact]
    public void The_staircase_settles_where_four_in_five_come()
    {
        var (right, all) = (0, 0);
        for (var seed = 0; seed < 40; seed++)
        {
            var random = new Random(seed);
            var stair = new Staircase(0, 60);
            for (var answer = 0; answer < 2000; answer++)
            {
                var came = random.NextDouble() < 1 / (1 + Math.Exp((stair.Level - 30) / 6.0));
                if (answer >= 200)
                    (right, all) = (right + (came ? 1 : 0), all + 1);
                stair = stair.Answered(came);
            }
        }

        Assert.InRange((double)right / all, Staircase.Settles - 0.015, Staircase.Settles + 0.015);
        Assert.Equal(0.794, Staircase.Settles, 0.0005);
    }

    [Fact]
    public void A_staircase_stays_between_its_ends()
    {
        Assert.Equal(0, new Staircase(0, 3).Answered(false).Level);
        Assert.Equal(3, new Staircase(3, 3, 2).Answered(true).Level);
    }

    [Theory]
    [InlineData(0, EarOutcome.Right)]
    [InlineData(-40, EarOutcome.Right)]
    [InlineData(-65, EarOutcome.Flat)]
    [InlineData(65, EarOutcome.Sharp)]
    [InlineData(-100, EarOutcome.OtherNote)]
    public void A_sung_note_is_told_to_the_cent_and_octaves_apart_are_the_same(int cents, EarOutcome outcome)
    {
        foreach (var octave in new[] { 0, 1, 2 })
        {
            var heard = Hear("F3", EarBy.Voice, Note("F3", cents + (1200 * octave)));
            Assert.Equal((outcome, octave), (heard[0].Outcome, heard[0].Octaves));
            Assert.Equal(cents, heard[0].Cents!.Value, 3.0);
            Assert.Null(heard[0].Cm);
        }
    }

    /// <summary>Forty cents flat in second position is about 3.4 cm too far out (computed: 34.62 cents a centimetre and metre).</summary>
    [Fact]
    public void On_a_slide_it_is_said_how_far_and_which_way_and_an_octave_off_is_another_note()
    {
        var flat = Hear("E3", EarBy.Instrument, Note("E3", -40))[0];
        Assert.Equal(EarOutcome.Right, flat.Outcome);
        Assert.InRange(flat.Cm!.Value, -3.8, -3);
        Assert.Contains("cm in", flat.Sentence);
        Assert.Equal(EarOutcome.OtherNote, Hear("F3", EarBy.Instrument, Note("F3", 1200))[0].Outcome);
    }

    [Fact]
    public void What_was_left_out_is_nothing_and_what_was_too_much_is_passed_over()
    {
        var heard = Hear("F3 D3 E3 F3", EarBy.Voice, Note("F3", 0), Note("E3", -30), Note("F3", 10));
        Assert.Equal([EarOutcome.Right, EarOutcome.Nothing, EarOutcome.Right, EarOutcome.Right], heard.Select(note => note.Outcome));
        var more = Hear("F3 E3", EarBy.Voice, Note("F3", 0), Note("B2", 0, 0.25), Note("E3", 0));
        Assert.All(more, note => Assert.Equal(EarOutcome.Right, note.Outcome));
    }

    /// <summary>A child slides up to the note: the held part counts.</summary>
    [Fact]
    public void A_glide_up_to_the_note_is_not_the_note()
    {
        var hertz = Tuning.Standard.Frequency(Pitch.Parse("F3"));
        var glide = Tone(time => hertz * Math.Pow(2, (time < 0.25 ? -400 * (1 - (time / 0.25)) : 0) / 1200), 1.2);
        var heard = Hear("F3", EarBy.Voice, glide);
        Assert.Equal(EarOutcome.Right, heard[0].Outcome);
        Assert.Equal(0, heard[0].Cents!.Value, 5.0);
    }

    [Fact]
    public void Silence_and_noise_are_nothing()
    {
        var random = new Random(1);
        Assert.Equal(EarOutcome.Nothing, Hear("F3", EarBy.Voice, new float[Rate])[0].Outcome);
        Assert.Equal(
            EarOutcome.Nothing,
            Hear("F3", EarBy.Voice, [.. Enumerable.Range(0, Rate).Select(_ => 0.1f * (random.NextSingle() - 0.5f))])[0].Outcome
        );
    }

    private static IReadOnlyList<EarHeard> Hear(string targets, EarBy by, params float[][] notes)
    {
        var silence = new float[Rate / 5];
        float[] samples = [.. silence, .. notes.SelectMany(note => note.Concat(silence))];
        return EarListener.Hear(
            new MonoSound(samples, Rate),
            [.. targets.Split(' ').Select(Pitch.Parse)],
            Trombone,
            Trombone.Readings[0],
            Tuning.Standard,
            by
        );
    }

    private static float[] Note(string pitch, double cents, double seconds = 0.9)
    {
        var hertz = Tuning.Standard.Frequency(Pitch.Parse(pitch)) * Math.Pow(2, cents / 1200);
        return Tone(_ => hertz, seconds);
    }

    /// <summary>Harmonics that fall like a voice's on an open vowel, with a soft beginning and end.</summary>
    private static float[] Tone(Func<double, double> hertz, double seconds)
    {
        var samples = new float[(int)(seconds * Rate)];
        var phase = 0.0;
        for (var i = 0; i < samples.Length; i++)
        {
            var time = (double)i / Rate;
            phase += 2 * Math.PI * hertz(time) / Rate;
            var gain = 0.1 * Math.Min(1, Math.Min(time, seconds - time) / 0.05);
            samples[i] = (float)(gain * OpenVowel.At(phase));
        }

        return samples;
    }
}
