using Bocca.Core.Instruments;
using Bocca.Core.Music;

namespace Bocca.Core.Fingering.Passage;

/// <summary>A note of a line that is to be fingered.</summary>
/// <param name="Sounding">What sounds, concert pitch.</param>
/// <param name="Seconds">When it begins, seconds.</param>
/// <param name="Held">How long it is held, seconds.</param>
public readonly record struct PassageNote(Pitch Sounding, double Seconds, double Held)
{
    /// <summary>Whether it goes on from the note before without the tongue.</summary>
    public bool IsSlurred { get; init; }

    /// <summary>Whether it stands out: a fermata, the last of a phrase.</summary>
    public bool IsExposed { get; init; }

    /// <summary>The setting that the teacher wants here; null for none.</summary>
    public Setting? Pin { get; init; }
}

/// <summary>A stretch of a line that is the same as an earlier one.</summary>
/// <param name="From">Its first note.</param>
/// <param name="Like">The first note of the one it is like.</param>
/// <param name="Count">How many notes.</param>
public readonly record struct PassageRepeat(int From, int Like, int Count);

/// <summary>Who plays the line, and on what.</summary>
/// <param name="Instrument">The instrument; a very one as its passport has it.</param>
public sealed record PassagePlayer(Instrument Instrument)
{
    /// <summary>What ranks ways by themselves.</summary>
    public FingeringWeights Weights { get; init; } = FingeringWeights.Default;

    /// <summary>What the hands can do, and what the teacher has settled for single notes.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>Where this very instrument's partials lie.</summary>
    public Passport Passport { get; init; } = Passport.Unmeasured;

    /// <summary>What ways through a line cost.</summary>
    public PassageCosts Costs { get; init; } = PassageCosts.Shipped;

    /// <summary>Whether valve 3 alone is taken as the equal of 1-2.</summary>
    public bool ThirdIsEqual { get; init; }

    /// <summary>Seconds by which this pupil's own changes of the hand are slower than usual, by the two settings.</summary>
    public IReadOnlyDictionary<(Setting From, Setting To), double> SlowChanges { get; init; } =
        new Dictionary<(Setting, Setting), double>();
}
