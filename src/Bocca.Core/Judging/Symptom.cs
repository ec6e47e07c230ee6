using Bocca.Core.Teaching;

namespace Bocca.Core.Judging;

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

/// <summary>One thing to try against a symptom: a rung of its ladder.</summary>
/// <param name="Id">Its name within the symptom, in records.</param>
/// <param name="Cue">The words for the pupil: one action, at most <see cref="MostWords"/> words.</param>
/// <param name="Pull">Which way it pulls.</param>
/// <param name="When">Points of an approach, each <c>point=option</c>, any of which lets it be said; null for always.</param>
/// <param name="Unless">Points of an approach, any of which forbids it; null for none.</param>
/// <param name="Drill">The drill that mends it, as <c>stop:drill</c>, or a stop alone; null for none.</param>
public sealed record Fix(
    string Id,
    string Cue,
    Pull Pull,
    IReadOnlyList<string>? When = null,
    IReadOnlyList<string>? Unless = null,
    string? Drill = null
)
{
    /// <summary>The most words of a cue: more is not heard while playing (common practice; ours, editable).</summary>
    public const int MostWords = 12;

    /// <summary>What is left where an approach has nothing to say that does not tighten a tense pupil.</summary>
    public static Fix Rest { get; } = new("rest", "Rest the lips for a minute, then play one easy try.", Pull.Ease);

    /// <summary>Whether an approach says it.</summary>
    public bool IsFor(Approach approach) => approach.Meets(When) && (Unless is null || !approach.Meets(Unless));
}

/// <summary>A yes-or-no question that tells two causes apart.</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Question">The words for the pupil.</param>
/// <param name="Yes">What a yes does to the symptom: <c>for</c> or <c>against</c>; a no does the opposite.</param>
public sealed record SymptomQuestion(string Id, string Question, string Yes);

/// <summary>A fault that can be heard or seen, what may cause it, and what to try, in order (<c>symptoms.json</c>).</summary>
/// <param name="Id">Its name in records.</param>
/// <param name="Name">Its name for people.</param>
/// <param name="Order">What is mended first: 0 that nobody is hurt, 1 that it sounds, 2 that it starts, 3 that it lasts, 4 that it is
/// straight, 5 how it sounds, 6 that it repeats.</param>
/// <param name="Causes">The likely causes, each a sentence.</param>
/// <param name="Tells">Signals that show it, beside its being heard in a take.</param>
/// <param name="Supports">Signals that make it likelier.</param>
/// <param name="Contradicts">Signals that make it less likely.</param>
/// <param name="Ask">A question that decides, or none.</param>
/// <param name="Fixes">What to try, in order.</param>
/// <param name="Basis">Where this comes from.</param>
public sealed record Symptom(
    string Id,
    string Name,
    int Order,
    IReadOnlyList<string> Causes,
    IReadOnlyList<string> Tells,
    IReadOnlyList<string> Supports,
    IReadOnlyList<string> Contradicts,
    SymptomQuestion? Ask,
    IReadOnlyList<Fix> Fixes,
    string Basis
)
{
    /// <summary>
    /// What a teacher's ear is asked where a sound may show it and nothing of the pupil's own tells; null where it is always told.
    /// </summary>
    public SymptomQuestion? Confirm { get; init; }

    /// <summary>
    /// The same symptom with a teacher's ladder: its rungs in the teacher's order and words, with those of the teacher's own. What ships
    /// keeps the approaches under which it is said. A ladder that is for somebody's health stays as it is.
    /// </summary>
    public Symptom With(IReadOnlyList<OwnRung> ladder) =>
        IsHealth || ladder.Count == 0
            ? this
            : this with
            {
                Fixes =
                [
                    .. ladder.Select(rung =>
                        Fixes.FirstOrDefault(fix => fix.Id == rung.Id) is { } shipped
                            ? shipped with
                            {
                                Cue = rung.Cue,
                                Pull = rung.Pull,
                                Drill = rung.Drill ?? shipped.Drill,
                            }
                            : new Fix(rung.Id, rung.Cue, rung.Pull, Drill: rung.Drill)
                    ),
                ],
            };

    /// <summary>The first of its causes.</summary>
    public string Cause => Causes[0];

    /// <summary>Whether somebody could be hurt: then the words are said whole, however many they are.</summary>
    public bool IsHealth => Order == 0;

    /// <summary>
    /// What an approach has to try, one after the other: while a pupil is tense, nothing that firms. The same words come once.
    /// </summary>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="tense">Whether the pupil measures pinched or forced, or the teacher has ticked tension.</param>
    public IReadOnlyList<Fix> Ladder(Approach approach, bool tense) =>
        [.. Fixes.Where(fix => fix.IsFor(approach) && !(tense && fix.Pull == Pull.Firm)).DistinctBy(fix => fix.Cue)];

    /// <summary>
    /// What to try now: of the ladder, what helped this pupil before comes first; what brought nothing three times in a row gives way to
    /// the next rung. <see cref="Fix.Rest"/> when nothing is left to say.
    /// </summary>
    /// <param name="approach">The teacher's approach.</param>
    /// <param name="tense">Whether no cue may firm.</param>
    /// <param name="cues">What came of earlier cues; null for nothing yet.</param>
    public Fix FixFor(Approach approach, bool tense, CueHistory? cues = null) =>
        (cues ?? CueHistory.Empty).Choose(Id, Ladder(approach, tense)) ?? Fix.Rest;
}
