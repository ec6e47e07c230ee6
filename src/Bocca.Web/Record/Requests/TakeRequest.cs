using System.ComponentModel.DataAnnotations;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;

namespace Bocca.Web.Record.Requests;

/// <summary>
/// What a take was asked to be, as it stood when Start was pressed: the drill, its notes with their times, the instrument as measured, the
/// tuning, the approach. It stands in the record once for all takes that were asked the same, and never changes.
/// </summary>
public sealed class TakeRequest
{
    public int Id { get; set; }

    /// <summary>Whose form the body has, as a stop has registered it.</summary>
    [MaxLength(20)]
    public required string Kind { get; set; }

    /// <summary>Which form of it: an older one is brought up when it is read.</summary>
    public int Version { get; set; }

    public required string Body { get; set; }

    /// <summary>SHA-256 of kind, version and body, in hexadecimal.</summary>
    [MaxLength(64)]
    public required string Hash { get; set; }

    public static TakeRequest Of(string kind, int version, string body) =>
        new()
        {
            Kind = kind,
            Version = version,
            Body = body,
            Hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{kind}\n{version}\n{body}"))),
        };
}

/// <summary>A kind of request as its stop registers it.</summary>
/// <param name="id">Its name in the record.</param>
public abstract class RequestKind(string id)
{
    public string Id => id;

    /// <summary>Sees to it that a request that comes from elsewhere can be shown.</summary>
    /// <returns>The same in today's form.</returns>
    /// <exception cref="InvalidDataException">It is none of this kind, or something in it is missing.</exception>
    /// <exception cref="ArgumentException">Something in it cannot be.</exception>
    public abstract TakeRequest Checked(TakeRequest request);
}

/// <summary>A kind of request with what is stored of it.</summary>
/// <typeparam name="T">Stored types inside only.</typeparam>
/// <param name="id">Its name in the record.</param>
public sealed class RequestKind<T>(string id) : RequestKind(id)
    where T : class
{
    /// <summary>The form that is written today.</summary>
    public int Version { get; init; } = 1;

    /// <summary>Brings a body of an older form up by one.</summary>
    public Func<int, JsonNode, JsonNode> Upcast { get; init; } = (_, body) => body;

    /// <summary>Makes of a request what the core hears and a page shows; throws where that cannot be.</summary>
    public Action<T> Resolve { get; init; } = _ => { };

    public TakeRequest Write(T asked) => TakeRequest.Of(Id, Version, Stored.Write(asked));

    public override TakeRequest Checked(TakeRequest request)
    {
        var asked = Read(request);
        Resolve(asked);
        return Write(asked);
    }

    /// <summary>Reads a request.</summary>
    /// <exception cref="InvalidDataException">It is of another kind, of a newer form, or something in it is missing.</exception>
    public T Read(TakeRequest request)
    {
        if (request.Kind != Id)
            throw new InvalidDataException($"A request of '{request.Kind}' is none of '{Id}'.");
        if (request.Version > Version)
            throw new InvalidDataException("The request of this take was written by a newer Bocca.");
        var body = JsonNode.Parse(request.Body)!;
        for (var version = request.Version; version < Version; version++)
            body = Upcast(version, body);
        try
        {
            return Stored.ReadWhole<T>(body.ToJsonString());
        }
        catch (System.Text.Json.JsonException problem)
        {
            throw new InvalidDataException($"The request {request.Id} of '{Id}' cannot be read: {problem.Message}");
        }
    }
}
