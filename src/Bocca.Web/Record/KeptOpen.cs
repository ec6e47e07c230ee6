using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Bocca.Web.Record;

/// <summary>
/// Keeps the connection to the record open from the first question of a request to its end, when the context lets go of it: opened for
/// each of its twenty questions, it would be made ready twenty times. Nothing is locked between two questions.
/// </summary>
public sealed class KeptOpen : DbConnectionInterceptor
{
    public override InterceptionResult ConnectionClosing(
        DbConnection connection,
        ConnectionEventData eventData,
        InterceptionResult result
    ) => InterceptionResult.Suppress();

    public override ValueTask<InterceptionResult> ConnectionClosingAsync(
        DbConnection connection,
        ConnectionEventData eventData,
        InterceptionResult result
    ) => ValueTask.FromResult(InterceptionResult.Suppress());
}
