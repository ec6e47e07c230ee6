using System.Text.Json;
using System.Text.Json.Serialization;
using Bocca.Core.Tone.Drills;

namespace Bocca.Core;

/// <summary>The data of the trade that ship inside the core, each file readable by its name.</summary>
internal static class EmbeddedData
{
    private static readonly JsonSerializerOptions Options = new()
    {
        PropertyNameCaseInsensitive = true,
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Skip,
        Converters = { new JsonStringEnumConverter(), new Phrases() },
    };

    /// <summary>Reads a data file into its type.</summary>
    /// <exception cref="InvalidDataException">The file is missing or does not fit; the message names it.</exception>
    public static T Read<T>(string name)
    {
        try
        {
            return Parse<T>(Text(name));
        }
        catch (JsonException problem)
        {
            throw new InvalidDataException($"The data file {name} does not fit: {problem.Message}", problem);
        }
    }

    public static T Parse<T>(string json) => JsonSerializer.Deserialize<T>(json, Options) ?? throw new JsonException("nothing in it.");

    /// <summary>Phrases stand in the data as they are read by people.</summary>
    private sealed class Phrases : JsonConverter<Phrase>
    {
        public override Phrase Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
        {
            try
            {
                return Phrase.Parse(reader.GetString() ?? "");
            }
            catch (FormatException problem)
            {
                throw new JsonException(problem.Message, problem);
            }
        }

        public override void Write(Utf8JsonWriter writer, Phrase value, JsonSerializerOptions options) => throw new NotSupportedException();
    }

    public static string Text(string name)
    {
        using var stream =
            typeof(EmbeddedData).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidDataException($"The data file {name} is missing from the core.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
