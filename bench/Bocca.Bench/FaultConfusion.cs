using System.Collections.Concurrent;
using Bocca.Core.Buzz;
using Bocca.Core.Buzz.Drills;
using Bocca.Core.Buzz.Measures;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Simulation;
using Bocca.Core.Teaching;

namespace Bocca.Bench;

/// <summary>
/// Plays known faults, alone and in pairs, over many seeds and all families of instruments, and holds what was found
/// against what was played. Alone, the fault must be what is said first; of a pair, both must be found.
/// </summary>
internal static class FaultConfusion
{
    private static readonly string[] Instruments = ["trumpet-bb", "horn-f", "trombone", "euphonium-4v-comp", "tuba-bb-3v"];

    /// <summary>Each fault with the range of its amount and the symptom it should be found as.</summary>
    private static readonly (FaultKind Kind, double From, double To, string Symptom)[] Faults =
    [
        (FaultKind.AirFirst, 550, 900, "airFirst"),
        (FaultKind.Late, 400, 700, "late"),
        (FaultKind.SlowStart, 450, 700, "slowRise"),
        (FaultKind.Scoop, 300, 500, "scoop"),
        (FaultKind.Short, 0.35, 0.6, "short"),
        (FaultKind.Break, 120, 250, "breaks"),
        (FaultKind.PartialBelow, 0.35, 0.6, "fell"),
        (FaultKind.Wobble, 50, 90, "wobble"),
        (FaultKind.Wander, 80, 120, "wanders"),
        (FaultKind.Drift, -70, -40, "sags"),
        (FaultKind.Drift, 40, 70, "climbs"),
        (FaultKind.Fade, 5, 9, "fades"),
        (FaultKind.Uneven, 220, 320, "uneven"),
        (FaultKind.Airy, 12, 16, "airy"),
        (FaultKind.Pinched, 0.6, 0.8, "pinched"),
        (FaultKind.Silent, 0.5, 0.5, "airOnly"),
    ];

    /// <summary>Pairs that cannot be played at once, or of which one hides the other by its nature.</summary>
    private static readonly (string, string)[] Apart =
    [
        ("sags", "climbs"),
        ("airy", "pinched"),
        ("fell", "sags"),
        ("fell", "climbs"),
        ("fell", "wobble"),
        ("fell", "wanders"),
        ("fell", "scoop"),
        ("slowRise", "scoop"),
        ("wanders", "sags"),
        ("wanders", "climbs"),
        ("fades", "pinched"),
        ("fades", "airy"),
        ("fades", "slowRise"),
        ("fell", "fades"),
        ("wobble", "wanders"),
    ];

    /// <summary>
    /// Runs it and prints two tables in Markdown; pairs may begin at a later seed, so that a long run can be made in parts.
    /// </summary>
    public static void Run(int seeds, int pairSeeds, int pairsFrom = 1)
    {
        var scales = Instruments
            .SelectMany(id => new[] { SoundStage.Mouthpiece, SoundStage.Instrument }.Select(on => (id, on)))
            .ToDictionary(key => key, key => Scale(key.id, key.on));
        var single = new ConcurrentDictionary<(string Played, string Found), int>();
        string FoundAs(string played) =>
            string.Join(
                ", ",
                single
                    .Where(pair => pair.Key.Played == played)
                    .OrderByDescending(pair => pair.Value)
                    .Select(pair => $"{pair.Key.Found} {100.0 * pair.Value / seeds:0.0}")
            );
        Parallel.ForEach(
            Work(Faults.Length, seeds),
            item =>
            {
                var fault = Faults[item.Index];
                var verdict = Hear([fault], item.Seed, scales);
                single.AddOrUpdate(
                    (fault.Symptom, verdict.Findings.Count == 0 ? "nothing" : verdict.Findings[0].Symptom.Id),
                    1,
                    (_, count) => count + 1
                );
            }
        );
        Console.WriteLine($"| played alone, {seeds} seeds | said first, % |");
        Console.WriteLine("| --- | --- |");
        foreach (var fault in Faults)
            Console.WriteLine($"| {fault.Symptom} | " + $"{FoundAs(fault.Symptom)} |");
        var pairs = Pairs();
        Console.WriteLine();
        Console.WriteLine($"| played together, {pairSeeds} seeds | both found, % | missed |");
        Console.WriteLine("| --- | --- | --- |");
        var bothOfAll = 0;
        foreach (var (one, other) in pairs)
        {
            var missed = new ConcurrentBag<string>();
            var both = 0;
            Parallel.For(
                pairsFrom,
                pairsFrom + pairSeeds,
                seed =>
                {
                    var found = Hear([one, other], seed, scales).Findings.Select(finding => finding.Symptom.Id).ToHashSet();
                    var without = new[] { one.Symptom, other.Symptom }.Where(symptom => !found.Contains(symptom)).ToList();
                    without.ForEach(missed.Add);
                    if (without.Count == 0)
                        Interlocked.Increment(ref both);
                }
            );
            bothOfAll += both;
            Console.WriteLine(
                $"| {one.Symptom} + {other.Symptom} | {100.0 * both / pairSeeds:0.0} | "
                    + string.Join(
                        ", ",
                        missed.CountBy(symptom => symptom).OrderByDescending(pair => pair.Value).Select(pair => $"{pair.Key} {pair.Value}")
                    )
                    + " |"
            );
        }

        var first = Faults.Sum(fault => single.GetValueOrDefault((fault.Symptom, fault.Symptom)));
        Console.WriteLine();
        Console.WriteLine(
            $"Alone: {100.0 * first / (seeds * Faults.Length):0.0} % said first. In pairs: "
                + $"{100.0 * bothOfAll / (pairs.Count * Math.Max(1, pairSeeds)):0.0} % both found. Left out, as one hides the other: "
                + $"{string.Join("; ", Apart.Select(pair => $"{pair.Item1} with {pair.Item2}"))}; air alone with anything."
        );
    }

