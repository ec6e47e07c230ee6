using System.Globalization;
using System.Text;

namespace Bocca.Core;

/// <summary>
/// A message as a page or a terminal shows it: one line of at most <see cref="Most"/> printable characters, whatever the file or field that
/// it quotes had in it.
/// </summary>
public static class OneLine
{
    /// <summary>Characters of a message, at most (ours).</summary>
    public const int Most = 200;

    /// <summary>The message of a problem, without the name of a parameter that only a programmer knows.</summary>
    public static string Of(Exception problem) => Of(problem.Message.Split(" (Parameter")[0]);

    /// <summary>
    /// A text as one line: what does not print is left out, and of what is too long the middle, so that its end still says what to do.
    /// </summary>
    public static string Of(string text)
    {
        var line = new StringBuilder();
        foreach (var rune in text.EnumerateRunes().Take(MostRead))
        {
            var prints =
                Rune.GetUnicodeCategory(rune)
                is not (
                    UnicodeCategory.Control
                    or UnicodeCategory.Format
                    or UnicodeCategory.Surrogate
                    or UnicodeCategory.PrivateUse
                    or UnicodeCategory.OtherNotAssigned
                    or UnicodeCategory.LineSeparator
                    or UnicodeCategory.ParagraphSeparator
                );
            if (prints)
                line.Append(rune);
            else if (line.Length > 0 && line[^1] != ' ')
                line.Append(' ');
        }

        var whole = line.ToString().Trim();
        return whole.Length <= Most ? whole : $"{Begin(whole, Most / 2)} … {End(whole, (Most / 2) - 3)}";
    }

    /// <summary>No more of a text is looked at: what comes after is of no use to who reads it.</summary>
    private const int MostRead = 200_000;

    private static string Begin(string text, int letters) => text[..(char.IsHighSurrogate(text[letters - 1]) ? letters - 1 : letters)];

    private static string End(string text, int letters) =>
        text[(char.IsLowSurrogate(text[^letters]) ? text.Length - letters + 1 : text.Length - letters)..];
}
