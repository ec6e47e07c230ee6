using Bocca.Core.Teaching;

namespace Bocca.Core.Buzz.Measures;

/// <summary>
/// What is good enough at a stage; every number ours and editable (<c>bands.json</c>). The half-height of the gate is
/// <see cref="SteadyCents"/>.
/// </summary>
/// <param name="HoldSeconds">Seconds to hold, at least.</param>
/// <param name="SteadyCents">Steadiness, at most.</param>
/// <param name="DriftCentsPerSecond">Drift of the pitch either way, at most.</param>
/// <param name="DriftDbPerSecond">Drift of the level either way, at most.</param>
/// <param name="WobbleCents">Half-range of a regular swing, at most.</param>
/// <param name="WobbleDb">Half-range of a swing of the level, at most.</param>
/// <param name="OnsetDelayMs">Start after the cue, at most; also the spread of starts.</param>
/// <param name="AirBeforeToneMs">Air before the tone, at most.</param>
/// <param name="RiseMs">Rise of an untongued start, at most.</param>
/// <param name="ScoopCents">Scoop either way, at most.</param>
/// <param name="Breaks">Breaks, at most.</param>
/// <param name="BreathinessDb">Harmonic-to-noise ratio below the pupil's own usual one, at most.</param>
/// <param name="PitchCents">Distance from a model's pitch, at most.</param>
/// <param name="SameCents">Spread of pitch over the tries.</param>
/// <param name="SameDb">Spread of level.</param>
/// <param name="SameRiseMs">Spread of rise.</param>
/// <param name="SameCentroid">Spread of centroid over pitch.</param>
/// <param name="TonguedRiseMs">Rise of a tongued start, at most.</param>
/// <param name="SirenSemitones">Width of a siren, at least; 0 where none is asked.</param>
/// <param name="SeparationSemitones">Middle to higher, and to lower, at least; 0 where none is asked.</param>
/// <param name="DutyShare">Share of the time between joined tongued notes that sounds, at least.</param>
/// <param name="ClosedShare">Share of endings that the tongue closes, at most.</param>
public sealed record StageBands(
    double HoldSeconds,
    double SteadyCents,
    double DriftCentsPerSecond,
    double DriftDbPerSecond,
    double WobbleCents,
    double WobbleDb,
    double OnsetDelayMs,
    double AirBeforeToneMs,
    double RiseMs,
    double ScoopCents,
    int Breaks,
    double BreathinessDb,
    double PitchCents,
    double SameCents,
    double SameDb,
    double SameRiseMs,
    double SameCentroid,
    double TonguedRiseMs,
    double SirenSemitones,
    double SeparationSemitones,
    double DutyShare,
    double ClosedShare
)
{
    /// <summary>
    /// The same bands as an approach takes them: where the lips narrow on running air, half as much again before a tone
    /// is usual (ours, editable).
    /// </summary>
    public StageBands Under(Approach approach) =>
        approach.Of(Points.LipContact) == LipContact.NarrowingUntilItSpeaks ? this with { AirBeforeToneMs = 1.5 * AirBeforeToneMs } : this;
}
