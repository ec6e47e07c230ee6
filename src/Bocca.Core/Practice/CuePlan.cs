namespace Bocca.Core.Practice;

/// <summary>When each try of a take is due, and how long it should sound.</summary>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="SoundBeats">Beats that sound in each try.</param>
/// <param name="RestBeats">Beats of rest after each try.</param>
/// <param name="Times">How many tries.</param>
public sealed record CuePlan(double Tempo, int SoundBeats, int RestBeats, int Times)
{
    /// <summary>The slowest and fastest tempo, beats a minute (ours, editable).</summary>
    public static (double Slowest, double Fastest) TempoRange { get; } = (40, 160);

    /// <summary>Seconds a beat lasts.</summary>
    public double BeatSeconds => 60 / Tempo;

    /// <summary>Seconds from one cue to the next.</summary>
    public double PeriodSeconds => (SoundBeats + RestBeats) * BeatSeconds;

    /// <summary>Seconds each try should sound.</summary>
    public double SoundSeconds => SoundBeats * BeatSeconds;

    /// <summary>Seconds from the first cue to the end of the last rest.</summary>
    public double TotalSeconds => Times * PeriodSeconds;

    /// <summary>The moment of each cue, in seconds from the first.</summary>
    public IReadOnlyList<double> Cues => [.. Enumerable.Range(0, Times).Select(i => i * PeriodSeconds)];

    /// <summary>The same plan at another tempo, held within <see cref="TempoRange"/>.</summary>
    public CuePlan At(double tempo) => this with { Tempo = Math.Clamp(tempo, TempoRange.Slowest, TempoRange.Fastest) };
}
