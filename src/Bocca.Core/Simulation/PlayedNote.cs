using Bocca.Core.Tone.Drills;
using Bocca.Core.Tone.Notes;

namespace Bocca.Core.Simulation;

/// <summary>A note as the practice player plays it.</summary>
/// <param name="Hertz">Its pitch.</param>
/// <param name="Beats">Beats to the next note: its written length and the rest after it.</param>
/// <param name="Share">How much of that sounds, 0 to 1.</param>
/// <param name="SlurredToNext">Whether the next follows in the same tone.</param>
public sealed record PlayedNote(double Hertz, double Beats, double Share, bool SlurredToNext)
{
    /// <summary>Semitones from its pitch that it glides through; null where it keeps it.</summary>
    public IReadOnlyList<double>? Heights { get; init; }

    /// <summary>A row as it comes when some notes are missed.</summary>
    /// <param name="meant">What was meant.</param>
    /// <param name="player">Who plays what.</param>
    /// <param name="beats">Beats of each note.</param>
    /// <param name="share">How much of each sounds; slurred notes sound whole.</param>
    /// <param name="misses">What goes wrong.</param>
    /// <exception cref="ArgumentException">A miss cannot be made on the instrument.</exception>
    public static IReadOnlyList<PlayedNote> Row(
        IReadOnlyList<MeantNote> meant,
        PlayerSituation player,
        double beats,
        double share,
        IReadOnlyList<RowMiss> misses
    ) =>
        [
            .. meant.Select(
                (note, i) =>
                    new PlayedNote(
                        misses
                            .Where(miss => miss.Notes is null || miss.Notes.Contains(i + 1))
                            .Aggregate(player.Tuning.Frequency(note.Sounding), (hertz, miss) => miss.Missed(note, player, hertz)),
                        beats,
                        note.SlurredToNext ? 1 : share,
                        note.SlurredToNext
                    )
            ),
        ];

    /// <summary>A drill as it comes when some notes are missed: rests are part of a note's length that does not sound.</summary>
    /// <exception cref="ArgumentException">A miss cannot be made on the instrument.</exception>
    public static IReadOnlyList<PlayedNote> Row(RowPlan plan, PlayerSituation player, RowCharacter character) =>
        [
            .. Row(plan.Meant, player, 1, 1, character.Misses)
                .Zip(
                    plan.Notes,
                    (played, note) =>
                        played with
                        {
                            Beats = note.Beats + note.RestBeats,
                            Heights = note.Heights,
                            Share = note.Meant.SlurredToNext
                                ? 1
                                : note.Beats * note.Share * character.Share / (note.Beats + note.RestBeats),
                        }
                ),
        ];
}
