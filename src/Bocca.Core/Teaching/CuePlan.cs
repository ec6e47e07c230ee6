namespace Bocca.Core.Teaching;

/// <summary>One thing to sound, and when.</summary>
/// <param name="StartBeat">Beats from the first cue.</param>
/// <param name="SoundBeats">Beats that sound.</param>
/// <param name="RestBeats">Beats of rest after it.</param>
/// <param name="Label">What it is called while it is counted; empty for nothing.</param>
/// <param name="Heights">Semitones from the drill's own middle, each for an equal share of the sound.</param>
/// <param name="Glides">Whether the pitch glides from height to height rather than stepping.</param>
public sealed record Cue(
    double StartBeat,
    double SoundBeats,
    double RestBeats,
    string Label,
    IReadOnlyList<double> Heights,
    bool Glides = false
)
{
    /// <summary>A single steady height at the middle.</summary>
    public static IReadOnlyList<double> Level { get; } = [0];

    /// <summary>Whether it keeps one height from start to end, so that steadiness means something.</summary>
    public bool IsLevel => Heights.Distinct().Count() == 1;

    /// <summary>Whether it is to last as long as the breath does; the beats are only the room for it.</summary>
    public bool AsLongAsItLasts { get; init; }

    /// <summary>Whether it is begun by the tongue on air that is already moving.</summary>
    public bool Tongued { get; init; }

    /// <summary>Whether it is sung, as a model for what follows: counted, drawn, not judged.</summary>
    public bool Voice { get; init; }

    /// <summary>Whether nothing may sound: air alone, or lips that cannot meet. Counted and told, never a try that failed.</summary>
    public bool Silent { get; init; }

    /// <summary>What it is for, where the drill's aim holds parts against each other.</summary>
    public DrillPart Part { get; init; }

    /// <summary>What this one is played on; null for the same as the rest of the take.</summary>
    public SoundStage? On { get; init; }
}

/// <summary>When each try of a take is due, and how long it should sound.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Tries">The tries, in order.</param>
public sealed record CuePlan(double Tempo, IReadOnlyList<Cue> Tries)
{
    /// <summary>Tries all alike.</summary>
    /// <param name="tempo">Beats a minute.</param>
    /// <param name="soundBeats">Beats that sound in each.</param>
    /// <param name="restBeats">Beats of rest after each.</param>
    /// <param name="times">How many.</param>
    public CuePlan(double tempo, int soundBeats, int restBeats, int times)
        : this(
            tempo,
            [.. Enumerable.Range(0, times).Select(i => new Cue(i * (soundBeats + restBeats), soundBeats, restBeats, "", Cue.Level))]
        ) { }

    /// <summary>The slowest and fastest tempo, beats a minute (ours, editable).</summary>
    public static (double Slowest, double Fastest) TempoRange { get; } = (40, 160);

    /// <summary>How many tries.</summary>
    public int Times => Tries.Count;

    /// <summary>Seconds a beat lasts.</summary>
    public double BeatSeconds => 60 / Tempo;

    /// <summary>Beats from the first cue to the end of the last rest.</summary>
    public double TotalBeats => Tries.Count == 0 ? 0 : Tries[^1].StartBeat + Tries[^1].SoundBeats + Tries[^1].RestBeats;

    /// <summary>Seconds from the first cue to the end of the last rest.</summary>
    public double TotalSeconds => TotalBeats * BeatSeconds;

    /// <summary>Seconds that the longest try should sound.</summary>
    public double SoundSeconds => Tries.Max(cue => cue.SoundBeats) * BeatSeconds;

    /// <summary>The moment of each cue, in seconds from the first.</summary>
    public IReadOnlyList<double> Cues => [.. Tries.Select(cue => cue.StartBeat * BeatSeconds)];

    /// <summary>Seconds that a try should sound.</summary>
    public double SecondsOf(Cue cue) => cue.SoundBeats * BeatSeconds;

    /// <summary>The same plan at another tempo, held within <see cref="TempoRange"/>.</summary>
    public CuePlan At(double tempo) => this with { Tempo = Math.Clamp(tempo, TempoRange.Slowest, TempoRange.Fastest) };

    /// <summary>As much of the plan as was over when it was stopped: the tries whose sound had ended.</summary>
    /// <param name="beats">Beats from the first cue.</param>
    /// <exception cref="ArgumentException">No try was over by then.</exception>
    public CuePlan UpTo(double beats)
    {
        var over = Tries.Where(cue => cue.StartBeat + cue.SoundBeats <= beats).ToList();
        return over.Count > 0
            ? this with
            {
                Tries = over,
            }
            : throw new ArgumentException("Nothing was finished yet: play at least one try to its end.");
    }

    /// <summary>Alike when played alike.</summary>
    public bool Equals(CuePlan? other) => other is not null && Tempo == other.Tempo && Tries.SequenceEqual(other.Tries);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Tempo, Tries.Count);
}
