using Bocca.Core.Slurs;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Slurs;

/// <summary>A change between two partials, as it came.</summary>
/// <param name="Setting">Valves or slide.</param>
/// <param name="Low">The lower partial.</param>
/// <param name="High">The upper partial.</param>
/// <param name="Clean">Whether it came clean.</param>
/// <param name="At">When, UTC.</param>
public sealed record StoredChange(string Setting, int Low, int High, bool Clean, DateTime At) : StoredShape
{
    public static StoredChange Of(SlurMap.Change change) => new(change.Setting, change.Low, change.High, change.Clean, change.At);

    public SlurMap.Change Read() => new(Setting, Low, High, Clean, At);
}

/// <summary>A take of a slur as the record holds it.</summary>
/// <param name="Times">How often it was played.</param>
/// <param name="Trace">What was heard.</param>
/// <param name="Changes">How each change came.</param>
/// <param name="Verdict">What was said of it.</param>
public sealed record StoredSlurTake(int Times, StoredTrace Trace, IReadOnlyList<StoredChange> Changes, StoredVerdict Verdict) : StoredShape
{
    public static PayloadShape<SlurPayload, StoredSlurTake> Shape { get; } =
        new(
            take => new StoredSlurTake(
                take.Times,
                StoredTrace.Of(take.Trace),
                [.. take.Changes.Select(StoredChange.Of)],
                StoredVerdict.Of(take.Verdict)
            ),
            stored => new SlurPayload(
                stored.Times,
                stored.Trace.Read(),
                [.. stored.Changes.Select(each => each.Read())],
                stored.Verdict.Read()
            )
        );
}
