using MathNet.Numerics.Statistics;

namespace Bocca.Core.Sound;

/// <summary>
/// Finds the notes of a sound: where tones begin and end, where within a tone the pitch changes, and where the level
/// drops for a moment because the tongue touched. Starts and ends are then read off the level to a millisecond
/// (all limits ours, editable).
/// </summary>
public sealed class NoteFinder
{
    /// <summary>A change of pitch by at least this is another note (cents).</summary>
    private const double ChangeCents = 75;

    /// <summary>Pitch is compared over this many frames before and after a change, leaving out those next to it.</summary>
    private const int SideFrames = 5,
        SkippedFrames = 2;

    /// <summary>What is shorter belongs to the note after it: a scoop, or a partial brushed in passing (seconds).</summary>
    private const double ShortestSeconds = 0.06;

    /// <summary>
    /// What a tone does this long from its start belongs to its start: a scoop, or a partial brushed on the way (seconds).
    /// </summary>
    private const double LongestScoopSeconds = 0.12;

    /// <summary>No tongue repeats faster than this (seconds).</summary>
    private const double ShortestRepeatSeconds = 0.09;

    /// <summary>What the tongue does to the level: a dip this deep that comes back within this time, whatever else.</summary>
    private const double DeepDb = 8,
        BackSeconds = 0.07,
        DipSeconds = 0.16;

    /// <summary>A shallower dip, or a jump in level, counts where the periods are disturbed too: a swell leaves them alike.</summary>
    private const double ShallowDb = 1.5,
        QuickSeconds = 0.04;

    /// <summary>Periods are disturbed where they are so much less alike than usual in the tone (ratio, and at least so much).</summary>
    private const double DisturbedRatio = 4,
        LeastDisturbed = 0.02;

    /// <summary>What dips deeper than this between two pitches is no slur (dB).</summary>
    private const double BrokenDb = 12;

    /// <summary>Between notes of different pitch a slur may dip too; the tongue's dip is deeper.</summary>
    private const double TonguedDipDb = 10;

    /// <summary>The pitch of a running tone may be lost for so long on its way to another (seconds).</summary>
    private const double LostSeconds = 0.1;

    /// <summary>Where a note begins and ends: so far under its own level, and where it begins, so far over what was before (dB).</summary>
    private const double StartDb = 20,
        EndDb = 6,
        LeastRiseDb = 4;

    /// <summary>
    /// A new start in a running tone is looked for so long before and after its pitch or level shows it, beside what was usual so long
    /// before (seconds).
    /// </summary>
    private const double BreakBeforeSeconds = 0.09,
        BreakAfterSeconds = 0.02,
        BreakEdgeSeconds = 0.08,
        UsualSeconds = 0.1;

    /// <summary>
    /// A note begins at the foot of its rise, where that is close before the tenth of its amplitude; what is earlier is air before the
    /// tone.
    /// </summary>
    private const double FootDb = 35,
        FootSeconds = 0.011;

    private const double HopSeconds = PitchTrack.HopSeconds;
    private readonly PitchTrack _track;
    private readonly Envelope _envelope;
    private readonly PeriodBreak _break;
    private readonly double _roomDb;

    private NoteFinder(MonoSound sound, PitchTrack track)
    {
        _track = track;
        _envelope = new Envelope(sound);
        _break = new PeriodBreak(sound);
        _roomDb = AttemptFinder.RoomDb(track);
    }

    /// <summary>The notes of a sound, in order.</summary>
    public static IReadOnlyList<SoundedNote> Find(MonoSound sound, PitchTrack track)
    {
        var finder = new NoteFinder(sound, track);
        var pieces = finder.WithoutTails([
            .. AttemptFinder.Find(track, 0, NoteShortest).SelectMany(attempt => attempt.Tones).SelectMany(finder.Pieces),
        ]);
        var notes = new List<SoundedNote>();
        for (var i = 0; i < pieces.Count; i++)
            notes.Add(finder.Measure(pieces[i], i + 1 < pieces.Count ? pieces[i + 1] : null, notes.Count > 0 ? notes[^1] : null));
        return notes;
    }

