using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Tone.Listening;

/// <summary>A tone that settles on neither of two partials of its tube but goes to and fro between them. Limits ours, editable.</summary>
/// <param name="Low">The lower partial.</param>
/// <param name="High">The higher partial.</param>
internal sealed record PartialFlips(int Low, int High)
{
    /// <summary>A frame this near a partial belongs to it (cents).</summary>
    private const double PartialCents = 60;

    /// <summary>It stays on a partial at least so long for that to count (frames).</summary>
    private const int FewestFrames = 4;

    /// <summary>It changes so often at least: a start that slides up changes once.</summary>
    private const int FewestChanges = 2;

    /// <summary>The two partials hold so much of the voiced frames, each of them so much.</summary>
    private const double BothShare = 0.75,
        EachShare = 0.15;

    /// <summary>The two partials between which a stretch of a take goes to and fro; null where it does not.</summary>
    /// <param name="track">The take.</param>
    /// <param name="from">Start of the stretch, seconds.</param>
    /// <param name="to">Its end, seconds.</param>
    /// <param name="tube">The tube meant.</param>
    /// <param name="player">Who plays what.</param>
    public static PartialFlips? Of(PitchTrack track, double from, double to, Tube tube, PlayerSituation player)
    {
        var places = Enumerable.Range(1, HarmonicSeries.Highest).Select(partial => player.Hertz(tube, partial)).ToList();
        var partials = track
            .Frames.Where(frame => frame.TimeSeconds >= from && frame.TimeSeconds <= to && frame.Voiced)
            .Select(frame => 1 + places.FindIndex(place => Math.Abs(Tuning.Cents(place, frame.FrequencyHz)) <= PartialCents))
            .ToList();
        var two = partials.Where(partial => partial > 0).CountBy(partial => partial).OrderByDescending(pair => pair.Value).Take(2).ToList();
        if (
            two.Count < 2
            // An octave may be the tracker's, and the pitch of which two are multiples sounds where both ring at once.
            || Math.Max(two[0].Key, two[1].Key) % Math.Min(two[0].Key, two[1].Key) == 0
            || two[1].Value < EachShare * partials.Count
            || two[0].Value + two[1].Value < BothShare * partials.Count
            || Changes(partials, two[0].Key, two[1].Key) < FewestChanges
        )
            return null;
        return new PartialFlips(Math.Min(two[0].Key, two[1].Key), Math.Max(two[0].Key, two[1].Key));
    }

    /// <summary>How often stays on the one are followed by stays on the other.</summary>
    private static int Changes(List<int> partials, int one, int other)
    {
        var (stays, run) = (new List<int>(), 0);
        for (var i = 0; i < partials.Count; i++)
        {
            run = i > 0 && partials[i] == partials[i - 1] ? run + 1 : 1;
            if (run == FewestFrames && (partials[i] == one || partials[i] == other) && (stays.Count == 0 || stays[^1] != partials[i]))
                stays.Add(partials[i]);
        }

        return stays.Count - 1;
    }
}
