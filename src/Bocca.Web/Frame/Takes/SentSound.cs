using Bocca.Core.Sound;
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

    /// <summary>When it was played where it waited before it was sent, milliseconds since 1970; null for just now.</summary>
    public long? PlayedAt { get; init; }

    /// <summary>
    /// Where in the sound the take begins and ends, seconds: one turn of several; null for its beginning and its end. The first cue
    /// counts from there.
    /// </summary>
    public double? From { get; init; }

    /// <inheritdoc cref="From"/>
    public double? Until { get; init; }

    /// <summary>Whether the practice player made it: it is shown and judged, and nothing of it is anybody's.</summary>
    public bool IsDemonstration => Source == EntrySource.PracticePlayer;

    /// <summary>Whether it has just been played here.</summary>
    public bool IsPlayedHere => Source == EntrySource.Microphone;

    public double MissingSeconds => Math.Max(0, Missing);

    /// <summary>What of a sound is the take.</summary>
    /// <exception cref="ArgumentException">The sound has no such part.</exception>
    public MonoSound PartOf(MonoSound sound)
    {
        if ((From, Until) is (null, null))
            return sound;
        var (from, until) = (From ?? 0, Until ?? sound.Seconds);
        return from >= 0 && until > from && from < sound.Seconds
            ? sound.Between(from, until)
            : throw new ArgumentException($"The recording of {sound.Seconds:0.0} s has no part from {from:0.0} to {until:0.0} s.");
    }

    /// <summary>
    /// When it was played, as the browser says where the take waited; now where it says nothing, another day or what is still to come.
    /// </summary>
    public DateTime Moment(RoomClock clock)
    {
        var now = clock.Now;
        if (PlayedAt is not { } at || at < 0 || at > new DateTimeOffset(now).ToUnixTimeMilliseconds())
            return now;
        var said = DateTimeOffset.FromUnixTimeMilliseconds(at).UtcDateTime;
        return clock.DayOf(said) == clock.Today ? said : now;
    }
}
