namespace Bocca.Core.Practice;

/// <summary>Whom a message speaks to.</summary>
public enum MessageVoice
{
    /// <summary>The pupil.</summary>
    Pupil,

    /// <summary>A guardian.</summary>
    Guardian,
}

/// <summary>What a message after a lesson is drafted from.</summary>
/// <param name="Voice">Whom it speaks to.</param>
/// <param name="Name">The pupil's first name.</param>
/// <param name="Greeting">The teacher's own greeting; <c>{name}</c> stands for the name.</param>
/// <param name="Good">One good thing, with its number, in a sentence; empty for none.</param>
/// <param name="Fault">One fault in plain words; empty for none.</param>
/// <param name="Drill">One drill with its amounts; empty for none.</param>
/// <param name="Piece">The piece that was played; empty for none.</param>
/// <param name="Minutes">Whole minutes of each day of the week that has any; empty for none planned.</param>
/// <param name="Next">The next lesson; null where it is not known.</param>
/// <param name="Close">The teacher's own close.</param>
public sealed record MessageFrom(
    MessageVoice Voice,
    string Name,
    string Greeting,
    string Good,
    string Fault,
    string Drill,
    string Piece,
    IReadOnlyList<int> Minutes,
    DateOnly? Next,
    string Close
);

/// <summary>
/// The draft of a message after a lesson: a greeting, one good thing, one fault with its one drill, minutes and days, the next date; five
/// lines, nothing else (common practice).
/// </summary>
public static class LessonMessage
{
    /// <summary>The most letters of a message, a name or a phrase (ours).</summary>
    public const int MostLetters = 2000,
        MostOfPhrase = 120;

    /// <summary>Greeting and close where the teacher has none.</summary>
    public const string UsualGreeting = "Dear {name},",
        UsualClose = "Until then!";

    /// <summary>From this age on a pupil is written to alone (ours, editable upward only).</summary>
    private const int Grown = 18;

    /// <summary>Whether a guardian is always copied: for a child, or where nobody said how old somebody is.</summary>
    /// <param name="age">Age in whole years, the lower where unsure; null where it is not known.</param>
    public static bool CopiesGuardian(int? age) => age is null or < Grown;

    /// <summary>
    /// Whether two mail addresses reach one person: written in other letters' sizes, with other dots before the @, or with what follows a
    /// plus sign, an address is delivered to the same box by usual providers (common practice).
    /// </summary>
    public static bool IsSameBox(string one, string other) => Box(one) == Box(other);

    private static string Box(string address)
    {
        var at = address.LastIndexOf('@');
        if (at < 0)
            return address.Trim().ToUpperInvariant();
        var name = address[..at].Trim().Split('+')[0].Replace(".", "", StringComparison.Ordinal);
        return $"{name}@{address[(at + 1)..].Trim()}".ToUpperInvariant();
    }

    /// <summary>The lines.</summary>
    public static IReadOnlyList<string> Draft(MessageFrom from)
    {
        var mine = from.Voice == MessageVoice.Pupil;
        var lines = new List<string> { from.Greeting.Replace("{name}", from.Name, StringComparison.Ordinal) };
        if (from.Good != "")
            lines.Add($"{(mine ? "This went well" : $"This went well for {from.Name}")}: {Within(from.Good)}");
        if (from.Fault != "" || from.Drill != "")
            lines.Add(
                string.Join(
                    ' ',
                    new[]
                    {
                        from.Fault == "" ? "" : $"To work on: {Within(from.Fault)}",
                        from.Drill == "" ? "" : $"{(from.Fault == "" ? "To work on" : "For that")}: {Within(from.Drill)}",
                    }.Where(part => part != "")
                )
            );
        if (from.Piece != "")
            lines.Add($"{(mine ? "Your piece" : "The piece")}: {from.Piece}.");
        if (from.Minutes is { Count: > 0 and var days } minutes)
            lines.Add(
                $"{(mine ? "The week" : "The week at home")}: {Between(minutes.Min(), minutes.Max())} on {days} "
                    + $"{(days == 1 ? "day" : "days")}, as on the sheet; stop when the lips are sore."
            );
        lines.Add(from.Next is { } next ? $"Next lesson: {next:dddd d MMMM}. {from.Close}" : from.Close);
        return lines;
    }

    private static string Between(int least, int most) =>
        least < most ? $"{least} to {most} minutes" : $"{most} {(most == 1 ? "minute" : "minutes")}";

    /// <summary>A sentence as it goes on after a colon: small at its start, unless that is a note or a name.</summary>
    private static string Within(string sentence) =>
        sentence is [>= 'A' and <= 'Z', >= 'a' and <= 'z', ..] && !sentence.StartsWith("I ", StringComparison.Ordinal)
            ? char.ToLowerInvariant(sentence[0]) + sentence[1..]
            : sentence;
}
