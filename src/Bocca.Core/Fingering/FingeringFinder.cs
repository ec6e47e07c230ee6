using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering;

/// <summary>
/// Finds every way to play a note and ranks them by reasons: amount of tube, tuning that the hand cannot mend, the
/// partial's reliability, fingers down, slide distance. The order is computed from <see cref="FingeringWeights"/>;
/// no chart is looked up.
/// </summary>
public static class FingeringFinder
{
    /// <summary>Every way to play a written note, best first; what this hand does not play yet comes last and says why.</summary>
    /// <param name="instrument">The instrument; a very one as its passport has it.</param>
    /// <param name="reading">How its player reads.</param>
    /// <param name="written">The written note.</param>
    /// <param name="weights">What ranks the ways; the ones that ship by default.</param>
    /// <param name="hand">What the player's hands can do; anything by default.</param>
    /// <param name="passport">Where this very instrument's partials lie; the harmonic series by default.</param>
    /// <param name="targetCents">Cents of the pitch wanted above equal temperament, for a note of a chord.</param>
    /// <exception cref="ArgumentException">No setting and partial gives it; the message says what the instrument reaches, and the nearest
    /// notes.</exception>
    public static IReadOnlyList<Fingering> Find(
        Instrument instrument,
        Reading reading,
        Pitch written,
        FingeringWeights? weights = null,
        Hand? hand = null,
        Passport? passport = null,
        double targetCents = 0
    )
    {
        var found = FindSounding(instrument, reading.ToSounding(written), weights, hand, passport, targetCents);
        return found.Count > 0
            ? found
            : throw new ArgumentException(
                $"{written} is out of range on the {instrument.Name} in {reading.Id}. "
                    + $"Its chart runs from {reading.ToWritten(instrument.Range.Lowest)} to "
                    + $"{reading.ToWritten(instrument.Range.Highest)}; nearest "
                    + $"{(Nearest(instrument, reading, written) is [var one] ? $"is {one}" : "are ")}"
                    + $"{(Nearest(instrument, reading, written) is [_, _, ..] more ? string.Join(" and ", more) : "")}."
            );
    }

    /// <summary>Whether a concert pitch is on an instrument's chart: within its range, and on one of its tubes.</summary>
    public static bool Plays(Instrument instrument, Pitch sounding) =>
        sounding.Midi >= instrument.Range.Lowest.Midi
        && sounding.Midi <= instrument.Range.Highest.Midi
        && FindSounding(instrument, sounding).Count > 0;

    /// <summary>The written notes nearest to one that cannot be played: the next below and above that can.</summary>
    public static IReadOnlyList<Pitch> Nearest(Instrument instrument, Reading reading, Pitch written)
    {
        bool Plays(int midi) => FingeringFinder.Plays(instrument, Pitch.FromMidi(midi));
        var sounding = Math.Clamp(written.Midi - reading.WrittenAboveSounding.Semitones, 0, 127);
        var (lowest, highest) = (instrument.Range.Lowest.Midi, instrument.Range.Highest.Midi);
        int? below = Enumerable
            .Range(lowest, highest - lowest + 1)
            .Where(midi => midi < sounding && Plays(midi))
            .Select(midi => (int?)midi)
            .LastOrDefault();
        int? above = Enumerable
            .Range(lowest, highest - lowest + 1)
            .Where(midi => midi > sounding && Plays(midi))
            .Select(midi => (int?)midi)
            .FirstOrDefault();
        return [.. new[] { below, above }.OfType<int>().Select(midi => reading.ToWritten(Pitch.FromMidi(midi)))];
    }

    /// <summary>
    /// Every way to play a concert pitch, best first; empty where there is none. For the arguments see <see cref="Find"/>.
    /// </summary>
    public static IReadOnlyList<Fingering> FindSounding(
        Instrument instrument,
        Pitch sounding,
        FingeringWeights? weights = null,
        Hand? hand = null,
        Passport? passport = null,
        double targetCents = 0
    )
    {
        weights ??= FingeringWeights.Default;
        hand ??= Hand.Free;
        passport ??= Passport.Unmeasured;
        var ways = new List<Fingering>();
        foreach (var tube in instrument.Tubes)
        {
            if (weights.HidesThumbSide && instrument.ThumbSide is not null && tube.Setting.Attachment == "T")
                continue;
            for (var partial = 1; partial <= HarmonicSeries.Highest; partial++)
            {
                if (instrument.NoteOf(tube, partial).Midi != sounding.Midi)
                    continue;
                var cents = tube.CentsSharp + HarmonicSeries.CentsFromEqualTemperament(partial);
                if (tube.Gives(partial))
                    ways.Add(
                        Judge(
                            instrument,
                            weights,
                            hand,
                            new Fingering(tube, partial, sounding, cents + passport.OwnCents(partial) - targetCents)
                        )
                    );
            }
        }

        ways.Sort(ByRank);
        var ranked = new Fingering[ways.Count];
        for (var i = 0; i < ranked.Length; i++)
            ranked[i] = ways[i].Among(ranked);
        return ranked;
    }

