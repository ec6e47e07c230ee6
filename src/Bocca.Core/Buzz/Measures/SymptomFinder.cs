using Bocca.Core.Judging;
using Bocca.Core.Music;
using Bocca.Core.Teaching;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Buzz.Measures;

/// <summary>Finds the symptoms of a take: which measures of which tries lie outside the bands.</summary>
internal static class SymptomFinder
{
    /// <summary>Seconds that a tone may end early (ours, editable).</summary>
    private const double TrailingSeconds = 0.1;

    /// <summary>A time from here on is said in seconds (ms).</summary>
    private const double LongMs = 500;

    /// <summary>A fall of at least this many cents inside a tone is a fall to another note.</summary>
    private const double FallCents = 150;

    /// <summary>The symptoms of the tries, unordered.</summary>
    /// <param name="take">The take.</param>
    /// <param name="bands">What is good enough.</param>
    /// <param name="minds">Whether a symptom counts: what a drill asks for is none.</param>
    /// <param name="pupil">Whose they are.</param>
    public static IReadOnlyList<Finding> Find(TakeMeasures take, StageBands bands, Func<string, bool> minds, SoundingPupil pupil)
    {
        var (own, symptoms) = (pupil.Own, pupil.Symptoms);
        var (softest, loudest) = LevelWindow(pupil.Approach);
        var findings = new List<Finding>();
        var spoken = take.Spoken.ToList();
        void Rule(string id, Func<AttemptMeasures, double?> measure, double limit, string unit, string heard)
        {
            var hits = spoken
                .Select(attempt => (attempt.Number, Value: measure(attempt)))
                .Where(hit => hit.Value is { } value && Math.Sign(value) * Math.Sign(limit) >= 0 && Math.Abs(value) > Math.Abs(limit))
                .ToList();
            if (hits.Count == 0)
                return;
            var median = hits.Select(hit => hit.Value!.Value).Median();
            var sentence = string.Format(
                heard,
                Words.Of(hits.Count, take.Asked.Count()),
                Math.Abs(median),
                Math.Abs(limit),
                median >= LongMs ? $"{median / 1000:0.0} s" : $"{median:0} ms",
                Interval.About(median)
            );
            findings.Add(new Finding(symptoms.Get(id), [.. hits.Select(hit => hit.Number)], median, limit, unit, sentence));
        }

        var direction = Direction(spoken, bands);
        AddUnspoken(take, symptoms, findings);
        Rule("late", SoundAfterCue, bands.OnsetDelayMs, "ms", "{0} began late: {1:0} ms after the beat; {2:0} is the aim.");
        Rule("airFirst", attempt => attempt.AirBeforeToneMs, bands.AirBeforeToneMs, "ms", "{0} began with air: {3} before the note.");
        Rule(
            "slowRise",
            attempt => attempt.Asked is { Tongued: true } ? null : attempt.RiseMs,
            bands.RiseMs,
            "ms",
            "{0} swelled slowly: {1:0} ms to full level."
        );
        Rule(
            "scoop",
            attempt => Whole(attempt)?.ScoopCents,
            -bands.ScoopCents,
            "cents",
            "{0} slid up into the note from {1:0} cents below."
        );
        Rule(
            "short",
            attempt => Missing(attempt, Shortest(attempt, bands)),
            TrailingSeconds,
            "s short",
            "{0} stopped early, {1:0.0} s short."
        );
        Rule(
            "breaks",
            attempt => Fell(attempt) ? attempt.Breaks - 1 : attempt.Breaks,
            Math.Max(0.5, bands.Breaks),
            "holes",
            "{0} had a hole in the sound."
        );
        Rule("fell", attempt => Fell(attempt) ? attempt.EndCents : null, -FallCents, "cents", "{0} dropped about {4}.");
        Rule(
            "wobble",
            attempt => Whole(attempt) is { } whole ? bands.Wobble(whole) : null,
            bands.WobbleCents,
            "cents",
            "{0} wobbled, {1:0} cents each way."
        );
        Rule(
            "wanders",
            attempt => Wander(Whole(attempt), direction),
            bands.SteadyCents,
            "cents",
            "{0} wandered by {1:0} cents; {2:0} is the aim."
        );
        Rule(
            "sags",
            attempt => Drift(Whole(attempt), direction),
            -bands.DriftCentsPerSecond,
            "cents a second",
            "{0} sank by {1:0} cents a second."
        );
        Rule(
            "climbs",
            attempt => Drift(Whole(attempt), direction),
            bands.DriftCentsPerSecond,
            "cents a second",
            "{0} rose by {1:0} cents a second."
        );
        Rule(
            "fades",
            attempt => Whole(attempt)?.DriftDbPerSecond,
            -bands.DriftDbPerSecond,
            "dB a second",
            "{0} faded by {1:0.0} dB a second."
        );
        if (pupil.Scale is { TellsOpen: true })
            Rule(
                "airy",
                attempt => pupil.Scale.Place(attempt),
                OwnScale.Near,
                "of the way to your own open sound",
                "{0} close to your too-open sample: {1:0.0} of the way from centred."
            );
        else
            Rule(
                "airy",
                attempt => own.HarmonicToNoiseDb - attempt.HarmonicToNoiseDb,
                bands.BreathinessDb,
                "dB",
                "{0} airier than your own usual sound, by {1:0} dB."
            );
        if (pupil.Scale is { TellsTight: true })
            Rule(
                "pinched",
                attempt => pupil.Scale.Place(attempt),
                -OwnScale.Near,
                "of the way to your own tight sound",
                "{0} close to your too-tight sample: {1:0.0} of the way from centred."
            );
        Rule(
            "forced",
            attempt => attempt.LevelDb - own.LevelDb,
            loudest,
            "dB",
            "{0} louder than your own usual sound by {1:0} dB; {2:0} is the aim."
        );
        Rule(
            "weak",
            attempt => attempt.LevelDb - own.LevelDb,
            softest,
            "dB",
            "{0} softer than your own usual sound by {1:0} dB; {2:0} is the aim."
        );
        AddUneven(take, symptoms, findings);
        return [.. findings.Where(finding => minds(finding.Symptom.Id))];
    }

