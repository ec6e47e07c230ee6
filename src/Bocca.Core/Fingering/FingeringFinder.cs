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
    /// <summary>A partial further than this from the note asked for is another note (cents).</summary>
    private const double WithinCents = 80;

    /// <summary>Cents within which no correction is named.</summary>
    private const double InTuneCents = 5;

    /// <summary>Every way to play a written note, best first.</summary>
    /// <exception cref="ArgumentException">No setting and partial gives it; the message says what the instrument reaches.</exception>
    public static IReadOnlyList<Fingering> Find(Instrument instrument, Reading reading, Pitch written, FingeringWeights? weights = null)
    {
        var found = FindSounding(instrument, reading.ToSounding(written), weights);
        return found.Count > 0 ? found : throw new ArgumentException(
            $"{written} cannot be played on {instrument.Id} in {reading.Id}: no valve, position or partial gives it. "
            + $"Its chart runs from {reading.ToWritten(instrument.Range.Lowest)} to {reading.ToWritten(instrument.Range.Highest)}.");
    }

    /// <summary>Every way to play a concert pitch, best first; empty where there is none.</summary>
    public static IReadOnlyList<Fingering> FindSounding(Instrument instrument, Pitch sounding, FingeringWeights? weights = null)
    {
        weights ??= FingeringWeights.Default;
        var ways = new List<Fingering>();
        foreach (var tube in instrument.Tubes)
        {
            if (weights.HidesThumbSide && instrument.ThumbSide is not null && tube.Setting.Attachment == "T")
                continue;
            for (var partial = 1; partial <= HarmonicSeries.Highest; partial++)
            {
                var midi = instrument.PartialOne.Midi + HarmonicSeries.Semitones(partial) - tube.Semitones;
                var cents = tube.CentsSharp + HarmonicSeries.CentsFromEqualTemperament(partial);
                if (midi == sounding.Midi && Math.Abs(cents) <= WithinCents)
                    ways.Add(Judge(instrument, weights, new Fingering(tube, partial, sounding, cents)));
            }
        }

        ways.Sort(ByRank);
        return [.. ways.Select((way, place) => way with { Reason = Explain(ways, place) })];
    }

    /// <summary>Fewest points first; among equals the lower partial, then the shorter name, so that the order is never chance.</summary>
    private static int ByRank(Fingering a, Fingering b)
    {
        var order = a.Cost.CompareTo(b.Cost);
        order = order != 0 ? order : a.Partial.CompareTo(b.Partial);
        return order != 0 ? order : string.CompareOrdinal(a.Setting.ToString(), b.Setting.ToString());
    }

    private static Fingering Judge(Instrument instrument, FingeringWeights weights, Fingering way)
    {
        var correction = Tuned(instrument, way);
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

        Add(RankingKind.Tuning, weights.PerTenCentsSquared * unmended * unmended / 100, $"{Math.Abs(unmended):0} cents {(unmended > 0 ? "sharp" : "flat")}");
        Add(RankingKind.Partial, weights.OfPartial(instrument, way.Setting, way.Partial), $"partial {way.Partial} is {PartialWeakness(way.Partial)}");
        Add(RankingKind.Fingers, weights.PerFingerDown * (instrument.Slide is null ? way.Setting.Pressed : 0), Fingers(way.Setting.Pressed));
        Add(RankingKind.Trigger, weights.PerTrigger * (instrument.Slide is null ? 0 : way.Setting.Attachment.Length), "trigger in use");
        if (instrument.Slide is null && way.Setting.Presses(3) && !way.Setting.Presses(1) && !way.Setting.Presses(2))
            Add(RankingKind.ThirdValve, weights.ThirdForFirstAndSecond, "valve 3 without 1 or 2 is often drawn long, for 2-3");
        if (way.Setting.Presses(4) && way.Setting.Pressed == 1)
            Add(RankingKind.FourthValve, weights.FourthForFirstAndThird, "this approach fingers 1-3 where 4 would do");
        if (instrument.ThumbSide is { } side && (way.Setting.Attachment == "T") != (way.Sounding.Midi >= side.From.Midi))
            Add(RankingKind.HornSide, weights.OtherSideOfHorn, "the other side of the horn serves this register");
        return way with { Correction = correction, Reasons = reasons };
    }

    private static Correction? Tuned(Instrument instrument, Fingering way)
    {
        if (Math.Abs(way.Cents) <= InTuneCents)
            return null;
        var sharp = way.Cents > 0;
        if (instrument.Slide is not null)
        {
            var metres = instrument.SlideTubeMetres(way.Setting.Attachment) * Math.Pow(2, (way.Setting.Position - 1) / 12.0);
            var cm = 50 * metres * Tubing.AddedShare(way.Cents / 100);
            return way.Tube.SlideOutCm + cm is >= 0 && way.Tube.SlideOutCm + cm <= instrument.Slide.TravelCm
                ? new Correction("slide", cm, $"{(sharp ? "Lengthen" : "Shorten")} the slide by {Math.Abs(cm):0.0} cm.")
                : new Correction("lips", 0, sharp ? "The slide is at its end; the lips bring it down." : "The slide is closed already; the lips bring it up.");
        }

        var pulled = sharp ? (way.Setting.Presses(3) ? 3 : way.Setting.Presses(1) ? 1 : 0) : 0;
        if (pulled == 0)
            return new Correction("lips", 0, sharp ? "The lips bring it down." : "The lips bring it up.");
        var pull = Tubing.PullCm(instrument.OpenMetres, way.Tube.LengthRatio, way.Cents);
        var name = pulled == 3 ? "third slide" : "first slide";
        return new Correction(name, pull, $"Pull the {name} {pull:0.0} cm, where it can be moved; else the lips bring it down.");
    }

    private static int SideOffset(Instrument instrument, Setting setting) =>
        instrument.ThumbSide is { } side && setting.Attachment == "T" ? -side.RaisesSemitones : 0;

    /// <summary>What stands against a way, and what the way it is measured against has that it has not.</summary>
    private static string Explain(List<Fingering> ways, int place)
    {
        var way = ways[place];
        var against = way.Reasons.Count == 0
            ? "the open tube, in tune by itself"
            : string.Join("; ", way.Reasons.OrderByDescending(reason => reason.Points).Select(reason => reason.Words));
        if (ways.Count == 1)
            return $"The only way: {against}.";
        return place == 0
            ? $"First of {ways.Count} ways: {against}. The next, {Named(ways[1])}, has more against it: {Worst(ways[1], way)}."
            : $"After {Named(ways[0])}, mostly for this: {Worst(way, ways[0])}. In all: {against}.";
    }

    private static string Named(Fingering way) => $"{way.Setting} on partial {way.Partial}";

    /// <summary>The reason in which one way is furthest behind another.</summary>
    private static string Worst(Fingering way, Fingering other) =>
        way.Reasons.MaxBy(reason => reason.Points - other.Reasons.Where(its => its.Kind == reason.Kind).Sum(its => its.Points)).Words;

    private static string PartialWeakness(int partial) => partial switch
    {
        1 => "a pedal note, no plain resonance",
        7 or 14 => "31 cents flat by nature",
        11 or 13 => "far from any note",
        _ => "close to its neighbours",
    };

    private static string Semitones(int count) => count == 1 ? "1 semitone" : $"{count} semitones";

    private static string Fingers(int count) => count == 1 ? "1 finger down" : $"{count} fingers down";
}
