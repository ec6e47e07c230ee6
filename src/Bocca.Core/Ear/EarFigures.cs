using Bocca.Core.Judging;

namespace Bocca.Core.Ear;

/// <summary>What answers of the ear say over weeks: ear, voice and instrument apart.</summary>
public static class EarFigures
{
    /// <summary>The share of answers tapped right.</summary>
    public static FigureKind Tapped { get; } = new("heard right", "%", "fewer heard right", "more heard right", IsShare: true);

    /// <summary>How far sung notes lie from those meant, either way.</summary>
    public static FigureKind Sung { get; } = new("sung beside the note", "cents", "closer", "further");

    /// <summary>How far played notes lie from those sung or heard before.</summary>
    public static FigureKind Played { get; } = new("played beside the note", "cents", "closer", "further");

    /// <summary>The voice's lower end.</summary>
    public static FigureKind VoiceLowest { get; } = new("voice from", "Hz", "lower", "higher");

    /// <summary>The voice's upper end.</summary>
    public static FigureKind VoiceHighest { get; } = new("voice up to", "Hz", "lower", "higher");

    /// <summary>The figures of an answer.</summary>
    public static IEnumerable<Figure> Of(EarHearing heard)
    {
        if (heard.EarRight is { } right)
            yield return new Figure(Tapped, right ? 1 : 0);
        if (heard.Voice is { } voice)
        {
            yield return new Figure(VoiceLowest, voice.LowestHz);
            yield return new Figure(VoiceHighest, voice.HighestHz);
        }

        foreach (var (kind, notes) in new[] { (Sung, heard.Sung), (Played, heard.Played) })
        {
            var cents = notes.Where(note => note.Outcome != EarOutcome.OtherNote).Select(note => note.Cents).OfType<double>().ToList();
            if (cents.Count > 0)
                yield return new Figure(kind, cents.Average(Math.Abs), 0, cents.Count);
        }
    }
}