    /// <summary>A tongued note may be shorter than what counts as a try (seconds).</summary>
    private const double NoteShortest = 0.05;

    /// <summary>A tone that dies away may come to pieces; what is so much softer than the note it follows is its tail.</summary>
    private List<Piece> WithoutTails(List<Piece> pieces)
    {
        const double TailDb = 15,
            TailSeconds = 0.1;
        var kept = new List<Piece>();
        foreach (var piece in pieces)
        {
            if (kept.Count > 0 && (piece.First - kept[^1].End) * HopSeconds < TailSeconds && Level(piece) < Level(kept[^1]) - TailDb)
                kept[^1] = kept[^1] with { GoesOn = piece.GoesOn };
            else
                kept.Add(piece);
        }

        return kept;
    }

    private double Level(Piece piece) =>
        Enumerable.Range(piece.First, piece.End - piece.First).Select(i => _track.Frames[i].LevelDb).Median();

    /// <summary>A tone cut into notes.</summary>
    private List<Piece> Pieces(ToneRun tone)
    {
        var cuts = Dips(tone).ConvertAll(dip => (dip.At, Dip: true, dip.Deep));
        // A start may begin off its pitch: what changes close to a touch of the tongue is part of it.
        cuts.AddRange(
            Changes(tone)
                .Where(change => !cuts.Exists(cut => Math.Abs(cut.At - change) * HopSeconds < LongestScoopSeconds))
                .Select(at => (at, false, false))
        );
        cuts.Sort((one, other) => one.At.CompareTo(other.At));
        var pieces = new List<Piece>();
        var (from, joined, touched) = (tone.First, false, false);
        foreach (var (at, dip, deep) in cuts)
        {
            // What a note does soon after it was begun is its start, unless the level falls away.
            var begun = from == tone.First || (touched && dip && !deep);
            if (
                (at - from) * HopSeconds
                < (
                    begun ? LongestScoopSeconds
                    : dip ? ShortestRepeatSeconds
                    : ShortestSeconds
                )
            )
                continue;
            pieces.Add(new Piece(from, at, joined, true, touched));
            // Between two pitches the level may dip without the tongue; how deep it dips tells them apart later.
            var slurred = !dip || Leads(tone, at);
            (from, joined, touched) = (at, slurred, !slurred);
        }

        if ((tone.End - from) * HopSeconds >= ShortestSeconds || pieces.Count == 0)
            pieces.Add(new Piece(from, tone.End, joined, false, touched));
        else
            pieces[^1] = pieces[^1] with { End = tone.End, GoesOn = false };
        return pieces;
    }

    /// <summary>Whether a moment of a tone leads from one pitch to another, its own start left out.</summary>
    private bool Leads(ToneRun tone, int at) =>
        Middle(Math.Max(tone.First, at - SkippedFrames - SideFrames), at - SkippedFrames) is { } before
        && Middle(
            Math.Min(tone.End - SideFrames, at + Frames(LongestScoopSeconds)),
            Math.Min(tone.End, at + Frames(LongestScoopSeconds) + SideFrames)
        )
            is { } after
        && Math.Abs(1200 * Math.Log2(after / before)) >= ChangeCents
        && _envelope.LevelDb(_track.Frames[at].TimeSeconds, Window(before))
            > _track.Frames[at - SkippedFrames - SideFrames].LevelDb - BrokenDb;

