using System.Collections.Concurrent;

namespace Bocca.Web.Frame;

/// <summary>A form that was refused: it is shown once more with everything in it, and the sentence beside its field.</summary>
/// <param name="Action">The address that it was sent to, with its query.</param>
/// <param name="Sentence">What was wrong, and what to do.</param>
/// <param name="Field">The field that it is about; empty where only the sentence tells.</param>
/// <param name="Fields">What was typed, by the names of the fields.</param>
public sealed record RefusedForm(string Action, string Sentence, string Field, IReadOnlyDictionary<string, string[]> Fields);

/// <summary>
/// Forms that were refused, until their page is open again: in memory alone, for some minutes, and no more than a room sends in them.
/// </summary>
public sealed class RefusedForms(TimeProvider time)
{
    /// <summary>So many are held at once, for so long (ours).</summary>
    private const int Most = 64;

    private static readonly TimeSpan Holds = TimeSpan.FromMinutes(10);

    /// <summary>Letters of one form that are held: a longer one is refused and not held (ours).</summary>
    private const int MostLetters = 200_000;

    private readonly ConcurrentDictionary<string, (RefusedForm Form, DateTimeOffset Until)> _held = new();

    /// <summary>Whether a request is a form of a page, sent by a browser that waits for the next page.</summary>
    public static bool IsForm(HttpRequest request) =>
        HttpMethods.IsPost(request.Method) && request.HasFormContentType && request.Headers["Sec-Fetch-Mode"] == "navigate";

    /// <summary>Holds a form.</summary>
    /// <param name="request">As it came.</param>
    /// <param name="sentence">What was wrong.</param>
    /// <param name="field">The field that it is about; empty for none.</param>
    /// <returns>The name to ask for it by.</returns>
    public async Task<string> HoldAsync(HttpRequest request, string sentence, string field)
    {
        var form = await request.ReadFormAsync();
        var fields = form.Where(each => each.Key is not ("__RequestVerificationToken" or SavesInTurn.KeyField))
            .ToDictionary(each => each.Key, each => each.Value.Select(value => value ?? "").ToArray());
        if (fields.Sum(each => each.Value.Sum(value => value.Length)) > MostLetters)
            fields = [];
        var now = time.GetUtcNow();
        foreach (var (old, held) in _held)
            if (held.Until < now || _held.Count >= Most)
                _held.TryRemove(old, out _);
        var key = $"{Guid.NewGuid():N}";
        _held[key] = (new RefusedForm(request.Path + request.QueryString, sentence, field, fields), now + Holds);
        return key;
    }

    /// <summary>Gives a form out, once; null where it is not held any more.</summary>
    public RefusedForm? Take(string key) => _held.TryRemove(key, out var held) && held.Until >= time.GetUtcNow() ? held.Form : null;
}
