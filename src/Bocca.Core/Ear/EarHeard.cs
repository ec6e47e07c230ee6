using Bocca.Core.Music;

namespace Bocca.Core.Ear;

/// <summary>Who made a note.</summary>
public enum EarBy
{
    /// <summary>A voice: octaves apart are the same note.</summary>
    Voice,

    /// <summary>The instrument.</summary>
    Instrument,
}

/// <summary>What came of a note meant.</summary>
public enum EarOutcome
{
    /// <summary>Within half of a semitone.</summary>
    Right,

    /// <summary>Too low, and still nearest to it.</summary>
    Flat,

    /// <summary>Too high, and still nearest to it.</summary>
    Sharp,

    /// <summary>Nearer to another note.</summary>
    OtherNote,

    /// <summary>Nothing that could be it was heard.</summary>
    Nothing,

    /// <summary>Heard, but too short or too unsteady to be told.</summary>
    CannotTell,
}

/// <summary>A note meant, and what was heard of it.</summary>
/// <param name="Target">What was meant, as it is written.</param>
/// <param name="HeardHz">The pitch of its held part, hertz; null for nothing.</param>
/// <param name="Cents">Heard less meant, octaves apart taken out, cents; null for nothing.</param>
/// <param name="Octaves">Octaves that it lies above what was meant, below negative.</param>
/// <param name="Cm">How far a slide has to move, outward above 0, centimetres; null where there is no slide.</param>
/// <param name="SteadinessCents">Standard deviation of the held part, cents; null for nothing.</param>
/// <param name="Outcome">What came of it.</param>
/// <param name="Sentence">The same in words.</param>
public sealed record EarHeard(
    Pitch Target,
    double? HeardHz,
    double? Cents,
    int Octaves,
    double? Cm,
    double? SteadinessCents,
    EarOutcome Outcome,
    string Sentence
)
{
    /// <summary>Cents in the first and the last third of its held part; null for nothing.</summary>
    public double? BeginCents { get; init; }

    /// <inheritdoc cref="BeginCents"/>
    public double? EndCents { get; init; }

    /// <summary>It is told that somebody came closer from so many cents on (ours, editable).</summary>
    public const double CloserCents = 12;

    /// <summary>Whether it was moved towards the note while it sounded, and ended near it.</summary>
    public bool CameCloser =>
        BeginCents is { } begin
        && EndCents is { } end
        && Math.Abs(begin) - Math.Abs(end) >= CloserCents
        && Math.Abs(end) <= EarListener.NearCents;
}
