using System.Text.Json;
using System.Text.Json.Nodes;
using Bocca.Core.Judging;
using Bocca.Core.Teaching;

namespace Bocca.Web.Record.Shapes;

/// <summary>A rung of a teacher's own ladder as the record holds it.</summary>
/// <param name="Id">Its name within the symptom.</param>
/// <param name="Cue">The words for the pupil.</param>
/// <param name="Pull">A name of <see cref="StoredNames.Pulls"/>.</param>
public sealed record StoredRung(string Id, string Cue, string Pull) : StoredShape
{
    public string? Drill { get; init; }

    public static StoredRung Of(OwnRung rung) => new(rung.Id, rung.Cue, StoredNames.Pulls[rung.Pull]) { Drill = rung.Drill };

    public OwnRung Read() => new(Id, Cue, StoredNames.Pulls.Read(Pull), Drill);
}

/// <summary>
/// What a teacher has set otherwise, as the record holds it: one object of texts, each under the id of what it sets. A number is written
/// as such, a phrase as it is said, a ladder under <c>cues.</c> and its symptom.
/// </summary>
public static class StoredOwn
{
    private const string Cues = "cues.";

    /// <summary>The pulls of ladders that were written before 2 December 2026, which had their place for a name.</summary>
    private static readonly string[] PullsByPlace = ["Neutral", "Firm", "Ease"];

    /// <summary>What is stored, read; empty for nothing.</summary>
    /// <exception cref="JsonException">It is none such.</exception>
    public static OwnSettings Read(string text) =>
        text == "" ? OwnSettings.None : OwnSettings.Of(JsonSerializer.Deserialize<Dictionary<string, string>>(text) ?? []);

    /// <summary>The same as it is stored; empty for nothing.</summary>
    public static string Write(OwnSettings own) => own.Values.Count == 0 ? "" : JsonSerializer.Serialize(own.Values);

    /// <summary>The id of a symptom's own ladder.</summary>
    public static string OfLadder(string symptomId) => $"{Cues}{symptomId}";

    /// <summary>Whether a setting is a ladder.</summary>
    public static bool IsLadder(string id) => id.StartsWith(Cues, StringComparison.Ordinal);

    /// <summary>A ladder as it is stored.</summary>
    public static string WriteLadder(IReadOnlyList<OwnRung> ladder) => Stored.Write(ladder.Select(StoredRung.Of).ToList());

    /// <summary>A stored ladder; an empty one where it cannot be read.</summary>
    public static IReadOnlyList<OwnRung> ReadLadder(string text)
    {
        try
        {
            var rungs = JsonNode.Parse(text)!.AsArray();
            foreach (var rung in rungs.OfType<JsonObject>())
                if (rung["Pull"] is JsonValue place && place.TryGetValue<int>(out var at) && at >= 0 && at < PullsByPlace.Length)
                    rung["Pull"] = PullsByPlace[at];
            return [.. Stored.ReadWhole<List<StoredRung>>(rungs.ToJsonString()).Select(rung => rung.Read())];
        }
        catch (Exception problem) when (problem is JsonException or InvalidDataException or InvalidOperationException)
        {
            return [];
        }
    }

    /// <summary>The symptoms with a teacher's own ladders.</summary>
    public static SymptomTable Symptoms(this OwnSettings own) =>
        SymptomTable.Shipped.With(own.Paths.Where(IsLadder).ToDictionary(path => path[Cues.Length..], path => ReadLadder(own[path]!)));
}
