using Bocca.Core.Counting;
using Bocca.Core.Score;
using Bocca.Core.Sound;
using Bocca.Core.Tests.Sampled;

namespace Bocca.Bench;

/// <summary>
/// Said and clapped at once, by a synthesizer's voice and hands of noise: what is told apart, and how well it lies in time.
/// </summary>
public static class CountingTable
{
    private const double Found = 0.06;

    private static readonly string[] Voices = ["en", "en+f3", "en+m3", "en+f2", "en-us", "en+m7", "en+f4", "en-gb-scotland"];

    private static readonly string?[][] Cards =
    [
        ["one", null, "two", "and", "three", null, "four", null],
        ["ta", null, "ta", "ti", "ta", "ti", "ta", null],
        ["one", "and", "two", "and", "three", "and", "four", "and"],
        ["one", null, null, "and", "three", "and", null, null],
        ["ta", "te", "ta", "te", "ta", null, "ta", null],
    ];

    private sealed record Row(List<double> Errors, List<double> ClapErrors)
    {
        public int Syllables,
            Claps,
            SyllablesFound,
            ClapsFound,
            ExtraSyllables,
            ExtraClaps;
    }

    /// <summary>Makes and hears takes of every kind, and prints the table.</summary>
    public static int Run(int seeds)
    {
        var folder = Directory.CreateTempSubdirectory("bocca-counted").FullName;
        var rows = new SortedDictionary<string, Row>();
        var seed = 0;
        foreach (var (name, lag) in new[] { ("together", 0.0), ("together", 0.015), ("near", -0.06), ("near", 0.08), ("apart", 0.15) })
        foreach (var tempo in new[] { 60.0, 90, 120 })
        foreach (var noise in new double?[] { null, 20, 10 })
        foreach (var room in new[] { 0, 40 })
            for (var i = 0; i < seeds; i++, seed++)
            {
                // On a fast half-beat nothing is apart but what is half of that away.
                var apart = Math.Min(lag, 0.45 * 30 / tempo);
                var said = Cards[seed % Cards.Length];
                var how = new CountedHow(tempo, apart, noise, room, Voices[seed % Voices.Length], (seed % 3 * 4) - 6)
                {
                    Said = said,
                    Clapped = [.. said.Select(word => word is not null)],
                };
                var take = CountedTake.Make(how, seed, folder);
                var syllables = SyllableFinder.Find(take.Sound);
                var claps = ClapFinder.Find(take.Sound);
                foreach (var key in new[] { name, $"{name} {(noise is null ? "clean" : $"{noise} dB")}{(room > 0 ? " room" : "")}" })
                {
                    if (!rows.TryGetValue(key, out var row))
                        rows[key] = row = new Row([], []);
                    List<double> voice = [.. syllables.Select(each => each.Seconds)],
                        hands = [.. claps.Select(each => each.Seconds)];
                    Count(take.Vowels, voice, row.Errors, ref row.Syllables, ref row.SyllablesFound, ref row.ExtraSyllables);
                    Count(take.Claps, hands, row.ClapErrors, ref row.Claps, ref row.ClapsFound, ref row.ExtraClaps);
                }
            }

        Console.WriteLine("class                 said found % extra %   median   p95 ms | claps found % extra %   median   p95 ms");
        foreach (var (key, row) in rows)
            Console.WriteLine(
                $"{key, -20} {Told(row.Syllables, row.SyllablesFound, row.ExtraSyllables, row.Errors)} | "
                    + Told(row.Claps, row.ClapsFound, row.ExtraClaps, row.ClapErrors)
            );
        Missing(folder, 6 * seeds);
        return 0;

        static string Told(int all, int found, int extra, List<double> errors) =>
            $"{all, 5} {100.0 * found / all, 7:0.0} {100.0 * extra / all, 7:0.0} {Share(errors, 0.5), 8:0.0} {Share(errors, 0.95), 8:0.0}";
    }

    /// <summary>A card of which one clap is left out, said whole: how often exactly that one is missed, and another one is.</summary>
    private static void Missing(string folder, int takes)
    {
        string?[] said = ["one", null, null, "and", "three", null, "four", null];
        var card = RhythmCard.Parse("q. e q q", Metre.Common);
        int[] places = [0, 3, 4, 6];
        var (found, others, kept, saidRight) = (0, 0, 0, 0);
        var all = 0;
        foreach (var tempo in new[] { 60.0, 90, 120 })
        foreach (var noise in new double?[] { 20, 10 })
            for (var i = 0; i < takes; i++, all++)
            {
                var left = all % places.Length;
                var how = new CountedHow(
                    tempo,
                    (all % 5 * 0.012) - 0.02,
                    noise,
                    all % 2 * 40,
                    Voices[all % Voices.Length],
                    (all % 3 * 4) - 6
                )
                {
                    Said = said,
                    Clapped = [.. said.Select((word, at) => word is not null && at != places[left])],
                    Bars = 1,
                    Jitter = 0.01,
                };
                var asked = new CountAsked([card], tempo, 0, CountWays.Said | CountWays.Clapped);
                var heard = CountListener.Hear(CountedTake.Make(how, 5000 + all, folder).Sound, asked, CountedTake.LeadSeconds, 100);
                var claps = heard.Cards[0].Clapped!.Beats.Select(beat => beat.ErrorMs is not null).ToList();
                found += claps[left] ? 0 : 1;
                others += claps.Where((came, at) => !came && at != left).Count();
                kept += claps.Count - 1;
                saidRight += heard.SaidPassed == true ? 1 : 0;
            }

        Console.WriteLine(
            $"one clap left out: found {found} of {all}; others missed {others} of {kept}; said right {saidRight} of {all} (within 100 ms)"
        );
    }

    private static double Share(List<double> errors, double share)
    {
        var sorted = errors.Select(Math.Abs).Order().ToList();
        return sorted.Count == 0 ? double.NaN : 1000 * sorted[(int)(share * (sorted.Count - 1))];
    }

    private static void Count(
        IReadOnlyList<double> truth,
        List<double> heard,
        List<double> errors,
        ref int all,
        ref int found,
        ref int extra
    )
    {
        all += truth.Count;
        foreach (var at in truth)
        {
            if (heard.Count == 0 || heard.MinBy(each => Math.Abs(each - at)) is var nearest && Math.Abs(nearest - at) > Found)
                continue;
            found++;
            errors.Add(nearest - at);
            heard.Remove(nearest);
        }

        extra += heard.Count;
    }
}
