using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Ear;

/// <summary>Hears sung or played notes out against what was meant: the held part of each counts, not the way up to it.</summary>
public static class EarListener
{
    /// <summary>Within so many cents a note is right, up to so many flat or sharp of what was meant (common practice; ours).</summary>
    public const double RightCents = 50,
        NearCents = 80;

    /// <summary>No slide is moved for less, centimetres.</summary>
    private const double LeastCm = 0.1;

    /// <summary>A held note lasts so long, and wanders no further (ours, editable).</summary>
    private const double ShortestSeconds = 0.2,
        WidestCents = 120;

    /// <summary>Two sounds are one note where they lie so close in pitch and time.</summary>
    private const double SameCents = 80,
        SameGapSeconds = 0.08;

    /// <summary>
    /// The voice: children and men, breathy and vowels alike (common practice for the range). A high note on a dark vowel is nearly a sine,
    /// which two of its periods fit as well: an octave is worth more than on brass.
    /// </summary>
    internal static readonly PitchTrackerSettings Voice = new()
    {
        LowestHz = 80,
        HighestHz = 1100,
        OctaveCost = 0.06,
    };

    /// <summary>Costs of the alignment: a target with nothing, a sound too many and each second of it, an octave.</summary>
    private const double Missing = 5,
        TooMany = 1,
        TooManyASecond = 4,
        OctaveOfInstrument = 1;

    /// <summary>Hears a take.</summary>
    /// <param name="sound">The sound.</param>
    /// <param name="targets">What was meant, as it is written.</param>
    /// <param name="instrument">The instrument whose notes they are.</param>
    /// <param name="reading">How they are read.</param>
    /// <param name="tuning">The room's A.</param>
    /// <param name="by">Who made it.</param>
    /// <param name="asideCents">Cents that they were meant to lie from equal temperament, as in a chord.</param>
    /// <exception cref="ArgumentException">There is nothing to hear it against.</exception>
    public static IReadOnlyList<EarHeard> Hear(
        MonoSound sound,
        IReadOnlyList<Pitch> targets,
        Instrument instrument,
        Reading reading,
        Tuning tuning,
        EarBy by,
        double asideCents = 0
    )
    {
        if (targets.Count == 0)
            throw new ArgumentException("Say which notes were meant.");
        var meant = targets
            .Select(target => (Target: target, Hertz: tuning.Frequency(reading.ToSounding(target)) * Math.Pow(2, asideCents / 1200)))
            .ToList();
        var lowest = by == EarBy.Voice ? Voice.LowestHz : Math.Max(20, meant.Min(each => each.Hertz) / 3);
        var settings = by == EarBy.Voice ? Voice : new PitchTrackerSettings { LowestHz = lowest };
        var heard = Held(sound, PitchTrack.Of(sound, settings));
        var paired = Align([.. meant.Select(each => each.Hertz)], heard, by);
        return
        [
            .. meant.Select(
                (each, at) =>
                    paired[at] is { } held
                        ? Told(each.Target, each.Hertz, held, instrument, reading, by)
                        : new EarHeard(each.Target, null, null, 0, null, null, EarOutcome.Nothing, $"{each.Target}: nothing was heard.")
            ),
        ];
    }

    private readonly record struct HeldNote(double Hertz, double Spread, double Seconds, double Begin, double End);

    private static List<HeldNote> Held(MonoSound sound, PitchTrack track)
    {
        var notes = new List<(double Start, double End, double Hertz)>();
        foreach (var note in NoteFinder.Find(sound, track))
            if (
                notes is [.., var last]
                && note.StartSeconds - last.End < SameGapSeconds
                && Math.Abs(1200 * Math.Log2(note.MedianHz / last.Hertz)) < SameCents
            )
                notes[^1] = (last.Start, note.EndSeconds, note.Seconds > last.End - last.Start ? note.MedianHz : last.Hertz);
            else
                notes.Add((note.StartSeconds, note.EndSeconds, note.MedianHz));
        return
        [
            .. notes
                .Where(note => note.End - note.Start >= ShortestSeconds)
                .Select(note => HeldOf(track, note.Start, note.End, note.Hertz)),
        ];
    }

    /// <summary>The held part: after the way up to the note and before its end.</summary>
    private static HeldNote HeldOf(PitchTrack track, double start, double end, double hertz)
    {
        const double From = 0.3,
            To = 0.9;
        var (first, last) = (start + (From * (end - start)), start + (To * (end - start)));
        var cents = track
            .Frames.Where(frame => frame.Voiced && frame.TimeSeconds >= first && frame.TimeSeconds <= last)
            .Select(frame => 1200 * Math.Log2(frame.FrequencyHz / hertz))
            .Where(off => Math.Abs(off) < 600)
            .ToList();
        if (cents.Count < 3)
            return new HeldNote(hertz, 0, end - start, 0, 0);
        var median = cents.Median();
        var third = Math.Max(1, cents.Count / 3);
        return new HeldNote(
            hertz * Math.Pow(2, median / 1200),
            cents.PopulationStandardDeviation(),
            end - start,
            cents.Take(third).Median() - median,
            cents.TakeLast(third).Median() - median
        );
    }

