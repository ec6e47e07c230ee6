using Bocca.Core.Music;
using Bocca.Core.Sound;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Slurs;

/// <summary>A change from one note of a slur to the next, as it sounded.</summary>
public sealed record SlurChange
{
    /// <summary>A pitch within this of a note is on it (cents).</summary>
    private const double OnNoteCents = 50;

    /// <summary>On the new note for so many frames of 10 ms, it has arrived; on another partial for so many, that was touched.</summary>
    private const int StaysFrames = 5,
        TouchedFrames = 3;

    /// <summary>So far under the softer of the two notes nothing sounds (dB).</summary>
    private const double SilentDb = 12;

    /// <summary>
    /// The tongue lets a tone go at once: what takes longer to rise was begun by the air (ms, 10 to 90 % of the amplitude; ours, editable).
    /// </summary>
    private const double TongueRiseMs = 80;

    /// <summary>Air alone before the note, within so much of the softer note and for so many frames, begins it too (dB; ours).</summary>
    private const double AirDb = 32;

    private const int AirFrames = 4;

    private const double TouchedCents = 40,
        OvershootSeconds = 0.15;

    /// <summary>Number of the note it leads to, counted from 1; the one before is where it comes from.</summary>
    public required int To { get; init; }

    /// <summary>The partials meant, from and to.</summary>
    public required (int From, int To) Partials { get; init; }

    /// <summary>The setting meant.</summary>
    public required string Setting { get; init; }

    /// <summary>Whether both notes came as meant.</summary>
    public required bool Came { get; init; }

    /// <summary>When the old note was left, seconds; null where one of the two did not sound.</summary>
    public double? AtSeconds { get; init; }

    /// <summary>From leaving 50 cents about the old note to staying within 50 about the new, milliseconds.</summary>
    public double PassageMs { get; init; }

    /// <summary>Silence in between, milliseconds.</summary>
    public double GapMs { get; init; }

    /// <summary>Drop of the level below the softer of the two, decibels.</summary>
    public double DipDb { get; init; }

    /// <summary>How far the pitch went beyond the new note within 150 ms, cents.</summary>
    public double OvershootCents { get; init; }

    /// <summary>
    /// Whether the tongue began the new note: the tone fell away and was there again at once, out of silence. A tone that swells again, or
    /// comes out of running air, was broken by the air.
    /// </summary>
    public bool Tongued { get; init; }

    /// <summary>Partials of the tube that sounded for 30 ms and more on the way.</summary>
    public IReadOnlyList<int> Touched { get; init; } = [];

    /// <summary>Whether it goes up.</summary>
    public bool Up => Partials.To > Partials.From;

    /// <summary>What is in the way of its being clean, the gravest first; null where it is clean.</summary>
    public string? Fault(SlurBands bands) =>
        !Came ? "missed"
        : Tongued ? "tongued"
        : GapMs > bands.GapMs ? "gap"
        : DipDb > bands.DipDb ? "dip"
        : Touched.Count > 0 ? "touched"
        : OvershootCents > bands.OvershootCents ? "overshoot"
        : PassageMs > bands.PassageMs ? "slow"
        : null;