    /// <summary>How far under and over the pupil's own usual level a tone may lie (dB; ours, editable).</summary>
    private static (double Softest, double Loudest) LevelWindow(Approach approach) =>
        approach.Of(Points.Loudness) switch
        {
            Loudness.SoftToMedium => (-8, 2),
            Loudness.Full => (-2, 8),
            _ => (-5, 5),
        };

    private static void AddUnspoken(TakeMeasures take, SymptomTable symptoms, List<Finding> findings)
    {
        foreach (var (id, air, words) in new[] { ("airOnly", true, "gave air without a tone"), ("silence", false, "gave no sound") })
        {
            var tries = take.Asked.Where(attempt => !attempt.Spoke && attempt.AirOnly == air).Select(attempt => attempt.Number).ToList();
            if (tries.Count > 0)
                findings.Add(
                    new Finding(symptoms.Get(id), tries, tries.Count, 0, "tries", $"{Words.Of(tries.Count, take.Asked.Count())} {words}.")
                );
        }
    }

    private static void AddUneven(TakeMeasures take, SymptomTable symptoms, List<Finding> findings)
    {
        if (take.Sameness is not { Score: < 50 } sameness || take.Spoken.Count() < 3)
            return;
        var worst = sameness.Worst;
        findings.Add(
            new Finding(
                symptoms.Get("uneven"),
                [.. take.Spoken.Select(attempt => attempt.Number)],
                worst.Spread,
                worst.Band,
                worst.Unit,
                $"The tries differ most in {worst.Item}: {worst.Spread:0.#} {worst.Unit} apart, {worst.Band:0.#} still counts as the same."
            )
        );
    }

    /// <summary>Air that comes in time with the tone behind it is not late but air first.</summary>
    private static double? SoundAfterCue(AttemptMeasures attempt) => attempt.OnsetDelayMs - (attempt.AirBeforeToneMs ?? 0);

    /// <summary>A fall has a moment: without a leap, a lower end is a drift or a wandering.</summary>
    private static bool Fell(AttemptMeasures attempt) => attempt.EndCents <= -FallCents && attempt.Breaks > 0;

