using Bocca.Core.Instruments;

namespace Bocca.Core.Fingering;

/// <summary>What the hand moves to bring a way in tune: a valve slide, the trombone's slide, the hand in the bell, else the lips.</summary>
internal static class TuningCorrection
{
    /// <summary>Cents within which no correction is named.</summary>
    private const double InTuneCents = 5;

    /// <summary>What is left to the lips after a slide at its end, below which it is not worth saying (cents).</summary>
    private const double LeastRestCents = 3;

    public static Correction? Of(Instrument instrument, Hand hand, Tube tube, double cents)
    {
        if (Math.Abs(cents) <= InTuneCents)
            return null;
        if (instrument.Slide is { } slide)
            return OfSlide(instrument, slide, tube, cents);
        var sharp = cents > 0;
        var pulls = sharp ? instrument.MovableSlides.Where(movable => tube.Setting.Presses(movable.Valve)).ToList() : [];
        if (pulls.Count > 0 && hand.PullsSlides)
            return Pulled(instrument, pulls, tube, cents);
        if (pulls.Count > 0)
            return new Correction("lips", 0, "The lips bring it down; later the slide does.");
        return instrument.HandInBell
            ? new Correction(
                "hand",
                0,
                sharp
                    ? "Close the hand in the bell a little; the lips do the rest."
                    : "Open the hand in the bell a little; the lips do the rest."
            )
            : new Correction("lips", 0, sharp ? "The lips bring it down." : "The lips bring it up.");
    }

    /// <summary>
    /// Where the third slide does not move while playing: how far it is set out, once, to make 2-3 true, and what that leaves of a sharp
    /// combination. Null where it moves, is set so already, or is not in use.
    /// </summary>
    public static Correction? SetOnce(Instrument instrument, Tube tube, double cents)
    {
        var third = instrument.Valves.FirstOrDefault(valve => valve.Number == 3);
        if (
            third is null
            || instrument.Compensation != Compensation.None
            || instrument.MovableSlides.Any(movable => movable.Valve == 3)
            || !tube.Setting.Presses(3)
            || cents <= InTuneCents
        )
            return null;
        var share = Tubing.ThirdForTwoThreeShare(third.Semitones);
        var cm = 50 * instrument.OpenMetres * (share - third.AddedShare);
        var set = instrument.Built(
            [.. instrument.Valves.Select(valve => valve.Number == 3 ? valve with { AddedShare = share } : valve)],
            null
        );
        var left = cents - tube.CentsSharp + set.TubeOf(tube.Setting)!.Value.CentsSharp;
        return cm < 0.05
            ? null
            : new Correction(
                "third slide set",
                cm,
                $"The lips bring it down; the third slide, set once {10 * cm:0} mm out for 2-3, leaves {Math.Abs(left):0} cents of it."
            );
    }

    private static Correction OfSlide(Instrument instrument, Slide slide, Tube tube, double cents)
    {
        var metres = instrument.SlideTubeMetres(tube.Setting.Attachment) * Math.Pow(2, (tube.Setting.Position - 1) / 12.0);
        var cm = 50 * metres * Tubing.AddedShare(cents / 100);
        return tube.SlideOutCm + cm is >= 0 && tube.SlideOutCm + cm <= slide.TravelCm
            ? new Correction("slide", cm, $"{(cents > 0 ? "Lengthen" : "Shorten")} the slide by {Math.Abs(cm):0.0} cm.")
            : new Correction(
                "lips",
                0,
                cents > 0 ? "The slide is at its end; the lips bring it down." : "The slide is closed already; the lips bring it up."
            );
    }

    /// <summary>The third slide as far as it goes, then the first, then the lips.</summary>
    private static Correction Pulled(Instrument instrument, List<MovableSlide> slides, Tube tube, double cents)
    {
        // The slide mends what the combination is off by; what the partial adds is left to the lips.
        var combination = Math.Min(cents, tube.CentsSharp);
        var wanted = Tubing.PullCm(instrument.OpenMetres, tube.LengthRatio, combination);
        var (left, parts) = (wanted, new List<string>());
        foreach (var movable in slides.Where(_ => left > 0.05))
        {
            var part = Math.Min(left, movable.ThrowCm);
            left -= part;
            parts.Add($"the {Ordinal(movable.Valve)} slide {10 * part:0} mm");
        }

        var rest = combination * left / wanted;
        var lips =
            rest > LeastRestCents
                ? $", as far as {(parts.Count > 1 ? "they go" : "it goes")}; the lips bring it down the last {rest:0} cents"
                : "";
        return new Correction($"{Ordinal(slides[0].Valve)} slide", wanted, $"Pull {string.Join(" and ", parts)}{lips}.");
    }

    private static string Ordinal(int valve) =>
        valve switch
        {
            1 => "first",
            2 => "second",
            3 => "third",
            _ => "fourth",
        };
}
