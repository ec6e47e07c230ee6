using Bocca.Core.Teaching;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record.Requests;

/// <summary>One thing to sound as it was asked.</summary>
/// <param name="Start">Beats from the first cue.</param>
/// <param name="Sound">Beats that sound.</param>
/// <param name="Rest">Beats of rest after it.</param>
public sealed record StoredCue(double Start, double Sound, double Rest) : StoredShape
{
    /// <summary>The most beats that a cue or a rest lasts, and the latest beat on which one begins (ours): no drill comes near.</summary>
    private const double MostBeats = 256,
        MostStart = 10_000;

    /// <summary>What it is called while it is counted; null for nothing.</summary>
    public string? Label { get; init; }

    /// <summary>What it is for: a name of <see cref="StoredNames.DrillParts"/>; null for nothing.</summary>
    public string? Part { get; init; }

    /// <summary>Semitones from the drill's middle; null for the middle alone.</summary>
    public IReadOnlyList<double>? Heights { get; init; }

    /// <summary>Whether the pitch glides from height to height; null for no, as in the others.</summary>
    public bool? Glides { get; init; }

    public bool? AsLongAsItLasts { get; init; }

    public bool? Tongued { get; init; }

    public bool? Voice { get; init; }

    public bool? Silent { get; init; }

    /// <summary>What it is played on: the name of the stage; null for the same as the rest.</summary>
    public string? On { get; init; }

    public static StoredCue Of(Cue cue) =>
        new(cue.StartBeat, cue.SoundBeats, cue.RestBeats)
        {
            Label = cue.Label == "" ? null : cue.Label,
            Part = StoredNames.PartName(cue.Part),
            Heights = cue.Heights.SequenceEqual(Cue.Level) ? null : cue.Heights,
            Glides = Said(cue.Glides),
            AsLongAsItLasts = Said(cue.AsLongAsItLasts),
            Tongued = Said(cue.Tongued),
            Voice = Said(cue.Voice),
            Silent = Said(cue.Silent),
            On = StoredNames.SoundStages.Of(cue.On),
        };

    /// <summary>The cue.</summary>
    /// <exception cref="InvalidDataException">It is none.</exception>
    public Cue Read() =>
        Start is >= 0 and <= MostStart
        && Sound is > 0 and <= MostBeats
        && Rest is >= 0 and <= MostBeats
        && Heights is null or { Count: > 0 }
            ? new Cue(Start, Sound, Rest, Label ?? "", Heights ?? Cue.Level, Glides ?? false)
            {
                Part = StoredNames.PartOf(Part, Label),
                AsLongAsItLasts = AsLongAsItLasts ?? false,
                Tongued = Tongued ?? false,
                Voice = Voice ?? false,
                Silent = Silent ?? false,
                On = StoredNames.SoundStages.ReadIf(On),
            }
            : throw new InvalidDataException($"{Sound} beats from beat {Start} on are no cue.");

    private static bool? Said(bool it) => it ? true : null;
}

/// <summary>Cues as they were asked, with their times.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Tries">The cues, in order.</param>
public sealed record StoredCues(double Tempo, IReadOnlyList<StoredCue> Tries) : StoredShape
{
    /// <summary>The most cues of a take (ours): no drill comes near.</summary>
    private const int MostTries = 200;

    public static StoredCues Of(CuePlan plan) => new(plan.Tempo, [.. plan.Tries.Select(StoredCue.Of)]);

    /// <summary>The plan.</summary>
    /// <exception cref="InvalidDataException">No take is so long, or at such a tempo.</exception>
    public CuePlan Read() =>
        Tries.Count is > 0 and <= MostTries && Tempo >= CuePlan.TempoRange.Slowest && Tempo <= CuePlan.TempoRange.Fastest
            ? new CuePlan(Tempo, [.. Tries.Select(each => each.Read())])
            : throw new InvalidDataException($"{Tries.Count} cues at {Tempo} are no take.");
}
