using Bocca.Core.Instruments;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Notes;

/// <summary>What the eye finds third and fourth position by.</summary>
public sealed record StoredSlideMarks : StoredShape
{
    /// <summary>Centimetres from the stay of the bell; null for the usual.</summary>
    public double? StayCm { get; init; }

    /// <summary>Centimetres from the end of the inner slide; null for the usual.</summary>
    public double? EndCm { get; init; }
}

/// <summary>A measured instrument as the record holds it.</summary>
/// <param name="ThirdForTwoThree">Whether the third valve is drawn for 2-3.</param>
/// <param name="ValveCents">Cents by which each valve alone lies above its place.</param>
public sealed record StoredMeasured(bool ThirdForTwoThree, IReadOnlyDictionary<int, double> ValveCents) : StoredShape
{
    public static PayloadShape<MeasuredPayload, StoredMeasured> Shape { get; } = new(Of, stored => stored.Read());

    /// <summary>Length of the tube with the trombone's slide closed, metres; null where it was not calibrated.</summary>
    public double? SlideTubeMetres { get; init; }

    public double? SlideTravelCm { get; init; }

    public StoredSlideMarks? Marks { get; init; }

    private static StoredMeasured Of(MeasuredPayload measured) =>
        new(measured.ThirdForTwoThree, measured.ValveCents)
        {
            SlideTubeMetres = measured.SlideTubeMetres,
            SlideTravelCm = measured.SlideTravelCm,
            Marks = measured.Marks is { } marks ? new StoredSlideMarks { StayCm = marks.StayCm, EndCm = marks.EndCm } : null,
        };

    private MeasuredPayload Read() =>
        new(SlideTubeMetres, SlideTravelCm, ThirdForTwoThree, ValveCents)
        {
            Marks = Marks is { } marks ? new SlideMarks(marks.StayCm, marks.EndCm) : null,
        };
}
