namespace Bocca.Core.Breath;

/// <summary>A long note that was held on the instrument.</summary>
/// <param name="Register">Its register: <c>low</c>, <c>middle</c> or <c>high</c>.</param>
/// <param name="Seconds">How long it was held.</param>
/// <param name="OverMediumDb">Its level over the pupil's own medium, decibels; null where one of the two is not known.</param>
public readonly record struct HeldNote(string Register, double Seconds, double? OverMediumDb);

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

    /// <summary>Share of the longest even stream, while no note is known: trumpet, horn; trombone, euphonium; tuba.</summary>
    private const double OfStreamHigh = 0.6,
        OfStreamMiddle = 0.45,
        OfStreamLow = 0.3;

    /// <summary>Seconds taken where nothing at all is known.</summary>
    public const double UsualSeconds = 6;

    /// <summary>A note this much under the own medium spends less breath and says nothing of what is played at medium (dB).</summary>
    private const double SofterDb = 4;

    /// <summary>The breath of a player at the own medium: the longest note of each register, and of these the shortest.</summary>
    /// <param name="family">The instrument's family.</param>
    /// <param name="held">Long notes held on the instrument; soft ones do not count, louder ones do.</param>
    /// <param name="stream">The longest even stream; null for none.</param>
    public static NoteBreath Of(string family, IEnumerable<HeldNote> held, UsableBreath? stream)
    {
        var shortest = held.Where(note => note.OverMediumDb is not < -SofterDb)
            .GroupBy(note => note.Register)
            .Select(register => (Register: register.Key, Seconds: register.Max(note => note.Seconds)))
            .OrderBy(register => register.Seconds)
            .Take(1)
            .ToList();
        if (shortest is [var (register, seconds)])
            return new NoteBreath(
                OfNote * seconds,
                true,
                $"One breath carries {OfNote * seconds:0.0} s: four fifths of the longest {register} note held on the instrument, no "
                    + $"softer than usual."
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
