using Bocca.Core.Judging;
using Bocca.Web.Record;
using Microsoft.AspNetCore.Html;

namespace Bocca.Web.Frame.Takes;

/// <summary>What can be done with a take that was told.</summary>
/// <param name="Page">The page's address without the pupil: <c>/ear/count</c>.</param>
/// <param name="Take">The take.</param>
/// <param name="Onward">What the button says that accepts what it leads to.</param>
public sealed record TakeDeeds(string Page, Entry Take, string Onward)
{
    /// <summary>Where to go on from a take of which nothing is kept; null where none is private.</summary>
    public string? PrivateOnward { get; init; }

    /// <summary>What can be done beside; null for nothing.</summary>
    public Func<object?, IHtmlContent>? Beside { get; init; }
}

/// <summary>What was heard of a take, and what comes next, as every stop tells it.</summary>
/// <param name="Verdict">The verdict.</param>
/// <param name="Deeds">What can be done.</param>
public sealed record VerdictView(Verdict Verdict, TakeDeeds Deeds)
{
    /// <summary>Plays what was meant, beside the replay; null where the page has no such button here.</summary>
    public Func<object?, IHtmlContent>? Hear { get; init; }

    /// <summary>What stands under the reason; null for nothing.</summary>
    public Func<object?, IHtmlContent>? Aside { get; init; }

    /// <summary>What stands under the other numbers; null for nothing.</summary>
    public Func<object?, IHtmlContent>? More { get; init; }
}
