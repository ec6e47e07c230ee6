using MathNet.Numerics;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// How long a room rings, from the take itself: after a tone has stopped, what is left falls by so many decibels a second, in a room by
/// the same in each second (published: Sabine 1922), while what a player lets die away falls ever faster towards its end. The fall is
/// taken from the energy still to come, in which the partials' beating against each other is evened out (published: Schroeder 1965).
/// Limits ours, editable.
/// </summary>
public static class RoomDecay
{
    /// <summary>The fall is taken from so far under the tone on, where the player has stopped (dB).</summary>
    private const double FromDb = 12;

    /// <summary>It ends where the level comes so near to the least that is left before the next tone (dB).</summary>
    private const double OverLeastDb = 6;

    /// <summary>So much has to fall, and so much of it is looked at: of the last there is too little still to come (dB).</summary>
    private const double LeastDb = 15,
        MostDb = 15,
        LastDb = 5;

    /// <summary>A tone followed by another sooner than this says nothing, and nothing is looked for longer after one (seconds).</summary>
    private const double LeastRestSeconds = 0.08,
        LongestSeconds = 1.5;

    /// <summary>So long before the next tone begins nothing of it is heard (seconds).</summary>
    private const double EdgeSeconds = 0.02;

    /// <summary>Decibels that make a reverberation time.</summary>
    private const double ReverberationDb = 60;

    /// <summary>The level is taken over this, every so often (seconds); the end of a fall over a longer time, for it beats.</summary>
    private const double WindowSeconds = 0.01,
        StepSeconds = 0.005,
        EvenedSeconds = 0.06;

    /// <summary>
    /// Seconds in which the room would fall by 60 dB, the median over the endings; null where none is followed by enough silence.
    /// </summary>
    public static double? SecondsOf(MonoSound sound, IReadOnlyList<SoundedNote> notes)
    {
        var envelope = new Envelope(sound);
        var found = notes
            .Select((note, i) => OfEnding(envelope, note, i + 1 < notes.Count ? notes[i + 1].StartSeconds : envelope.Seconds))
            .OfType<double>()
            .ToArray();
        return found.Length == 0 ? null : found.Median();
    }

    private static double? OfEnding(Envelope envelope, SoundedNote note, double next)
    {
        // A tone may be heard far into what the room holds of it: the last moment counts at which it is loud.
        if (envelope.First(next - EdgeSeconds, note.StartSeconds, note.LevelDb - FromDb, above: true, WindowSeconds) is not { } start)
            return null;
        var latest = Math.Min(next - EdgeSeconds, start + LongestSeconds);
        if (latest - start < LeastRestSeconds)
            return null;
        var least = Moments(start, latest).Min(at => envelope.LevelDb(at, EvenedSeconds));
        var end = envelope.First(start, latest, least + OverLeastDb, above: false, EvenedSeconds) ?? latest;
        var fall = note.LevelDb - FromDb - (least + OverLeastDb);
        if (fall < LeastDb)
            return null;
        var (times, toCome) = (Moments(start, end).ToArray(), 0.0);
        var left = new double[times.Length];
        for (var i = times.Length - 1; i >= 0; i--)
            left[i] = toCome += Math.Pow(10, envelope.LevelDb(times[i], WindowSeconds) / 10);
        var db = left.Select(each => 10 * Math.Log10(each / left[0])).TakeWhile(each => each >= -Math.Min(MostDb, fall - LastDb)).ToArray();
        return db.Length < 3 ? (end - start) * ReverberationDb / fall : -ReverberationDb / Fit.Line(times[..db.Length], db).B;
    }

    private static IEnumerable<double> Moments(double from, double to) =>
        Enumerable.Range(0, 1 + (int)((to - from) / StepSeconds)).Select(step => from + (StepSeconds * step));
}