    private static IEnumerable<(int Index, int Seed)> Work(int kinds, int seeds) =>
        Enumerable.Range(0, kinds).SelectMany(index => Enumerable.Range(1, seeds).Select(seed => (index, seed)));

    private static List<((FaultKind, double, double, string Symptom) One, (FaultKind, double, double, string Symptom) Other)> Pairs()
    {
        var pairs = new List<((FaultKind, double, double, string), (FaultKind, double, double, string))>();
        for (var i = 0; i < Faults.Length; i++)
        for (var j = i + 1; j < Faults.Length; j++)
            if (
                Faults[i].Kind != FaultKind.Silent
                && Faults[j].Kind != FaultKind.Silent
                && !Apart.Contains((Faults[i].Symptom, Faults[j].Symptom))
                && !Apart.Contains((Faults[j].Symptom, Faults[i].Symptom))
            )
                pairs.Add((Faults[i], Faults[j]));
        return pairs;
    }

    private static Verdict Hear(
        (FaultKind Kind, double From, double To, string Symptom)[] played,
        int seed,
        Dictionary<(string, SoundStage), OwnScale> scales
    )
    {
        var id = Instruments[seed % Instruments.Length];
        // One break is forgiven on the mouthpiece; on an instrument none is.
        var on = played.Any(fault => fault.Kind == FaultKind.Break) ? SoundStage.Instrument : SoundStage.Mouthpiece;
        var random = new Random(seed);
        var drill = BuzzDrill.Get("sound4-rest4");
        var plan = drill.Plan.At(90);
        Fault[] faults = [.. played.Select(fault => new Fault(fault.Kind, fault.From + ((fault.To - fault.From) * random.NextDouble())))];
        var take = SimulatedPlayer.Play(Catalogue.Get(id), on, plan, faults, seed, Tuning.Standard);
        var scale = scales[(id, on)];
        var pupil = SoundingPupil.Unknown with
        {
            Own = new OwnSound(scale.Centred.HarmonicToNoiseDb, scale.Centred.CentroidOverPitch, null),
            Scale = scale,
        };
        return TakeListener.Hear(take.Sound, new AskedTake(drill, plan, on, LearningStage.FirstNotes), pupil).Verdict;
    }

    private static OwnScale Scale(string id, SoundStage on)
    {
        var drill = BuzzDrill.Get("three-samples");
        var take = SimulatedPlayer.Play(
            Catalogue.Get(id),
            on,
            drill.Plan,
            [.. drill.Played.Split(' ').Select(Fault.Parse)],
            1,
            Tuning.Standard
        );
        var heard = TakeListener.Hear(take.Sound, new AskedTake(drill, drill.Plan, on, LearningStage.FirstNotes), SoundingPupil.Unknown);
        return OwnScale.From(heard.Measures) ?? throw new InvalidOperationException($"{id} made no samples.");
    }
}
