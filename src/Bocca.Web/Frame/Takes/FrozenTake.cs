using Bocca.Core.Judging;
using Bocca.Core.Sound;
using Bocca.Web.Record;
using Bocca.Web.Record.Requests;

namespace Bocca.Web.Frame.Takes;

/// <summary>What a take was asked to be, as it comes back with the sound.</summary>
/// <param name="Under">What it was played on, and how the teacher wanted it then.</param>
/// <param name="Stored">The same as it stands in the record.</param>
/// <param name="Rebuilt">Whether it was made only now, as none came with the sound or it was too old.</param>
public record FrozenTake(AskedUnder Under, TakeRequest Stored, bool Rebuilt)
{
    /// <summary>When Start was pressed; null where it was made only now.</summary>
    public DateTime? Made { get; init; }

    /// <summary>The terms of then.</summary>
    public TakeTerms Terms { get; } = Under.Terms();
}

/// <summary>The same with what its stop asked.</summary>
/// <param name="Asked">What was asked.</param>
/// <param name="Stored">The same as it stands in the record.</param>
/// <param name="Rebuilt">Whether it was made only now.</param>
public sealed record FrozenTake<TRequest>(TRequest Asked, TakeRequest Stored, bool Rebuilt) : FrozenTake(Asked, Stored, Rebuilt)
    where TRequest : AskedUnder;

/// <summary>A sound that is to be heard.</summary>
/// <param name="Sound">The sound.</param>
/// <param name="Before">What the take of the same drill before it ended with, and its cue; null for none lately.</param>
public sealed record TakeToHear(MonoSound Sound, Verdict? Before);

/// <summary>A take that was heard, as it is written down.</summary>
/// <param name="Frozen">What it was asked to be.</param>
/// <param name="Entry">Its line of the record.</param>
/// <param name="Payload">What was heard, with the verdict.</param>
public sealed record WrittenTake<T>(FrozenTake Frozen, Entry Entry, T Payload)
    where T : class
{
    /// <summary>How much of it was played, of how much; the same twice for one that went to its end.</summary>
    public (int Played, int Asked) Length { get; init; }
}

/// <summary>Makes them.</summary>
public static class WrittenTake
{
    /// <summary>One of an entry and a payload.</summary>
    /// <param name="frozen">What it was asked to be.</param>
    /// <param name="take">The two.</param>
    /// <param name="played">How much of it was played.</param>
    /// <param name="asked">How much was asked.</param>
    public static WrittenTake<T> Of<T>(FrozenTake frozen, (Entry Entry, T Payload) take, int played, int asked)
        where T : class => new(frozen, take.Entry, take.Payload) { Length = (played, asked) };
}
