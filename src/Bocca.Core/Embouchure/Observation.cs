using Bocca.Core.Health;
using Bocca.Core.Instruments;
using Bocca.Core.Judging;

namespace Bocca.Core.Embouchure;

/// <summary>Something that a teacher sees or hears by ear in a lesson and notes with one tap (<c>observations.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Key">The key that notes it; null for none.</param>
/// <param name="Group">What it is about: <c>face</c>, <c>mouthpiece</c>, <c>body</c>, <c>hands</c>, <c>tongue</c>, <c>sound</c>,
/// <c>count</c> or <c>health</c>.</param>
/// <param name="On"><c>slide</c> or <c>valves</c> for what only an instrument with them shows; null for all.</param>
/// <param name="Basis">Where this comes from.</param>
public sealed record Observation(string Id, string Name, string? Key, string Group, string? On, string Basis)
{
    private static readonly Lazy<IReadOnlyList<Observation>> Shipped = new(() =>
        [
            .. EmbeddedData.Read<List<Observation>>("observations.json"),
            .. Complaint.All.Select(told => new Observation(
                told.Id,
                told.Name,
                told.Id == "dizzy" ? "x" : null,
                "health",
                null,
                told.Basis
            )),
        ]
    );

    /// <summary>That it was seen, as evidence.</summary>
    public Evidence AsEvidence => new($"seen.{Id}", $"Seen: {Name}.");

    /// <summary>All observations, the frequent ones first in their groups; what hurts, and ends or shortens the day, comes last.</summary>
    public static IReadOnlyList<Observation> All => Shipped.Value;

    /// <summary>The observations that a player of an instrument can give occasion for.</summary>
    public static IEnumerable<Observation> Of(Instrument instrument) =>
        All.Where(seen => seen.On is null || seen.On == (instrument.Slide is null ? "valves" : "slide"));

    /// <summary>The observation with this id.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static Observation Get(string id) =>
        All.FirstOrDefault(observation => observation.Id == id)
        ?? throw new ArgumentException($"'{id}' is not an observation Bocca knows.");
}