    /// <summary>
    /// The teacher's own choice, then what the hand can do, then fewest points first; among equals the lower partial, then the shorter
    /// name, so that the order is never chance.
    /// </summary>
    private static int ByRank(Fingering a, Fingering b)
    {
        var order = b.IsPinned.CompareTo(a.IsPinned);
        order = order != 0 ? order : (a.Barred is not null).CompareTo(b.Barred is not null);
        order = order != 0 ? order : a.Cost.CompareTo(b.Cost);
        order = order != 0 ? order : a.Partial.CompareTo(b.Partial);
        return order != 0 ? order : string.CompareOrdinal(a.Setting.ToString(), b.Setting.ToString());
    }

    private static Fingering Judge(Instrument instrument, FingeringWeights weights, Hand hand, Fingering way)
    {
        var correction = TuningCorrection.Of(instrument, hand, way.Tube, way.Cents);
        // A slide can stand anywhere it reaches, so its player's hand mends the tuning; valves leave it to the lips.
        var unmended = instrument.Slide is not null && correction is not { What: "lips" } ? 0 : way.Cents;
        var reasons = new List<RankingReason>();
        void Add(RankingKind kind, double points, string words)
        {
            if (points > 0)
                reasons.Add(new RankingReason(kind, points, words));
        }

        if (instrument.Slide is null)
        {
            var tube = way.Tube.Semitones - SideOffset(instrument, way.Setting);
            Add(RankingKind.Tube, weights.PerSemitoneOfTube * tube, $"{Semitones(tube)} of tube added");
        }
        else
        {
            Add(RankingKind.Tube, weights.PerSemitoneOfTube * (way.Setting.Position - 1), $"slide {way.Tube.SlideOutCm:0} cm out");
        }

        Add(
            RankingKind.Tuning,
            weights.PerTenCentsSquared * unmended * unmended / 100,
            $"{Math.Abs(unmended):0} cents {(unmended > 0 ? "sharp" : "flat")}"
        );
        Add(
            RankingKind.Partial,
            weights.OfPartial(instrument, way.Setting, way.Partial),
            $"partial {way.Partial} is {PartialWeakness(way.Partial)}"
        );
        Add(
            RankingKind.Fingers,
            weights.PerFingerDown * (instrument.Slide is null ? way.Setting.Pressed : 0),
            Fingers(way.Setting.Pressed)
        );
        Add(
            RankingKind.Trigger,
            instrument.Slide is null
                ? 0
                : (weights.PerTrigger * way.Setting.Attachment.Length) + (way.Setting.Attachment.Contains('S') ? weights.SecondTrigger : 0),
            "trigger in use"
        );
        if (instrument.Slide is null && way.Setting.Presses(3) && !way.Setting.Presses(1) && !way.Setting.Presses(2))
            Add(RankingKind.ThirdValve, weights.ThirdForFirstAndSecond, "valve 3 without 1 or 2 is often drawn long, for 2-3");
        if (way.Setting.Presses(4) && way.Setting.Pressed == 1)
            Add(RankingKind.FourthValve, weights.FourthForFirstAndThird, "this approach fingers 1-3 where 4 would do");
        if (instrument.ThumbSide is { } side && (way.Setting.Attachment == "T") != (way.Sounding.Midi >= side.From.Midi))
            Add(RankingKind.HornSide, weights.OtherSideOfHorn, "the other side of the horn serves this register");
        return way with
        {
            Correction = correction,
            Reasons = reasons,
            Barred = hand.Bars(way.Tube, correction),
            IsPinned = hand.Pins.TryGetValue(way.Sounding.Midi, out var pinned) && pinned == way.Setting,
        };
    }

    private static int SideOffset(Instrument instrument, Setting setting) =>
        instrument.ThumbSide is { } side && setting.Attachment == "T" ? -side.RaisesSemitones : 0;

    private static string PartialWeakness(int partial) =>
        partial switch
        {
            1 => "a pedal note, no plain resonance",
            7 or 14 => "31 cents flat by nature",
            11 or 13 => "far from any note",
            _ => "close to its neighbours",
        };

    private static string Semitones(int count) => count == 1 ? "1 semitone" : $"{count} semitones";

    private static string Fingers(int count) => count == 1 ? "1 finger down" : $"{count} fingers down";
}
