using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Counting;

/// <summary>
/// Hears cards out that were said and clapped into one microphone: syllables by their vowels and claps are told apart, and each is laid
/// on the grid of the card as a track of its own.
/// </summary>
public static class CountListener
{
    /// <summary>The speaking voice, hertz (common practice for the range).</summary>
    private static readonly PitchTrackerSettings Voice = new() { LowestHz = 70, HighestHz = 600 };

    /// <summary>What begins this long before a card, or after it, belongs to it, seconds.</summary>
    private const double Around = 0.3;

    /// <summary>Under this share of voiced time in what was said it was whispered (ours).</summary>
    private const double Whispered = 0.1;

    /// <summary>More than so many taps a second come from a key that is stuck.</summary>
    private const double MostTapsASecond = 14;

    /// <summary>Hears a row of cards.</summary>
    /// <param name="sound">The sound; its beginning may hold the count-in.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="due">
    /// When the first beat was due, seconds into the sound; null where nobody knows: then at its first note, clap or syllable.
    /// </param>
    /// <param name="toleranceMs">What is close enough, milliseconds either way.</param>
    /// <param name="taps">When keys were tapped, seconds into the sound; null where none were asked.</param>
    /// <param name="player">Who plays, where cards are played on their notes; null otherwise.</param>
    /// <exception cref="ArgumentException">Cards are to be played on their notes and have none.</exception>
    public static HeardCount Hear(
        MonoSound sound,
        CountAsked asked,
        double? due,
        double toleranceMs,
        IReadOnlyList<double>? taps = null,
        PlayerSituation? player = null
    )
    {
        asked = asked.Checked();
        var played = asked.Ways.HasFlag(CountWays.Played) ? NoteFinder.Find(sound, PitchTrack.Of(sound)) : [];
        var firstSeconds = due ?? (played.Count > 0 ? played[0].StartSeconds : FirstSounded(sound));
        var track = PitchTrack.Of(sound, Voice);
        // Who only taps makes no sound that could be disturbed.
        if (asked.Ways != CountWays.Tapped && Disturbed(sound, track, firstSeconds) is { } disturbed)
            return new HeardCount([], disturbed, $"Cannot tell: {disturbed}");
        // Claps and syllables in one pass over the sound.
        var levels = new BandLevels(sound, [.. ClapFinder.Bands, .. SyllableFinder.Bands]);
        var claps = levels.Only(..ClapFinder.Bands.Count);
        var syllables = asked.Ways.HasFlag(CountWays.Said)
            ? Within(SyllableFinder.Find(levels.Only(ClapFinder.Bands.Count..)).Select(each => each.Seconds))
            : null;
        var hands =
            asked.Ways.HasFlag(CountWays.Tapped) ? Within(taps ?? [])
            : asked.Ways.HasFlag(CountWays.Played) ? Within(played.Select(note => note.StartSeconds))
            : asked.Ways.HasFlag(CountWays.Clapped) ? Within(ClapFinder.Find(claps).Select(each => each.Seconds))
            : null;
        var problem = Problem(asked, syllables, hands, track, firstSeconds);
        if (problem is not null)
            return new HeardCount([], problem, $"Cannot tell: {problem}");
        var heard = Laid(asked, syllables, hands, toleranceMs);
        return asked.Ways.HasFlag(CountWays.OnNotes) && player is not null
            ? CardPitches.Judged(
                heard,
                asked,
                [.. played.Select(note => note with { StartSeconds = note.StartSeconds - firstSeconds })],
                player
            )
            : heard;

        List<double> Within(IEnumerable<double> moments) =>
            [.. moments.Select(at => at - firstSeconds).Where(at => at > -Around && at < (asked.TotalBeats * asked.BeatSeconds) + Around)];
    }

    /// <summary>Lays what began on the grids of the cards.</summary>
    /// <param name="asked">What was asked.</param>
    /// <param name="said">When syllables began, seconds from the first beat; null where nothing was to be said.</param>
    /// <param name="hands">When claps, taps or notes began; null likewise.</param>
    /// <param name="toleranceMs">What is close enough, milliseconds either way.</param>
    public static HeardCount Laid(CountAsked asked, IReadOnlyList<double>? said, IReadOnlyList<double>? hands, double toleranceMs)
    {
        var what =
            asked.Ways.HasFlag(CountWays.Tapped) ? "tap"
            : asked.Ways.HasFlag(CountWays.Played) ? "note"
            : "clap";
        var cards = asked
            .Cards.Select(
                (card, i) =>
                {
                    // What lies outside by no more than a vowel may be misheard is not blamed on the voice.
                    var heardMs = toleranceMs + SyllableFinder.OffMs;
                    var voice = said is null ? null : CountJudge.Of(card, asked.Tempo, OfCard(said, i), heardMs, "count");
                    var own = hands is null ? null : CountJudge.Of(card, asked.Tempo, OfCard(hands, i), toleranceMs, what);
                    return new HeardCard(card, voice, own, Ahead(voice, own));
                }
            )
            .ToList();
        return new HeardCount(cards, null, CountWords.Of(asked, cards));

        List<double> OfCard(IReadOnlyList<double> all, int card)
        {
            var from = card == 0 ? double.NegativeInfinity : Border(card);
            var to = card + 1 == asked.Cards.Count ? double.PositiveInfinity : Border(card + 1);
            return [.. all.Where(at => at >= from && at < to).Select(at => at - asked.StartSeconds(card))];
        }

        // Half of the gap belongs to the card before; without one, a little before the beat.
        double Border(int card) => asked.StartSeconds(card) - Math.Max(0.1 * asked.BeatSeconds, 0.5 * asked.GapBeats * asked.BeatSeconds);
    }

