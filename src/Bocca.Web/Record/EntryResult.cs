using System.Text.Json;
using System.Text.Json.Nodes;
using Bocca.Core.Judging;

namespace Bocca.Web.Record;

/// <summary>A number of a result under its name in the record, as its stop registers it.</summary>
/// <param name="Name">Its name; it stays.</param>
public sealed record ResultNumber(string Name)
{
    /// <summary>The gravest finding of a verdict: what was measured.</summary>
    public static ResultNumber Measured { get; } = new("measured");

    /// <summary>The same: what would have been right.</summary>
    public static ResultNumber Limit { get; } = new("limit");

    /// <summary>In how many tries it was found.</summary>
    public static ResultNumber Tries { get; } = new("tries");

    /// <summary>The number of an entry; null where its result has none such.</summary>
    public double? Of(Entry entry) => entry.Result[this];
}

/// <summary>
/// What came of an entry in short: a code, and numbers by name. It stands in a column of its own, so that lists, the Desk and the Record
/// read it and no payload.
/// </summary>
/// <param name="Code">What it is: the id of the gravest symptom; null where the numbers say all.</param>
public sealed record EntryResult(string? Code = null)
{
    /// <summary>The longest text of one, letters.</summary>
    public const int LongestText = 200;

    private const string CodeName = "code";

    /// <summary>Nothing.</summary>
    public static EntryResult None { get; } = new();

    private SortedDictionary<string, double> Numbers { get; init; } = new(StringComparer.Ordinal);

    /// <summary>A number of it; null where it has none such.</summary>
    public double? this[ResultNumber number] => Numbers.TryGetValue(number.Name, out var value) ? value : null;

    /// <summary>One number.</summary>
    public static EntryResult Of(ResultNumber number, double value) => None.With(number, value);

    /// <summary>The same with another number.</summary>
    /// <exception cref="ArgumentException">The value is none.</exception>
    public EntryResult With(ResultNumber number, double value) =>
        double.IsFinite(value)
            ? this with
            {
                Numbers = new SortedDictionary<string, double>(Numbers, StringComparer.Ordinal) { [number.Name] = value },
            }
            : throw new ArgumentException($"The {number.Name} of a result is {value}.");

    /// <summary>The same with what a verdict found first.</summary>
    public EntryResult With(Verdict verdict) =>
        verdict.Findings is not [var first, ..]
            ? this with
            {
                Code = null,
            }
            : (this with { Code = first.Symptom.Id })
                .With(ResultNumber.Measured, Math.Round(first.Measured, 2))
                .With(ResultNumber.Limit, Math.Round(first.Limit, 2))
                .With(ResultNumber.Tries, first.Tries.Count);

    /// <summary>Reads what <see cref="Written"/> wrote; null for nothing.</summary>
    /// <exception cref="InvalidDataException">It is none such.</exception>
    public static EntryResult Parse(string? text)
    {
        if (text is null)
            return None;
        try
        {
            var numbers = new SortedDictionary<string, double>(StringComparer.Ordinal);
            string? code = null;
            foreach (var (name, value) in JsonNode.Parse(text)!.AsObject())
                if (name == CodeName)
                    code = (string?)value;
                else
                    numbers[name] = (double)value!;
            return numbers.Values.All(double.IsFinite)
                ? new EntryResult(code) { Numbers = numbers }
                : throw new InvalidDataException("A number of a result is none.");
        }
        catch (Exception problem) when (problem is JsonException or InvalidOperationException or FormatException or NullReferenceException)
        {
            throw new InvalidDataException($"'{text}' is no result of an entry: {problem.Message}", problem);
        }
    }

    /// <summary>As it is stored; null for nothing.</summary>
    /// <exception cref="InvalidDataException">It is longer than a result may be.</exception>
    public string? Written()
    {
        if (Code is null && Numbers.Count == 0)
            return null;
        var written = new JsonObject();
        if (Code is not null)
            written[CodeName] = Code;
        foreach (var (name, value) in Numbers)
            written[name] = value;
        var text = written.ToJsonString();
        return text.Length <= LongestText ? text : throw new InvalidDataException($"A result of {text.Length} letters is too long: {text}");
    }
}
