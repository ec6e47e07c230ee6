namespace Bocca.Core.Teaching;

/// <summary>One way to settle a point.</summary>
/// <param name="Id">Its id in records; it stays.</param>
/// <param name="Option">Its name in the enumeration of its point.</param>
/// <param name="Says">The choice in a few words.</param>
/// <param name="Then">What it changes, in a sentence.</param>
public sealed record ApproachOption(string Id, string Option, string Says, string Then);

/// <summary>A point on which good teachers differ, as data (<c>approaches.json</c>).</summary>
/// <param name="Id">Its name in records, such as <c>mp.share</c>.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Stop">The stop of the path at which the choice is met first.</param>
/// <param name="Options">The ways to settle it.</param>
/// <param name="LipsFirst">The option of that preset.</param>
/// <param name="MouthpieceFirst">The option of that preset.</param>
/// <param name="AirFirst">The option of that preset.</param>
/// <param name="Basis">Where this comes from.</param>
/// <param name="Waits">Whether the choice is kept but nothing depends on it yet, though its stop is open.</param>
public sealed record ApproachPoint(
    string Id,
    string Name,
    string Stop,
    IReadOnlyList<ApproachOption> Options,
    string LipsFirst,
    string MouthpieceFirst,
    string AirFirst,
    string Basis,
    bool Waits = false
)
{
    private static readonly Lazy<IReadOnlyList<ApproachPoint>> Shipped = new(() =>
        Checked(EmbeddedData.Read<List<ApproachPoint>>("approaches.json"))
    );

    /// <summary>All points, in the order of a lesson.</summary>
    public static IReadOnlyList<ApproachPoint> All => Shipped.Value;

    /// <summary>The point with this id.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static ApproachPoint Get(string id) =>
        All.FirstOrDefault(point => point.Id == id) ?? throw new ArgumentException($"'{id}' is not a point on which approaches differ.");

    /// <summary>The option a preset takes.</summary>
    public string Of(ApproachPreset preset) =>
        preset switch
        {
            ApproachPreset.LipsFirst => LipsFirst,
            ApproachPreset.MouthpieceFirst => MouthpieceFirst,
            _ => AirFirst,
        };

    /// <summary>The option with this id.</summary>
    /// <exception cref="ArgumentException">The point has no such option; the message names those it has.</exception>
    public ApproachOption Option(string id) =>
        Options.FirstOrDefault(option => option.Id == id)
        ?? throw new ArgumentException($"'{id}' does not settle {Id}; it has {string.Join(", ", Options.Select(option => option.Id))}.");

    private static List<ApproachPoint> Checked(List<ApproachPoint> points)
    {
        foreach (var point in points)
        {
            var known = Points.OptionNames.GetValueOrDefault(point.Id) ?? [];
            if (!known.Order().SequenceEqual(point.Options.Select(option => option.Option).Order()))
                throw new InvalidDataException($"approaches.json: {point.Id} has other options than the code knows of it.");
            if (point.Options.DistinctBy(option => option.Id).Count() < point.Options.Count)
                throw new InvalidDataException($"approaches.json: two options of {point.Id} have the same id.");
            foreach (var preset in Enum.GetValues<ApproachPreset>())
                if (point.Options.All(option => option.Id != point.Of(preset)))
                    throw new InvalidDataException($"approaches.json: {point.Id} has no option '{point.Of(preset)}' for {preset}.");
        }

        return points.Count == Points.OptionNames.Count
            ? points
            : throw new InvalidDataException("approaches.json: a point that the code knows is missing.");
    }
}
