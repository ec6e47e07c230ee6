using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Buzz;

/// <summary>A take of buzzes as the record holds it.</summary>
/// <param name="Measures">What was measured.</param>
/// <param name="Verdict">What was said of it.</param>
/// <param name="Threads">Its pitch over time.</param>
public sealed record StoredBuzzTake(StoredMeasures Measures, StoredVerdict Verdict, StoredThreads Threads) : StoredShape
{
    public static PayloadShape<BuzzPayload, StoredBuzzTake> Shape { get; } =
        new(
            take => new StoredBuzzTake(StoredMeasures.Of(take.Measures), StoredVerdict.Of(take.Verdict), StoredThreads.Of(take.Threads)),
            stored => new BuzzPayload(stored.Measures.Read(), stored.Verdict.Read(), stored.Threads.Read())
        );
}
