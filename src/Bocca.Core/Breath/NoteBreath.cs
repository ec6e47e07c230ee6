namespace Bocca.Core.Breath;

/// <summary>
/// What one breath carries on the instrument: four fifths of the longest note held there. A stream of air is no substitute, for low and
/// loud notes spend a breath several times faster (common practice); until notes are known, a cautious share of it is taken, and said.
/// Shares ours, editable.
/// </summary>
/// <param name="Seconds">Seconds to reckon with.</param>
/// <param name="IsKnown">Whether notes on the instrument say so.</param>
/// <param name="Words">Where it comes from, in a sentence.</param>
public sealed record NoteBreath(double Seconds, bool IsKnown, string Words)
{
    /// <summary>Share of the longest note that is reckoned with.</summary>
    private const double OfNote = 0.8;

    /// <summary>Share of the longest even stream, while no note is known: trumpet and horn, trombone and euphonium, tuba.</summary>
    private const double OfStreamHigh = 0.6,
        OfStreamMiddle = 0.45,
        OfStreamLow = 0.3;

    /// <summary>Seconds taken where nothing at all is known.</summary>
    public const double UsualSeconds = 6;

    /// <summary>The breath of a player.</summary>
    /// <param name="family">The instrument's family.</param>
    /// <param name="longestNotes">The longest note in each register that has one, seconds: the shortest counts.</param>
    /// <param name="stream">The longest even stream; null for none.</param>
    public static NoteBreath Of(string family, IReadOnlyCollection<double> longestNotes, UsableBreath? stream)
    {
        if (longestNotes.Count > 0)
            return new NoteBreath(
                OfNote * longestNotes.Min(),
                true,
                $"One breath carries {OfNote * longestNotes.Min():0.0} s: four fifths of the longest note held on the instrument."
            );
        var share = family switch
        {
            "tuba" => OfStreamLow,
            "trombone" or "euphonium" => OfStreamMiddle,
            _ => OfStreamHigh,
        };
        return stream is null
            ? new NoteBreath(UsualSeconds, false, $"What one breath carries is not yet known; {UsualSeconds:0} s are taken.")
            : new NoteBreath(
                share * stream.Longest,
                false,
                $"What one breath carries on the instrument is not yet known; {100 * share:0} % of the longest even stream are taken, "
                    + $"{share * stream.Longest:0.0} s."
            );
    }
}
