using Bocca.Core.Teaching;

namespace Bocca.Core.Pieces.Breathing;

/// <summary>Who breathes a line.</summary>
/// <param name="CapacitySeconds">What one breath carries at medium level in the middle register, its safety share taken off, s.</param>
public sealed record PieceBreather(double CapacitySeconds)
{
    /// <summary>Breaths that can be planned with, s.</summary>
    public const double LeastCapacity = 1,
        MostCapacity = 60;

    /// <summary>The pupil's quickest full breath, s; null where it is not known.</summary>
    public double? QuickestSeconds { get; init; }

    /// <summary>What printed commas are for the teacher.</summary>
    public BreathMarks Commas { get; init; }

    /// <summary>The sounding pitch of the open second partial: what lies below spends more; 0 for none.</summary>
    public int SecondPartialMidi { get; init; }

    /// <summary>Notes that this pupil misses after a breath: none is taken before them but in a rest.</summary>
    public IReadOnlySet<int> MissedAfterBreath { get; init; } = new HashSet<int>();

    /// <summary>Notes after which the teacher asks for a breath, and after which none is taken.</summary>
    public IReadOnlySet<int> Asked { get; init; } = new HashSet<int>();

    /// <inheritdoc cref="Asked"/>
    public IReadOnlySet<int> Forbidden { get; init; } = new HashSet<int>();

    /// <summary>What notes spend and places cost.</summary>
    public AirCosts Costs { get; init; } = AirCosts.Shipped;

    /// <summary>Whether everything is played one level softer.</summary>
    public bool Softer { get; init; }
}
