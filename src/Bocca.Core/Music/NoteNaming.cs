namespace Bocca.Core.Music;

/// <summary>The ways in which notes are called (common practice).</summary>
public enum NoteNamingKind
{
    /// <summary>C D E F G A B.</summary>
    Letters,

    /// <summary>C D E F G A H, with B for B flat, and endings for sharps and flats: Fis, Es.</summary>
    German,

    /// <summary>do re mi fa sol la si, do always C.</summary>
    FixedDo,

    /// <summary>do re mi fa so la ti from a note of one's own; sharps di, ri, fi, si, li, flats ra, me, se, le, te.</summary>
    MovableDo,
}

/// <summary>Calls notes as a room does; what is stored, typed and sent keeps the letters.</summary>
/// <param name="Kind">The way.</param>
/// <param name="Do">The written note that is do, where do moves; its octave does not count.</param>
public sealed record NoteNaming(NoteNamingKind Kind, Pitch? Do = null)
{
    private static readonly string[] Fixed = ["do", "re", "mi", "fa", "sol", "la", "si"];
    private static readonly string[] Degrees = ["do", "re", "mi", "fa", "so", "la", "ti"];
    private static readonly string[] Raised = ["di", "ri", "mi♯", "fi", "si", "li", "ti♯"];
    private static readonly string[] Lowered = ["do♭", "ra", "me", "fa♭", "se", "le", "te"];

    /// <summary>Brass is written within these octaves; alterations go up to two.</summary>
    private const int LowestOctave = 0,
        HighestOctave = 7;

    private static readonly int[] Alters = [-2, -1, 0, 1, 2];

    /// <summary>Semitones of the degrees of a major scale.</summary>
    private static readonly int[] Major = [0, 2, 4, 5, 7, 9, 11];

    /// <summary>Letters, as they are stored.</summary>
    public static NoteNaming Letters { get; } = new(NoteNamingKind.Letters);

    /// <summary>A note, with its octave where do does not move.</summary>
    public string Name(Pitch pitch) =>
        Kind switch
        {
            NoteNamingKind.German => $"{German(pitch)}{pitch.Octave}",
            NoteNamingKind.FixedDo => $"{Fixed[(int)pitch.Letter]}{Signs(pitch.Alter)}{pitch.Octave}",
            NoteNamingKind.MovableDo when Do is { } from => Degree(pitch, from),
            _ => $"{pitch.Letter}{Signs(pitch.Alter)}{pitch.Octave}",
        };

    /// <summary>Every note between the lowest and the highest octave, as it is printed elsewhere, with what it is called here.</summary>
    public IReadOnlyDictionary<string, string> Table() =>
        Enumerable
            .Range(LowestOctave, HighestOctave - LowestOctave + 1)
            .SelectMany(octave => Enum.GetValues<Letter>().SelectMany(letter => Alters.Select(alter => new Pitch(letter, alter, octave))))
            .SelectMany(pitch => new[] { $"{pitch}", Letters.Name(pitch) }.Distinct().Select(printed => (printed, Called: Name(pitch))))
            .ToDictionary(each => each.printed, each => each.Called);

    private static string German(Pitch pitch) =>
        (pitch.Letter, pitch.Alter) switch
        {
            (Letter.B, 0) => "H",
            (Letter.B, -1) => "B",
            (Letter.B, < -1) => "Heses",
            (Letter.B, _) => "H" + Repeated("is", pitch.Alter),
            (Letter.E or Letter.A, < 0) => $"{pitch.Letter}s" + Repeated("es", -pitch.Alter - 1),
            (_, < 0) => $"{pitch.Letter}" + Repeated("es", -pitch.Alter),
            _ => $"{pitch.Letter}" + Repeated("is", pitch.Alter),
        };

    private static string Degree(Pitch pitch, Pitch from)
    {
        var degree = ((int)pitch.Letter - (int)from.Letter + 7) % 7;
        var over = ((pitch.Midi - from.Midi) % 12 + 12) % 12;
        var alter = ((over - Major[degree] + 18) % 12) - 6;
        return alter switch
        {
            0 => Degrees[degree],
            1 => Raised[degree],
            -1 => Lowered[degree],
            _ => Degrees[degree] + Signs(alter),
        };
    }

    private static string Signs(int alter) => alter >= 0 ? Repeated("♯", alter) : Repeated("♭", -alter);

    private static string Repeated(string sign, int times) => string.Concat(Enumerable.Repeat(sign, Math.Max(0, times)));
}
