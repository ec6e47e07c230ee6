namespace Bocca.Core.Score;

/// <summary>A note value that can be written with one head: its name and its dots.</summary>
/// <param name="Type">Its name in MusicXML, such as <c>half</c>.</param>
/// <param name="Dots">0 or 1.</param>
/// <param name="Ticks">Its length.</param>
internal readonly record struct NoteValue(string Type, int Dots, int Ticks)
{
    private static readonly NoteValue[] All =
    [
        .. new[] { ("whole", 4.0), ("half", 2), ("quarter", 1), ("eighth", 0.5), ("16th", 0.25), ("32nd", 0.125) }
            .SelectMany(value =>
                new[]
                {
                    new NoteValue(value.Item1, 1, (int)(1.5 * value.Item2 * MusicScore.TicksPerQuarter)),
                    new NoteValue(value.Item1, 0, (int)(value.Item2 * MusicScore.TicksPerQuarter)),
                }
            )
            .OrderByDescending(value => value.Ticks),
    ];

    /// <summary>The values that make up a length together, the longest first; tied, they are one note.</summary>
    /// <exception cref="ArgumentException">No such values make it up.</exception>
    public static IReadOnlyList<NoteValue> Of(int ticks)
    {
        var values = new List<NoteValue>();
        var left = ticks;
        while (left > 0)
        {
            var value = All.FirstOrDefault(each => each.Ticks <= left);
            if (value.Ticks == 0)
                throw new ArgumentException($"A length of {ticks} ticks cannot be written.");
            values.Add(value);
            left -= value.Ticks;
        }

        return values;
    }
}
