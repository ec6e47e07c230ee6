using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Bocca.Core.Breath;
using Bocca.Core.Health;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record;

/// <summary>How stored forms are written as text: nothing for null, and what is missing where it may not be is an error.</summary>
public static class Stored
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        IgnoreReadOnlyProperties = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    private static readonly JsonSerializerOptions Strict = FromElsewhere();

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads what has to be whole: a missing or empty part is an error.</summary>
    /// <exception cref="JsonException">Something is missing, null or of another kind.</exception>
    public static T ReadWhole<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Strict) ?? throw new JsonException($"There is no {typeof(T).Name}.");

    /// <summary>Puts into something that is written anew what this version does not know of what stood there.</summary>
    /// <param name="standing">What stood there.</param>
    /// <param name="written">The same, written anew.</param>
    public static string WithUnknown<T>(string standing, string written)
    {
        var tree = JsonNode.Parse(written);
        KeepUnknown(JsonNode.Parse(standing), tree, Strict.GetTypeInfo(typeof(T)));
        return tree!.ToJsonString(Options);
    }

    private static void KeepUnknown(JsonNode? standing, JsonNode? written, JsonTypeInfo info)
    {
        if (standing is JsonArray olds && written is JsonArray news && info.ElementType is { } element)
            foreach (var (old, renewed) in olds.Zip(news))
                KeepUnknown(old, renewed, Strict.GetTypeInfo(element));
        if (standing is not JsonObject from || written is not JsonObject into)
            return;
        var known = info.Properties.Where(property => !property.IsExtensionData).ToDictionary(property => property.Name);
        foreach (var (name, value) in from)
            if (known.TryGetValue(name, out var property))
                KeepUnknown(value, into[name], Strict.GetTypeInfo(property.PropertyType));
            else if (info.Properties.Any(each => each.IsExtensionData))
                into[name] = value?.DeepClone();
    }

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
            Converters =
            {
                new NamesConverter<LearningStage>(StoredNames.LearningStages),
                new NamesConverter<ApproachPreset>(StoredNames.Presets),
                new NamesConverter<BreathHealth>(StoredNames.HealthReasons),
                new NamesConverter<MouthNote>(StoredNames.MouthNotes),
                new NamesConverter<SoundStage>(StoredNames.SoundStages),
                new NamesConverter<EntrySource>(StoredNames.Sources),
                new NamesConverter<Outcome>(StoredNames.Outcomes),
            },
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { AskForAll } },
        };

    /// <summary>Asks for every part that may not be null and has no value of its own.</summary>
    private static void AskForAll(JsonTypeInfo info)
    {
        foreach (var property in info.Properties)
            if (property.AssociatedParameter is { HasDefaultValue: false, IsNullable: false })
                property.IsRequired = true;
    }
}
