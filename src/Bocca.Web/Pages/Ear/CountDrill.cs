using Bocca.Core.Counting;

namespace Bocca.Web.Pages.Ear;

/// <summary>A way of doing cards, as it is chosen.</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ways">What it asks.</param>
public sealed record CountDrill(string Id, string Name, CountWays Ways)
{
    /// <summary>Whether the card is heard first and seen only after it was done.</summary>
    public bool ByEar { get; init; }

    /// <summary>All of them, in the order in which they are done.</summary>
    public static IReadOnlyList<CountDrill> All { get; } =
    [
        new("said-clapped", "Say and clap", CountWays.Said | CountWays.Clapped),
        new("said", "Say", CountWays.Said),
        new("clapped", "Clap", CountWays.Clapped),
        new("said-tapped", "Say and tap", CountWays.Said | CountWays.Tapped),
        new("tapped", "Tap", CountWays.Tapped),
        new("clap-back", "Clap back by ear", CountWays.Clapped) { ByEar = true },
        new("played", "Play on one note", CountWays.Played),
        new("on-notes", "Play on its notes", CountWays.Played | CountWays.OnNotes),
    ];

    /// <summary>The one of this name.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static CountDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id) ?? throw new ArgumentException($"Cards are not done '{id}'.");
}
