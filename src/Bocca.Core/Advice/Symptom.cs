using Bocca.Core.Practice;

namespace Bocca.Core.Advice;

/// <summary>Which way a cue pulls. Slack and squeezed lips need opposite cues, so a tense pupil is never told to tighten.</summary>
public enum Pull
{
    /// <summary>Neither way.</summary>
    Neutral,

    /// <summary>Firmer, faster, more.</summary>
    Firm,

    /// <summary>Looser, softer, less.</summary>
    Ease,
}

/// <summary>One thing to try against a symptom.</summary>
/// <param name="Cue">The words for the pupil.</param>
/// <param name="Pull">Which way it pulls.</param>
/// <param name="Approaches">The approaches that say it so; null for all.</param>
public sealed record Fix(string Cue, Pull Pull, IReadOnlyList<Approach>? Approaches = null);

/// <summary>A fault that can be heard, what may cause it, and what to try, in order (<c>symptoms.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Order">What is mended first: 1 that it sounds, 2 that it starts, 3 that it lasts, 4 that it is straight, 5 how it sounds, 6 that it repeats.</param>
/// <param name="Cause">The likely cause, in a sentence.</param>
/// <param name="Fixes">What to try, in order.</param>
/// <param name="Basis">Where this comes from.</param>
public sealed record Symptom(string Id, string Name, int Order, string Cause, IReadOnlyList<Fix> Fixes, string Basis)
{
    private static readonly Lazy<IReadOnlyDictionary<string, Symptom>> Shipped = new(() =>
        EmbeddedData.Read<List<Symptom>>("symptoms.json").ToDictionary(symptom => symptom.Id));

    /// <summary>All symptoms.</summary>
    public static IEnumerable<Symptom> All => Shipped.Value.Values;

    /// <summary>The symptom with this id.</summary>
    /// <exception cref="ArgumentException">There is none.</exception>
    public static Symptom Get(string id) => Shipped.Value.TryGetValue(id, out var symptom)
        ? symptom
        : throw new ArgumentException($"'{id}' is not a symptom Bocca knows.");

    /// <summary>
    /// The first fix that the approach says and that may be said: while a pupil is tense, nothing that firms.
    /// Null when nothing is left to say.
    /// </summary>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="tense">Whether the pupil measures pinched or the teacher has ticked tension.</param>
    public Fix? FixFor(Approach approach, bool tense) => Fixes.FirstOrDefault(fix =>
        (fix.Approaches is null || fix.Approaches.Contains(approach)) && !(tense && fix.Pull == Pull.Firm));
}
