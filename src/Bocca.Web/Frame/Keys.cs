namespace Bocca.Web.Frame;

/// <summary>A key of a page.</summary>
/// <param name="Place">Where it holds: a page by its name here, <c>everywhere</c>, or <c>lesson</c> while one is on.</param>
/// <param name="Deed">What it does, as the page's script calls it.</param>
/// <param name="Labels">The keys: a letter or sign as it is printed, or the name of the key, such as <c>ArrowLeft</c>.</param>
/// <param name="Words">What it does, in words.</param>
/// <param name="ByPlace">Whether a letter is meant by its place under the right hand, whatever the keyboard prints there.</param>
public sealed record KeyOf(string Place, string Deed, IReadOnlyList<string> Labels, string Words, bool ByPlace = false);

/// <summary>
/// All keys there are, in one table: pages act by it, the help is made from it, and no key stands twice in a place. Keys of everywhere and
/// of a lesson are no other page's; what is seen in <em>Watching</em> has its letters in the data of the observations.
/// </summary>
public static class Keys
{
    /// <summary>The place of keys that hold on every page, and of those of a lesson.</summary>
    public const string Everywhere = "everywhere",
        InLesson = "lesson";

    private static readonly string[] Figures = ["1", "2", "3", "4", "5", "6", "7", "8", "9", "0"];

    /// <summary>The table.</summary>
    public static IReadOnlyList<KeyOf> All { get; } =
    [
        new(Everywhere, "stop", Figures, "go to a stop of the path"),
        new(Everywhere, "find", ["/"], "find another pupil"),
        new(Everywhere, "start", ["Space"], "start and stop; tap, where the page says so"),
        new(Everywhere, "accept", ["Enter"], "do what is recommended"),
        new(Everywhere, "help", ["?"], "show these keys"),
        new(InLesson, "remark", ["M"], "write a remark"),
        new(InLesson, "next", ["G"], "go on to the next part"),
        .. Valves("notes"),
        new("notes", "before", ["ArrowLeft"], "the note before"),
        new("notes", "after", ["ArrowRight"], "the note after"),
        new("notes", "hear", ["H"], "hear the note"),
        .. Valves("tube"),
        new("tube", "before", ["ArrowLeft"], "the tube before"),
        new("tube", "after", ["ArrowRight"], "the tube after"),
        .. Valves("hand"),
        new("slide", "before", ["ArrowLeft"], "slide in; with Shift further"),
        new("slide", "after", ["ArrowRight"], "slide out; with Shift further"),
        // While a silent drill runs nothing else has a key, so that figures are valves too.
        new("hand-drill", "valve", ["1", "2", "3", "4"], "valves, while a silent drill runs", true),
        new("hand-drill", "give", ["Space", "Enter"], "give the answer"),
        new("hand-drill", "before", ["ArrowLeft"], "slide in"),
        new("hand-drill", "after", ["ArrowRight"], "slide out"),
        new("hand-drill", "away", ["Escape"], "stop the drill"),
        new("call", "before", ["ArrowLeft"], "the note before"),
        new("call", "after", ["ArrowRight"], "the note after"),
        new("call", "away", ["Escape"], "show the whole sheet"),
        new("piece", "before", ["ArrowLeft"], "the note before"),
        new("piece", "after", ["ArrowRight"], "the note after"),
        new("piece", "away", ["Escape"], "leave the note"),
        new("ear", "choose", ["J", "K", "L", ";", "U", "I", "O", "P", "N", "Y"], "what you heard, in order", true),
        new("ear", "back", ["Backspace"], "take the last one back"),
        new("ear", "hear", ["H"], "hear it"),
        new("tell", "choose", ["J", "K"], "hear the first, the second", true),
        new("count", "tap", ["T"], "tap", true),
        new("count", "hear", ["H"], "hear the cards"),
        new("count", "others", ["N"], "other cards"),
        new("delay", "tap", ["T"], "tap with the click", true),
        new("cards", "before", ["ArrowLeft", "PageUp"], "the card before"),
        new("cards", "after", ["ArrowRight", "PageDown"], "the next card"),
        new("cards", "full", ["F"], "fill the screen"),
        new("week", "before", ["ArrowLeft"], "the round picked: a day earlier"),
        new("week", "after", ["ArrowRight"], "a day later"),
        new("week", "out", ["Delete", "Backspace"], "not on this day"),
        new("week", "lock", ["L"], "stay on these days"),
        new("week", "undo", ["Z"], "take the last move back"),
        new("breath", "stop", ["Escape"], "stop at once"),
    ];

    /// <summary>The keys of a stop: those of everywhere and of a lesson, and those of its own pages.</summary>
    public static IEnumerable<KeyOf> Of(Stop stop) =>
        All.Where(key => key.Place is Everywhere or InLesson || stop.KeyPlaces.Contains(key.Place));

    /// <summary>A key as it is printed on a keyboard.</summary>
    public static string Printed(string label) =>
        label switch
        {
            "ArrowLeft" => "←",
            "ArrowRight" => "→",
            "Escape" => "Esc",
            "Delete" => "Del",
            "PageUp" => "Page ↑",
            "PageDown" => "Page ↓",
            _ => label,
        };

    /// <summary>Valves lie under the right hand.</summary>
    private static KeyOf[] Valves(string place) =>
        [new(place, "valve", ["J", "K", "L", ";"], "valves 1 2 3 4", true), new(place, "thumb", ["T"], "the thumb valve", true)];
}
