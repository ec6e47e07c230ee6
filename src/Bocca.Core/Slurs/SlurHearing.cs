using Bocca.Core.Sound;
using Bocca.Core.Teaching;
using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;
using MathNet.Numerics.Statistics;

namespace Bocca.Core.Slurs;

/// <summary>A slur asked of a pupil.</summary>
/// <param name="Slur">The slur.</param>
/// <param name="Tempo">Beats a minute.</param>
/// <param name="Times">How often it is played, a rest of its own length after each.</param>
/// <param name="Player">Who plays what.</param>
/// <param name="Pupil">How far the pupil has come.</param>
public sealed record AskedSlur(Slur Slur, double Tempo, int Times, PlayerSituation Player, LearningStage Pupil)
{
    /// <summary>The most times that a slur is played in one take (ours).</summary>
    public const int MostTimes = 4;

    /// <summary>What its changes may cost.</summary>
    public SlurBands Bands { get; init; } = SlurBandTable.Shipped.For(Pupil);

    /// <summary>The slur as a row with its times.</summary>
    public RowPlan Plan { get; } = new(Tempo, [.. Enumerable.Range(0, Times).SelectMany(time => Notes(Slur, time))]);

    /// <summary>As many times of the slur as were over when it was stopped.</summary>
    /// <param name="beats">Beats from the first note.</param>
    /// <exception cref="ArgumentException">It was not over once.</exception>
    public AskedSlur UpTo(double beats)
    {
        var over = Math.Min(Times, (int)Math.Floor(((beats / Slur.Beats) + 1) / 2));
        return over > 0
            ? new AskedSlur(Slur, Tempo, over, Player, Pupil) { Bands = Bands }
            : throw new ArgumentException("Nothing was finished yet: play the slur once to its end.");
    }

    private static IEnumerable<AskedNote> Notes(Slur slur, int time)
    {
        var at = time * 2 * slur.Beats;
        for (var i = 0; i < slur.Notes.Count; i++)
        {
            var (note, last) = (slur.Notes[i], i == slur.Notes.Count - 1);
            yield return new AskedNote(
                new MeantNote(note.Written, note.Sounding, note.Tube, note.Partial, !last),
                at,
                note.Beats,
                last ? slur.Beats : 0
            );
            at += note.Beats;
        }
    }
}

/// <summary>A slur as it was heard.</summary>
/// <param name="Row">Its notes held against those written.</param>
/// <param name="Changes">Its changes, in order.</param>
/// <param name="LowNoteDb">How much louder the lowest notes were than the others, decibels; null where that cannot be said.</param>
/// <param name="TrailsOff">Whether the last note died away before its time.</param>
public sealed record HeardSlur(HeardRow Row, IReadOnlyList<SlurChange> Changes, double? LowNoteDb, bool TrailsOff)
{
    /// <summary>A last note shorter than this share of its length trails off (ours, editable).</summary>
    private const double LeastHeldShare = 0.8;

    /// <summary>Hears a recording of a slur.</summary>
    /// <param name="sound">The recording.</param>
    /// <param name="asked">What was asked.</param>
    /// <param name="firstCueSeconds">When the first note was due, seconds into the sound; null to use the sound's own marks or take the
    /// notes as they come.</param>
    /// <param name="missingSeconds">How much of the recording did not arrive.</param>
    /// <param name="handStays">Whether it is known that the hand did not move, as of the lip model; where not, the sound has to show
    /// it.</param>
    public static HeardSlur Hear(
        MonoSound sound,
        AskedSlur asked,
        double? firstCueSeconds = null,
        double missingSeconds = 0,
        bool handStays = false
    )
    {
        var played = RowListener.Hear(
            sound,
            new AskedRow(asked.Plan, asked.Player, asked.Pupil) { FirstCueSeconds = firstCueSeconds, MissingSeconds = missingSeconds }
        );
        var row = HeldThrough.Of(SameTube.Of(played, asked.Player, handStays), asked);
        if (row.Doubt is null && !handStays && !asked.Slur.Shape.Neighbours)
            row = row with
            {
                Doubt = RowDoubt.OtherRow(
                    asked.Slur.Notes[0].Tube,
                    [.. played.Notes.Select(note => note.Sound).OfType<SoundedNote>(), .. played.Extra],
                    asked.Player
                ),
            };
        var changes = row
            .Notes.Zip(row.Notes.Skip(1))
            .Where(pair => pair.First.Judged.Meant.SlurredToNext)
            .Select(pair => SlurChange.Of(row.Track, asked.Player, pair.First, pair.Second))
            .ToList();
        return new HeardSlur(
            row,
            changes,
            Low(row),
            row.Notes.Where(note => !note.Judged.Meant.SlurredToNext && note.Sound is not null)
                .Any(note => note.Sound!.Seconds < LeastHeldShare * note.Asked.Beats * asked.Plan.BeatSeconds)
        );
    }

    private static double? Low(HeardRow row)
    {
        var lowest = row.Notes.Min(note => note.Judged.Meant.Sounding.Midi);
        var low = row
            .Notes.Where(note => note.Judged.Meant.Sounding.Midi == lowest && note.Sound is not null)
            .Select(note => note.Sound!.LevelDb)
            .ToList();
        var others = row
            .Notes.Where(note => note.Judged.Meant.Sounding.Midi != lowest && note.Sound is not null)
            .Select(note => note.Sound!.LevelDb)
            .ToList();
        return low.Count == 0 || others.Count == 0 ? null : low.Median() - others.Median();
    }
}
