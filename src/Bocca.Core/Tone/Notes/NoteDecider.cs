using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>
/// Decides what came of a note: every way in which the sound can have come about is weighed by how far it lies from the
/// sound and how often such a miss happens; the note meant is asked first, for what is in tune is never a miss.
/// All tolerances and weights ours, editable; explained in METHODS.
/// </summary>
public static class NoteDecider
{
    private const double PartialCents = 60,
        SettingCents = 50,
        RivalCents = 40,
        PreviousCents = 50;

    /// <summary>Spread of a player about a partial (cents).</summary>
    private const double SpreadCents = 20;

    /// <summary>How a slide misses: mostly by a little. Scale of the distance (cents) and weight at none.</summary>
    private const double SlideScaleCents = 80,
        SlideWeight = 0.125;

    /// <summary>Weight of the neighbour partial, and what each further one is worth of the one before.</summary>
    private const double NeighbourWeight = 0.4,
        FurtherShare = 0.3;

    /// <summary>What the partials that charts avoid are worth of their like.</summary>
    private const double AvoidedShare = 0.2;

    /// <summary>
    /// Weight of one finger amiss, what each further one is worth of the one before, and of the chart's own fingering of what was heard.
    /// </summary>
    private const double FingerWeight = 0.06,
        FurtherFingerShare = 0.3,
        ChartWeight = 0.07;

    /// <summary>The same on a slide, which mostly stops short of the position meant rather than in another.</summary>
    private const double ChartOnSlideWeight = 0.01;

    /// <summary>A rival that is at least this share as likely is named too.</summary>
    private const double TooClose = 1 / 3.0;

    private const int MostFingersOff = 2;

    /// <summary>Judges a steady tone.</summary>
    /// <param name="meant">The note meant.</param>
    /// <param name="heardHz">The tone's pitch, hertz, above 0.</param>
    /// <param name="situation">Who plays what.</param>
    /// <param name="previous">The note meant before it; null for none.</param>
    public static JudgedNote Decide(MeantNote meant, double heardHz, PlayerSituation situation, MeantNote? previous = null)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(heardHz);
        var tone = new HeardTone(meant, heardHz, situation);
        if (tone.IsRight)
            return tone.Right();
        var isPrevious =
            previous is not null
            && previous.Sounding.Midi != meant.Sounding.Midi
            && Math.Abs(Tuning.Cents(situation.Tuning.Frequency(previous.Sounding), heardHz)) <= PreviousCents;
        var ways = Ways(tone);
        if (ways.Count > 0)
        {
            var best = ways[0];
            var rival = ways.Skip(1)
                .FirstOrDefault(way =>
                    way.Setting != best.Setting && way.Probability >= TooClose * best.Probability && IsRival(way, best, meant)
                );
            // The same name an octave off is that first, unless the very tube gives it; then it is so many partials.
            if (best.Setting != meant.Setting && tone.OctaveAway() is { } octave)
                return octave with { Readings = ways };
            if (!(isPrevious && best.Outcome == NoteOutcome.TwoReadings && rival is null))
                return Named(tone, best, rival, isPrevious) with { Readings = ways };
        }

