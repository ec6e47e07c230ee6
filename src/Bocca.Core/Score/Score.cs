namespace Bocca.Core.Score;

/// <summary>A score.</summary>
/// <param name="Title">Its title; empty for none.</param>
/// <param name="Tempo">Quarters a minute at the beginning.</param>
/// <param name="Parts">Its parts from the top.</param>
public sealed record MusicScore(string Title, double Tempo, IReadOnlyList<ScorePart> Parts)
{
    /// <summary>Quarters a minute of a score that says nothing.</summary>
    public const double UsualTempo = 80;

    /// <summary>Who made it; empty where it does not say.</summary>
    public string Composer { get; init; } = "";

    /// <summary>Whether the tempo is printed.</summary>
    public bool ShowsTempo { get; init; } = true;

    /// <summary>Whether the score itself says a tempo.</summary>
    public bool HasTempo { get; init; } = true;
}
