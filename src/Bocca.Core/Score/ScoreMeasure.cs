using Bocca.Core.Music;

namespace Bocca.Core.Score;

/// <summary>A measure; it lasts as long as its notes.</summary>
/// <param name="Notes">Its notes, voice by voice, each in its order.</param>
/// <param name="NewLine">Whether it begins a line.</param>
public sealed record ScoreMeasure(IReadOnlyList<ScoreNote> Notes, bool NewLine = false)
{
    /// <summary>Its number as printed; empty where it has none of its own.</summary>
    public string Number { get; init; } = "";

    /// <summary>Signs over and under the staff.</summary>
    public IReadOnlyList<ScoreMark> Marks { get; init; } = [];

    /// <summary>The metre that begins with it; null where the one before goes on.</summary>
    public Metre? Metre { get; init; }

    /// <summary>Sharps of the key that begins with it, flats negative; null where the one before goes on.</summary>
    public int? Fifths { get; init; }

    /// <summary>The clef of a staff that begins with it, by staff; empty where those before go on.</summary>
    public IReadOnlyDictionary<int, Clef> Clefs { get; init; } = new Dictionary<int, Clef>();

    /// <summary>The interval from what is read to what sounds that begins with it; null where the one before goes on.</summary>
    public Interval? ToSounding { get; init; }

    /// <summary>Whether what is repeated begins with it.</summary>
    public bool RepeatBegins { get; init; }

    /// <summary>How often what ends with it is played; 0 where nothing is repeated.</summary>
    public int RepeatTimes { get; init; }

    /// <summary>The times through for which an ending begins with it; empty where none does.</summary>
    public IReadOnlyList<int> EndingBegins { get; init; } = [];

    /// <summary>Whether an ending ends with it.</summary>
    public bool EndingEnds { get; init; }

    /// <summary>Whether it is shorter than its metre and not counted: a pickup, or what completes one.</summary>
    public bool IsPickup { get; init; }

    /// <summary>Whether a double bar line ends it.</summary>
    public bool EndsSection { get; init; }

    /// <summary>Its length, quarters.</summary>
    public Rational Length => Notes.Count == 0 ? Rational.Zero : Notes.Max(note => note.End);

    /// <summary>A measure of one voice whose notes follow each other.</summary>
    /// <param name="notes">The notes in order; when they begin is worked out.</param>
    public static ScoreMeasure Row(params IEnumerable<ScoreNote> notes)
    {
        var at = Rational.Zero;
        var placed = new List<ScoreNote>();
        foreach (var note in notes)
        {
            placed.Add(note with { At = at });
            at += note.Length;
        }

        return new ScoreMeasure(placed);
    }
}