    /// <summary>Pairs what was meant with what was heard, in order, at the least cost.</summary>
    private static HeldNote?[] Align(List<double> meant, List<HeldNote> heard, EarBy by)
    {
        var cost = new double[meant.Count + 1, heard.Count + 1];
        for (var i = meant.Count; i >= 0; i--)
        for (var j = heard.Count; j >= 0; j--)
        {
            if (i == meant.Count && j == heard.Count)
                continue;
            var least = double.PositiveInfinity;
            if (i < meant.Count)
                least = Missing + cost[i + 1, j];
            if (j < heard.Count)
                least = Math.Min(least, Extra(heard[j]) + cost[i, j + 1]);
            if (i < meant.Count && j < heard.Count)
                least = Math.Min(least, Match(meant[i], heard[j].Hertz, by) + cost[i + 1, j + 1]);
            cost[i, j] = least;
        }

        var paired = new HeldNote?[meant.Count];
        for (var (i, j) = (0, 0); i < meant.Count && j < heard.Count; )
            if (cost[i, j] == Match(meant[i], heard[j].Hertz, by) + cost[i + 1, j + 1])
                paired[i++] = heard[j++];
            else if (cost[i, j] == Extra(heard[j]) + cost[i, j + 1])
                j++;
            else
                i++;
        return paired;
    }

    private static double Extra(HeldNote note) => TooMany + (TooManyASecond * note.Seconds);

    private static double Match(double meant, double heard, EarBy by)
    {
        var (cents, octaves) = Apart(meant, heard);
        return (Math.Abs(cents) / 100) + (by == EarBy.Instrument ? OctaveOfInstrument * Math.Abs(octaves) : 0);
    }

    /// <summary>Cents within an octave, and the octaves apart.</summary>
    private static (double Cents, int Octaves) Apart(double meant, double heard)
    {
        var all = 1200 * Math.Log2(heard / meant);
        var octaves = (int)Math.Round(all / 1200);
        return (all - (1200 * octaves), octaves);
    }

    private static EarHeard Told(Pitch target, double hertz, HeldNote held, Instrument instrument, Reading reading, EarBy by)
    {
        var (cents, octaves) = Apart(hertz, held.Hertz);
        var away = by == EarBy.Instrument && octaves != 0;
        var outcome =
            held.Spread > WidestCents ? EarOutcome.CannotTell
            : away || Math.Abs(cents) > NearCents ? EarOutcome.OtherNote
            : Math.Abs(cents) <= RightCents ? EarOutcome.Right
            : cents < 0 ? EarOutcome.Flat
            : EarOutcome.Sharp;
        var cm =
            by == EarBy.Instrument && outcome is EarOutcome.Right or EarOutcome.Flat or EarOutcome.Sharp
                ? SlideCm(target, cents, instrument, reading)
                : null;
        return new EarHeard(target, held.Hertz, cents, octaves, cm, held.Spread, outcome, Sentence(target, cents, octaves, cm, outcome, by))
        {
            BeginCents = cents + held.Begin,
            EndCents = cents + held.End,
        };
    }

    /// <summary>
    /// How far the slide has to move for what was off, at the position of the note; null for valves, and where no slide can have stood so
    /// far off.
    /// </summary>
    private static double? SlideCm(Pitch target, double cents, Instrument instrument, Reading reading)
    {
        if (
            instrument.Slide is not { } slide
            || FingeringFinder.FindSounding(instrument, reading.ToSounding(target)) is not [{ Tube: var tube }, ..]
        )
            return null;
        var cm = cents / Tubing.CentsPerCm(instrument.SlideTubeMetres(tube.Setting.Attachment), tube.Setting.Position);
        return slide.CanStandAt(tube.SlideOutCm - cm) ? cm : null;
    }

    private static string Sentence(Pitch target, double cents, int octaves, double? cm, EarOutcome outcome, EarBy by)
    {
        var off = Math.Abs(cents) < 1 ? "exact" : $"{Math.Abs(cents):0} cents {(cents < 0 ? "flat" : "sharp")}";
        var apart = octaves == 0 ? "" : $", {Octaves(octaves)} {(octaves > 0 ? "higher" : "lower")}";
        return outcome switch
        {
            EarOutcome.CannotTell => $"{target}: the pitch moved too far to be told.",
            EarOutcome.Right when by == EarBy.Voice && octaves != 0 => $"{target}: {off}{apart}; that is the same note.",
            EarOutcome.OtherNote => $"{target}: {Math.Abs(cents):0} cents {(cents < 0 ? "flat" : "sharp")}{apart}: another note.",
            // A voice's octave is nobody's fault, and no part of what is off.
            _ when by == EarBy.Voice => $"{target}: {off}.",
            _ => $"{target}: {off}{apart}{Slide(cm)}.",
        };
    }

    private static string Slide(double? cm) =>
        cm is { } move && Math.Abs(move) >= LeastCm ? $"; the slide {Math.Abs(move):0.0} cm {(move > 0 ? "out" : "in")}" : "";

    private static string Octaves(int octaves) => Math.Abs(octaves) == 1 ? "an octave" : $"{Math.Abs(octaves)} octaves";
}
