using System.Collections.Frozen;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Bocca.Web.Record.Shapes;

/// <summary>What the values of an enumeration are called in the record, whatever they are called in the code.</summary>
/// <typeparam name="T">The enumeration.</typeparam>
public sealed class Names<T>
    where T : struct, Enum
{
    private readonly FrozenDictionary<T, string> _names;
    private readonly FrozenDictionary<string, T> _values;

    /// <param name="names">Each value with its name.</param>
    /// <exception cref="InvalidOperationException">A value has no name, or two have the same.</exception>
    public Names(params IReadOnlyList<(T Value, string Name)> names)
    {
        _names = names.ToFrozenDictionary(each => each.Value, each => each.Name);
        _values = names.ToFrozenDictionary(each => each.Name, each => each.Value);
        if (Enum.GetValues<T>().FirstOrDefault(value => !_names.ContainsKey(value)) is var missing && !_names.ContainsKey(missing))
            throw new InvalidOperationException($"{typeof(T).Name}.{missing} has no name in the record.");
    }

    /// <summary>The name of a value.</summary>
    public string this[T value] => _names[value];

    /// <summary>The name of a value; null for none.</summary>
    public string? Of(T? value) => value is { } named ? _names[named] : null;

    /// <summary>The value of a name.</summary>
    /// <exception cref="InvalidDataException">There is none of this name.</exception>
    public T Read(string name) =>
        _values.TryGetValue(name, out var value)
            ? value
            : throw new InvalidDataException($"'{name}' is no {typeof(T).Name} of the record.");

    /// <summary>The value of a name; null where there is no name.</summary>
    /// <exception cref="InvalidDataException">There is none of this name.</exception>
    public T? ReadIf(string? name) => name is null ? null : Read(name);
}

/// <summary>Writes a choice by its name in the record, where a file holds it itself.</summary>
public sealed class NamesConverter<T>(Names<T> names) : JsonConverter<T>
    where T : struct, Enum
{
    public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        try
        {
            return names.Read(reader.TokenType == JsonTokenType.String ? reader.GetString()! : "");
        }
        catch (InvalidDataException problem)
        {
            throw new JsonException(problem.Message, problem);
        }
    }

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => writer.WriteStringValue(names[value]);
}
