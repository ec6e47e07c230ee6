using Bocca.Core.Instruments;
using Bocca.Core.Music;
using Bocca.Core.Score;
using Bocca.Core.Teaching;

namespace Bocca.Core.Fingering.Class;

/// <summary>A player of a mixed class.</summary>
/// <param name="Name">Who it is.</param>
/// <param name="Instrument">What is played; a very instrument as its passport has it.</param>
/// <param name="Reading">How it is read.</param>
/// <param name="Stage">How far the player is: the range goes by it.</param>
public sealed record ClassMember(string Name, Instrument Instrument, Reading Reading, LearningStage Stage)
{
    /// <summary>What the player's hands can do.</summary>
    public Hand Hand { get; init; } = Hand.Free;

    /// <summary>What ranks fingerings under the player's approach.</summary>
    public FingeringWeights Weights { get; init; } = FingeringWeights.Default;

    /// <summary>The player's approach: a horn's ceiling follows its start.</summary>
    public required Approach Approach { get; init; }

    /// <summary>The range of the player's stage.</summary>
    public PlayingRange Range => LearnersRange.Of(Instrument, Stage, Approach);
}

/// <summary>How far a learner's notes reach at a stage.</summary>
public static class LearnersRange
{
    /// <summary>The range of a stage; lips and mouthpiece have first notes ahead of them.</summary>
    public static PlayingRange Of(Instrument instrument, LearningStage stage, Approach approach) =>
        stage switch
        {
            < LearningStage.Second => PlayingRange.OfFirstNotes(instrument, approach.Of(Points.HornStart) is HornStart.F4 or HornStart.A4),
            LearningStage.Second => PlayingRange.OfSecondStage(instrument),
            _ => PlayingRange.Whole(instrument),
        };
}

/// <summary>A note of a class part.</summary>
/// <param name="Concert">The concert pitch in the octave taken.</param>
/// <param name="Written">What the player reads.</param>
/// <param name="Way">The fingering taught; null where the player has none.</param>
/// <param name="WhyNot">Why the player leaves it out; null where it is played.</param>
public sealed record ClassNote(Pitch Concert, Pitch Written, Fingering? Way, string? WhyNot);

/// <summary>What one player of a mixed class plays of a concert line.</summary>
/// <param name="Member">The player.</param>
/// <param name="Notes">The notes in order.</param>
public sealed record ClassPart(ClassMember Member, IReadOnlyList<ClassNote> Notes)
{
    /// <summary>The most signs of a key signature; beyond, the notes carry their own.</summary>
    private const int MostSigns = 7;

    /// <summary>Sharps (positive) or flats of the part's key; 0 where the line is in none.</summary>
    public int Fifths { get; init; }

    /// <summary>Whether every note is played.</summary>
    public bool IsWhole => Notes.All(note => note.WhyNot is null);

    /// <summary>What the player leaves out and why; null where nothing is.</summary>
    public string? WhyNot
    {
        get
        {
            var left = Notes.Where(note => note.WhyNot is not null).ToList();
            return left.Count == 0 ? null
                : left.Count == Notes.Count ? left[0].WhyNot
                : $"{left.Count} of {Notes.Count} left out: {left[0].WhyNot}";
        }
    }

    /// <summary>The part as it is called out, such as <c>written G4, valves 1-3</c>.</summary>
    public string Called =>
        string.Join(
            "; ",
            Notes.Select(note => note.Way is { } way && note.WhyNot is null ? $"{note.Written} {way.Setting}" : $"{note.Written} rests")
        );

    /// <summary>The part as a row to read: the setting under each note, a rest where one is left out.</summary>
    /// <param name="name">The name before the staff.</param>
    /// <param name="notesInLine">How many notes stand in a line; 0 for one line.</param>
    public NoteRow ToRow(string name, int notesInLine = 0) =>
        new(Member.Reading, [.. Notes.Select(note => note.Written)])
        {
            Part = name,
            Under = [.. Notes.Select(note => note.WhyNot is null ? note.Way!.Setting.ToString() : "")],
            Rests = Notes.Index().Where(note => note.Item.WhyNot is not null).Select(note => note.Index).ToHashSet(),
            NotesInLine = notesInLine,
            Fifths = Fifths,
        };

    /// <summary>
    /// The line in the octave that lies best for a player: the one in which most notes can be played, and of those the one
    /// whose middle is nearest to the middle of the player's start notes.
    /// </summary>
    public static ClassPart Of(ClassMember member, ConcertLine line)
    {
        var start = StartNotes.Of(member.Instrument);
        var home = (start.ConcertBb.Midi + start.ConcertF.Midi) / 2.0;
        var parts = new List<(ClassPart Part, int Played, double Away)>();
        for (var octaves = -6; octaves <= 6; octaves++)
        {
            var notes = line.Notes.Select(note => note with { Octave = note.Octave + octaves }).ToList();
            if (notes.Any(note => note.Midi is < 12 or > 115))
                continue;
            var part = new ClassPart(member, [.. notes.Select(note => NoteOf(member, note, line.IsChromatic))])
            {
                Fifths =
                    line.KeyNote is { } key && member.Reading.ToWritten(key).MajorKeyFifths is >= -MostSigns and <= MostSigns and var signs
                        ? signs
                        : 0,
            };
            parts.Add((part, part.Notes.Count(note => note.WhyNot is null), Math.Abs(notes.Average(note => note.Midi) - home)));
        }

        return parts.OrderByDescending(part => part.Played).ThenBy(part => part.Away).First().Part;
    }

    private static ClassNote NoteOf(ClassMember member, Pitch concert, bool chromatic)
    {
        var (written, range) = (member.Reading.ToWritten(concert), member.Range);
        written = chromatic ? Pitch.FromMidi(written.Midi) : written;
        ClassNote Rests(string why, Fingering? way = null) => new(concert, written, way, why);
        if (concert.Midi < range.Lowest.Midi)
            return Rests($"{written} lies below the range, which starts at {member.Reading.ToWritten(range.Lowest)}.");
        if (concert.Midi > range.Highest.Midi)
            return Rests($"{written} lies above the range of this stage, which ends at {member.Reading.ToWritten(range.Highest)}.");
        var ways = FingeringFinder.FindSounding(member.Instrument, concert, member.Weights, member.Hand);
        return ways.Count == 0 ? Rests($"{written} has no fingering on this instrument.")
            : ways[0].Barred is { } barred && !ways[0].IsPinned ? Rests(barred, ways[0])
            : new ClassNote(concert, written, ways[0], null);
    }
}
