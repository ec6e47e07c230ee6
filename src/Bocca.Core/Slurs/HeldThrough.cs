using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Tone.Listening;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Slurs;

/// <summary>
/// Where a slur stays on one note, there is one long sound for several notes that were meant. It answers one of them; the
/// others were not silent: it sounded in their place too.
/// </summary>
internal static class HeldThrough
{
    /// <summary>A sound held through is longer than its own note by this share of another's (ours, editable).</summary>
    private const double LongerShare = 0.5;

    /// <summary>What sounds in a note's place within this is that note (cents).</summary>
    private const double SameCents = 50;

    public static HeardRow Of(HeardRow row, AskedSlur asked)
    {
        var notes = new List<RowNote>();
        foreach (var phrase in row.Phrases)
            notes.AddRange(
                phrase.Select(
                    (note, i) =>
                        note.Sound is null && Holding(phrase, i, asked) is { } sound
                            ? note with
                            {
                                Judged = Judged(note.Judged, sound.MedianHz, asked.Player),
                            }
                            : note
                )
            );
        return row with { Notes = notes };
    }

    /// <summary>The sound of the nearest note of the phrase, where it is long enough to stand in this note's place as well.</summary>
    private static Sound.SoundedNote? Holding(IReadOnlyList<RowNote> phrase, int silent, AskedSlur asked)
    {
        var held = Enumerable
            .Range(0, phrase.Count)
            .Where(i => phrase[i].Sound is not null)
            .OrderBy(i => Math.Abs(i - silent))
            .Select(i => (int?)i)
            .FirstOrDefault();
        if (held is not { } at)
            return null;
        var (first, last) = (Math.Min(at, silent), Math.Max(at, silent));
        var between = Enumerable.Range(first, last - first + 1).Where(i => i != at).Sum(i => phrase[i].Asked.Beats);
        return phrase[at].Sound!.Seconds >= (phrase[at].Asked.Beats + (LongerShare * between)) * asked.Plan.BeatSeconds
            ? phrase[at].Sound
            : null;
    }

    private static JudgedNote Judged(JudgedNote judged, double hertz, PlayerSituation player)
    {
        var meant = judged.Meant;
        var off = Tuning.Cents(player.Hertz(meant.Tube, meant.Partial), hertz);
        var partial = Enumerable
            .Range(1, HarmonicSeries.Highest)
            .MinBy(each => Math.Abs(Tuning.Cents(player.Hertz(meant.Tube, each), hertz)));
        return Math.Abs(off) <= SameCents
            ? judged with
            {
                Outcome = NoteOutcome.Right,
                HeardHz = hertz,
                Cents = off,
                Partial = partial,
                Sentence = $"{meant.Written} came.",
            }
            : judged with
            {
                Outcome = NoteOutcome.PreviousNote,
                HeardHz = hertz,
                Partial = partial,
                By = partial - meant.Partial,
                IsPrevious = true,
                Sentence = $"Partial {partial} kept sounding; {meant.Written} did not come.",
            };
    }
}
