using Bocca.Core.Instruments;

namespace Bocca.Core.Pieces;

/// <summary>What the record says of the pupil who is to play a piece.</summary>
public sealed record StudyPupil
{
    /// <summary>A pupil of whom nothing is known.</summary>
    public static StudyPupil Unknown { get; } = new();

    /// <summary>How far the pupil's notes reach; null where that is not known.</summary>
    public PlayingRange? Range { get; init; }

    /// <summary>The values met so far, by their ids; null where that is not known.</summary>
    public IReadOnlySet<string>? Met { get; init; }

    /// <summary>How often notes were missed lately, 0 to 1, by the MIDI number of what sounds.</summary>
    public IReadOnlyDictionary<int, double> Missed { get; init; } = new Dictionary<int, double>();
}
