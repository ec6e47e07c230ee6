using Bocca.Web.Record;

namespace Bocca.Web.Frame.Takes;

/// <summary>A recording as sent by the page.</summary>
/// <param name="Sound">The sound.</param>
/// <param name="Source">Where it comes from.</param>
/// <param name="FirstCue">When the first try was due, seconds into it; null for a sound with marks of its own.</param>
/// <param name="Tense">Whether the teacher has ticked tension.</param>
/// <param name="Missing">Seconds of it that did not arrive.</param>
/// <param name="Drill">The drill, by its id.</param>
public record SentSound(IFormFile? Sound, EntrySource Source, double? FirstCue, bool Tense, double Missing, string Drill)
{
    /// <summary>Beats that were over when the take was stopped; null for one that went to its end.</summary>
    public double? Finished { get; init; }

    /// <summary>What it was asked to be, as the page was given it when Start was pressed; null where it was not asked.</summary>
    public string? Request { get; init; }

    /// <summary>Whether nothing of it is to be kept: it is heard, shown, and forgotten.</summary>
    public bool? Private { get; init; }

    /// <summary>Whether the practice player made it: it is shown and judged, and nothing of it is anybody's.</summary>
    public bool IsDemonstration => Source == EntrySource.PracticePlayer;

    /// <summary>Whether it has just been played here.</summary>
    public bool IsPlayedHere => Source == EntrySource.Microphone;

    public double MissingSeconds => Math.Max(0, Missing);
}
