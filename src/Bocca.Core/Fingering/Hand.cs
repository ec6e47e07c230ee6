using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering;

/// <summary>What a pupil's hands can do, and what their teacher has settled for them.</summary>
public sealed record Hand
{
    /// <summary>Hands that nothing is known to hold back.</summary>
    public static Hand Free { get; } = new();

    /// <summary>Centimetres of slide that the arm reaches; null where nobody measured it.</summary>
    public double? ReachCm { get; init; }

    /// <summary>The highest valve in use, 3 on a four-valve instrument whose fourth waits; null for all.</summary>
    public int? HighestValve { get; init; }

    /// <summary>The furthest slide position taught, 1 to 7; null for all.</summary>
    public int? FurthestPosition { get; init; }

    /// <summary>Whether valve slides are moved while playing already.</summary>
    public bool PullsSlides { get; init; } = true;

    /// <summary>The settings that the teacher has pinned, by the MIDI number of the sounding note.</summary>
    public IReadOnlyDictionary<int, Setting> Pins { get; init; } = new Dictionary<int, Setting>();

    /// <summary>The first notes in the teacher's own order, sounding; null for those of the approach.</summary>
    public IReadOnlyList<Pitch>? FirstNotes { get; init; }

    /// <summary>The hand as an approach has it at a stage: when valve slides are first pulled is the teacher's.</summary>
    public Hand Under(Approach approach, LearningStage stage) =>
        this with
        {
            PullsSlides = approach.Of(Points.SlidePulling) == SlidePulling.FromTheFirstNotes || stage >= LearningStage.Second,
        };

    /// <summary>Why this hand does not play a way, in words; null where nothing is in the way.</summary>
    internal string? Bars(Tube tube, Correction? correction)
    {
        var setting = tube.Setting;
        if (setting.Position > 0)
        {
            var outCm = tube.SlideOutCm + (correction is { What: "slide" } ? correction.Cm : 0);
            if (outCm > ReachCm)
                return $"The slide would stand {outCm:0} cm out; this arm reaches {ReachCm:0} cm.";
            return setting.Position > FurthestPosition ? $"Position {setting.Position} is not taught yet." : null;
        }

        return setting.Valves.LastOrDefault() is var highest && highest > HighestValve ? $"Valve {highest} is not in use yet." : null;
    }
}