    /// <summary>The try, unless it fell or broke: then straightness means nothing.</summary>
    private static AttemptMeasures? Whole(AttemptMeasures attempt) =>
        Fell(attempt) || (attempt.EndCents >= FallCents && attempt.Breaks > 0) ? null : attempt;

    /// <summary>
    /// Which way the take drifts: 1 up, -1 down, 0 neither. What climbs in one try and sags in the next wanders; it
    /// takes three tries in four that drift one way, straight, to call it a drift (ours, editable).
    /// </summary>
    private static int Direction(List<AttemptMeasures> spoken, StageBands bands)
    {
        var drifting = spoken
            .Select(Whole)
            .OfType<AttemptMeasures>()
            .Where(attempt => IsStraight(attempt) && Math.Abs(attempt.DriftCentsPerSecond ?? 0) > bands.DriftCentsPerSecond)
            .ToList();
        var up = drifting.Count(attempt => attempt.DriftCentsPerSecond > 0);
        var wandering = spoken
            .Select(Whole)
            .OfType<AttemptMeasures>()
            .Count(attempt => Math.Sqrt(Rest(attempt) + DriftVariance(attempt)) > bands.SteadyCents);
        var most = Math.Max(up, drifting.Count - up);
        return most * 4 >= 3 * Math.Max(wandering, drifting.Count) && most > 0 ? (2 * up >= drifting.Count ? 1 : -1) : 0;
    }

    /// <summary>The drift, where the take drifts that way and a straight line tells most of what the pitch did.</summary>
    private static double? Drift(AttemptMeasures? attempt, int direction) =>
        attempt is not null && IsStraight(attempt) && Math.Sign(attempt.DriftCentsPerSecond ?? 0) == direction
            ? attempt.DriftCentsPerSecond
            : null;

    /// <summary>Whether the straight line has more of the variance than what is left round it and is no regular swing.</summary>
    private static bool IsStraight(AttemptMeasures attempt) => DriftVariance(attempt) >= Rest(attempt);

    /// <summary>Variance of a straight line: its rise squared over twelve.</summary>
    private static double DriftVariance(AttemptMeasures attempt) =>
        Math.Pow((attempt.DriftCentsPerSecond ?? 0) * (attempt.SoundingSeconds ?? 0), 2) / 12;

    /// <summary>Variance round the straight line when the regular swing is taken out.</summary>
    private static double Rest(AttemptMeasures attempt) =>
        Math.Max(0, Math.Pow(attempt.SteadinessCents ?? 0, 2) - (Math.Pow(attempt.WobbleCents ?? 0, 2) / 2));

    /// <summary>How far it wandered: what is left of the unsteadiness without the regular swing and without the take's drift.</summary>
    private static double? Wander(AttemptMeasures? attempt, int direction) =>
        attempt is { SteadinessCents: not null, WobbleCents: not null }
            ? Math.Sqrt(Rest(attempt) + (IsStraight(attempt) && direction != 0 ? 0 : DriftVariance(attempt)))
            : null;

    /// <summary>Seconds missing at the end; what a late start took from a tone that was held to its end does not count.</summary>
    private static double? Missing(AttemptMeasures attempt, double asked)
    {
        var held = attempt.SoundingSeconds + (Math.Max(0, attempt.OnsetDelayMs ?? 0) / 1000);
        return held < asked ? asked - held : null;
    }

    /// <summary>How long a try has to last: as long as the stage asks, or most of its counts where these are shorter.</summary>
    internal static double Shortest(AttemptMeasures attempt, StageBands bands) => Shortest(attempt, bands.HoldSeconds);

    /// <summary>Whether a try lasted as long as it had to; null where it did not speak.</summary>
    /// <param name="attempt">The try.</param>
    /// <param name="hold">Seconds that the stage asks.</param>
    internal static bool? IsHeld(AttemptMeasures attempt, double hold) =>
        attempt.SoundingSeconds is null ? null : Missing(attempt, Shortest(attempt, hold)) is null;

    private static double Shortest(AttemptMeasures attempt, double hold) =>
        attempt.AskedSeconds is { } seconds ? Math.Min(hold, 0.85 * seconds) : hold;
}