    /// <summary>Frames at which the pitch of a tone changes to another note.</summary>
    private List<int> Changes(ToneRun tone)
    {
        var steps = new double[_track.Frames.Count];
        for (var i = tone.First + SideFrames; i + SideFrames < tone.End; i++)
        {
            if (
                Middle(Math.Max(tone.First, i - SkippedFrames - SideFrames), i - SkippedFrames) is { } before
                && Middle(i + SkippedFrames, Math.Min(tone.End, i + SkippedFrames + SideFrames)) is { } after
            )
                steps[i] = Math.Abs(1200 * Math.Log2(after / before));
        }

        var changes = new List<int>();
        var reach = SideFrames + SkippedFrames;
        for (var i = tone.First; i < tone.End; i++)
        {
            if (steps[i] < ChangeCents)
                continue;
            var end = i;
            while (end + 1 < tone.End && (steps[end + 1] >= ChangeCents))
                end++;
            // A plateau of the step is as wide as the windows; a glide is wider and is cut where it is steepest.
            var most = Enumerable.Range(i, end - i + 1).Max(at => steps[at]);
            var steep = Enumerable.Range(i, end - i + 1).Where(at => steps[at] > 0.9 * most).ToList();
            changes.Add(steep[steep.Count / 2]);
            i = Math.Max(end, changes[^1] + reach);
        }

        return changes;
    }

    /// <summary>Frames at which the tongue touched within a tone, and whether the level fell away there.</summary>
    private List<(int At, bool Deep)> Dips(ToneRun tone)
    {
        var frames = Enumerable.Range(tone.First, tone.End - tone.First).Select(i => _track.Frames[i]).ToList();
        var window = Window(frames.Where(frame => frame.Voiced).Select(frame => frame.FrequencyHz).Median());
        var levels = frames.ConvertAll(frame => _envelope.LevelDb(frame.TimeSeconds, window));
        var usual = 1 - frames.Select(frame => frame.Clarity).Median();
        var disturbed = frames.ConvertAll(frame => frame.Voiced ? 1 - frame.Clarity : 1);
        var dips = new List<(int At, bool Deep)>();
        var edge = Frames(0.05);
        for (var i = edge; i < levels.Count - edge; i++)
        {
            var deep =
                levels[i] <= levels[i - 1]
                && levels[i] < levels[i + 1]
                && Math.Min(Most(levels, i - Frames(DipSeconds), i), Most(levels, i, i + Frames(BackSeconds))) - levels[i] >= DeepDb;
            var touched =
                disturbed[i] >= Math.Max(LeastDisturbed, DisturbedRatio * usual)
                && disturbed[i] >= Most(disturbed, i - 4, i + 4)
                && Most(levels, i - 2, i + Frames(QuickSeconds)) - Least(levels, i - Frames(QuickSeconds), i + 2) >= ShallowDb;
            if ((deep || (touched && Breaks(tone, i, frames))) && (dips.Count == 0 || tone.First + i - dips[^1].At > edge))
                dips.Add((tone.First + i, deep));
        }

        return dips;
    }

    /// <summary>
    /// Whether a running tone stops repeating its period about a frame: a rough start or a swell is rough throughout, the tongue is not.
    /// </summary>
    private bool Breaks(ToneRun tone, int i, List<PitchFrame> frames)
    {
        var at = frames[i].TimeSeconds;
        var before = Middle(
            tone.First + Math.Max(0, i - Frames(BreakBeforeSeconds) - SideFrames),
            tone.First + Math.Max(1, i - SkippedFrames)
        );
        var from = Math.Max(_track.Frames[tone.First].TimeSeconds, at - BreakBeforeSeconds - UsualSeconds);
        return before is { } hertz
            && _break.First(from, Math.Max(from + (2.5 / hertz), at - BreakBeforeSeconds), at + BreakAfterSeconds, hertz) is not null;
    }

    private static int Frames(double seconds) => (int)Math.Round(seconds / HopSeconds);

    private static double Most(List<double> values, int from, int to) =>
        Enumerable.Range(Math.Max(0, from), Math.Min(values.Count - 1, to) - Math.Max(0, from) + 1).Max(i => values[i]);

    private static double Least(List<double> values, int from, int to) =>
        Enumerable.Range(Math.Max(0, from), Math.Min(values.Count - 1, to) - Math.Max(0, from) + 1).Min(i => values[i]);

