using Bocca.Core.Counting;
using Bocca.Core.Sound;

namespace Bocca.Core.Simulation;

/// <summary>How a stand-in says and claps a card.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Name">Its name for people.</param>
public sealed record CountCharacter(string Id, string Name)
{
    /// <summary>Which onset has no clap, from 0; none below 0.</summary>
    public int MissingClap { get; init; } = -1;

    /// <summary>Which onset is clapped late, and by how much, seconds.</summary>
    public (int At, double Seconds) LateClap { get; init; } = (-1, 0);

    /// <summary>Whether an extra clap comes between.</summary>
    public bool ExtraClap { get; init; }

    /// <summary>Which onset is not said, from 0; none below 0.</summary>
    public int MissingWord { get; init; } = -1;

    /// <summary>How much faster it gets over the card, a share of the tempo.</summary>
    public double Rush { get; init; }

    /// <summary>Whether what stands off the beat is drawn to two thirds of it.</summary>
    public bool Swings { get; init; }

    /// <summary>All of them.</summary>
    public static IReadOnlyList<CountCharacter> All { get; } =
    [
        new("right", "says and claps it right"),
        new("clap-missing", "leaves a clap out") { MissingClap = 1 },
        new("clap-late", "claps one late") { LateClap = (1, 0.18) },
        new("clap-extra", "claps once too often") { ExtraClap = true },
        new("word-missing", "leaves a count out") { MissingWord = 1 },
        new("rushes", "gets faster") { Rush = 0.15 },
        new("swings", "swings what is off the beat") { Swings = true },
    ];

    /// <summary>The one of this name.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static CountCharacter Get(string id) =>
        All.FirstOrDefault(each => each.Id == id) ?? throw new ArgumentException($"The practice player does not know '{id}'.");
}

/// <summary>
/// A voice that counts and two hands that clap, in one sound: each syllable is a short vowel of <see cref="SungVoice"/> behind a breath of
/// noise, each clap a burst of noise that is over in 30 ms. A stand-in for a pupil, with faults that are known.
/// </summary>
public static class ClappingHands
{
    private const int Rate = 44100;

    /// <summary>A syllable is no longer than this, seconds.</summary>
    private const double LongestSyllable = 0.22;

    /// <summary>Says and claps a row of cards.</summary>
    /// <param name="asked">The row.</param>
    /// <param name="how">How.</param>
    /// <param name="seed">The same seed makes the same sound.</param>
    /// <returns>The sound, from the first beat on less <paramref name="leadSeconds"/>.</returns>
    /// <param name="leadSeconds">Rest before it.</param>
    public static MonoSound Play(CountAsked asked, CountCharacter how, int seed, double leadSeconds)
    {
        const double Tail = 0.6;
        var random = new Random(seed);
        var total = asked.TotalBeats * asked.BeatSeconds;
        var samples = new float[(int)((leadSeconds + total + Tail) * Rate)];
        for (var i = 0; i < samples.Length; i++)
            samples[i] = (float)(0.0005 * ((2 * random.NextDouble()) - 1));
        for (var card = 0; card < asked.Cards.Count; card++)
        {
            var due = asked.Cards[card].Onsets.Select(at => at.Value).ToList();
            var start = asked.StartSeconds(card);
            for (var i = 0; i < due.Count; i++)
            {
                double At(double quarter) => leadSeconds + Rushed(start + (Swung(quarter, asked, how) * asked.QuarterSeconds), total, how);
                var shortest = (i + 1 < due.Count ? due[i + 1] - due[i] : 1) * asked.QuarterSeconds;
                if (asked.Ways.HasFlag(CountWays.Said) && i != how.MissingWord)
                    Say(samples, At(due[i]) + (0.008 * Normal(random)), Math.Min(LongestSyllable, 0.7 * shortest), random);
                if (asked.Ways.HasFlag(CountWays.Clapped) && i != how.MissingClap)
                    Clap(samples, At(due[i]) + (i == how.LateClap.At ? how.LateClap.Seconds : 0) + (0.008 * Normal(random)), random);
            }

            if (how.ExtraClap && asked.Ways.HasFlag(CountWays.Clapped))
                Clap(samples, leadSeconds + start + ((due[0] + 0.5) * asked.QuarterSeconds), random);
        }

        return new MonoSound(samples, Rate, [leadSeconds]);
    }

    private static double Swung(double quarter, CountAsked asked, CountCharacter how)
    {
        var beats = quarter / asked.Metre.Beat.Value;
        var within = beats - Math.Floor(beats);
        return how.Swings && Math.Abs(within - 0.5) < 0.01 ? quarter + (asked.Metre.Beat.Value / 6) : quarter;
    }

    private static double Rushed(double seconds, double total, CountCharacter how) => seconds * (1 - (how.Rush * seconds / total / 2));

    private static void Say(float[] into, double at, double seconds, Random random)
    {
        const double Hiss = 0.04;
        for (var i = 0; i < (int)(Hiss * Rate); i++)
            Add(into, at - Hiss, i, 0.02 * ((2 * random.NextDouble()) - 1) * i / (Hiss * Rate));
        var vowel = SungVoice.Vowels[random.Next(SungVoice.Vowels.Count)];
        var tone = SungVoice.Sing([new SungTone(230 + (40 * random.NextDouble()), seconds, vowel)], Rate, random);
        for (var i = 0; i < tone.Length; i++)
            Add(into, at, i, 0.5 * tone[i]);
    }

    private static void Clap(float[] into, double at, Random random)
    {
        const double Decay = 0.006,
            Length = 0.05;
        double low = 0;
        for (var i = 0; i < (int)(Length * Rate); i++)
        {
            var noise = (2 * random.NextDouble()) - 1;
            low += 0.12 * (noise - low);
            Add(into, at, i, 0.7 * Math.Exp(-i / (Decay * Rate)) * (noise - low));
        }
    }

    private static void Add(float[] into, double at, int i, double value)
    {
        var place = (int)(at * Rate) + i;
        if (place >= 0 && place < into.Length)
            into[place] = (float)Math.Clamp(into[place] + value, -1, 1);
    }

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