    private static double FirstSounded(MonoSound sound) =>
        ClapFinder
            .Find(sound)
            .Select(clap => clap.Seconds)
            .Concat(SyllableFinder.Find(sound).Select(said => said.Seconds))
            .DefaultIfEmpty(0)
            .Min();

    private static double? Ahead(CountedTrack? said, CountedTrack? clapped)
    {
        if (said is null || clapped is null)
            return null;
        var both = said.Beats.Zip(clapped.Beats, (voice, hand) => voice.ErrorMs - hand.ErrorMs).OfType<double>().ToList();
        return both.Count < 2 ? null : both.Median();
    }

    /// <summary>What makes it unfit; that somebody talks or hisses is no matter here.</summary>
    private static string? Disturbed(MonoSound sound, PitchTrack track, double firstSeconds)
    {
        var found = Disturbance.Find(sound, track, [(0, Math.Max(0, firstSeconds - Around))], voiceAsked: true);
        return found is null or { Kind: DisturbanceKind.Narrow or DisturbanceKind.Unplugged } ? null : $"{found.Why} {found.Remedy}";
    }

    private static string? Problem(CountAsked asked, List<double>? said, List<double>? hands, PitchTrack track, double firstSeconds)
    {
        if (asked.Ways.HasFlag(CountWays.Tapped) && IsStuck(hands!))
            return "a key seems to be stuck: too many taps came. Let it go, and start once more.";
        if (said is { Count: > 1 } && VoicedShare(track, said, firstSeconds) < Whispered)
            return "it was whispered. Say it aloud, and it can be heard.";
        if (hands is null || asked.Ways.HasFlag(CountWays.Tapped))
            return null;
        var due = asked
            .Cards.SelectMany((card, i) => card.Onsets.Select(at => asked.StartSeconds(i) + (at.Value * asked.QuarterSeconds)))
            .ToList();
        return IsMetronome(asked, due, hands) ? "something clicks on every beat. Switch the metronome off, or use headphones."
            : AreTwo(due, hands) ? "nearly everything came twice: two people clap. One at a time."
            : null;
    }

    private static double VoicedShare(PitchTrack track, List<double> said, double firstSeconds)
    {
        const double Vowel = 0.08;
        var frames = said.SelectMany(at =>
                track.Frames.Where(frame => frame.TimeSeconds - firstSeconds >= at && frame.TimeSeconds - firstSeconds < at + Vowel)
            )
            .ToList();
        return frames.Count == 0 ? 1 : (double)frames.Count(frame => frame.Voiced) / frames.Count;
    }

    private static bool IsStuck(List<double> taps)
    {
        for (var i = 0; i + MostTapsASecond < taps.Count; i++)
            if (taps[(int)(i + MostTapsASecond)] - taps[i] < 1)
                return true;
        return false;
    }

    /// <summary>Whether something clicks, evenly, on every beat on which nothing begins.</summary>
    private static bool IsMetronome(CountAsked asked, List<double> due, List<double> hands)
    {
        const double Close = 0.012;
        const int Fewest = 3;
        var silent = Enumerable
            .Range(0, (int)Math.Round(asked.TotalBeats))
            .Select(beat => beat * asked.BeatSeconds)
            .Where(at => due.TrueForAll(each => Math.Abs(each - at) > 2 * Close))
            .ToList();
        var clicked = silent
            .Select(at => hands.Select(each => each - at).Where(off => Math.Abs(off) < 0.1).DefaultIfEmpty(1).MinBy(Math.Abs))
            .ToList();
        return silent.Count >= Fewest && clicked.TrueForAll(off => off < 1) && clicked.PopulationStandardDeviation() < Close;
    }

    private static bool AreTwo(List<double> due, List<double> hands)
    {
        const double Between = 0.16;
        const int Fewest = 4;
        var twice = due.Count(at => hands.Count(each => Math.Abs(each - at) < Between) > 1);
        // Quick values lie as near to each other.
        var spaced = due.Zip(due.Skip(1)).All(pair => pair.Second - pair.First > 2 * Between);
        return spaced && due.Count >= Fewest && twice >= 0.75 * due.Count;
    }
}
