namespace Bocca.Core.Score;

/// <summary>A note value that can be written with one head: its name and its dots.</summary>
/// <param name="Type">Its name in MusicXML, such as <c>half</c>.</param>
/// <param name="Dots">0 to 3.</param>
/// <param name="Length">Its length, quarters.</param>
public readonly record struct NoteValue(string Type, int Dots, Rational Length)
{
    private const int MostDots = 3;

    private static readonly (string Type, Rational Length)[] Plain =
    [
        ("breve", 8),
        ("whole", 4),
        ("half", 2),
        ("quarter", 1),
        ("eighth", new(1, 2)),
        ("16th", new(1, 4)),
        ("32nd", new(1, 8)),
        ("64th", new(1, 16)),
    ];

    /// <summary>Every value, the longest first; each dot adds half of what is before it (common practice).</summary>
    private static readonly NoteValue[] All =
    [
        .. Plain
            .SelectMany(value =>
                Enumerable
                    .Range(0, MostDots + 1)
                    .Select(dots => new NoteValue(value.Type, dots, value.Length * new Rational((2 << dots) - 1, 1 << dots)))
            )
            .OrderByDescending(value => value.Length),
    ];

    private static readonly Dictionary<Rational, NoteValue> ByLength = All.ToDictionary(value => value.Length);

    /// <summary>
    /// The values that make up a length together, the longest first; tied, they are one note. One head with up to three dots where one
    /// shows it.
    /// </summary>
    /// <exception cref="ArgumentException">No such values make it up.</exception>
    public static IReadOnlyList<NoteValue> Of(Rational length)
    {
        if (ByLength.TryGetValue(length, out var one))
            return [one];
        var values = new List<NoteValue>();
        var left = length;
        while (left > Rational.Zero)
        {
            var value = All.FirstOrDefault(each => each.Length <= left && each.Dots <= 1);
            if (value.Type is null)
                throw new ArgumentException($"A length of {length} quarters cannot be written.");
            values.Add(value);
            left -= value.Length;
        }

        return values;
    }

    /// <summary>How many beams or flags a value has.</summary>
    internal int Flags =>
        Type switch
        {
            "eighth" => 1,
            "16th" => 2,
            "32nd" => 3,
            "64th" => 4,
            _ => 0,
        };
}
