using Bocca.Core.Music;

namespace Bocca.Core.Instruments;

/// <summary>A place of a slide, anywhere between its ends.</summary>
/// <param name="Cm">Centimetres out of the closed slide.</param>
/// <param name="CentsDown">Cents by which it lowers the closed slide: 1200 log2(1 + cm / (50 L)) (computed).</param>
/// <param name="CentsPerCm">Cents that a centimetre makes there.</param>
/// <param name="Position">The nearest position, 1 to 7.</param>
/// <param name="OffCm">Centimetres from that position, outwards positive.</param>
public readonly record struct SlidePlace(double Cm, double CentsDown, double CentsPerCm, int Position, double OffCm)
{
    /// <summary>A hand is at a position within this (cm; ours, editable).</summary>
    private const double AtCm = 0.25;

    /// <summary>In words, such as <c>1.5 cm out from position 3</c>.</summary>
    public string Words =>
        Math.Abs(OffCm) < AtCm
            ? $"position {Position}"
            : $"{Math.Abs(OffCm):0.0} cm {(OffCm > 0 ? "out from" : "in from")} position {Position}";

    private const int FurthestPosition = 7;

    /// <summary>A place this far from a whole position is that position, and up to the other a flat or a sharp one (positions).</summary>
    private const double PlainShare = 0.08,
        NearShare = 0.35;

    /// <summary>
    /// The place as players of a plain slide call it: <c>4th</c>, a <c>flat 4th</c> a little further out, a <c>sharp 4th</c> a little
    /// further in, or between two (common practice; limits ours).
    /// </summary>
    public string OnPlainSlide
    {
        get
        {
            var at = 1 + (CentsDown / 100);
            var off = at - Math.Round(at);
            var near = Setting.OrdinalOf((int)Math.Round(at));
            return at > FurthestPosition + NearShare ? $"past {Setting.OrdinalOf(FurthestPosition)}"
                : Math.Abs(off) <= PlainShare ? near
                : Math.Abs(off) <= NearShare ? $"{(off > 0 ? "flat" : "sharp")} {near}"
                : $"between {Setting.OrdinalOf((int)Math.Floor(at))} and {Setting.OrdinalOf((int)Math.Ceiling(at))}";
        }
    }

    /// <summary>What a partial sounds there, hertz.</summary>
    /// <param name="instrument">The instrument whose slide it is.</param>
    /// <param name="partial">The partial, from 1.</param>
    /// <param name="tuning">The reference A of the room.</param>
    public double Hertz(Instrument instrument, int partial, Tuning tuning) =>
        tuning.Frequency(instrument.PartialOne.Midi + HarmonicSeries.ExactSemitones(partial) - (CentsDown / 100));

    /// <summary>The place so many centimetres out.</summary>
    public static SlidePlace Of(Slide slide, double cm)
    {
        var semitones = 12 * Math.Log2(1 + (cm / (50 * slide.TubeMetres)));
        var position = Math.Clamp((int)Math.Round(semitones) + 1, 1, 7);
        return new SlidePlace(
            cm,
            100 * semitones,
            Tubing.CentsPerCm(slide.TubeMetres, semitones + 1),
            position,
            cm - Tubing.SlideOutCm(slide.TubeMetres, position)
        );
    }
}
