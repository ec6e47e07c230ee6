using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Tone.Notes;

/// <summary>How a pupil's recent misses came about: it tips the scales where two ways fit a sound.</summary>
/// <param name="Partials">Misses by partial.</param>
/// <param name="Settings">Misses by valves or slide.</param>
public readonly record struct RecentMisses(int Partials, int Settings)
{
    /// <summary>What a partial missed is likelier than a setting missed by, from a quarter to four (ours, editable).</summary>
    public double TowardsPartials => Math.Clamp((Partials + 1.0) / (Settings + 1.0), 0.25, 4);
}

/// <summary>What is known about player and instrument when a note is judged.</summary>
/// <param name="Instrument">The instrument.</param>
/// <param name="Reading">How its player reads.</param>
/// <param name="Tuning">The reference A of the room.</param>
public sealed record PlayerSituation(Instrument Instrument, Reading Reading, Tuning Tuning)
{
    /// <summary>Where the partials of this very instrument lie.</summary>
    public Passport Passport { get; init; } = Passport.Unmeasured;

    /// <summary>How recent misses came about.</summary>
    public RecentMisses Misses { get; init; }

    /// <summary>How many of the first notes are learnt; null for all.</summary>
    public int? Learnt { get; init; }

    /// <summary>
    /// How many phrases of the drill asked were played clean so far, where they come one by one: the next one is laid out.
    /// </summary>
    public int Clean { get; init; }

    /// <summary>What ranks fingerings, for the chart note of what was heard.</summary>
    public FingeringWeights Weights { get; init; } = FingeringWeights.Default;

    /// <summary>What the hands can do, and what the teacher has pinned.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>Where a partial of a tube lies on this instrument, hertz.</summary>
    public double Hertz(Tube tube, int partial) => Passport.Frequency(Instrument, tube, partial, Tuning);
}
