using Bocca.Core.Instruments;

namespace Bocca.Core.Embouchure;

/// <summary>How far out a trombonist's straight arm takes the slide.</summary>
/// <param name="OutCm">Centimetres of slide, at most.</param>
/// <param name="Furthest">The furthest whole position inside that, 1 to 7.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record ArmReach(double OutCm, int Furthest, string Sentence)
{
    /// <summary>Arm lengths that can be, cm (ours, editable).</summary>
    public static (double Least, double Most) ArmCm { get; } = (25, 90);

    /// <summary>
    /// An arm's length that the slide does not get: the hand starts ahead of the shoulder in first (cm; ours, editable: check it on the
    /// slide).
    /// </summary>
    private const double HeldBackCm = 8;

    /// <summary>The reach of an arm measured from the shoulder joint to the grip of thumb and two fingers, straight.</summary>
    /// <param name="armCm">The arm's length, cm.</param>
    /// <param name="trombone">An instrument with a slide.</param>
    /// <exception cref="ArgumentException">No arm is that long, or the instrument has no slide.</exception>
    public static ArmReach Of(double armCm, Instrument trombone)
    {
        var (least, most) = ArmCm;
        if (!(armCm >= least && armCm <= most))
            throw new ArgumentException(
                $"An arm of {armCm:0.#} cm cannot be: measure from the shoulder joint to the grip, {least:0} to {most:0} cm."
            );
        if (trombone.Slide is not { } slide)
            throw new ArgumentException($"A {trombone.Name} has no slide to reach along.");
        var reach = Math.Min(armCm - HeldBackCm, slide.TravelCm);
        var furthest = Enumerable.Range(1, 7).Last(position => Tubing.SlideOutCm(slide.TubeMetres, position) <= reach);
        var next =
            furthest == 7
                ? ""
                : $" Position {furthest + 1} needs {Tubing.SlideOutCm(slide.TubeMetres, furthest + 1):0} cm: other ways to play its "
                    + $"notes instead, no leaning.";
        return new ArmReach(reach, furthest, $"A straight arm takes the slide about {reach:0} cm out: position {furthest} at most.{next}");
    }
}
