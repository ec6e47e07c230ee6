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
    /// <summary>A regular swing of such a rate is a vibrato where one is asked (a second; common practice, limits ours).</summary>
    private const double SlowestVibratoHz = 4,
        FastestVibratoHz = 7;

    /// <summary>
    /// Harmonic-to-noise ratio under which there may be air in the tone, and over which it may be tight, where nothing of the pupil's own
    /// tells (dB; ours, editable, by the practice player's sounds); 0 where that cannot be said.
    /// </summary>
    public double MaybeAiryDb { get; init; }

    /// <inheritdoc cref="MaybeAiryDb"/>
    public double MaybeTightDb { get; init; }

    /// <summary>Whether a vibrato is asked.</summary>
    public bool Vibrato { get; init; }

    /// <summary>Wider by half, and half as long to hold: for lips or teeth that ask for care (ours, editable).</summary>
    public StageBands Wider =>
        this with
        {
            HoldSeconds = HoldSeconds / 2,
            SteadyCents = 1.5 * SteadyCents,
            DriftCentsPerSecond = 1.5 * DriftCentsPerSecond,
            DriftDbPerSecond = 1.5 * DriftDbPerSecond,
            WobbleCents = 1.5 * WobbleCents,
            SameCents = 1.5 * SameCents,
        };

    /// <summary>
    /// The same bands as an approach takes them: where the lips narrow on running air, half as much again before a tone
    /// is usual (ours, editable).
    /// </summary>
    public StageBands Under(Approach approach) =>
        this with
        {
            AirBeforeToneMs = approach.Of(Points.LipContact) == LipContact.NarrowingUntilItSpeaks ? 1.5 * AirBeforeToneMs : AirBeforeToneMs,
            Vibrato = approach.Of(Points.Vibrato) == VibratoWanted.Asked,
        };

    /// <summary>Whether a tone swings as a vibrato that was asked.</summary>
    public bool IsVibrato(AttemptMeasures attempt) =>
        Vibrato && attempt is { WobbleHz: >= SlowestVibratoHz and <= FastestVibratoHz, WobbleCents: >= 5 };

    /// <summary>Half-range of a swing that nobody asked for, cents.</summary>
    public double? Wobble(AttemptMeasures attempt) => IsVibrato(attempt) ? null : attempt.WobbleCents;

    /// <summary>Steadiness without a vibrato that was asked, cents: a sine of half-range w has a variance of w squared over two.</summary>
    public double? Steadiness(AttemptMeasures attempt) =>
        attempt.SteadinessCents is { } cents && IsVibrato(attempt)
            ? Math.Sqrt(Math.Max(0, (cents * cents) - (Math.Pow(attempt.WobbleCents!.Value, 2) / 2)))
            : attempt.SteadinessCents;
}
