using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Pages.Tone;

/// <summary>A take of notes as the record holds it.</summary>
/// <param name="Settings">The settings that were chosen; empty for those that come first.</param>
/// <param name="Trace">What was heard.</param>
/// <param name="Verdict">What was said of it.</param>
public sealed record StoredToneTake(string Settings, StoredTrace Trace, StoredVerdict Verdict) : StoredShape
{
    public static PayloadShape<TonePayload, StoredToneTake> Shape { get; } =
        new(
            take => new StoredToneTake(take.Settings, StoredTrace.Of(take.Trace), StoredVerdict.Of(take.Verdict)),
            stored => new TonePayload(stored.Settings, stored.Trace.Read(), stored.Verdict.Read())
        );
}
