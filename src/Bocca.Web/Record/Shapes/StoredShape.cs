using System.Text.Json;
using System.Text.Json.Serialization;

namespace Bocca.Web.Record.Shapes;

/// <summary>
/// Something as the record holds it. Its members are the record's own and do not follow when something is renamed in the core; what of it
/// this version does not know stays with it and is written again.
/// </summary>
public abstract record StoredShape
{
    /// <summary>Members that a version of elsewhere has written; null for none.</summary>
    [JsonExtensionData]
    public IDictionary<string, JsonElement>? Unknown { get; init; }
}
