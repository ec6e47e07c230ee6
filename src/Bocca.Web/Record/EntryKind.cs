using System.Text.Json;
using System.Text.Json.Nodes;
using Bocca.Core.Judging;
using Bocca.Web.Record.Shapes;

namespace Bocca.Web.Record;

/// <summary>
/// A kind of entry as its stop registers it: what it is called, where it is opened, how lists tell it, what it says for trends.
/// </summary>
/// <param name="id">Its name in the record.</param>
/// <param name="noun">Its name for people, with its article where it is told: <c>take</c>.</param>
public abstract class EntryKind(string id, string noun)
{
    public string Id => id;

    public string Noun => noun;

    /// <summary>The same for many of them.</summary>
    public string Plural { get; init; } = $"{noun}s";

    /// <summary>What was done, in a few words, for a list.</summary>
    public required Func<Entry, string> Title { get; init; }

    /// <summary>Where an entry is opened; null where its line says all.</summary>
    public Func<Entry, string>? Opens { get; init; }

    /// <summary>What a page says when one was taken from the record, and when it is back.</summary>
    public string Gone { get; init; } = $"The {noun} is gone from the record.";

    public string Back { get; init; } = $"The {noun} is back.";

    /// <summary>The drill of the steps that an entry answers, at its own stop.</summary>
    public Func<Entry, string?> StepDrill { get; init; } = entry => entry.DrillId;

    /// <summary>Makes a result of the number that older records have in the column Level; null where this kind had none.</summary>
    public Func<double, EntryResult>? OfOlderLevel { get; init; }

    /// <summary>Whether somebody decides if it is kept; what is not asked for stands at once.</summary>
    public bool IsTake { get; init; }

    /// <summary>After so many days what was passed wants to be done again; null for never.</summary>
    public Func<Entry, double?> DueAfterDays { get; init; } = _ => null;

    /// <summary>The figures of an entry, made from it and its payload.</summary>
    public abstract IEnumerable<Figure> FiguresOf(Entry entry);

    /// <summary>The verdict of a take whose payload was loaded; null for what is not judged.</summary>
    public virtual Verdict? VerdictOf(Entry entry) => null;

    /// <summary>Fills in the columns that follow from the payload, where an entry has one.</summary>
    public virtual void Complete(Entry entry) { }

    /// <summary>The payload of an entry in today's form, as it is stored; null where this kind has none.</summary>
    /// <exception cref="InvalidDataException">It was not loaded, or is of a newer form.</exception>
    public virtual JsonNode? BodyOf(Entry entry) => null;

    /// <summary>Reads a payload that comes from elsewhere, and puts it into today's form.</summary>
    /// <returns>It; null where this kind has none.</returns>
    /// <exception cref="InvalidDataException">It is missing, none of this kind, or of a newer form.</exception>
    /// <exception cref="ArgumentException">A number in it is none.</exception>
    public virtual EntryPayload? Checked(EntryPayload? payload) => null;

    /// <summary>What is stored of its payload; null where this kind has none.</summary>
    public virtual Type? Shaped => null;
}

/// <summary>A payload of what was judged.</summary>
public interface IJudgedPayload
{
    public Verdict Verdict { get; }
}

/// <summary>The same where the verdict may be told on.</summary>
/// <typeparam name="T">The payload itself.</typeparam>
public interface IJudgedPayload<out T> : IJudgedPayload
{
    /// <summary>The same with another verdict.</summary>
    public T With(Verdict verdict);
}

/// <summary>A kind whose columns say all.</summary>
public sealed class PlainKind(string id, string noun) : EntryKind(id, noun)
{
    public Func<Entry, IEnumerable<Figure>> Figures { get; init; } = _ => [];

    public override IEnumerable<Figure> FiguresOf(Entry entry) => Figures(entry);
}

/// <summary>A kind with a payload.</summary>
/// <typeparam name="T">The payload.</typeparam>
public sealed class EntryKind<T>(string id, string noun) : EntryKind(id, noun)
    where T : class
{
    /// <summary>How its payload is written and read.</summary>
    public required PayloadShape<T> Shape { get; init; }

    /// <summary>The form of the payload that is written today.</summary>
    public int Version { get; init; } = 1;

    /// <summary>Brings a payload of an older form up by one.</summary>
    public Func<int, JsonNode, JsonNode> Upcast { get; init; } = (_, body) => body;

    public Func<Entry, T, IEnumerable<Figure>> Figures { get; init; } = (_, _) => [];

    /// <summary>The columns that follow from the payload.</summary>
    public Action<Entry, T> Columns { get; init; } = (_, _) => { };

    public override Type Shaped => Shape.StoredType;

    public EntryPayload Write(T payload) => new() { Version = Version, Body = Shape.Write(payload) };

    /// <summary>Writes another payload in the place of the one that an entry has; what this version does not know of that stays.</summary>
    public void Rewrite(Entry entry, T payload)
    {
        var standing = entry.Payload!;
        (standing.Body, standing.Version) = (Shape.Rewrite(InForm(standing), payload), Version);
    }

    /// <summary>Reads the payload of an entry.</summary>
    /// <exception cref="InvalidDataException">
    /// It was not loaded, is of a newer form, or something in it is missing: the message names the entry.
    /// </exception>
    public T Read(Entry entry)
    {
        try
        {
            return Shape.Read(InForm(entry.Payload));
        }
        catch (Exception problem) when (problem is InvalidDataException or JsonException)
        {
            throw new InvalidDataException($"Entry {entry.Id} of kind '{Id}' cannot be read: {problem.Message}", problem);
        }
    }

    public override JsonNode? BodyOf(Entry entry) => JsonNode.Parse(InForm(entry.Payload));

    public override EntryPayload Checked(EntryPayload? payload)
    {
        try
        {
            return new EntryPayload { Version = Version, Body = Shape.Checked(InForm(payload)) };
        }
        catch (JsonException problem)
        {
            throw new InvalidDataException($"A {Noun} cannot be read: {problem.Message}", problem);
        }
    }

    /// <summary>A payload's body in the form that is written today.</summary>
    private string InForm(EntryPayload? payload)
    {
        if (payload is null)
            throw new InvalidDataException($"A {Noun} came without its payload.");
        if (payload.Version > Version)
            throw new InvalidDataException($"A {Noun} was written by a newer Bocca.");
        if (payload.Version == Version)
            return payload.Body;
        var body = JsonNode.Parse(payload.Body)!;
        for (var version = payload.Version; version < Version; version++)
            body = Upcast(version, body);
        return body.ToJsonString();
    }

    public override IEnumerable<Figure> FiguresOf(Entry entry) => Figures(entry, Read(entry));

    public override Verdict? VerdictOf(Entry entry) => entry.Payload is null ? null : (Read(entry) as IJudgedPayload)?.Verdict;

    public override void Complete(Entry entry) => Complete(entry, Read(entry));

    /// <summary>Fills in the columns that follow from a payload, and what came of the entry in short.</summary>
    public void Complete(Entry entry, T payload)
    {
        Columns(entry, payload);
        if (payload is IJudgedPayload { Verdict: var verdict })
            entry.Result = entry.Result.With(verdict);
    }
}

/// <summary>An entry with its payload read.</summary>
public sealed record Shown<T>(Entry Entry, T Payload);
