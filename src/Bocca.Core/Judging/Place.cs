using System.Text.Json;
using System.Text.Json.Serialization;

namespace Bocca.Core.Judging;

/// <summary>Where a step is done: a stop of the path by its name, such as <c>buzz</c>. Each chapter names its own.</summary>
/// <param name="Id">The name, in small letters.</param>
[JsonConverter(typeof(AsText))]
public readonly record struct Place(string Id)
{
    /// <inheritdoc/>
    public override string ToString() => Id;

    private sealed class AsText : JsonConverter<Place>
    {
        // Older records have the name with a capital.
        public override Place Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new(reader.GetString()?.ToLowerInvariant() ?? "");

        public override void Write(Utf8JsonWriter writer, Place value, JsonSerializerOptions options) => writer.WriteStringValue(value.Id);
    }
}
