namespace Bocca.Core.Instruments;

/// <summary>Who mends a fault.</summary>
public enum Mender
{
    /// <summary>The pupil, at once.</summary>
    Pupil,

    /// <summary>An adult beside the pupil.</summary>
    Adult,

    /// <summary>A repairer: it stands open until it is back.</summary>
    Repair,
}

/// <summary>
/// Something that may be wrong with an instrument and not with its player: one look, before any cue for the lips
/// (<c>instrument-faults.json</c>).
/// </summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Look">What to look for.</param>
/// <param name="Mend">What is done about it.</param>
/// <param name="By">Who does it.</param>
/// <param name="Basis">Where this comes from.</param>
/// <param name="On">What only has it: <c>pistons</c>, <c>rotors</c>, <c>valves</c> of either kind, or <c>slide</c>; null for all.</param>
public sealed record InstrumentFault(string Id, string Name, string Look, string Mend, Mender By, string Basis, string? On = null)
{
    private static readonly Lazy<IReadOnlyList<InstrumentFault>> Shipped = new(() =>
        EmbeddedData.Read<List<InstrumentFault>>("instrument-faults.json")
    );

    /// <summary>All faults, the frequent ones first.</summary>
    public static IReadOnlyList<InstrumentFault> All => Shipped.Value;

    /// <summary>The faults that an instrument can have.</summary>
    public static IEnumerable<InstrumentFault> Of(Instrument instrument) =>
        All.Where(fault =>
            fault.On switch
            {
                null => true,
                "slide" => instrument.Slide is not null,
                "valves" => instrument.Slide is null,
                "rotors" => instrument.Slide is null && HasRotors(instrument),
                _ => instrument.Slide is null && !HasRotors(instrument),
            }
        );

    /// <summary>The fault with this id; null for none.</summary>
    public static InstrumentFault? Find(string id) => All.FirstOrDefault(fault => fault.Id == id);

    /// <summary>Horns turn, the others go up and down (common practice of beginners' instruments).</summary>
    private static bool HasRotors(Instrument instrument) => instrument.Family == "horn";
}

/// <summary>How an instrument is looked after and put down (common practice).</summary>
public static class InstrumentCare
{
    /// <summary>Days from one oiling, and from one wash, to the next (common practice; ours, editable).</summary>
    public const double OilDays = 7,
        WashDays = 30;

    /// <summary>What is oiled.</summary>
    public static string Oil(Instrument instrument) => instrument.Slide is null ? "valves oiled" : "slide wiped and creamed";

    /// <summary>How it is put down.</summary>
    /// <param name="instrument">The instrument.</param>
    /// <param name="hasStand">Whether there is a stand of its own.</param>
    public static string PutDown(Instrument instrument, bool hasStand) =>
        (hasStand, instrument.Slide is not null) switch
        {
            (true, true) => "On its stand, the slide locked.",
            (true, false) => "On its stand.",
            (false, true) => "Slide locked, flat across the lap or in its case; never on the bell.",
            (false, false) when instrument.Family is "tuba" or "euphonium" =>
                "On its side where nobody walks, or in its case; never on the bell.",
            _ => "Flat on a chair or in its case, valves up; never on the bell.",
        };
}
