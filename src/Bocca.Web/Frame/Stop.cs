namespace Bocca.Web.Frame;

/// <summary>A stop of the path, in the order of a lesson.</summary>
/// <param name="Key">The key that jumps to it.</param>
/// <param name="Path">Its address, without the leading slash; empty for the Desk.</param>
/// <param name="Name">Its name.</param>
/// <param name="Open">Whether there is something there yet.</param>
/// <param name="Promise">What will be there.</param>
public sealed record Stop(char Key, string Path, string Name, bool Open, string Promise)
{
    public static IReadOnlyList<Stop> All { get; } =
    [
        new('1', "", "Desk", true, "Everybody, and what is due."),
        new('2', "breath", "Breath", true, "Paced breaths, an even stream measured, and limits that keep breathing drills safe."),
        new('3', "set-up", "Set-up", true, "Posture, the hold, and where the mouthpiece sits, kept from week to week."),
        new('4', "buzz", "Buzz", true, "Buzzes heard, measured and laid over each other."),
        new('5', "tone", "Tone", true, "What was just played, held against what was meant."),
        new('6', "notes", "Notes", true, "The valve combination or slide position of every written note, and why."),
        new('7', "slurs", "Slurs", true, "The next lip slur for this pupil, written and heard."),
        new('8', "ear", "Ear & count", false, "Copying, singing, clapping and counting."),
        new('9', "pieces", "Pieces", false, "Fingerings, breaths and layers of a piece."),
        new('0', "practice", "Practice", false, "The next ten minutes and the next week."),
    ];

    /// <summary>The stop at an address of the site; the Desk where none fits.</summary>
    public static Stop Of(PathString path) => All.Skip(1).FirstOrDefault(stop => path.StartsWithSegments($"/{stop.Path}")) ?? All[0];

    /// <summary>Where it is for a pupil.</summary>
    public string Address(int? pupilId) =>
        Path == "" ? "/"
        : pupilId is { } id ? $"/{Path}/{id}"
        : $"/{Path}";
}
