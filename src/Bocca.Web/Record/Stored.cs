using System.Text.Json;
using System.Text.Json.Serialization;

namespace Bocca.Web.Record;

/// <summary>How results of the core are written into the record: what can be computed from the rest is left out.</summary>
internal static class Stored
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        IgnoreReadOnlyProperties = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter() },
    };

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options) ?? throw new InvalidDataException($"The record holds no {typeof(T).Name}.");
}