    private SoundedNote Measure(Piece piece, Piece? next, SoundedNote? before)
    {
        var frames = Enumerable
            .Range(piece.First, piece.End - piece.First)
            .Select(i => _track.Frames[i])
            .Where(frame => frame.Voiced)
            .ToList();
        var edge = Math.Min((int)(0.15 / HopSeconds), frames.Count / 4);
        var inner = frames.GetRange(edge, Math.Max(1, frames.Count - (2 * edge)));
        var hertz = inner.Select(frame => frame.FrequencyHz).Median();
        var level = inner.Select(frame => frame.LevelDb).Median();
        var window = Window(hertz);
        var from = _track.Frames[piece.First].TimeSeconds - (HopSeconds / 2);
        var to = _track.Frames[piece.End - 1].TimeSeconds + (HopSeconds / 2);
        var running = piece.Joined || (piece.Touched && !FallsAway(from, level, window));
        var start = running && before is not null ? Broken(from, before, level) : Start(from, before?.EndSeconds ?? 0, level, window);
        var end = End(piece, to, next, level, window);
        var dip = before is null ? (double?)null : Dip(before, start, level, window);
        // A tone that changes its pitch without falling silent was not begun anew, even where its pitch was lost for a moment.
        var unbroken =
            before is not null
            && dip < TonguedDipDb
            && start - before.EndSeconds < LostSeconds
            && Math.Abs(1200 * Math.Log2(hertz / before.MedianHz)) >= ChangeCents;
        var early = frames.Where(frame => frame.TimeSeconds - start is >= 0.03 and <= 0.08).Select(frame => frame.FrequencyHz).ToList();
        return new SoundedNote
        {
            StartSeconds = start,
            EndSeconds = end,
            HalfSeconds = running ? start : _envelope.First(start, Math.Min(end, start + 0.2), level - EndDb, above: true, window) ?? start,
            MedianHz = hertz,
            SpreadCents = inner.Count < 2 ? 0 : inner.Select(frame => 1200 * Math.Log2(frame.FrequencyHz / hertz)).StandardDeviation(),
            LevelDb = level,
            RiseMs = piece.Joined ? null : Rise(start, level, window),
            FallMs = piece.GoesOn ? null : Fall(end, level, window),
            ScoopCents = early.Count == 0 || end - start < 0.12 ? null : 1200 * Math.Log2(early.Median() / hertz),
            DipDb = dip,
            GapMs = before is null ? null : 1000 * Math.Max(0, start - before.EndSeconds),
            Tongued = !unbroken && (!piece.Joined || dip >= TonguedDipDb),
        };
    }

    /// <summary>
    /// Where a note begins in a running tone: where the tone before it is first disturbed, but not before the level has fallen away.
    /// </summary>
    private double Broken(double at, SoundedNote before, double level)
    {
        var search = Math.Max(before.StartSeconds + BreakEdgeSeconds, at - BreakBeforeSeconds);
        var start =
            _break.First(
                Math.Max(before.StartSeconds + (BreakEdgeSeconds / 2), search - UsualSeconds),
                search,
                at + BreakAfterSeconds,
                before.MedianHz
            ) ?? at;
        var window = Window(before.MedianHz);
        var lowest = Enumerable
            .Range(0, Math.Max(0, (int)((at + BreakAfterSeconds - start) / 0.002)))
            .Select(step => start + (0.002 * step))
            .DefaultIfEmpty(start)
            .MinBy(moment => _envelope.LevelDb(moment, window));
        return _envelope.LevelDb(lowest, window) < Math.Min(level, before.LevelDb) - TonguedDipDb ? lowest : start;
    }

    /// <summary>Where the level is least about a moment.</summary>
    private double Turn(double at, double window) =>
        Enumerable.Range(-15, 31).Select(step => at + (0.002 * step)).MinBy(moment => _envelope.LevelDb(moment, window));

