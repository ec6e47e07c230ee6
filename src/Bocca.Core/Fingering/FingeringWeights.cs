using Bocca.Core.Instruments;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>
/// What makes one way to play a note better than another, in points that add up; fewer is better.
/// Ours and editable: they are data (<c>weights.json</c>), chosen so that the order computed gives the charts taught.
/// </summary>
public sealed record FingeringWeights
{
    private static readonly Lazy<FingeringWeights> Shipped = new(() => EmbeddedData.Read<FingeringWeights>("weights.json"));

    /// <summary>The weights that ship.</summary>
    public static FingeringWeights Default => Shipped.Value;

    /// <summary>Points for each semitone of tube added to the open instrument, or of slide drawn.</summary>
    public required double PerSemitoneOfTube { get; init; }

    /// <summary>Points for a note ten cents off that the hand cannot bring in; grows with the square.</summary>
    public required double PerTenCentsSquared { get; init; }

    /// <summary>Points for each finger or thumb that is down.</summary>
    public required double PerFingerDown { get; init; }

    /// <summary>Points for valve 3 doing the work of 1 and 2: its slide is often drawn for 2-3 and leaves it flat alone.</summary>
    public required double ThirdForFirstAndSecond { get; init; }

    /// <summary>Points for valve 4 alone, where an approach fingers 1-3 instead; none unless one does.</summary>
    public double FourthForFirstAndThird { get; init; }

    /// <summary>Whether the thumb side of a double horn is left out.</summary>
    public bool HidesThumbSide { get; init; }

    /// <summary>Points for using a double horn's side outside its register.</summary>
    public required double OtherSideOfHorn { get; init; }

    /// <summary>Points for each trigger of a trombone.</summary>
    public required double PerTrigger { get; init; }

    /// <summary>Points more for the second trigger of a bass trombone: the plain slide and the first one come before it.</summary>
    public required double SecondTrigger { get; init; }

    /// <summary>Points for a partial that is weak, crowded or far from the tempered note; absent means none.</summary>
    public required IReadOnlyDictionary<int, double> Partials { get; init; }

    /// <summary>The same weights as an approach and a pupil's stage have them (points ours, editable).</summary>
    public FingeringWeights Under(Approach approach, LearningStage stage) =>
        this with
        {
            FourthForFirstAndThird = approach.Of(Points.FourthValve) == FourthValve.FirstAndThirdWhereEasier ? 12 : 0,
            HidesThumbSide = approach.Of(Points.HornThumb) == HornThumb.HiddenAtFirst && stage < LearningStage.Pieces,
        };

    /// <summary>Points of a partial on the side of the instrument in use, whose own table goes first.</summary>
    public double OfPartial(Instrument instrument, Setting setting, int partial)
    {
        var own = instrument.ThumbSide is { } side && setting.Attachment == "T" ? side.PartialCosts : instrument.PartialCosts;
        return own.TryGetValue(partial, out var points) ? points : Partials.GetValueOrDefault(partial);
    }
}