        if (isPrevious)
            return tone.Previous(previous!) with { Readings = ways };
        return tone.OctaveAway() ?? tone.Alone(tone.Nearest(), isPrevious) with { Readings = ways };
    }

    /// <summary>Two ways that are told apart by the hand alone are one thing to say; what has no rival is said as it is.</summary>
    private static JudgedNote Named(HeardTone tone, NoteReading best, NoteReading? rival, bool isPrevious)
    {
        if (rival is null)
            return best.Outcome == NoteOutcome.TwoReadings ? tone.Alone(best, isPrevious) : tone.Judged(best.Outcome, best, isPrevious);
        return best.Outcome == rival.Outcome && best.Partial == rival.Partial
            ? tone.Either(best, rival, isPrevious)
            : tone.Two(best, rival, isPrevious);
    }

    /// <summary>A way counts against another only near the sound and within reach of a slip of the fingers.</summary>
    private static bool IsRival(NoteReading way, NoteReading best, MeantNote meant) =>
        Math.Abs(way.OffCents) <= RivalCents
        && (way.Setting == meant.Setting || FingersOff(way.Setting, meant.Setting) <= MostFingersOff || best.Setting != meant.Setting);

    /// <summary>The ways that fit, the likeliest first; their probabilities add up to 1.</summary>
    private static List<NoteReading> Ways(HeardTone tone)
    {
        var ways = new List<NoteReading>();
        ways.AddRange(OtherPartials(tone));
        if (tone.Situation.Instrument.Slide is not null)
            ways.AddRange(SlideOff(tone));
        else
            ways.AddRange(OtherSettings(tone));
        if (ChartNote(tone) is { } chart && ways.TrueForAll(way => way.Setting != chart.Setting || way.Partial != chart.Partial))
            ways.Add(chart);
        var all = ways.Sum(way => way.Probability);
        return [.. ways.OrderByDescending(way => way.Probability).Select(way => way with { Probability = way.Probability / all })];
    }

    private static IEnumerable<NoteReading> OtherPartials(HeardTone tone)
    {
        for (var partial = 1; partial <= HarmonicSeries.Highest; partial++)
        {
            var by = partial - tone.Meant.Partial;
            var off = tone.OffCents(tone.Meant.Tube, partial);
            if (by == 0 || Math.Abs(off) > PartialCents)
                continue;
            var weight =
                NeighbourWeight
                * Math.Pow(FurtherShare, Math.Abs(by) - 1)
                * (HarmonicSeries.IsAvoided(partial) ? AvoidedShare : 1)
                * Math.Sqrt(tone.Situation.Misses.TowardsPartials);
            yield return new NoteReading(
                by < 0 ? NoteOutcome.PartialLow : NoteOutcome.PartialHigh,
                tone.Meant.Setting,
                partial,
                by,
                off,
                weight * Near(off)
            );
        }
    }

    /// <summary>A slide stands anywhere between its ends.</summary>
    private static IEnumerable<NoteReading> SlideOff(HeardTone tone)
    {
        var setting = tone.Meant.Setting;
        var position = setting.Position - (tone.FromMeantCents / 100);
        if (position is < 0.2 or > 7.8 || !tone.SlideCanBeOff)
            yield break;
        // A position of its own is where a slide stops when the player took the one for the other.
        var toPosition = 100 * (position - Math.Round(position));
        var weight = SlideWeight * (Math.Exp(-Math.Abs(tone.FromMeantCents) / SlideScaleCents) + (0.3 * Near(toPosition)));
        yield return new NoteReading(
            NoteOutcome.SlideOff,
            setting,
            tone.Meant.Partial,
            0,
            tone.FromMeantCents,
            weight / Math.Sqrt(tone.Situation.Misses.TowardsPartials)
        );
    }

    private static IEnumerable<NoteReading> OtherSettings(HeardTone tone)
    {
        foreach (var tube in tone.Situation.Instrument.Tubes)
        {
            var off = tone.OffCents(tube, tone.Meant.Partial);
            var fingers = FingersOff(tube.Setting, tone.Meant.Setting);
            if (fingers == 0 || Math.Abs(off) > SettingCents)
                continue;
            var weight = FingerWeight * Math.Pow(FurtherFingerShare, fingers - 1) / Math.Sqrt(tone.Situation.Misses.TowardsPartials);
            yield return new NoteReading(NoteOutcome.OtherSetting, tube.Setting, tone.Meant.Partial, 0, off, weight * Near(off));
        }
    }

    /// <summary>What the hand does for the note heard: the player may have taken it for that note.</summary>
    private static NoteReading? ChartNote(HeardTone tone)
    {
        var all = FingeringFinder.FindSounding(tone.Situation.Instrument, tone.NearestSounding, tone.Situation.Weights);
        if (all.Count == 0 || all[0].Setting == tone.Meant.Setting)
            return null;
        var way = all[0];
        var off = tone.OffCents(way.Tube, way.Partial);
        var by = way.Partial - tone.Meant.Partial;
        var slide = tone.Situation.Instrument.Slide is not null;
        // The right partial in another position is a slide that is off.
        return Math.Abs(off) > RivalCents || (slide && by == 0)
            ? null
            : new NoteReading(
                by == 0 ? NoteOutcome.OtherSetting : NoteOutcome.TwoReadings,
                way.Setting,
                way.Partial,
                by,
                off,
                (slide ? ChartOnSlideWeight : ChartWeight) * Near(off)
            );
    }

    private static double Near(double offCents) => Math.Exp(-0.5 * offCents * offCents / (SpreadCents * SpreadCents));

    /// <summary>Fingers and thumb that differ between two settings; slide positions apart count as one each.</summary>
    internal static int FingersOff(Setting one, Setting other)
    {
        var valves = Enumerable.Range(1, 8).Count(valve => one.Presses(valve) != other.Presses(valve));
        return valves + (one.Attachment == other.Attachment ? 0 : 1) + Math.Abs(one.Position - other.Position);
    }
}
