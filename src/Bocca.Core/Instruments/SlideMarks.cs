namespace Bocca.Core.Instruments;

/// <summary>
/// What the eye finds third and fourth position by (common practice). It depends on the maker, so it is measured once on a slide; the ear
/// corrects it. The two are other parts of the slide and are not subtracted from each other.
/// </summary>
/// <param name="StayCm">
/// In third: how far the stay, the cross-brace of the outer slide, stands on the player's side of the bell's rim, cm; null for the usual 2
/// to 3.
/// </param>
/// <param name="EndCm">
/// In fourth: how far the upper end of the outer slide, where the bare inner tube begins, lies beyond the bell's rim, cm, negative on the
/// player's side; null for level with it.
/// </param>
public sealed record SlideMarks(double? StayCm, double? EndCm)
{
    /// <summary>What a mark can measure, cm (ours, editable).</summary>
    public static (double Least, double Most) StayRange { get; } = (0, 12);

    /// <summary>What the end can measure, cm (ours, editable).</summary>
    public static (double Least, double Most) EndRange { get; } = (-12, 12);

    /// <summary>As most slides have it.</summary>
    public static SlideMarks Usual { get; } = new(null, null);

    /// <summary>Where the stay is in third.</summary>
    public string Third =>
        $"the stay, the cross-brace of the outer slide, {(StayCm is { } cm ? $"{cm:0.#} cm" : "2 to 3 cm")} on the player's side of the "
        + $"bell's rim";

    /// <summary>Where the outer slide ends in fourth.</summary>
    public string Fourth =>
        "the upper end of the outer slide, where the bare inner tube begins, "
        + (
            EndCm is not { } cm || Math.Abs(cm) < 0.05
                ? "level with the bell's rim"
                : $"{Math.Abs(cm):0.#} cm {(cm > 0 ? "beyond" : "on the player's side of")} the bell's rim"
        );

    /// <summary>Marks as measured.</summary>
    /// <exception cref="ArgumentException">No slide has them there; the message says what can be.</exception>
    public static SlideMarks Measured(double? stayCm, double? endCm)
    {
        if (stayCm is { } stay && !(stay >= StayRange.Least && stay <= StayRange.Most))
            throw new ArgumentException($"In third the stay stands {StayRange.Least:0} to {StayRange.Most:0} cm before the bell's rim.");
        if (endCm is { } end && !(end >= EndRange.Least && end <= EndRange.Most))
            throw new ArgumentException($"In fourth the outer slide ends within {EndRange.Most:0} cm of the bell's rim.");
        return new SlideMarks(stayCm, endCm);
    }
}
