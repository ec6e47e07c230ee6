using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

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

    private static readonly JsonSerializerOptions Strict = FromElsewhere();

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options) ?? throw new InvalidDataException($"The record holds no {typeof(T).Name}.");

    /// <summary>Reads what has to be whole: a missing or empty part is an error.</summary>
    /// <exception cref="JsonException">Something is missing, null or of another kind.</exception>
    public static T ReadWhole<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Strict) ?? throw new JsonException($"There is no {typeof(T).Name}.");

    /// <summary>Reads what comes from elsewhere.</summary>
    /// <returns>The same as text, with nothing in it but what was read.</returns>
    /// <exception cref="JsonException">Something is missing, null or of another kind.</exception>
    /// <exception cref="ArgumentException">A number is none.</exception>
    public static string Checked<T>(string json) => Write(ReadWhole<T>(json));

    /// <summary>
    /// Options to read what comes from elsewhere: what may not be null has to be there, names of things are names, numbers numbers.
    /// </summary>
    public static JsonSerializerOptions FromElsewhere() =>
        new(JsonSerializerDefaults.Web)
        {
            IgnoreReadOnlyProperties = true,
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
            NumberHandling = JsonNumberHandling.Strict,
            RespectNullableAnnotations = true,
            Converters = { new JsonStringEnumConverter(allowIntegerValues: false) },
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { AskForAll } },
        };

    /// <summary>Asks for every part that may not be null and has no value of its own.</summary>
    private static void AskForAll(JsonTypeInfo info)
    {
        foreach (var property in info.Properties)
            if (property.AssociatedParameter is { HasDefaultValue: false, IsNullable: false } && !property.PropertyType.IsValueType)
                property.IsRequired = true;
    }
}