    /// <summary>Measures a change.</summary>
    /// <param name="track">The pitch of the take.</param>
    /// <param name="player">Who plays what: where the partials lie.</param>
    /// <param name="from">The note before.</param>
    /// <param name="to">The note after.</param>
    internal static SlurChange Of(PitchTrack track, PlayerSituation player, RowNote from, RowNote to)
    {
        var change = new SlurChange
        {
            To = to.Number,
            Partials = (from.Judged.Meant.Partial, to.Judged.Meant.Partial),
            Setting = to.Judged.Meant.Setting.ToString(),
            Came = from.Judged.Outcome == NoteOutcome.Right && to.Judged.Outcome == NoteOutcome.Right,
        };
        if (from.Sound is not { } old || to.Sound is not { } next)
            return change;
        var (first, end) = (
            Frame((old.StartSeconds + old.EndSeconds) / 2),
            Math.Min(track.Frames.Count, Frame((next.StartSeconds + next.EndSeconds) / 2) + 1)
        );
        double Cents(int frame, double hertz) => Tuning.Cents(hertz, track.Frames[frame].FrequencyHz);
        bool Sounds(int frame) => track.Frames[frame].Voiced && !IsOfBoth(track.Frames[frame].FrequencyHz, old.MedianHz, next.MedianHz);
        bool On(int frame, double hertz) => track.Frames[frame].Voiced && Math.Abs(Cents(frame, hertz)) <= OnNoteCents;
        var arrived = Enumerable
            .Range(first, Math.Max(0, end - first))
            .FirstOrDefault(frame => Enumerable.Range(frame, StaysFrames).All(each => each >= end || On(each, next.MedianHz)), end);
        var left = Enumerable.Range(first, Math.Max(0, arrived - first)).LastOrDefault(frame => On(frame, old.MedianHz), first);
        var direction = Math.Sign(next.MedianHz - old.MedianHz);
        var reached = Enumerable
            .Range(left, Math.Max(0, end - left))
            .FirstOrDefault(frame => frame > left && Sounds(frame) && direction * Cents(frame, next.MedianHz) >= -OnNoteCents, end);
        return change with
        {
            AtSeconds = next.Tongued
                ? next.StartSeconds
                : Math.Min(next.StartSeconds, track.Frames[Math.Min(left, track.Frames.Count - 1)].TimeSeconds + PitchTrack.HopSeconds),
            PassageMs = 1000 * PitchTrack.HopSeconds * Math.Max(0, arrived - left - 1),
            // Without a pitch is not yet without a sound: lips between two partials have none for a moment.
            GapMs =
                1000
                * PitchTrack.HopSeconds
                * Enumerable
                    .Range(left, Math.Max(0, arrived - left))
                    .Count(frame =>
                        !track.Frames[frame].Voiced && track.Frames[frame].LevelDb < Math.Min(old.LevelDb, next.LevelDb) - SilentDb
                    ),
            DipDb = next.DipDb ?? 0,
            OvershootCents = Lasting([
                .. Enumerable
                    .Range(reached, Math.Max(0, Math.Min(end, reached + Frame(OvershootSeconds)) - reached))
                    .Where(Sounds)
                    .Select(frame => direction * Cents(frame, next.MedianHz)),
            ]),
            Tongued = next.Tongued && !IsBegunByAir(track, old, next),
            Touched = Crossed(track, player, to, left, arrived, [old.MedianHz, next.MedianHz]),
        };
    }

    private static bool IsBegunByAir(PitchTrack track, SoundedNote old, SoundedNote next)
    {
        if (next.RiseMs > TongueRiseMs)
            return true;
        // Air that is heard before the tone, and does not die away as a room does.
        var before = track
            .Frames.Skip(Math.Max(0, Frame(next.StartSeconds) - (2 * AirFrames)))
            .Take(2 * AirFrames)
            .Where(frame => frame.TimeSeconds > old.EndSeconds + 0.01 && frame.TimeSeconds < next.StartSeconds - 0.005)
            .ToList();
        return before.Count >= AirFrames
            && before.TrueForAll(frame => !frame.Voiced && frame.LevelDb > Math.Min(old.LevelDb, next.LevelDb) - AirDb)
            && before[^1].LevelDb > before[0].LevelDb - 3;
    }

    /// <summary>The furthest that lasts for 30 ms: less is the two notes in one window.</summary>
    private static double Lasting(List<double> cents) =>
        Math.Max(
            0,
            Enumerable
                .Range(0, Math.Max(0, cents.Count - TouchedFrames + 1))
                .Select(i => cents.GetRange(i, TouchedFrames).Min())
                .DefaultIfEmpty(0)
                .Max()
        );

    private static int Frame(double seconds) => (int)Math.Round(seconds / PitchTrack.HopSeconds);

    /// <summary>Whether a pitch is one of which both notes are multiples: it seems to sound where both ring at once in a room.</summary>
    private static bool IsOfBoth(double hertz, double one, double other)
    {
        return IsMultiple(one) && IsMultiple(other);
        bool IsMultiple(double of) =>
            Math.Round(of / hertz) is > 1 and var times && Math.Abs(Tuning.Cents(times * hertz, of)) <= OnNoteCents;
    }

    /// <summary>Other partials of the tube that the way rests on.</summary>
    private static List<int> Crossed(PitchTrack track, PlayerSituation player, RowNote to, int left, int arrived, double[] ends)
    {
        var tube = to.Judged.Meant.Tube;
        return
        [
            .. Enumerable
                .Range(1, Instruments.HarmonicSeries.Highest)
                .Where(partial =>
                {
                    var hertz = player.Hertz(tube, partial);
                    if (ends.Any(end => Math.Abs(Tuning.Cents(end, hertz)) <= OnNoteCents) || IsOfBoth(hertz, ends[0], ends[1]))
                        return false;
                    var run = 0;
                    for (var frame = left + 1; frame < arrived && run < TouchedFrames; frame++)
                        run =
                            track.Frames[frame].Voiced && Math.Abs(Tuning.Cents(hertz, track.Frames[frame].FrequencyHz)) <= TouchedCents
                                ? run + 1
                                : 0;
                    return run >= TouchedFrames;
                }),
        ];
    }
}
