using Bocca.Core.Fingering;
using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Teaching;

namespace Bocca.Core.Tone.Notes;

/// <summary>How a first try at a note went.</summary>
/// <param name="Written">The note as read.</param>
/// <param name="Came">Whether it came as meant.</param>
public readonly record struct FirstTry(string Written, bool Came);

/// <summary>A note on the way of first notes.</summary>
/// <param name="Note">The note, its setting and partial.</param>
/// <param name="FallsTo">What comes if the lips slacken: the partial below, as written.</param>
/// <param name="OvershootsTo">What comes if they tighten: the partial above, as written.</param>
/// <param name="HidesChange">Whether the step from the note before, though small on paper, is a change of partial.</param>
/// <param name="Tries">First tries that count.</param>
/// <param name="Came">How many of them came.</param>
public sealed record PathNote(MeantNote Note, Pitch FallsTo, Pitch OvershootsTo, bool HidesChange, int Tries, int Came)
{
    /// <summary>Whether its gate is passed: four of the last five first tries (common practice).</summary>
    public bool Known => Came >= FirstNotePath.Enough;
}

/// <summary>
/// The way of first notes on an instrument under an approach: one note at a time, the next one when the one before comes
/// at the first try, not when a week is over.
/// </summary>
/// <param name="Notes">The notes in teaching order.</param>
public sealed record FirstNotePath(IReadOnlyList<PathNote> Notes)
{
    /// <summary>First tries looked at, and how many of them have to come (common practice; ours, editable).</summary>
    public const int LastTries = 5,
        Enough = 4;

    /// <summary>A step on paper of at most this many semitones is expected to feel like one.</summary>
    private const int StepSemitones = 2;

    /// <summary>The note to work on: the first whose gate is not passed; null when all are.</summary>
    public PathNote? Next => Notes.FirstOrDefault(note => !note.Known);

    /// <summary>The note that is asked for where none was chosen: the one to work on; the last of the way when all are known.</summary>
    public PathNote Current => Next ?? Notes[^1];

    /// <summary>So many notes of the way go into patterns: what has been learnt, and the note being learnt.</summary>
    public int InPatterns => Notes.TakeWhile(note => note.Known).Count() + 1;

    /// <summary>The way of a player.</summary>
    /// <param name="player">Who plays what.</param>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="tries">First tries, the oldest first.</param>
    public static FirstNotePath Of(PlayerSituation player, Approach approach, IEnumerable<FirstTry> tries)
    {
        var tried = tries.ToLookup(attempt => attempt.Written, attempt => attempt.Came);
        var notes = FirstNotes
            .Of(player.Instrument, player.Reading, approach, player.Hand, player.Weights)
            .Select(written => MeantNote.Of(player.Instrument, player.Reading, written, player.Weights, player.Hand))
            .ToList();
        return new FirstNotePath([
            .. notes.Select(
                (note, i) =>
                {
                    var last = tried[note.Written.ToString()].TakeLast(LastTries).ToList();
                    return new PathNote(
                        note,
                        At(player, note, -1),
                        At(player, note, 1),
                        i > 0 && HidesChange(notes[i - 1], note),
                        last.Count,
                        last.Count(came => came)
                    );
                }
            ),
        ]);
    }

    /// <summary>Whether two notes a step apart lie on different partials.</summary>
    public static bool HidesChange(MeantNote from, MeantNote to) =>
        from.Partial != to.Partial && Math.Abs(from.Written.Midi - to.Written.Midi) is > 0 and <= StepSemitones;

    private static Pitch At(PlayerSituation player, MeantNote note, int by) =>
        Rung.At(player.Instrument, note.Tube, Math.Max(1, note.Partial + by), player.Tuning).Written(player.Reading, note.Written);
}
