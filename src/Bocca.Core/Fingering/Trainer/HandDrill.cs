using Bocca.Core.Instruments;

namespace Bocca.Core.Fingering.Trainer;

/// <summary>What the hand is asked.</summary>
public enum HandTask
{
    /// <summary>The settings from the open tube down, a semitone each.</summary>
    InOrder,

    /// <summary>The same upwards.</summary>
    Backward,

    /// <summary>Settings by their number, shuffled.</summary>
    Called,

    /// <summary>A written note to its setting.</summary>
    ByNote,

    /// <summary>A setting to one of four written notes.</summary>
    NameIt,

    /// <summary>The setting of the note a semitone under the one seen.</summary>
    OneLower,

    /// <summary>The slide to a position, by eye.</summary>
    SlideByEye,

    /// <summary>The slide to a position, by ear.</summary>
    SlideBySound,
}

/// <summary>A silent drill for the hand, as data (<c>hand-drills.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Ask">What to do, in a sentence or two.</param>
/// <param name="Task">What is asked.</param>
/// <param name="Count">How many prompts it has.</param>
/// <param name="Basis">Where it comes from.</param>
/// <param name="Slide">Whether only a slide has it.</param>
public sealed record HandDrill(string Id, string Name, string Ask, HandTask Task, int Count, string Basis, bool Slide = false)
{
    private static readonly Lazy<IReadOnlyList<HandDrill>> Shipped = new(() => EmbeddedData.Read<List<HandDrill>>("hand-drills.json"));

    /// <summary>All drills, in the order in which they are met.</summary>
    public static IReadOnlyList<HandDrill> All => Shipped.Value;

    /// <summary>The drills for an instrument, in the order in which they are met.</summary>
    public static IReadOnlyList<HandDrill> For(Instrument instrument) =>
        [.. All.Where(drill => !drill.Slide || instrument.Slide is not null)];

    /// <summary>Where to begin: what is due to be recalled comes first; else the hand goes on where it was.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="isDue">Whether a note is due to be recalled.</param>
    /// <param name="lastId">The drill done last; null for none.</param>
    public static HandDrill First(Instrument instrument, bool isDue, string? lastId)
    {
        var drills = For(instrument);
        return drills.FirstOrDefault(drill => isDue ? drill.Task == HandTask.ByNote : drill.Id == lastId) ?? drills[0];
    }

    /// <summary>The drill that comes after this one; null for the last.</summary>
    public HandDrill? Next(Instrument instrument) => For(instrument).SkipWhile(drill => drill.Id != Id).Skip(1).FirstOrDefault();

    /// <summary>The drill with this id.</summary>
    /// <exception cref="ArgumentException">There is none; the message names those there are.</exception>
    public static HandDrill Get(string id) =>
        All.FirstOrDefault(drill => drill.Id == id)
        ?? throw new ArgumentException(
            $"'{id}' is not a drill for the hand; there are {string.Join(", ", All.Select(drill => drill.Id))}."
        );

    /// <summary>How many centimetres a slide may be off, or 0 where it goes by positions (ours, editable).</summary>
    public double WithinCm =>
        Task switch
        {
            HandTask.SlideByEye => 2,
            HandTask.SlideBySound => 1,
            _ => 0,
        };

    /// <summary>Whether what it asks is kept in the recall schedule.</summary>
    public bool IsRecalled => Task is HandTask.ByNote or HandTask.NameIt;
}
