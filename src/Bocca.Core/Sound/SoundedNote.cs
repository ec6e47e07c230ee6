namespace Bocca.Core.Sound;

/// <summary>A note as it sounded: one pitch from a start to an end.</summary>
public sealed record SoundedNote
{
    /// <summary>
    /// When it starts, seconds: at the foot of its rise, at most 11 ms before a tenth of its amplitude, or where the tone it grew out of
    /// is first disturbed.
    /// </summary>
    public required double StartSeconds { get; init; }

    /// <summary>When it ends, seconds: at half of its amplitude.</summary>
    public required double EndSeconds { get; init; }

    /// <summary>When it has risen to half of its amplitude, seconds; its start where it grew out of a running tone.</summary>
    public required double HalfSeconds { get; init; }

    /// <summary>Median pitch of its inner part, hertz.</summary>
    public required double MedianHz { get; init; }

    /// <summary>Standard deviation of the pitch of its inner part, cents.</summary>
    public required double SpreadCents { get; init; }

    /// <summary>Median level of its inner part, decibels below full scale.</summary>
    public required double LevelDb { get; init; }

    /// <summary>Milliseconds from 10 to 90 % of its amplitude; null where it grew out of the note before.</summary>
    public double? RiseMs { get; init; }

    /// <summary>Milliseconds from -3 to -20 dB at its end; null where it went on into the next note.</summary>
    public double? FallMs { get; init; }

    /// <summary>Pitch 30 to 80 ms after its start less its median, cents; null where it is too short.</summary>
    public double? ScoopCents { get; init; }

    /// <summary>
    /// How far the level fell under the softer of this note and the one before, between them, decibels; null for the first.
    /// </summary>
    public double? DipDb { get; init; }

    /// <summary>Milliseconds from the end of the note before to its start; null for the first.</summary>
    public double? GapMs { get; init; }

    /// <summary>Whether the level dropped and came back at once before it, as the tongue does it; true for the first of a row.</summary>
    public bool Tongued { get; init; }

    /// <summary>How long it sounds, seconds.</summary>
    public double Seconds => EndSeconds - StartSeconds;

    /// <summary>How long it sounds at half of its amplitude or more, seconds: what the ear takes for its length beside others.</summary>
    public double HalfToHalfSeconds => EndSeconds - HalfSeconds;
}