    /// <summary>Whether the level near a moment falls so far under a note that the note begins anew.</summary>
    private bool FallsAway(double at, double level, double window) => _envelope.LevelDb(Turn(at, window), window) < level - StartDb;

    /// <summary>Where the level has begun to rise out of what was before.</summary>
    private double Start(double from, double earliest, double level, double window)
    {
        var search = Enumerable
            .Range(0, 23)
            .Select(step => from - 0.12 + (0.01 * step))
            .Where(at => at >= earliest - 0.02)
            .DefaultIfEmpty(from)
            .ToList();
        var low = search.MinBy(at => _envelope.LevelDb(at, window));
        var lowest = _envelope.LevelDb(low, window);
        var begun = Math.Min(level - LeastRiseDb, Math.Max(level - StartDb, Math.Max(lowest, _roomDb) + LeastRiseDb));
        var tenth = _envelope.First(low, low + 0.25, begun, above: true, window) ?? from;
        var foot = _envelope.First(low, tenth, Math.Max(level - FootDb, lowest + LeastRiseDb), above: true, window) ?? tenth;
        return Math.Max(foot, tenth - FootSeconds);
    }

    private double End(Piece piece, double to, Piece? next, double level, double window)
    {
        if (piece.GoesOn && next is { Joined: true })
            return to;
        var latest = next is null ? _envelope.Seconds : _track.Frames[next.First].TimeSeconds;
        var last = Math.Min(to + 0.4, latest);
        // From the note's middle on: the first time it is down for good.
        for (var at = Math.Max(to - 0.3, (to + _track.Frames[piece.First].TimeSeconds) / 2); at < last; at += 0.001)
            if (_envelope.LevelDb(at, window) < level - EndDb && _envelope.LevelDb(at + 0.015, window) < level - EndDb)
                return at;
        return piece.GoesOn ? to : Math.Min(to, last);
    }

    private double Dip(SoundedNote before, double start, double level, double window)
    {
        var lowest = double.MaxValue;
        for (var at = Math.Min(before.EndSeconds, start) - 0.02; at <= start + 0.02; at += 0.002)
            lowest = Math.Min(lowest, _envelope.LevelDb(at, window));
        return Math.Max(0, Math.Min(level, before.LevelDb) - lowest);
    }

    private double? Rise(double start, double level, double window)
    {
        var low = _envelope.First(start, start - 0.3, level - 20, above: false, window);
        var high = _envelope.First(start, start + 0.5, level - 0.915, above: true, window);
        return low is { } from && high is { } to ? Math.Max(0, 1000 * (to - from)) : null;
    }

    private double? Fall(double end, double level, double window)
    {
        var loud = _envelope.First(end, end - 0.5, level - 3, above: true, window);
        var gone = _envelope.First(end, end + 0.6, Math.Max(level - 20, _roomDb + 3), above: false, window);
        return loud is { } from && gone is { } to ? 1000 * (to - from) : null;
    }

    /// <summary>A window of whole periods, 10 ms or one period at least, so that the level does not ripple with the tone.</summary>
    private static double Window(double hertz) => Math.Ceiling(0.01 * hertz) / hertz;

    private double? Middle(int first, int end)
    {
        var voiced = Enumerable
            .Range(first, Math.Max(0, end - first))
            .Select(i => _track.Frames[i])
            .Where(frame => frame.Voiced)
            .Select(frame => frame.FrequencyHz)
            .ToList();
        return voiced.Count == 0 ? null : voiced.Median();
    }

    /// <summary>A stretch of frames that is one note.</summary>
    /// <param name="First">Its first frame.</param>
    /// <param name="End">One past its last.</param>
    /// <param name="Joined">Whether it grew out of the one before by a change of pitch.</param>
    /// <param name="GoesOn">Whether the tone goes on after it.</param>
    /// <param name="Touched">Whether the tongue touched within the tone to begin it.</param>
    private sealed record Piece(int First, int End, bool Joined, bool GoesOn, bool Touched);
}
