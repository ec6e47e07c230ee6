using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Bench;

/// <summary>
/// What is told of notes that only the sound itself can show: going to and fro between two partials, two players at once, clicks between
/// the notes. Rows of four, played by plain sums of sines in noise, by nothing of Bocca's own player; prints how often each is told.
/// </summary>
public static class HeardOutcomes
{
    private const int Rate = 44100,
        Notes = 4;
    private const double Beat = 0.75,
        Sounding = 0.6,
        Lead = 0.5,
        NoiseHeight = 0.004;

    private static readonly string[] Cases =
    [
        "as asked",
        "clicks between the notes",
        "to and fro between two partials",
        "two players, a third apart",
        "two players, a fifth apart",
    ];

    /// <summary>Prints the table.</summary>
    /// <param name="seeds">Rows of each case on each instrument.</param>
    public static void Run(int seeds)
    {
        Console.WriteLine("| played | notes | right | to and fro, both named | two pitches, not judged | other | sounds beside |");
        Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
        foreach (var played in Cases)
        {
            var told = new Dictionary<string, int>();
            var extra = 0;
            foreach (var instrument in Catalogue.All)
                for (var seed = 0; seed < seeds; seed++)
                    extra += Row(instrument, played, new Random(seed), told);
            var all = told.Values.Sum();
            string Share(string word) => $"{100.0 * told.GetValueOrDefault(word) / all:0.0} %";
            Console.WriteLine($"| {played} | {all} | {Share("right")} | {Share("flips")} | {Share("two")} | {Share("other")} | {extra} |");
        }
    }

    private static int Row(Instrument instrument, string played, Random random, Dictionary<string, int> told)
    {
        var player = new PlayerSituation(instrument, instrument.Readings[0], Tuning.Standard);
        var chart = FingeringChart
            .Of(instrument, player.Reading)
            .Select(note => MeantNote.Of(instrument, player.Reading, note.Written))
            .Where(note => note.Partial is >= 2 and <= 6)
            .ToList();
        var meant = Enumerable.Range(0, Notes).Select(_ => chart[random.Next(chart.Count)]).ToList();
        var asked = new AskedRow(RowPlan.Even(meant, 60 / Beat, 1), player, LearningStage.Second) { FirstCueSeconds = Lead };
        var row = RowListener.Hear(Play(meant, player, played, random), asked);
        foreach (var note in row.Notes)
        {
            var word = Told(note.Judged);
            told[word] = told.GetValueOrDefault(word) + 1;
        }

        return row.Extra.Count;
    }

    private static string Told(JudgedNote judged) =>
        judged switch
        {
            { Outcome: NoteOutcome.Right } => "right",
            { Outcome: NoteOutcome.NoClearTone } when judged.Sentence.Contains("to and fro", StringComparison.Ordinal) => "flips",
            { Outcome: NoteOutcome.CannotTell } when judged.Sentence.Contains("two pitches", StringComparison.Ordinal) => "two",
            _ => "other",
        };

    private static MonoSound Play(List<MeantNote> meant, PlayerSituation player, string played, Random random)
    {
        var samples = new float[(int)((Lead + (Notes * Beat) + 0.5) * Rate)];
        for (var i = 0; i < meant.Count; i++)
        {
            var (note, start) = (meant[i], Lead + (i * Beat));
            var (own, above) = (player.Hertz(note.Tube, note.Partial), player.Hertz(note.Tube, note.Partial + 1));
            // Four changes a second, each note as long as the other.
            Add(
                samples,
                start,
                at => played.StartsWith("to", StringComparison.Ordinal) && (int)(at / 0.125) % 2 == 1 ? above : own,
                random
            );
            if (played.StartsWith("two", StringComparison.Ordinal))
            {
                // Two players meet within some cents.
                var meets = Math.Pow(2, 8 * ((2 * random.NextDouble()) - 1) / 1200);
                Add(samples, start, _ => own * meets * (played.Contains("third", StringComparison.Ordinal) ? 1.25 : 1.5), random);
            }

            if (played.StartsWith("clicks", StringComparison.Ordinal))
                Click(samples, start + Sounding + 0.05, random);
        }

        for (var i = 0; i < samples.Length; i++)
            samples[i] += (float)(NoiseHeight * ((2 * random.NextDouble()) - 1));
        return new MonoSound(samples, Rate);
    }

    private static void Add(float[] samples, double start, Func<double, double> hertz, Random random)
    {
        const int Harmonics = 10;
        var phase = Enumerable.Range(0, Harmonics).Select(_ => random.NextDouble()).ToArray();
        var (from, count, turns) = ((int)(start * Rate), (int)(Sounding * Rate), 0.0);
        for (var i = 0; i < count; i++)
        {
            turns += hertz((double)i / Rate) / Rate;
            var height = 0.15 * Math.Min(1, Math.Min(i / (0.02 * Rate), (count - i) / (0.03 * Rate)));
            var value = 0.0;
            for (var harmonic = 1; harmonic <= Harmonics; harmonic++)
                value += Math.Sin(2 * Math.PI * ((harmonic * turns) + phase[harmonic - 1])) / harmonic;
            samples[from + i] += (float)(height * value);
        }
    }

    /// <summary>What a valve or a key does: a burst of noise on a short ringing of its own.</summary>
    private static void Click(float[] samples, double start, Random random)
    {
        var (from, hertz) = ((int)(start * Rate), 150 + (900 * random.NextDouble()));
        for (var i = 0; i < 0.06 * Rate && from + i < samples.Length; i++)
        {
            var t = (double)i / Rate;
            samples[from + i] += (float)(
                (0.2 * Math.Exp(-t / 0.012) * Math.Sin(2 * Math.PI * hertz * t))
                + (0.15 * Math.Exp(-t / 0.004) * ((2 * random.NextDouble()) - 1))
            );
        }
    }
}
